import type { Point } from './matrix.ts';
import { cubicAt } from './path.ts';
import type { Segment } from './segments.ts';

/** A circular arc from one point to another: the tangent of a quarter of its angle, as DXF writes it. */
export interface Arc {
  readonly cx: number;
  readonly cy: number;
  readonly radius: number;
  /** In radians; the sign says which way round. */
  readonly span: number;
}

/** Where between its ends a cubic is looked at, the middle apart; first where one that is no arc strays most. */
const samples = [0.25, 0.75, 0.1, 0.9, 0.4, 0.6];

/** The circular arc that a cubic is within `tolerance`, of up to half a turn; null when it is none. */
export function arcOfCubic(c: Segment, tolerance: number): Arc | null {
  const mx = cubicAt(c[0], c[2], c[4], c[6], 0.5);
  const my = cubicAt(c[1], c[3], c[5], c[7], 0.5);
  const centre = centreThrough({ x: c[0], y: c[1] }, { x: mx, y: my }, { x: c[6], y: c[7] });
  if (!centre) return null;
  const { x: cx, y: cy } = centre;
  const radius = Math.sqrt((mx - cx) ** 2 + (my - cy) ** 2);
  for (const t of samples) {
    const x = cubicAt(c[0], c[2], c[4], c[6], t) - cx;
    const y = cubicAt(c[1], c[3], c[5], c[7], t) - cy;
    if (Math.abs(Math.sqrt(x * x + y * y) - radius) > tolerance) return null;
  }
  const turn = (px: number, py: number, qx: number, qy: number) => Math.atan2(px * qy - py * qx, px * qx + py * qy);
  const span = turn(c[0] - cx, c[1] - cy, mx - cx, my - cy) + turn(mx - cx, my - cy, c[6] - cx, c[7] - cy);
  return Math.abs(span) > Math.PI + 1e-9 ? null : { cx, cy, radius, span };
}

/** The centre of the circle through three points; null when they stand in a line. */
export function centreThrough(a: Point, middle: Point, b: Point): Point | null {
  const [ax, ay] = [a.x - middle.x, a.y - middle.y];
  const [bx, by] = [b.x - middle.x, b.y - middle.y];
  const twice = 2 * (ax * by - ay * bx);
  const [aa, bb] = [ax * ax + ay * ay, bx * bx + by * by];
  if (Math.abs(twice) < 1e-9 * (aa + bb)) return null;
  return { x: middle.x + (by * aa - ay * bb) / twice, y: middle.y + (ax * bb - bx * aa) / twice };
}
