import { boundsOf, type Drawing, type Item, pathOf, perItem } from '../document/item.ts';
import type { GuideLine } from '../document/job.ts';
import { arcOfCubic } from '../geometry/paths/arc-of.ts';
import { type Box, boxCentre, growBox } from '../geometry/paths/box.ts';
import { indexBoxes } from '../geometry/paths/box-index.ts';
import type { Point } from '../geometry/paths/matrix.ts';
import { isLine, nearestOn, pointAt, type Segment, subpathsOf, velocityAt } from '../geometry/paths/segments.ts';
import { crossingsOf } from '../geometry/questions/crossings.ts';
import { itemsNear } from './nearby.ts';

/** What a point can be caught by, the stronger first. */
export const snapKinds = [
  'end',
  'crossing',
  'centre',
  'middle',
  'quadrant',
  'tangent',
  'perpendicular',
  'edge',
  'guide',
  'line',
  'spacing',
  'grid',
] as const;
export type SnapKind = (typeof snapKinds)[number];

/** A point that another was caught by. `edge` is one of the bed, a sheet or its margin. */
export interface Snap {
  readonly x: number;
  readonly y: number;
  readonly kind: SnapKind;
}

/** What there is to be caught by. */
export interface SnapField {
  readonly drawing: Drawing;
  /** Items that catch nothing: those being moved. */
  readonly skip: ReadonlySet<string>;
  /** The bed, the sheets and their safe parts. */
  readonly boxes: readonly Box[];
  readonly guides: readonly GuideLine[];
  /** The distance between the grid's lines in mm; null for no grid. */
  readonly gridMm: number | null;
  readonly kinds: ReadonlySet<SnapKind>;
}

/** Items of more segments than this are not looked through for circles. */
const mostForCircles = 4000;
/** Of more segments than this within reach only the nearest are looked at. */
const mostClose = 24;

/**
 * What is near a point, within `reach` mm: the nearest of the strongest. Points beat lines and the grid.
 * @param from where the line that is being drawn begins, for tangents and perpendiculars; null for none
 */
export function snapPoint(field: SnapField, { x, y }: Point, reach: number, from: Point | null = null): Snap | null {
  const { kinds } = field;
  let best: (Snap & { distance: number }) | null = null;
  const offer = (kind: SnapKind, px: number, py: number) => {
    if (!kinds.has(kind)) return;
    const distance = Math.hypot(px - x, py - y);
    if (distance > reach) return;
    // Of two at the same place the stronger is named; a point a little further beats a line that is nearer.
    if (!best || distance < best.distance - 1e-9) {
      if (!best || rank(kind) <= rank(best.kind) || distance < best.distance) best = { x: px, y: py, kind, distance };
    } else if (distance <= best.distance + 1e-9 && snapKinds.indexOf(kind) < snapKinds.indexOf(best.kind)) {
      best = { x: px, y: py, kind, distance };
    }
  };
  const near: Segment[] = [];
  for (const item of itemsNear(field.drawing, growBox({ minX: x, minY: y, maxX: x, maxY: y }, reach))) {
    if (item.hidden || field.skip.has(item.id)) continue;
    const features = featuresOf(item);
    for (let i = 0; i < features.kinds.length; i++)
      offer(features.kinds[i], features.points[i * 2], features.points[i * 2 + 1]);
    near.push(...features.near(x, y, reach));
  }
  // What passes within reach, the nearest first.
  const close = near
    .map((segment) => ({ segment, ...nearestOn(segment, x, y) }))
    .filter(({ distance }) => distance <= reach)
    .sort((a, b) => a.distance - b.distance)
    .slice(0, mostClose);
  if (kinds.has('crossing') && close.length > 1) {
    const segments = close.map(({ segment }) => segment);
    for (const { a, b, ta, tb, x: px, y: py } of crossingsOf(segments, segments)) {
      // Where both end, it is a joint, or ends that are found as such.
      if (a < b && ((ta > 0 && ta < 1) || (tb > 0 && tb < 1))) offer('crossing', px, py);
    }
  }
  if (from && (kinds.has('tangent') || kinds.has('perpendicular'))) {
    for (const { segment, t: nearest } of close) {
      for (const { kind, t } of seenFrom(segment, from, nearest)) {
        const p = pointAt(segment, t);
        offer(kind, p.x, p.y);
      }
    }
  }
  for (const box of field.boxes) {
    const centre = boxCentre(box);
    for (const px of [box.minX, centre.x, box.maxX])
      for (const py of [box.minY, centre.y, box.maxY]) offer('edge', px, py);
  }
  offerGuideCrossings(field.guides, offer);
  if (best) return strip(best);

  // Nothing but lines and the grid: the nearest of them.
  for (const { segment, t } of close) {
    const p = pointAt(segment, t);
    offer('line', p.x, p.y);
  }
  for (const { minX, minY, maxX, maxY } of field.boxes) {
    for (const px of [minX, maxX]) if (y >= minY - reach && y <= maxY + reach) offer('edge', px, y);
    for (const py of [minY, maxY]) if (x >= minX - reach && x <= maxX + reach) offer('edge', x, py);
  }
  for (const { axis, at } of field.guides) offer('guide', axis === 'x' ? at : x, axis === 'y' ? at : y);
  if (field.gridMm !== null) {
    const step = field.gridMm;
    offer('grid', Math.round(x / step) * step, Math.round(y / step) * step);
  }
  return best && strip(best);
}

