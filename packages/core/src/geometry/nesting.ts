import { type Box, boxContains } from './box.ts';
import { indexBoxes } from './box-index.ts';
import { type Polyline, polylineContains } from './flatten.ts';

/** The bounds of a polyline in mm. */
export function polylineBounds({ points }: Polyline): Box {
  let minX = Infinity;
  let minY = Infinity;
  let maxX = -Infinity;
  let maxY = -Infinity;
  for (let i = 0; i < points.length; i += 2) {
    minX = Math.min(minX, points[i]);
    maxX = Math.max(maxX, points[i]);
    minY = Math.min(minY, points[i + 1]);
    maxY = Math.max(maxY, points[i + 1]);
  }
  return { minX, minY, maxX, maxY };
}

/**
 * How many of the closed outlines each outline lies in. Outlines are taken not to cross: the first
 * point stands for the whole, as long as its bounds lie in the other's bounds.
 */
export function nestDepths(outlines: readonly Polyline[]): Int32Array {
  const depths = new Int32Array(outlines.length);
  if (outlines.length < 2) return depths;
  const boxes = outlines.map(polylineBounds);
  const index = indexBoxes(boxes);
  outlines.forEach((outline, i) => {
    const [x, y] = outline.points;
    const candidates = index?.search(x, y, x, y) ?? [];
    for (const j of candidates) {
      if (j === i || !outlines[j].closed || !boxContains(boxes[j], boxes[i])) continue;
      // Of two equal outlines, drawn twice, only one is in the other.
      const same = boxContains(boxes[i], boxes[j]);
      if (same ? j < i : polylineContains(outlines[j], x, y)) depths[i]++;
    }
  });
  return depths;
}
