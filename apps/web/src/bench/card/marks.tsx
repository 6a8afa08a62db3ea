import type { CardMark } from '@lambent/core/document';
import { Check, Flame, Minus, Star } from 'lucide-react';

/** A mark has a hue and a sign of its own. */
export const markLook: Record<CardMark | 'best', { colour: string; Icon: typeof Check }> = {
  under: { colour: '#3E6C86', Icon: Minus },
  good: { colour: '#2E7A4C', Icon: Check },
  over: { colour: '#B3261E', Icon: Flame },
  best: { colour: '#8A5A00', Icon: Star },
};

/** A mark of a card's cell as a sign; its name stands beside it. */
export function MarkSign({ mark, size = 14 }: { mark: CardMark | 'best'; size?: number }) {
  const { colour, Icon } = markLook[mark];
  return (
    <span
      className="inline-flex shrink-0 items-center justify-center rounded-full text-white"
      style={{ background: colour, width: size + 6, height: size + 6 }}
      aria-hidden
    >
      <Icon size={size} strokeWidth={2.6} />
    </span>
  );
}
