import { type Item, pathOf, perItem, polylinesOf } from '../document/item.ts';
import type { Polyline } from '../geometry/paths/flatten.ts';
import type { Point } from '../geometry/paths/matrix.ts';
import { lineSegment, type Segment, subpathsOf, velocityAt } from '../geometry/paths/segments.ts';

/** A turn sharper than this, in radians, is a corner. */
const cornerTurn = 0.35;
/** What rounding adds to a distance, in mm. */
const slack = 0.02;

/** A corner as it is drawn. */
interface DrawnCorner extends Point {
  /** How far the outline turns there, in radians. */
  readonly turn: number;
}

const known = new WeakMap<Polyline, readonly number[]>();

/**
 * The nodes of a line at which its outline, as it is drawn, has a sharp corner: one node a corner. The path of a beam
 * that goes around a corner in an arc has its node in the middle of that arc. Nodes of curves are none.
 *
 * @param nth which of the item's outlines the line is, or is the path of the beam along
 * @param distance how far the path keeps from the outline, in mm
 */
export function cornerNodes(item: Item, nth: number, line: Polyline, distance: number): readonly number[] {
  let nodes = known.get(line);
  if (!nodes) {
    const found = drawnCorners(item)[nth].flatMap((corner) => nodeAt(line, corner, distance) ?? []);
    nodes = [...new Set(found)].sort((a, b) => a - b);
    known.set(line, nodes);
  }
  return nodes;
}

/** The sharp corners of each of an item's outlines, in bed mm. */
const drawnCorners = perItem((item) => {
  const outlines = [...subpathsOf(pathOf(item))];
  const lines = polylinesOf(item);
  // Where points without extent lie among them, outlines and lines do not match: the lines' own edges are taken.
  if (outlines.length !== lines.length) return lines.map((line) => cornersOf(edgesOf(line), line.closed));
  return outlines.map(({ segments }, i) => cornersOf(segments, lines[i].closed));
});

function edgesOf({ points, closed }: Polyline): Segment[] {
  const count = points.length / 2;
  return Array.from({ length: closed ? count : count - 1 }, (_, i) => {
    const next = (i + 1) % count;
    return lineSegment(points[2 * i], points[2 * i + 1], points[2 * next], points[2 * next + 1]);
  });
}

function cornersOf(segments: readonly Segment[], closed: boolean): DrawnCorner[] {
  return segments.flatMap((segment, i) => {
    const next = segments[i + 1] ?? (closed ? segments[0] : null);
    const turn = next ? turnBetween(segment, next) : 0;
    return turn > cornerTurn ? [{ x: segment[6], y: segment[7], turn }] : [];
  });
}

function turnBetween(a: Segment, b: Segment): number {
  const [v, w] = [velocityAt(a, 1), velocityAt(b, 0)];
  return Math.abs(Math.atan2(v.x * w.y - v.y * w.x, v.x * w.x + v.y * w.y));
}

/** The node nearest to a corner; of an arc around it the one in the middle. Null where the line does not come there. */
function nodeAt({ points, closed }: Polyline, { x, y, turn }: DrawnCorner, distance: number): number | null {
  const count = points.length / 2;
  const distanceTo = (node: number) => Math.hypot(points[2 * node] - x, points[2 * node + 1] - y);
  let nearest = 0;
  for (let node = 1; node < count; node++) if (distanceTo(node) < distanceTo(nearest)) nearest = node;
  const reached = distanceTo(nearest);
  // Outside of a corner a path keeps its distance; inside it turns where both its edges do, which is further off.
  if (reached > distance / Math.cos(turn / 2) + slack) return null;
  const isAsNear = (node: number) => distanceTo(node) < reached + 0.02 * distance + 1e-6;
  const around = (node: number) => ((node % count) + count) % count;
  const isThere = (node: number) => closed || (node >= 0 && node < count);
  let [from, to] = [nearest, nearest];
  while (to - from < count - 1 && isThere(from - 1) && isAsNear(around(from - 1))) from--;
  while (to - from < count - 1 && isThere(to + 1) && isAsNear(around(to + 1))) to++;
  return around(Math.round((from + to) / 2));
}