function strip({ x, y, kind }: Snap): Snap {
  return { x, y, kind };
}

const pointKinds: readonly SnapKind[] = ['end', 'crossing', 'centre', 'middle', 'quadrant', 'tangent', 'perpendicular'];

/** Whether a kind is of points by themselves, and not of lines or the grid. */
export function isPointKind(kind: SnapKind): boolean {
  return pointKinds.includes(kind);
}

/** 0 for a point that is had by itself, 1 for what lies on lines or the grid. */
export function rank(kind: SnapKind): number {
  return isPointKind(kind) ? 0 : 1;
}

function offerGuideCrossings(
  guides: readonly GuideLine[],
  offer: (kind: SnapKind, x: number, y: number) => void,
): void {
  const [xs, ys] = (['x', 'y'] as const).map((axis) => guides.filter((guide) => guide.axis === axis));
  for (const { at: x } of xs) for (const { at: y } of ys) offer('guide', x, y);
}

interface Features {
  readonly points: Float64Array;
  readonly kinds: readonly SnapKind[];
  /** Segments that may pass within reach of a point: whose control points' box does. */
  near(x: number, y: number, reach: number): Segment[];
}

const featuresOf = perItem(findFeatures);

function findFeatures(item: Item): Features {
  const subpaths = [...subpathsOf(pathOf(item))];
  const segments = subpaths.flatMap((line) => line.segments);
  const points: number[] = [];
  const kinds: SnapKind[] = [];
  const add = (kind: SnapKind, x: number, y: number) => {
    points.push(x, y);
    kinds.push(kind);
  };
  const round = item.shape.kind === 'ellipse';
  const circles = segments.length <= mostForCircles;
  for (const line of subpaths) {
    line.segments.forEach((s, i) => {
      if (!round && (i > 0 || !line.closed || !isSmoothJoint(line.segments[line.segments.length - 1], s))) {
        if (i === 0 || !isSmoothJoint(line.segments[i - 1], s)) add('end', s[0], s[1]);
      }
      if (isLine(s)) add('middle', (s[0] + s[6]) / 2, (s[1] + s[7]) / 2);
      else if (circles) {
        const arc = arcOfCubic(s, 1e-3);
        if (!arc) return;
        add('centre', arc.cx, arc.cy);
        for (const [dx, dy] of [
          [1, 0],
          [0, 1],
          [-1, 0],
          [0, -1],
        ]) {
          const [qx, qy] = [arc.cx + dx * arc.radius, arc.cy + dy * arc.radius];
          if (nearestOn(s, qx, qy).distance < 1e-3) add('quadrant', qx, qy);
        }
      }
    });
    const last = line.segments[line.segments.length - 1];
    if (!line.closed) add('end', last[6], last[7]);
  }
  if (item.shape.kind !== 'path') {
    const centre = boxCentre(boundsOf(item));
    add('centre', centre.x, centre.y);
  }
  const index = indexBoxes(segments.map(controlBox));
  return {
    points: Float64Array.from(points),
    kinds,
    near: (x, y, reach) => (index?.search(x - reach, y - reach, x + reach, y + reach) ?? []).map((i) => segments[i]),
  };
}

/** A box that a segment lies in: that of its control points. */
function controlBox([x0, y0, x1, y1, x2, y2, x3, y3]: Segment): Box {
  return {
    minX: Math.min(x0, x1, x2, x3),
    minY: Math.min(y0, y1, y2, y3),
    maxX: Math.max(x0, x1, x2, x3),
    maxY: Math.max(y0, y1, y2, y3),
  };
}

/** Whether one segment goes on from another without a corner, as the pieces of an arc do. */
function isSmoothJoint(a: Segment, b: Segment): boolean {
  if (isLine(a) || isLine(b)) return false;
  const [v, w] = [velocityAt(a, 1), velocityAt(b, 0)];
  return (
    v.x * w.x + v.y * w.y > 0 && Math.abs(v.x * w.y - v.y * w.x) < 1e-3 * Math.hypot(v.x, v.y) * Math.hypot(w.x, w.y)
  );
}

/** Where a line from a point meets a segment at a right angle, or only touches it, near its place `nearest`. */
function seenFrom(s: Segment, from: Point, nearest: number): { kind: SnapKind; t: number }[] {
  const out: { kind: SnapKind; t: number }[] = [];
  const solve = (f: (t: number) => number): number | null => {
    let t = nearest;
    for (let i = 0; i < 25; i++) {
      const h = 1e-5;
      const value = f(t);
      const slope = (f(t + h) - f(t - h)) / (2 * h);
      if (slope === 0) return null;
      const next = t - value / slope;
      if (Math.abs(next - t) < 1e-10) return next >= 0 && next <= 1 ? next : null;
      t = Math.max(-0.2, Math.min(1.2, next));
    }
    return null;
  };
  const along = (t: number) => {
    const [p, v] = [pointAt(s, t), velocityAt(s, t)];
    return { dx: p.x - from.x, dy: p.y - from.y, v };
  };
  const foot = solve((t) => {
    const { dx, dy, v } = along(t);
    return dx * v.x + dy * v.y;
  });
  if (foot !== null) out.push({ kind: 'perpendicular', t: foot });
  if (!isLine(s)) {
    const touch = solve((t) => {
      const { dx, dy, v } = along(t);
      return dx * v.y - dy * v.x;
    });
    if (touch !== null) out.push({ kind: 'tangent', t: touch });
  }
  return out;
}
