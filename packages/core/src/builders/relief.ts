import { addEllipticArc } from '../geometry/paths/arc.ts';
import type { PathBuilder } from '../geometry/paths/path.ts';

/** What is cut away in a part's inner corners, so that a square corner goes in: nothing, a round one, or one to a side. */
export type Relief = 'none' | 'bone' | 'tee';

/** A right angle of a ring that its material goes round: the corner, and where one comes from and goes to. */
interface InnerCorner {
  readonly index: number;
  readonly x: number;
  readonly y: number;
  /** Unit vectors along the edges, both away from the corner, and how long these are. */
  readonly back: readonly [number, number];
  readonly on: readonly [number, number];
  readonly backMm: number;
  readonly onMm: number;
}

/** The inner corners of a ring: of an outline those that turn against it, of a hole all that turn with it. */
function innerCorners(ring: readonly number[], isHole: boolean): InnerCorner[] {
  const count = ring.length / 2;
  const point = (i: number) => [ring[2 * ((i + count) % count)], ring[2 * ((i + count) % count) + 1]] as const;
  let area = 0;
  for (let i = 0; i < count; i++) area += point(i)[0] * point(i + 1)[1] - point(i + 1)[0] * point(i)[1];
  const corners: InnerCorner[] = [];
  for (let i = 0; i < count; i++) {
    const [[px, py], [x, y], [nx, ny]] = [point(i - 1), point(i), point(i + 1)];
    const [backMm, onMm] = [Math.hypot(px - x, py - y), Math.hypot(nx - x, ny - y)];
    const back = [(px - x) / backMm, (py - y) / backMm] as const;
    const on = [(nx - x) / onMm, (ny - y) / onMm] as const;
    const turn = back[1] * on[0] - back[0] * on[1];
    if (Math.abs(Math.abs(turn) - 1) > 1e-9 || turn * area > 0 !== isHole) continue;
    corners.push({ index: i, x, y, back, on, backMm, onMm });
  }
  return corners;
}

/** How far from its corner relief begins on the edge before it, and on the edge after it, for a radius of 1. */
function reaches(relief: Relief, { backMm, onMm }: InnerCorner): readonly [number, number] {
  if (relief === 'bone') return [Math.SQRT2, Math.SQRT2];
  // Along the longer edge, which is the ground of a gap.
  return backMm > onMm ? [2, 0] : [0, 2];
}

/** The largest radius of relief that a ring has room for, in mm. */
export function mostRelief(ring: readonly number[], isHole: boolean, relief: Relief): number {
  const count = ring.length / 2;
  const corners = new Map(innerCorners(ring, isHole).map((corner) => [corner.index, corner]));
  let most = Number.POSITIVE_INFINITY;
  for (const [i, corner] of corners) {
    const next = corners.get((i + 1) % count);
    const [back, on] = reaches(relief, corner);
    const taken = on + (next ? reaches(relief, next)[0] : 0);
    if (taken > 0) most = Math.min(most, corner.onMm / taken);
    if (back > 0 && !corners.has((i + count - 1) % count)) most = Math.min(most, corner.backMm / back);
  }
  return most;
}

/** An edge of a ring that is an arc: its centre, and how far it goes round it in radians. */
export interface Bow {
  readonly cx: number;
  readonly cy: number;
  readonly span: number;
}

/**
 * Adds a ring with relief in its inner corners.
 *
 * @param radius of relief in mm, no more than `mostRelief`.
 * @param bows edges that are arcs, by the index of the point that they begin at.
 */
export function addRelieved(
  builder: PathBuilder,
  ring: readonly number[],
  isHole: boolean,
  relief: Relief,
  radius: number,
  bows: ReadonlyMap<number, Bow> = new Map(),
): void {
  const found = relief === 'none' ? [] : innerCorners(ring, isHole);
  const corners = new Map(found.map((corner) => [corner.index, corner]));
  let isFirst = true;
  const to = (x: number, y: number) => {
    if (isFirst) builder.moveTo(x, y);
    else if (Math.hypot(x - builder.x, y - builder.y) > 1e-9) builder.lineTo(x, y);
    isFirst = false;
  };
  for (let i = 0; i < ring.length / 2; i++) {
    const corner = corners.get(i);
    const [x, y] = [ring[2 * i], ring[2 * i + 1]];
    if (!corner) {
      to(x, y);
      const bow = bows.get(i);
      if (bow) {
        const { cx, cy, span } = bow;
        const size = Math.hypot(x - cx, y - cy);
        addEllipticArc(builder, cx, cy, size, size, 0, Math.atan2(y - cy, x - cx), span);
      }
      continue;
    }
    const [back, on] = reaches(relief, corner).map((reach) => reach * radius);
    const from = [x + corner.back[0] * back, y + corner.back[1] * back] as const;
    const end = [x + corner.on[0] * on, y + corner.on[1] * on] as const;
    // Half a circle, away from what is free: from the one place to the other, whose middle is its centre.
    const [cx, cy] = [(from[0] + end[0]) / 2, (from[1] + end[1]) / 2];
    const turn = corner.back[0] * corner.on[1] - corner.back[1] * corner.on[0];
    to(...from);
    const start = Math.atan2(from[1] - cy, from[0] - cx);
    addEllipticArc(builder, cx, cy, radius, radius, 0, start, -Math.sign(turn) * Math.PI);
  }
  builder.close();
}
