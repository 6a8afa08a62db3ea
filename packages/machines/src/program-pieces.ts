import type { ProgramLine } from './driver.ts';

/** What is sent at a time: a line, or one of several where the program's line would take long. */
export interface Piece {
  /** The last program line that is done when it is. */
  readonly line: number;
  readonly text: string;
  readonly seconds: number;
}

interface Place {
  readonly x: number;
  readonly y: number;
}

/** No burning line is sent that takes longer, in seconds. */
export const longestPieceS = 0.5;

/** A line of nothing but a move's words, in any order. */
const moving = /^(?: ?(?:G[0-3](?![\d.])|[XYIJFS]-?[\d.]+))+$/;
const burning = /^G[123]$/;
const standing = /^G4 ?P([\d.]+)$/;

/**
 * Parts a program (RS-274, absolute, in mm) into pieces that are sent one by one. What burns or stands for long is cut into
 * short moves along the same line or arc: so never much of it waits in the machine. The pieces of a program are always
 * the same.
 */
export async function* programPieces(lines: AsyncIterable<ProgramLine>): AsyncGenerator<Piece> {
  let n = 0;
  let code = '';
  let from: Place | null = null;
  for await (const { text, seconds } of lines) {
    n++;
    const count = Math.ceil(seconds / longestPieceS);
    const share = seconds / Math.max(1, count);
    const move = moving.test(text) ? moveIn(text) : null;
    code = move?.code ?? code;
    const to: Place | null = move && (move.x !== null || move.y !== null) ? placeOf(move, from) : null;
    const [, waits] = standing.exec(text) ?? [];
    if (count > 1 && burning.test(code) && move && from && to) {
      const parts = code === 'G1' ? wayInParts(from, to, count) : arcInParts(code, from, to, move, count);
      for (const [i, words] of parts.entries()) {
        const line = i === count - 1 ? n : n - 1;
        yield { line, text: `${code} ${words}${i === 0 ? move.others : ''}`, seconds: share };
      }
    } else if (count > 1 && waits !== undefined) {
      const part = Number((Number(waits) / count).toFixed(6));
      for (let i = 1; i < count; i++) yield { line: n - 1, text: `G4 P${part}`, seconds: share };
      yield { line: n, text: `G4 P${Number((Number(waits) - part * (count - 1)).toFixed(6))}`, seconds: share };
    } else yield { line: n, text, seconds: to && code === 'G0' ? 0 : seconds };
    from = to ?? from;
  }
}

/** The words of a straight way's equal parts. */
function wayInParts(from: Place, to: Place, count: number): string[] {
  return Array.from({ length: count }, (_, i) => {
    const share = (i + 1) / count;
    return `X${rounded(from.x + (to.x - from.x) * share)} Y${rounded(from.y + (to.y - from.y) * share)}`;
  });
}

/** The words of an arc's equal parts, each with its centre as it is seen from where the part begins. */
function arcInParts(
  code: string,
  from: Place,
  to: Place,
  { i, j }: { readonly i: number; readonly j: number },
  count: number,
): string[] {
  const [cx, cy] = [from.x + i, from.y + j];
  const counter = Math.atan2(-i * (to.y - cy) + j * (to.x - cx), -i * (to.x - cx) - j * (to.y - cy));
  const angle = code === 'G2' ? -counter : counter;
  const turn = (angle > 0 ? angle : angle + 2 * Math.PI) * (code === 'G2' ? -1 : 1);
  let begin = from;
  return Array.from({ length: count }, (_, part) => {
    const [cos, sin] = [Math.cos((turn * (part + 1)) / count), Math.sin((turn * (part + 1)) / count)];
    const there = { x: rounded(cx - i * cos + j * sin), y: rounded(cy - i * sin - j * cos) };
    const end = part === count - 1 ? to : there;
    const words = `X${end.x} Y${end.y} I${rounded(cx - begin.x)} J${rounded(cy - begin.y)}`;
    begin = end;
    return words;
  });
}

/** What a line says of a move: its code holds on where it is not said anew, and so do X and Y. */
function moveIn(text: string) {
  const words = [...text.matchAll(/([GXYIJFS])(-?[\d.]+)/g)];
  const wordOf = (letter: string) => words.find(([, own]) => own === letter)?.[2] ?? null;
  const code = wordOf('G');
  const others = words.flatMap(([word, letter]) => (letter === 'F' || letter === 'S' ? [` ${word}`] : [])).join('');
  const centre = { i: Number(wordOf('I') ?? 0), j: Number(wordOf('J') ?? 0) };
  return { code: code === null ? null : `G${code}`, x: wordOf('X'), y: wordOf('Y'), ...centre, others };
}

/** Where a move ends; null where that cannot be told yet. */
function placeOf({ x, y }: { x: string | null; y: string | null }, from: Place | null): Place | null {
  const place = { x: Number(x ?? from?.x), y: Number(y ?? from?.y) };
  return Number.isNaN(place.x) || Number.isNaN(place.y) ? null : place;
}

function rounded(mm: number): number {
  return Number(mm.toFixed(3)) || 0;
}
