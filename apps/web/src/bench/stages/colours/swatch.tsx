import type { PaintPart } from '@lambent/core/document';

/** A paint as a small picture: a line in its colour, or a field of it. */
export function Swatch({ part, colour, joined = false }: { part: PaintPart; colour: string; joined?: boolean }) {
  if (joined) return <span className="h-5 w-5" style={{ background: colour }} aria-hidden />;
  return (
    <span
      className="flex h-7 w-7 shrink-0 items-center justify-center rounded-md border border-line bg-white"
      aria-hidden
    >
      {part === 'stroke' ? (
        <span className="w-5" style={{ borderTop: `2px solid ${colour}` }} />
      ) : (
        <span className="h-full w-full rounded-[5px]" style={{ background: colour }} />
      )}
    </span>
  );
}
