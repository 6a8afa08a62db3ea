import type { Point } from '../geometry/paths/matrix.ts';
import { nearestOn, pointAt, subpathsOf } from '../geometry/paths/segments.ts';
import type { ValueOf } from '../schema/schema.ts';
import { record, variants } from '../schema/structures.ts';
import { number, oneOf, text } from '../schema/values.ts';
import { anchorPoint, boundsOf, type Drawing, type Item, pathOf } from './item.ts';

/**
 * What one end of a dimension mark holds on to: a place along an item's outline, a point of its bounds, or a place of
 * the bed. Along an outline: which one of the item's, and how far along in segments.
 */
const dimensionEnd = variants('kind', {
  outline: { itemId: text, subpath: number(), at: number() },
  bounds: { itemId: text, u: number(), v: number() },
  point: { x: number(), y: number() },
});
export type DimensionEnd = ValueOf<typeof dimensionEnd>;

const dimensionAxis = oneOf(['straight', 'x', 'y']);
/** What is measured: the distance itself, or how far apart the ends are across or down. */
export type DimensionAxis = ValueOf<typeof dimensionAxis>;

/** A measure between two ends. It is shown beside them, follows what they hold on to, and never burns. */
export const dimensionSchema = record({
  id: text,
  from: dimensionEnd,
  to: dimensionEnd,
  axis: dimensionAxis,
  /** How far beside the ends its line is drawn, in mm, to the left of the way from one to the other on the screen. */
  beside: number(),
});
export type DimensionMark = ValueOf<typeof dimensionSchema>;

/** A dimension mark where it now is, in bed mm. */
export interface PlacedDimension {
  readonly from: Point;
  readonly to: Point;
  /** The ends of its line, beside those. */
  readonly lineFrom: Point;
  readonly lineTo: Point;
  readonly valueMm: number;
}

/** Where an end is now; null when what it held on to is gone. */
export function pointOfEnd(drawing: Drawing, end: DimensionEnd): Point | null {
  if (end.kind === 'point') return { x: end.x, y: end.y };
  const item = drawing.items.find(({ id }) => id === end.itemId);
  if (!item) return null;
  if (end.kind === 'bounds') return anchorPoint(boundsOf(item), end);
  const line = [...subpathsOf(pathOf(item))][end.subpath];
  if (!line) return null;
  const position = Math.min(Math.max(0, end.at), line.segments.length);
  const i = Math.min(Math.floor(position), line.segments.length - 1);
  return pointAt(line.segments[i], position - i);
}

/** A mark as it is to be shown; null when an end has lost what it held on to, or both are at one place. */
export function placeDimension(drawing: Drawing, mark: Omit<DimensionMark, 'id'>): PlacedDimension | null {
  const [from, to] = [pointOfEnd(drawing, mark.from), pointOfEnd(drawing, mark.to)];
  if (!from || !to) return null;
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const valueMm = mark.axis === 'x' ? Math.abs(dx) : mark.axis === 'y' ? Math.abs(dy) : Math.hypot(dx, dy);
  if (valueMm < 1e-9) return null;
  if (mark.axis === 'straight') {
    const [nx, ny] = [(dy / valueMm) * mark.beside, (-dx / valueMm) * mark.beside];
    return { from, to, valueMm, lineFrom: { x: from.x + nx, y: from.y + ny }, lineTo: { x: to.x + nx, y: to.y + ny } };
  }
  // Level and upright lines stand off from the first end.
  const [lineFrom, lineTo] =
    mark.axis === 'x'
      ? [
          { x: from.x, y: from.y - mark.beside },
          { x: to.x, y: from.y - mark.beside },
        ]
      : [
          { x: from.x + mark.beside, y: from.y },
          { x: from.x + mark.beside, y: to.y },
        ];
  return { from, to, valueMm, lineFrom, lineTo };
}

/** How far beside its ends a mark's line would run through a point. */
export function besideAt(from: Point, to: Point, axis: DimensionAxis, { x, y }: Point): number {
  if (axis === 'x') return from.y - y;
  if (axis === 'y') return x - from.x;
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const length = Math.hypot(dx, dy);
  return length === 0 ? 0 : ((x - from.x) * dy - (y - from.y) * dx) / length;
}

/** What a point of the bed holds on to: an item's outline or middle where it lies on one, else the place itself. */
export function endAt(items: readonly Item[], { x, y }: Point): DimensionEnd {
  let best: { end: DimensionEnd; distance: number } | null = null;
  const offer = (end: DimensionEnd, px: number, py: number) => {
    const distance = Math.hypot(px - x, py - y);
    if (distance < 1e-4 && (!best || distance < best.distance - 1e-9)) best = { end, distance };
  };
  for (const item of items) {
    if (item.hidden) continue;
    [...subpathsOf(pathOf(item))].forEach(({ segments }, subpath) => {
      segments.forEach((segment, i) => {
        // Ends and middles by their very place, so that they stay ends and middles.
        for (const t of [0, 0.5, 1, nearestOn(segment, x, y).t]) {
          const p = pointAt(segment, t);
          offer({ kind: 'outline', itemId: item.id, subpath, at: i + t }, p.x, p.y);
        }
      });
    });
    for (const u of [0, 0.5, 1]) {
      for (const v of [0, 0.5, 1]) {
        const p = anchorPoint(boundsOf(item), { u, v });
        offer({ kind: 'bounds', itemId: item.id, u, v }, p.x, p.y);
      }
    }
  }
  return (best as { end: DimensionEnd } | null)?.end ?? { kind: 'point', x, y };
}
