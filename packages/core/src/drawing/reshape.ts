import { addEllipticArc } from '../geometry/arc.ts';
import { arcOfCubic } from '../geometry/arc-of.ts';
import { growBox } from '../geometry/box.ts';
import { combineOutlines } from '../geometry/combine.ts';
import { crossingsOf } from '../geometry/crossings.ts';
import { flatten, polylineContains } from '../geometry/flatten.ts';
import { identity, invert, type Point } from '../geometry/matrix.ts';
import { nodeCount, type Path, PathBuilder, transformPath } from '../geometry/path.ts';
import { simplifyPath } from '../geometry/refit.ts';
import { outlineOf, type Shape } from '../geometry/shapes.ts';
import {
  isLine,
  lineStretch,
  nearestOn,
  pathOfSubpaths,
  pieceOf,
  pointAt,
  reversed,
  reversedSubpath,
  type Stretch,
  type Subpath,
  subpathsOf,
  velocityAt,
} from '../geometry/stretches.ts';
import { boundsOf, type Item, pathOf } from './item.ts';
import type { JobDocument } from './job.ts';
import { itemsNear } from './nearby.ts';

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

/** A place on an outline: which subpath, and how far along it in stretches. */
export interface OutlinePlace {
  readonly subpath: number;
  /** The stretch's place plus the parameter on it. */
  readonly at: number;
  readonly distance: number;
}

/** The place on an item's outline that is nearest to a point. */
export function nearestPlace(item: Item, x: number, y: number): OutlinePlace | null {
  let best: OutlinePlace | null = null;
  [...subpathsOf(pathOf(item))].forEach(({ stretches }, subpath) => {
    stretches.forEach((stretch, i) => {
      const { t, distance } = nearestOn(stretch, x, y);
      if (!best || distance < best.distance) best = { subpath, at: i + t, distance };
    });
  });
  return best;
}

/** Where other lines, or the item's own, cross one of its subpaths: places along it, in order. */
export function cutsOn(job: JobDocument, item: Item, subpath: number): number[] {
  const own = [...subpathsOf(pathOf(item))];
  const { stretches } = own[subpath];
  const bounds = growBox(boundsOf(item), 0.01);
  const others = itemsNear(job.drawing, bounds)
    .filter((other) => other !== item && !other.hidden && other.shape.kind !== 'picture')
    .flatMap((other) => [...subpathsOf(pathOf(other))].flatMap((line) => line.stretches));
  const siblings = own.filter((_, i) => i !== subpath).flatMap((line) => line.stretches);
  const with_ = crossingsOf(stretches, [...siblings, ...others]).map(({ a, ta }) => a + ta);
  const self = crossingsOf(stretches).flatMap(({ a, ta, b, tb }) => [a + ta, b + tb]);
  const sorted = [...with_, ...self].sort((p, q) => p - q);
  return sorted.filter((at, i) => i === 0 || at - sorted[i - 1] > 1e-7);
}

/** The stretch of an outline between the two cuts on either side of a place: what trimming there takes away. */
export function stretchBetweenCuts(
  { stretches, closed }: Subpath,
  cuts: readonly number[],
  at: number,
): { from: number; to: number } | 'all' {
  const end = stretches.length;
  const inside = cuts.filter((cut) => closed || (cut > 1e-7 && cut < end - 1e-7));
  const before = inside.findLast((cut) => cut <= at);
  const after = inside.find((cut) => cut > at);
  if (!closed) {
    if (before === undefined && after === undefined) return 'all';
    return { from: before ?? 0, to: after ?? end };
  }
  if (inside.length < 2) return 'all';
  return { from: before ?? inside[inside.length - 1] - end, to: after ?? inside[0] + end };
}

/** The part of a subpath from one place to another, both in stretches; around its closing where `to` is beyond it. */
export function partOfSubpath({ stretches }: Subpath, from: number, to: number): Stretch[] {
  const count = stretches.length;
  const out: Stretch[] = [];
  for (let i = Math.floor(from); i < to; i++) {
    const [start, end] = [Math.max(from, i) - i, Math.min(to, i + 1) - i];
    if (end - start > 1e-9) out.push(pieceOf(stretches[((i % count) + count) % count], start, end));
  }
  return out;
}

