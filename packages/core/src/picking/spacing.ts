import type { Box } from '../geometry/paths/box.ts';

/** A move that gives a box the same gap to its neighbours as others have; the gaps are shown between their ends. */
export interface EvenSpacing {
  readonly axis: 'x' | 'y';
  /** How far to move along the axis, in mm. */
  readonly by: number;
  readonly gap: number;
  /** The gaps that are alike, as segments along the axis, at a height across it. */
  readonly gaps: readonly { readonly from: number; readonly to: number; readonly across: number }[];
}

type Span = { readonly low: number; readonly high: number };

/**
 * Where a box that is being moved would stand as far from a neighbour as that one does from the next, or midway
 * between two. The nearest such place along each axis, if it is within `reach` mm.
 *
 * @param others the boxes of the other things
 */
export function evenSpacings(box: Box, others: readonly Box[], reach: number): EvenSpacing[] {
  return (['x', 'y'] as const).flatMap((axis) => {
    const found = evenAlong(box, others, reach, axis);
    return found ? [found] : [];
  });
}

function evenAlong(box: Box, others: readonly Box[], reach: number, axis: 'x' | 'y'): EvenSpacing | null {
  const along = (b: Box): Span => (axis === 'x' ? { low: b.minX, high: b.maxX } : { low: b.minY, high: b.maxY });
  const across = (b: Box): Span => (axis === 'x' ? { low: b.minY, high: b.maxY } : { low: b.minX, high: b.maxX });
  const own = along(box);
  const lane = across(box);
  // Only what stands in the same row counts.
  const row = others
    .filter((other) => across(other).low < lane.high && across(other).high > lane.low)
    .map(along)
    .sort((a, b) => a.low - b.low);
  const size = own.high - own.low;
  const middle = (lane.low + lane.high) / 2;
  let best: EvenSpacing | null = null;
  const offer = (low: number, gap: number, gaps: readonly Span[]) => {
    const distance = low - own.low;
    if (!(gap > 1e-6) || Math.abs(distance) > reach || (best && Math.abs(distance) >= Math.abs(best.by))) return;
    best = { axis, by: distance, gap, gaps: gaps.map(({ low: from, high: to }) => ({ from, to, across: middle })) };
  };
  for (let i = 1; i < row.length; i++) {
    const [left, right] = [row[i - 1], row[i]];
    const gap = right.low - left.high;
    const between = { low: left.high, high: right.low };
    // Beyond the right of the two, before the left of them, and midway between.
    offer(right.high + gap, gap, [between, { low: right.high, high: right.high + gap }]);
    offer(left.low - gap - size, gap, [{ low: left.low - gap, high: left.low }, between]);
    const half = (gap - size) / 2;
    offer(left.high + half, half, [
      { low: left.high, high: left.high + half },
      { low: right.low - half, high: right.low },
    ]);
  }
  return best;
}
