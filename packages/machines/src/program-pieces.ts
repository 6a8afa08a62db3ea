import type { ProgramLine } from './driver.ts';

/** A line as it is sent: numbered (N), and one of several where the program's line would take long. */
export interface Piece {
  readonly text: string;
  readonly seconds: number;
}

/** No burning line is sent that takes longer, in seconds. */
export const longestPieceS = 0.5;

const straight = /^G1 X(-?[\d.]+) Y(-?[\d.]+)(.*)$/;
const travel = /^G0 X(-?[\d.]+) Y(-?[\d.]+)/;
const standing = /^G4 P([\d.]+)$/;

/**
 * Parts a program (RS-274, absolute, in mm) into pieces that are sent one by one: what burns or stands for long is cut
 * into short moves along the same line, so that never much of it waits in the machine. The pieces of a program are
 * always the same. Each bears the number of the last program line that is done when it is.
 */
export async function* programPieces(lines: AsyncIterable<ProgramLine>): AsyncGenerator<Piece> {
  let n = 0;
  let from: { x: number; y: number } | null = null;
  for await (const { text, seconds } of lines) {
    n++;
    const count = Math.ceil(seconds / longestPieceS);
    const share = seconds / Math.max(1, count);
    const [, x, y, words] = straight.exec(text) ?? [];
    const [, waits] = standing.exec(text) ?? [];
    if (count > 1 && x !== undefined && from) {
      const to = { x: Number(x), y: Number(y) };
      for (let i = 1; i < count; i++) {
        const place = `X${along(from.x, to.x, i / count)} Y${along(from.y, to.y, i / count)}`;
        yield { text: `N${n - 1} G1 ${place}${i === 1 ? words : ''}`, seconds: share };
      }
      yield { text: `N${n} G1 X${x} Y${y}`, seconds: share };
    } else if (count > 1 && waits !== undefined) {
      const part = Number((Number(waits) / count).toFixed(6));
      for (let i = 1; i < count; i++) yield { text: `N${n - 1} G4 P${part}`, seconds: share };
      yield { text: `N${n} G4 P${Number((Number(waits) - part * (count - 1)).toFixed(6))}`, seconds: share };
    } else yield { text: `N${n} ${text}`, seconds: travel.test(text) ? 0 : seconds };
    const [, toX, toY] = straight.exec(text) ?? travel.exec(text) ?? [];
    if (toX !== undefined) from = { x: Number(toX), y: Number(toY) };
  }
}

function along(a: number, b: number, share: number): number {
  return Number((a + (b - a) * share).toFixed(3)) || 0;
}
