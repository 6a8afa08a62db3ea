import type { Point } from '../geometry/paths/matrix.ts';
import type { Machine } from './machine.ts';

/*
 * How the axes of a machine truly run: measured on a burnt square, taken back in its programs.
 */

/** Told X and Y, its head goes x · X + lean · Y along X, and y · Y along Y. */
type Axes = NonNullable<Machine['axes']>;
type WithAxes = Pick<Machine, 'axes'>;

/** What a machine has to be told so that its head comes to a place, in mm in its own frame. */
export function toldPlace({ axes }: WithAxes, { x, y }: Point): Point {
  if (!axes) return { x, y };
  const along = y / axes.y;
  return { x: (x - axes.lean * along) / axes.x, y: along };
}

/** Where its head truly comes that is told a place, in mm in its own frame. */
export function truePlace({ axes }: WithAxes, { x, y }: Point): Point {
  return axes ? { x: axes.x * x + axes.lean * y, y: axes.y * y } : { x, y };
}

/** A burnt square as it was measured, in mm. */
export interface MeasuredSquare {
  /** How long its sides were drawn. */
  readonly drawn: number;
  readonly alongX: number;
  readonly alongY: number;
  /** Its diagonal from the corner at the lowest X and the lowest Y, and the other one. */
  readonly rising: number;
  readonly falling: number;
}

/** Sides and diagonals that are off by more than this share were measured wrongly, or say that something else is. */
const mostOff = 0.1;

/**
 * How the axes run, by a square that was burnt with what was taken back of them by then. Of a parallelogram with the sides a
 * and b, rising² − falling² = 4·a·b·cos of its angle.
 *
 * @returns null where the sides and diagonals are not those of a square that is nearly one.
 */
export function axesOfSquare({ axes = straight }: WithAxes, square: MeasuredSquare): Axes | null {
  const { drawn, alongX, alongY, rising, falling } = square;
  const off = [alongX, alongY, rising / Math.SQRT2, falling / Math.SQRT2].map((mm) => Math.abs(mm / drawn - 1));
  if (!off.every((share) => share <= mostOff)) return null;
  const cosine = (rising ** 2 - falling ** 2) / (4 * alongX * alongY);
  const x = alongX / drawn;
  const lean = (alongY / drawn) * cosine;
  const y = (alongY / drawn) * Math.sqrt(1 - cosine ** 2);
  // What was seen came of what is so, and of what was taken back.
  return { x: x * axes.x, y: y * axes.y, lean: x * axes.lean + lean * axes.y };
}

const straight: Axes = { x: 1, y: 1, lean: 0 };
