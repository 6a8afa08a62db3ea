/** An affine map, x' = a·x + c·y + e, y' = b·x + d·y + f, in the order SVG writes it. */
export type Matrix = readonly [a: number, b: number, c: number, d: number, e: number, f: number];

export interface Point {
  readonly x: number;
  readonly y: number;
}

export const identity: Matrix = [1, 0, 0, 1, 0, 0];

/** Whether a matrix leaves everything where it is. */
export function isIdentity([a, b, c, d, e, f]: Matrix): boolean {
  return a === 1 && b === 0 && c === 0 && d === 1 && e === 0 && f === 0;
}

/** The map that applies `inner` first, then `outer`. */
export function multiply(outer: Matrix, inner: Matrix): Matrix {
  // By index: this is called for every element of a file and every item of a drawing.
  const a = outer[0];
  const b = outer[1];
  const c = outer[2];
  const d = outer[3];
  return [
    a * inner[0] + c * inner[1],
    b * inner[0] + d * inner[1],
    a * inner[2] + c * inner[3],
    b * inner[2] + d * inner[3],
    a * inner[4] + c * inner[5] + outer[4],
    b * inner[4] + d * inner[5] + outer[5],
  ];
}

/**
 * Multiplies one matrix after another by the same outer one. The same matrix several times in a row gives the same
 * product: items of one file mostly share theirs, and share it still when they are moved.
 */
export function multiplierBy(outer: Matrix): (inner: Matrix) => Matrix {
  let last: Matrix | null = null;
  let product = outer;
  return (inner) => {
    if (inner !== last) {
      product = multiply(outer, inner);
      last = inner;
    }
    return product;
  };
}

/** The map that undoes `m`; null when `m` flattens everything onto a line or a point. */
export function invert(m: Matrix): Matrix | null {
  const det = determinant(m);
  if (!Number.isFinite(1 / det)) return null;
  const [a, b, c, d, e, f] = m;
  return [d / det, -b / det, -c / det, a / det, (c * f - d * e) / det, (b * e - a * f) / det];
}

/** Moves by so much. */
export function translation(dx: number, dy: number): Matrix {
  return [1, 0, 0, 1, dx, dy];
}

/** Scaling by `sx`, `sy` about a point that stays put. */
export function scaling(sx: number, sy: number, about: Point = { x: 0, y: 0 }): Matrix {
  return [sx, 0, 0, sy, about.x * (1 - sx), about.y * (1 - sy)];
}

/** Turning by `degrees`, clockwise on the screen (y points down), about a point that stays put. */
export function rotation(degrees: number, about: Point = { x: 0, y: 0 }): Matrix {
  const [cos, sin] = exactTurn(degrees);
  return [cos, sin, -sin, cos, about.x - cos * about.x + sin * about.y, about.y - sin * about.x - cos * about.y];
}

/** Cosine and sine, exact at quarter turns so that a square stays square. */
function exactTurn(degrees: number): [cos: number, sin: number] {
  const turn = ((degrees % 360) + 360) % 360;
  if (turn === 0) return [1, 0];
  if (turn === 90) return [0, 1];
  if (turn === 180) return [-1, 0];
  if (turn === 270) return [0, -1];
  const angle = (degrees * Math.PI) / 180;
  return [Math.cos(angle), Math.sin(angle)];
}

/** Where a matrix takes a point. */
export function applyTo(m: Matrix, x: number, y: number): Point {
  return { x: m[0] * x + m[2] * y + m[4], y: m[1] * x + m[3] * y + m[5] };
}

/** By what areas grow under a matrix; below 0 where it mirrors. */
export function determinant(m: Matrix): number {
  return m[0] * m[3] - m[1] * m[2];
}

/** The factor by which the map grows lengths on average: the root of how it grows areas. */
export function meanScale(m: Matrix): number {
  return Math.sqrt(Math.abs(determinant(m)));
}

/** Whether all six numbers are finite. */
export function isFiniteMatrix(m: Matrix): boolean {
  return m.every(Number.isFinite);
}

/** Whether a map stretches one way more than the other by over a hundredth. */
export function isUneven([a, b, c, d]: Matrix): boolean {
  const [p, q] = [a * a + b * b, c * c + d * d];
  const cross = Math.abs(a * c + b * d);
  return Math.abs(p - q) > 0.02 * Math.max(p, q) || cross > 0.02 * Math.max(p, q);
}
