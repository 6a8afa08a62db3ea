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

/** A line of nothing but a straight move's words, in any order. */
const straight = /^(?: ?(?:G[01](?![\d.])|[XYFS]-?[\d.]+))+$/;
const standing = /^G4 ?P([\d.]+)$/;

/**
 * Parts a program (RS-274, absolute, in mm) into pieces that are sent one by one: what burns or stands for long is cut
 * into short moves along the same line, so that never much of it waits in the machine. The pieces of a program are
 * always the same.
 */
export async function* programPieces(lines: AsyncIterable<ProgramLine>): AsyncGenerator<Piece> {
  let n = 0;
  let code = '';
  let from: Place | null = null;
  for await (const { text, seconds } of lines) {
    n++;
    const count = Math.ceil(seconds / longestPieceS);
    const share = seconds / Math.max(1, count);
    const move = straight.test(text) ? moveIn(text) : null;
    code = move?.code ?? code;
    const to: Place | null = move && (move.x !== null || move.y !== null) ? placeOf(move, from) : null;
    const [, waits] = standing.exec(text) ?? [];
    if (count > 1 && code === 'G1' && from && to) {
      for (let i = 1; i < count; i++) {
        const place = `X${along(from.x, to.x, i / count)} Y${along(from.y, to.y, i / count)}`;
        yield { line: n - 1, text: `G1 ${place}${i === 1 ? move?.others : ''}`, seconds: share };
      }
      yield { line: n, text: `G1 X${to.x} Y${to.y}`, seconds: share };
    } else if (count > 1 && waits !== undefined) {
      const part = Number((Number(waits) / count).toFixed(6));
      for (let i = 1; i < count; i++) yield { line: n - 1, text: `G4 P${part}`, seconds: share };
      yield { line: n, text: `G4 P${Number((Number(waits) - part * (count - 1)).toFixed(6))}`, seconds: share };
    } else yield { line: n, text, seconds: to && code === 'G0' ? 0 : seconds };
    from = to ?? from;
  }
}

/** What a line says of a straight move: its code holds on where it is not said anew, and so do X and Y. */
function moveIn(text: string) {
  const words = [...text.matchAll(/([GXYFS])(-?[\d.]+)/g)];
  const wordOf = (letter: string) => words.find(([, own]) => own === letter)?.[2] ?? null;
  const code = wordOf('G');
  const others = words.flatMap(([word, letter]) => (letter === 'F' || letter === 'S' ? [` ${word}`] : [])).join('');
  return { code: code === null ? null : `G${code}`, x: wordOf('X'), y: wordOf('Y'), others };
}

/** Where a move ends; null where that cannot be told yet. */
function placeOf({ x, y }: { x: string | null; y: string | null }, from: Place | null): Place | null {
  const place = { x: Number(x ?? from?.x), y: Number(y ?? from?.y) };
  return Number.isNaN(place.x) || Number.isNaN(place.y) ? null : place;
}

function along(a: number, b: number, share: number): number {
  return Number((a + (b - a) * share).toFixed(3)) || 0;
}