/** Takes away the stretch of an item's line at a place, between the nearest crossings with any other line. */
export function trimAt(job: JobDocument, id: string, { subpath, at }: OutlinePlace, newId: () => string): JobDocument {
  const item = job.drawing.items.find((known) => known.id === id);
  if (!item) return job;
  const lines = [...subpathsOf(outlineOf(item.shape))];
  const line = lines[subpath];
  const gone = stretchBetweenCuts(line, cutsOn(job, item, subpath), at);
  const end = line.stretches.length;
  let left: Subpath[] = [];
  if (gone !== 'all') {
    const kept = line.closed
      ? [partOfSubpath(line, gone.to, gone.from + end)]
      : [partOfSubpath(line, 0, gone.from), partOfSubpath(line, gone.to, end)];
    left = kept.filter((stretches) => stretches.length > 0).map((stretches) => ({ stretches, closed: false }));
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
  const end = line.stretches.length;
  const others = lines.filter((_, i) => i !== subpath);
  const open = (stretches: Stretch[]): Subpath => ({ stretches, closed: false });
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
  const atStart = at < line.stretches.length / 2;
  const { stretches } = atStart ? reversedSubpath(line) : line;
  const last = stretches[stretches.length - 1];
  const feelers = onwards(last);
  const others = job.drawing.items
    .filter((other) => other !== item && !other.hidden && other.shape.kind !== 'picture')
    .flatMap((other) => [...subpathsOf(pathOf(other))].flatMap((known) => known.stretches));
  const own = lines.flatMap((known) => known.stretches);
  const met = crossingsOf(feelers, [...others, ...own])
    .map(({ a, ta }) => a + ta)
    .filter((place) => place > 1e-6)
    .sort((p, q) => p - q)[0];
  if (met === undefined) return job;
  const more = partOfSubpath({ stretches: feelers, closed: false }, 0, met);
  const longer = isLine(last)
    ? [...stretches.slice(0, -1), lineStretch(last[0], last[1], more[0][6], more[0][7])]
    : [...stretches, ...more];
  const whole: Subpath = { stretches: longer, closed: false };
  const changed = lines.map((known, i) => (i === subpath ? (atStart ? reversedSubpath(whole) : whole) : known));
  return replaceShape(job, id, [{ kind: 'path', path: transformPath(pathOfSubpaths(changed), back) }], newId);
}

/** What a stretch would go on as beyond its end: the rest of its circle, or a straight line. */
function onwards(last: Stretch): Stretch[] {
  const arc = isLine(last) ? null : arcOfCubic(last, 1e-3);
  if (arc) {
    const from = Math.atan2(last[7] - arc.cy, last[6] - arc.cx);
    const builder = new PathBuilder().moveTo(last[6], last[7]);
    const span = Math.sign(arc.span) * (2 * Math.PI - Math.abs(arc.span));
    addEllipticArc(builder, arc.cx, arc.cy, arc.radius, arc.radius, 0, from, span);
    return [...subpathsOf(builder.build())].flatMap(({ stretches }) => stretches);
  }
  const v = velocityAt(last, 1);
  const length = Math.hypot(v.x, v.y);
  return [
    lineStretch(
      last[6],
      last[7],
      last[6] + (v.x / length) * furthestExtension,
      last[7] + (v.y / length) * furthestExtension,
    ),
  ];
}

/** What joining ends came to. */
export interface JoinReport {
  /** How many pairs of ends were joined, and the widest gap among them, in mm. */
  readonly joined: number;
  readonly widest: number;
  /** Ends that found no partner near enough: where they are, and how far the nearest other end is. */
  readonly open: readonly { readonly x: number; readonly y: number; readonly gap: number }[];
}

/**
 * Joins open lines of the selection whose ends lie within `tolerance` mm, nearest first; each pair meets halfway.
 * Lines that become one are one item, the hindmost of those it came from.
 */
export function joinEnds(
  job: JobDocument,
  ids: ReadonlySet<string>,
  tolerance: number,
): { job: JobDocument; report: JoinReport } {
  // What has no open line is left as it is.
  const chosen = job.drawing.items.filter(
    (item) =>
      ids.has(item.id) && item.shape.kind !== 'picture' && [...subpathsOf(pathOf(item))].some(({ closed }) => !closed),
  );
  const pieces = chosen.flatMap((item) =>
    [...subpathsOf(pathOf(item))].map((line) => ({ item, line, open: !line.closed })),
  );
  const ends = pieces.flatMap(({ line: { stretches }, open }, piece) => {
    if (!open) return [];
    const last = stretches[stretches.length - 1];
    return [
      { piece, end: 0, x: stretches[0][0], y: stretches[0][1] },
      { piece, end: 1, x: last[6], y: last[7] },
    ];
  });
  const pairs: { i: number; j: number; gap: number }[] = [];
  const nearest = new Array<number>(ends.length).fill(Infinity);
  for (let i = 0; i < ends.length; i++) {
    for (let j = i + 1; j < ends.length; j++) {
      const gap = Math.hypot(ends[i].x - ends[j].x, ends[i].y - ends[j].y);
      nearest[i] = Math.min(nearest[i], gap);
      nearest[j] = Math.min(nearest[j], gap);
      if (gap <= tolerance) pairs.push({ i, j, gap });
    }
  }
  pairs.sort((a, b) => a.gap - b.gap);
  const partner = new Array<number>(ends.length).fill(-1);
  let widest = 0;
  let joined = 0;
  for (const { i, j, gap } of pairs) {
    if (partner[i] >= 0 || partner[j] >= 0) continue;
    partner[i] = j;
    partner[j] = i;
    widest = Math.max(widest, gap);
    joined++;
  }
  const report: JoinReport = {
    joined,
    widest,
    open: ends.flatMap(({ x, y }, i) => (partner[i] < 0 ? [{ x, y, gap: nearest[i] }] : [])),
  };
  if (joined === 0) return { job, report };

  const endOf = (piece: number, end: number) => ends.findIndex((known) => known.piece === piece && known.end === end);
  const done = new Set<number>();
  const chains: { items: Item[]; line: Subpath }[] = [];
  pieces.forEach(({ open }, piece) => {
    if (!open || done.has(piece)) return;
    // Back to where the chain begins, or around to here.
    let [at, enter] = [piece, 0];
    for (;;) {
      const before = partner[endOf(at, enter)];
      if (before < 0 || ends[before].piece === piece) break;
      [at, enter] = [ends[before].piece, 1 - ends[before].end];
    }
    const chain: { piece: number; enter: number }[] = [];
    let closed = false;
    for (;;) {
      chain.push({ piece: at, enter });
      done.add(at);
      const next = partner[endOf(at, 1 - enter)];
      if (next < 0) break;
      if (done.has(ends[next].piece)) {
        closed = true;
        break;
      }
      [at, enter] = [ends[next].piece, ends[next].end];
    }
    const lines = chain.map(({ piece: at, enter }) => {
      const { line } = pieces[at];
      return enter === 0 ? line.stretches : reversedSubpath(line).stretches;
    });
    chains.push({ items: chain.map(({ piece: at }) => pieces[at].item), line: linked(lines, closed) });
  });
  const kept = new Map<string, Subpath[]>();
  const gone = new Set(chosen.map(({ id }) => id));
  const homeOf = (items: readonly Item[]) => chosen.find((item) => items.includes(item)) as Item;
  for (const { items, line } of chains) {
    const home = homeOf(items);
    kept.set(home.id, [...(kept.get(home.id) ?? []), line]);
  }
  for (const { item, line, open } of pieces) if (!open) kept.set(item.id, [...(kept.get(item.id) ?? []), line]);
  const items = job.drawing.items.flatMap((item): Item[] => {
    if (!gone.has(item.id)) return [item];
    const lines = kept.get(item.id);
    if (!lines) return [];
    const { link: _, ...free } = item;
    return [{ ...free, shape: { kind: 'path', path: pathOfSubpaths(lines) }, matrix: identity }];
  });
  return { job: { ...job, drawing: { ...job.drawing, items } }, report };
}

/** Lines one after another, the ends of each two drawn together halfway. */
function linked(lines: readonly (readonly Stretch[])[], closed: boolean): Subpath {
  const out = lines.map((line) => [...line]);
  const count = closed ? out.length : out.length - 1;
  for (let i = 0; i < count; i++) {
    const [a, b] = [out[i], out[(i + 1) % out.length]];
    const [end, start] = [a[a.length - 1], b[0]];
    const [x, y] = [(end[6] + start[0]) / 2, (end[7] + start[1]) / 2];
    a[a.length - 1] = withEnd(a[a.length - 1], x, y);
    b[0] = reversed(withEnd(reversed(b[0]), x, y));
  }
  return { stretches: out.flat(), closed };
}

/** A stretch drawn to another end, its last handle with it. */
function withEnd(s: Stretch, x: number, y: number): Stretch {
  if (isLine(s)) return lineStretch(s[0], s[1], x, y);
  return [s[0], s[1], s[2], s[3], s[4] + x - s[6], s[5] + y - s[7], x, y];
}

/** Keeps what of the items lies inside an outline, or outside it: fills by their area, lines by their length. */
export function keepWithin(
  job: JobDocument,
  ids: ReadonlySet<string>,
  outline: Path,
  side: 'inside' | 'outside',
): JobDocument {
  const edges = [...subpathsOf(outline)].flatMap(({ stretches }) => stretches);
  const lines = flatten(outline, 1e-3).filter(({ closed }) => closed);
  const isInside = ({ x, y }: Point) => lines.filter((line) => polylineContains(line, x, y)).length % 2 === 1;
  const items = job.drawing.items.flatMap((item): Item[] => {
    if (!ids.has(item.id) || item.shape.kind === 'picture') return [item];
    const left = item.paint.fill === null ? lineLeft(item) : fillLeft(item);
    if (left === 'all') return [item];
    if (left === null) return [];
    const { link: _, ...free } = item;
    return [{ ...free, shape: { kind: 'path', path: left }, matrix: identity }];
  });
  return { ...job, drawing: { ...job.drawing, items } };

  function fillLeft(item: Item): Path | null {
    const path = combineOutlines(
      [
        { path: pathOf(item), rule: item.fillRule },
        { path: outline, rule: 'evenodd' },
      ],
      side === 'inside' ? 'intersect' : 'subtract',
    );
    return path.verbs.length === 0 ? null : path;
  }

  function lineLeft(item: Item): Path | 'all' | null {
    let cut = false;
    const kept = [...subpathsOf(pathOf(item))].flatMap((line): Subpath[] => {
      const end = line.stretches.length;
      const cuts = crossingsOf(line.stretches, edges)
        .map(({ a, ta }) => a + ta)
        .sort((p, q) => p - q);
      const bounds = line.closed && cuts.length > 0 ? [...cuts, cuts[0] + end] : [0, ...cuts, end];
      const parts = bounds.slice(1).flatMap((to, i) => {
        const stretches = partOfSubpath(line, bounds[i], to);
        if (stretches.length === 0) return [];
        const middle = pointAt(stretches[Math.floor(stretches.length / 2)], 0.5);
        return [{ stretches, stays: isInside(middle) === (side === 'inside') }];
      });
      if (parts.every(({ stays }) => stays)) return [line];
      cut = true;
      return parts.flatMap(({ stretches, stays }) => (stays ? [{ stretches, closed: false }] : []));
    });
    if (!cut) return 'all';
    return kept.length === 0 ? null : pathOfSubpaths(kept);
  }
}

/** Fewer nodes for the same outlines, within a tolerance in mm. */
export function simplifyItems(
  job: JobDocument,
  ids: ReadonlySet<string>,
  tolerance: number,
): { job: JobDocument; before: number; after: number } {
  let [before, after] = [0, 0];
  const items = job.drawing.items.map((item): Item => {
    if (!ids.has(item.id) || item.shape.kind !== 'path') return item;
    const path = pathOf(item);
    const simple = simplifyPath(path, tolerance);
    before += nodeCount(path);
    after += Math.min(nodeCount(path), nodeCount(simple));
    return nodeCount(simple) < nodeCount(path)
      ? { ...item, shape: { kind: 'path', path: simple }, matrix: identity }
      : item;
  });
  return { job: after < before ? { ...job, drawing: { ...job.drawing, items } } : job, before, after };
}
