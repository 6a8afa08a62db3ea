import { boundsOf, type Item, pathOf } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import type { Shape } from '../document/shape.ts';
import { outlineOf } from '../document/shapes.ts';
import { addEllipticArc } from '../geometry/paths/arc.ts';
import { arcOfCubic } from '../geometry/paths/arc-of.ts';
import { type Box, growBox } from '../geometry/paths/box.ts';
import { invert } from '../geometry/paths/matrix.ts';
import { PathBuilder, pathBounds, transformPath } from '../geometry/paths/path.ts';
import {
  isLine,
  lineSegment,
  nearestOn,
  pathOfSubpaths,
  pieceOf,
  reversedSubpath,
  type Segment,
  type Subpath,
  subpathsOf,
  velocityAt,
} from '../geometry/paths/segments.ts';
import { crossingsOf } from '../geometry/questions/crossings.ts';
import { itemsNear } from '../picking/nearby.ts';

/*
 * Changing outlines where they are. Places are points of the bed in mm. A change of one linked copy's
 * shape changes all of them.
 */

/** Puts shapes in an item's stead, and in that of its linked copies; none takes it away. Further shapes are new items. */
export function replaceShape(job: JobDocument, id: string, shapes: readonly Shape[], newId: () => string): JobDocument {
  const { items } = job.drawing;
  const changed = items.find((item) => item.id === id);
  if (!changed) return job;
  const same = (item: Item) => item.id === id || (changed.link !== undefined && item.link === changed.link);
  return {
    ...job,
    drawing: {
      ...job.drawing,
      items: items.flatMap((item) => {
        if (!same(item)) return [item];
        return shapes.map((shape, i) => {
          if (i === 0) return { ...item, shape };
          const { link: _, ...other } = item;
          return { ...other, id: newId(), shape };
        });
      }),
    },
  };
}

/** Turns shapes into plain points: lines and curves without numbers of their own. */
export function turnToPoints(job: JobDocument, ids: ReadonlySet<string>): JobDocument {
  const turns = (item: Item) =>
    ids.has(item.id) &&
    item.shape.kind !== 'picture' &&
    (item.shape.kind !== 'path' || item.shape.corners !== undefined);
  if (!job.drawing.items.some(turns)) return job;
  return {
    ...job,
    drawing: {
      ...job.drawing,
      items: job.drawing.items.map((item) =>
        turns(item) ? { ...item, shape: { kind: 'path', path: outlineOf(item.shape) } } : item,
      ),
    },
  };
}

/** A place on an outline: which subpath, and how far along it in segments. */
export interface OutlinePlace {
  readonly subpath: number;
  /** The segment's place plus the parameter on it. */
  readonly at: number;
  readonly distance: number;
}

/** The place on an item's outline that is nearest to a point. */
export function nearestPlace(item: Item, x: number, y: number): OutlinePlace | null {
  let best: OutlinePlace | null = null;
  [...subpathsOf(pathOf(item))].forEach(({ segments }, subpath) => {
    segments.forEach((segment, i) => {
      const { t, distance } = nearestOn(segment, x, y);
      if (!best || distance < best.distance) best = { subpath, at: i + t, distance };
    });
  });
  return best;
}

const noItems: ReadonlySet<string> = new Set();

/** The segments of the items that are near a box, but for one of them and those that are passed by. */
function segmentsNear({ drawing }: JobDocument, but: Item, box: Box, passed = noItems): Segment[] {
  return itemsNear(drawing, growBox(box, 0.01))
    .filter((other) => other !== but && !other.hidden && other.shape.kind !== 'picture' && !passed.has(other.id))
    .flatMap((other) => [...subpathsOf(pathOf(other))].flatMap((line) => line.segments));
}

/**
 * Where other lines, or the item's own, cross one of its subpaths: places along it, in order.
 * @param passed items, by id, that cut nothing: guides.
 */
export function cutsOn(job: JobDocument, item: Item, subpath: number, passed = noItems): number[] {
  const own = [...subpathsOf(pathOf(item))];
  const { segments } = own[subpath];
  const others = segmentsNear(job, item, boundsOf(item), passed);
  const siblings = own.filter((_, i) => i !== subpath).flatMap((line) => line.segments);
  const with_ = crossingsOf(segments, [...siblings, ...others]).map(({ a, ta }) => a + ta);
  const self = crossingsOf(segments).flatMap(({ a, ta, b, tb }) => [a + ta, b + tb]);
  const sorted = [...with_, ...self].sort((p, q) => p - q);
  return sorted.filter((position, i) => i === 0 || position - sorted[i - 1] > 1e-7);
}

/** The segment of an outline between the two cuts on either side of a place: what trimming there takes away. */
export function partBetweenCuts(
  { segments, closed }: Subpath,
  cuts: readonly number[],
  position: number,
): { from: number; to: number } | 'all' {
  const end = segments.length;
  const inside = cuts.filter((cut) => closed || (cut > 1e-7 && cut < end - 1e-7));
  const before = inside.findLast((cut) => cut <= position);
  const after = inside.find((cut) => cut > position);
  if (!closed) {
    if (before === undefined && after === undefined) return 'all';
    return { from: before ?? 0, to: after ?? end };
  }
  if (inside.length < 2) return 'all';
  return { from: before ?? inside[inside.length - 1] - end, to: after ?? inside[0] + end };
}

