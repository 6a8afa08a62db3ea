import type { ProgramWays } from '@lambent/core/formats';
import type { View } from '../bed/view.ts';

/** The first move of a program that stands in a line, or after it; the last one where none does. */
export function moveOfLine({ lines }: Pick<ProgramWays, 'lines'>, line: number): number {
  const found = lines.findIndex((known) => known >= line);
  return found < 0 ? lines.length - 1 : found;
}

/** Draws what moves burn, from one up to another, which is left out. @param width in pixels */
export function strokeWays(
  context: CanvasRenderingContext2D,
  { scale }: Pick<View, 'scale'>,
  { xs, ys, lit }: ProgramWays,
  [from, to]: readonly [number, number],
  ink: string,
  width: number,
): void {
  context.beginPath();
  for (let i = Math.max(1, from); i < to; i++) {
    if (lit[i] !== 1) continue;
    if (i === Math.max(1, from) || lit[i - 1] !== 1) context.moveTo(xs[i - 1], ys[i - 1]);
    context.lineTo(xs[i], ys[i]);
  }
  context.strokeStyle = ink;
  context.lineWidth = width / scale;
  context.stroke();
}
