import type { Polyline } from '../geometry/paths/flatten.ts';
import type { Point } from '../geometry/paths/matrix.ts';
import { nearestOnLine } from '../geometry/questions/distance.ts';

/** A stretch of a closed path that stays unlit, in mm along it from its first point; beyond its length it goes on from there. */
export interface Gap {
  readonly from: number;
  readonly to: number;
}

/** The gaps of a path of the beam that leave tabs so wide in the stock, in mm; gaps that meet are one. */
export function tabGaps(path: Polyline, places: readonly Point[], tabMm: number, kerfMm: number): Gap[] {
  const along = lengthsAlong(path);
  const total = along[along.length - 1];
  // At both ends of a gap the beam still takes half its width.
  const half = (tabMm + kerfMm) / 2;
  if (places.length === 0 || half <= 0 || total === 0) return [];
  const middles = places.map((place) => nearestAlong(path, along, place)).sort((a, b) => a - b);
  const gaps: { from: number; to: number }[] = [];
  for (const middle of middles) {
    const last = gaps[gaps.length - 1];
    if (last && middle - half <= last.to) last.to = middle + half;
    else gaps.push({ from: middle - half, to: middle + half });
  }
  const [first, last] = [gaps[0], gaps[gaps.length - 1]];
  if (first !== last && last.to - total >= first.from) {
    first.from = last.from - total;
    gaps.pop();
  }
  if (gaps.length === 1 && first.to - first.from >= total) return [{ from: 0, to: total }];
  return gaps.map(({ from, to }) => (from < 0 ? { from: from + total, to: to + total } : { from, to }));
}

/** How far along a closed path its place nearest to a point is, in mm. @param along how far along it its points are. */
function nearestAlong(path: Polyline, along: Float64Array, point: Point): number {
  const { x, y, i } = nearestOnLine(path, point.x, point.y);
  return along[i] + Math.hypot(x - path.points[2 * i], y - path.points[2 * i + 1]);
}

/** How far along a closed path each of its points is, in mm, and the length of the whole. */
export function lengthsAlong({ points }: Polyline): Float64Array {
  const count = points.length / 2;
  const along = new Float64Array(count + 1);
  for (let i = 0; i < count; i++) {
    const j = (i + 1) % count;
    along[i + 1] = along[i] + Math.hypot(points[2 * j] - points[2 * i], points[2 * j + 1] - points[2 * i + 1]);
  }
  return along;
}

/** Whether a place along a path lies in one of its gaps. */
export function isInGap(gaps: readonly Gap[], along: number, total: number): boolean {
  return gaps.some(({ from, to }) => (along >= from && along < to) || (along + total >= from && along + total < to));
}

/**
 * The parts of an edge of a path, in the direction that it is burnt in: each up to which share of it, and whether it is lit.
 * @param start how far along the path it begins, and `end` how far it ends, in mm; backwards `end` is the less
 */
export function edgeParts(
  gaps: readonly Gap[],
  total: number,
  start: number,
  end: number,
): { readonly to: number; readonly isLit: boolean }[] {
  const [least, most] = [Math.min(start, end), Math.max(start, end)];
  const bounds = gaps
    .flatMap(({ from, to }) => [from, to, from - total, to - total])
    .filter((place) => place > least && place < most)
    .sort((a, b) => (start < end ? a - b : b - a));
  const stops = [start, ...bounds, end];
  return stops.slice(1).map((stop, i) => ({
    to: (stop - start) / (end - start),
    isLit: !isInGap(gaps, (stops[i] + stop) / 2, total),
  }));
}
