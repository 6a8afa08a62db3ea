import { indexBoxes } from '../paths/box-index.ts';
import { type Polyline, polylineLength } from '../paths/flatten.ts';

/** Ends nearer than this, in mm, are one. */
const meeting = 1e-3;
/** How much further off any other end has to be, for two ends to be meant as one. */
const apart = 3;

/** Two ends that nearly meet. */
export interface NearEnds {
  /** The lines that they are of, by place. */
  readonly lines: readonly [number, number];
  /** Halfway between them, in mm. */
  readonly x: number;
  readonly y: number;
  readonly gapMm: number;
}

/**
 * Ends of open lines that nearly meet: each is the other's nearest, and no third is near. So rows of lines side by
 * side, and lines that fan out from a place, are none. A line's own two ends count where it nearly closes.
 * @param within the widest gap, in mm
 */
export function nearEnds(lines: readonly Polyline[], within: number): NearEnds[] {
  const open = lines.flatMap((line, i) =>
    !line.closed && line.points.length >= 4 && polylineLength(line) > apart * within ? [i] : [],
  );
  const ends = open.flatMap((i) => {
    const { points } = lines[i];
    return [
      { line: i, x: points[0], y: points[1] },
      { line: i, x: points[points.length - 2], y: points[points.length - 1] },
    ];
  });
  const index = indexBoxes(ends.map(({ x, y }) => ({ minX: x, minY: y, maxX: x, maxY: y })));
  if (!index) return [];
  const gap = (i: number, j: number) => Math.hypot(ends[i].x - ends[j].x, ends[i].y - ends[j].y);
  /** The nearest end to one, where it is the only one near. */
  const partner = (i: number): number | null => {
    const { x, y } = ends[i];
    const reach = apart * within;
    const near = index.search(x - reach, y - reach, x + reach, y + reach).filter((j) => j !== i);
    if (near.length === 0) return null;
    const [first, second] = near.toSorted((a, b) => gap(i, a) - gap(i, b));
    const mm = gap(i, first);
    if (mm <= meeting || mm > within) return null;
    return second === undefined || gap(i, second) > apart * mm ? first : null;
  };
  return ends.flatMap(({ line, x, y }, i) => {
    const j = partner(i);
    if (j === null || j < i || partner(j) !== i) return [];
    return [{ lines: [line, ends[j].line], x: (x + ends[j].x) / 2, y: (y + ends[j].y) / 2, gapMm: gap(i, j) }];
  });
}
