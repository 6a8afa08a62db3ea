import { type Box, boxCentre } from '../geometry/paths/box.ts';
import type { Point } from '../geometry/paths/matrix.ts';
import { rank, type Snap, type SnapField, type SnapKind, snapPoint } from './snap.ts';

/** How far a box moves to where it is caught, in mm, and what it is caught by. */
export interface BoxSnap {
  readonly dx: number;
  readonly dy: number;
  readonly snap: Snap;
}

/**
 * Where a box that is being moved is caught: by its corners, the middles of its edges, its centre or a point held. The
 * edges of the bed, of sheets and of their margins, guides and the grid catch it along each axis by itself: so it is caught
 * by both edges of a corner.
 */
export function snapBox(field: SnapField, box: Box, held: Point | null, reach: number): BoxSnap | null {
  const point = snapPoints(field, box, held, reach);
  if (point && rank(point.snap.kind) === 0) return point;
  const lines = snapLines(field, box, reach);
  const isPointNearer = point?.snap.kind === 'line' && (!lines || shiftOf(point) < shiftOf(lines));
  return isPointNearer ? point : lines;
}

function shiftOf({ dx, dy }: BoxSnap): number {
  return Math.hypot(dx, dy);
}

function snapPoints(field: SnapField, box: Box, held: Point | null, reach: number): BoxSnap | null {
  const points: Point[] = held ? [held] : [];
  for (const x of placesAlong(box, 'x')) for (const y of placesAlong(box, 'y')) points.push({ x, y });
  let best: (BoxSnap & { score: number }) | null = null;
  for (const point of points) {
    const snap = snapPoint(field, point, reach);
    if (!snap) continue;
    const [dx, dy] = [snap.x - point.x, snap.y - point.y];
    const score = Math.hypot(dx, dy) + rank(snap.kind) * reach;
    if (!best || score < best.score - 1e-9) best = { dx, dy, snap, score };
  }
  return best && { dx: best.dx, dy: best.dy, snap: best.snap };
}

type Axis = 'x' | 'y';

/** What catches along one axis: how far it moves, and where it is then. */
interface AxisSnap {
  readonly by: number;
  readonly at: number;
  readonly kind: SnapKind;
}

/** Where edges, guides and the grid catch a box: along each axis the nearest of them. */
function snapLines(field: SnapField, box: Box, reach: number): BoxSnap | null {
  const x = alongAxis(field, box, reach, 'x');
  const y = alongAxis(field, box, reach, 'y');
  const kind = x?.kind ?? y?.kind;
  if (!kind) return null;
  const centre = boxCentre(box);
  const [dx, dy] = [x?.by ?? 0, y?.by ?? 0];
  return { dx, dy, snap: { x: x?.at ?? centre.x + dx, y: y?.at ?? centre.y + dy, kind } };
}

function alongAxis(field: SnapField, box: Box, reach: number, axis: Axis): AxisSnap | null {
  let best: AxisSnap | null = null;
  const offer = (kind: SnapKind, place: number, line: number) => {
    const shift = line - place;
    if (!field.kinds.has(kind) || Math.abs(shift) > reach) return;
    if (!best || Math.abs(shift) < Math.abs(best.by) - 1e-9) best = { by: shift, at: line, kind };
  };
  const places = placesAlong(box, axis);
  for (const other of field.boxes.filter((other) => isBeside(other, box, axis, reach))) {
    const [least, middle, most] = placesAlong(other, axis);
    for (const place of places) for (const edge of [least, most]) offer('edge', place, edge);
    offer('edge', places[1], middle);
  }
  for (const place of places) {
    for (const guide of field.guides) if (guide.axis === axis) offer('guide', place, guide.at);
    const step = field.gridMm;
    if (step !== null) offer('grid', place, Math.round(place / step) * step);
  }
  return best;
}

/** Whether two boxes are beside each other along an axis, within so many mm. */
function isBeside(a: Box, b: Box, axis: Axis, reach: number): boolean {
  const [from, , to] = placesAlong(a, axis === 'x' ? 'y' : 'x');
  const [least, , most] = placesAlong(b, axis === 'x' ? 'y' : 'x');
  return most >= from - reach && least <= to + reach;
}

/** The two edges of a box along an axis, and its middle between them. */
function placesAlong(box: Box, axis: Axis): readonly [least: number, middle: number, most: number] {
  const { x, y } = boxCentre(box);
  return axis === 'x' ? [box.minX, x, box.maxX] : [box.minY, y, box.maxY];
}