/** The part of a subpath from one place to another, both in segments; around its closing where `to` is beyond it. */
export function partOfSubpath({ segments }: Subpath, from: number, to: number): Segment[] {
  const count = segments.length;
  const out: Segment[] = [];
  for (let i = Math.floor(from); i < to; i++) {
    const [start, end] = [Math.max(from, i) - i, Math.min(to, i + 1) - i];
    if (end - start > 1e-9) out.push(pieceOf(segments[((i % count) + count) % count], start, end));
  }
  return out;
}

/** Takes away the segment of an item's line at a place, between the nearest crossings with any other line. */
export function trimAt(
  job: JobDocument,
  id: string,
  { subpath, at }: OutlinePlace,
  newId: () => string,
  passed = noItems,
): JobDocument {
  const item = job.drawing.items.find((known) => known.id === id);
  if (!item) return job;
  const lines = [...subpathsOf(outlineOf(item.shape))];
  const line = lines[subpath];
  const removed = partBetweenCuts(line, cutsOn(job, item, subpath, passed), at);
  const end = line.segments.length;
  let left: Subpath[] = [];
  if (removed !== 'all') {
    const kept = line.closed
      ? [partOfSubpath(line, removed.to, removed.from + end)]
      : [partOfSubpath(line, 0, removed.from), partOfSubpath(line, removed.to, end)];
    left = kept.filter((segments) => segments.length > 0).map((segments) => ({ segments, closed: false }));
  }
  const rest = [...lines.slice(0, subpath), ...left, ...lines.slice(subpath + 1)];
  const shapes: Shape[] = rest.length === 0 ? [] : [{ kind: 'path', path: pathOfSubpaths(rest) }];
  return replaceShape(job, id, shapes, newId);
}

/** Splits an item at a place: a closed outline opens there, an open one becomes two items. */
export function splitAt(job: JobDocument, id: string, { subpath, at }: OutlinePlace, newId: () => string): JobDocument {
  const item = job.drawing.items.find((known) => known.id === id);
  if (!item) return job;
  const lines = [...subpathsOf(outlineOf(item.shape))];
  const line = lines[subpath];
  const end = line.segments.length;
  const others = lines.filter((_, i) => i !== subpath);
  const open = (segments: Segment[]): Subpath => ({ segments, closed: false });
  if (line.closed) {
    const path = pathOfSubpaths([...others, open(partOfSubpath(line, at, at + end))]);
    return replaceShape(job, id, [{ kind: 'path', path }], newId);
  }
  const [first, second] = [partOfSubpath(line, 0, at), partOfSubpath(line, at, end)];
  if (first.length === 0 || second.length === 0) return job;
  const shapes = [pathOfSubpaths([...others, open(first)]), pathOfSubpaths([open(second)])];
  return replaceShape(
    job,
    id,
    shapes.map((path) => ({ kind: 'path', path })),
    newId,
  );
}

/** How far a line is looked along for something to extend to, in mm. */
const furthestExtension = 5000;

/**
 * Lengthens an open line from the end nearest to a place to the next line it would meet: straight on, or on
 * along its circle where it ends as an arc. The same job when it meets nothing.
 */
export function extendTo(
  job: JobDocument,
  id: string,
  { subpath, at }: OutlinePlace,
  newId: () => string,
): JobDocument {
  const item = job.drawing.items.find((known) => known.id === id);
  const back = item && invert(item.matrix);
  if (!item || !back) return job;
  const lines = [...subpathsOf(pathOf(item))];
  const line = lines[subpath];
  if (line.closed) return job;
  const atStart = at < line.segments.length / 2;
  const { segments } = atStart ? reversedSubpath(line) : line;
  const last = segments[segments.length - 1];
  const feelers = onwards(last);
  const reach = pathBounds(pathOfSubpaths([{ segments: feelers, closed: false }]));
  const others = segmentsNear(job, item, reach);
  const own = lines.flatMap((known) => known.segments);
  const met = crossingsOf(feelers, [...others, ...own])
    .map(({ a, ta }) => a + ta)
    .filter((place) => place > 1e-6)
    .sort((p, q) => p - q)[0];
  if (met === undefined) return job;
  const more = partOfSubpath({ segments: feelers, closed: false }, 0, met);
  const longer = isLine(last)
    ? [...segments.slice(0, -1), lineSegment(last[0], last[1], more[0][6], more[0][7])]
    : [...segments, ...more];
  const whole: Subpath = { segments: longer, closed: false };
  const changed = lines.map((known, i) => (i === subpath ? (atStart ? reversedSubpath(whole) : whole) : known));
  return replaceShape(job, id, [{ kind: 'path', path: transformPath(pathOfSubpaths(changed), back) }], newId);
}

/** What a segment would go on as beyond its end: the rest of its circle, or a straight line. */
function onwards(last: Segment): Segment[] {
  const arc = isLine(last) ? null : arcOfCubic(last, 1e-3);
  if (arc) {
    const from = Math.atan2(last[7] - arc.cy, last[6] - arc.cx);
    const builder = new PathBuilder().moveTo(last[6], last[7]);
    const span = Math.sign(arc.span) * (2 * Math.PI - Math.abs(arc.span));
    addEllipticArc(builder, arc.cx, arc.cy, arc.radius, arc.radius, 0, from, span);
    return [...subpathsOf(builder.build())].flatMap(({ segments }) => segments);
  }
  const v = velocityAt(last, 1);
  const length = Math.hypot(v.x, v.y);
  return [
    lineSegment(
      last[6],
      last[7],
      last[6] + (v.x / length) * furthestExtension,
      last[7] + (v.y / length) * furthestExtension,
    ),
  ];
}
