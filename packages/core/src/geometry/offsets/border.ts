import { combineOutlines, type Outline } from '../areas/combine.ts';
import { addEllipticArc } from '../paths/arc.ts';
import { type Box, emptyBox, uniteBoxes } from '../paths/box.ts';
import { flatten, type Polyline } from '../paths/flatten.ts';
import type { Point } from '../paths/matrix.ts';
import { type Path, PathBuilder, pathBounds } from '../paths/path.ts';
import { type Progress, partOf } from '../paths/progress.ts';
import { type Near, nearestOnLine } from '../questions/distance.ts';
import { polylineBounds } from '../questions/nesting.ts';
import { offsetOutlines, plainOffset } from './offset.ts';

/** A tab on a border's edge with a hole in it, to hang the piece by. */
export interface HangingLoop {
  /** Where: the point of the edge nearest to this one, in shares of the width and height of what is surrounded. */
  readonly u: number;
  readonly v: number;
  /** The hole's diameter, and how wide the rim around it is, in mm. */
  readonly holeMm: number;
  readonly rimMm: number;
}

/** One outline around many; lengths in mm. */
export interface BorderSettings {
  readonly by: number;
  /** Pieces no further apart than this are made one, by bars of the width `bridgeWidth`; 0 leaves them apart. */
  readonly bridgeGap: number;
  readonly bridgeWidth: number;
  /** Inlets narrower than this are filled. */
  readonly inletWidth: number;
  /** Inner corners are no tighter than this. */
  readonly innerRadius: number;
  readonly loop: HangingLoop | null;
}

export interface Border {
  readonly path: Path;
  readonly pieces: number;
  /** How wide the gaps are that would have to be bridged for one piece, in mm; 0 where it is one. */
  readonly openGap: number;
}

/**
 * The outer edge around outlines at a distance, without holes. Inlets are filled and inner corners rounded by going
 * further out and back in (a morphological closing). So the edge is a true parallel curve wherever it bends
 * outward. Pieces are joined along the shortest tree of the gaps between them (Prim's).
 */
export function borderAround(outlines: readonly Outline[], settings: BorderSettings, progress?: Progress): Border {
  const { by, loop } = settings;
  const round = Math.max(settings.inletWidth / 2, settings.innerRadius);
  const grown = grow(outlines, by + round, partOf(progress, 0, 0.4));
  if (grown.verbs.length === 0) return { path: grown, pieces: 0, openGap: 0 };
  const { bars, openGap } = bridgesBetween(outlines, settings);
  const added = bars.map((bar) => grow([nonzero(bar)], round));
  const edge = closed([grown, ...added], round, partOf(progress, 0.6, loop ? 0.8 : 1));
  const pieces = piecesOf(edge);
  const whole = { path: edge, pieces, openGap: pieces > 1 ? openGap : 0 };
  if (!loop) return whole;
  const centre = loopCentre(outlines, edge, loop);
  const tab = circle(centre, loop.holeMm / 2 + loop.rimMm + round);
  const held = closed([grown, ...added, tab], round, partOf(progress, 0.8, 1));
  const path = combineOutlines([nonzero(held), nonzero(circle(centre, loop.holeMm / 2))], 'subtract');
  return { ...whole, path };
}

const nonzero = (path: Path): Outline => ({ path, rule: 'nonzero' });

function grow(outlines: readonly Outline[], distance: number, progress?: Progress): Path {
  return offsetOutlines(outlines, { ...plainOffset, by: distance, ignoreHoles: true }, progress);
}

/** What some paths cover together, without holes, brought back in. */
function closed(paths: readonly Path[], round: number, progress?: Progress): Path {
  return grow(paths.map(nonzero), -round, progress);
}

function circle({ x, y }: Point, radius: number): Path {
  const builder = new PathBuilder().moveTo(x + radius, y);
  addEllipticArc(builder, x, y, radius, radius, 0, 0, 2 * Math.PI, { x: x + radius, y });
  return builder.close().build();
}

function piecesOf(path: Path): number {
  return path.verbs.reduce((count, verb) => (verb === 0 ? count + 1 : count), 0);
}

interface Ring {
  readonly line: Polyline;
  readonly box: Box;
}

function ringsOf(path: Path): Ring[] {
  return flatten(path).map((line) => ({ line, box: polylineBounds(line) }));
}

/** Bars between what would be pieces without them, or would hang together by less than a bar's width. */
function bridgesBetween(
  outlines: readonly Outline[],
  { by, bridgeGap, bridgeWidth }: BorderSettings,
): { bars: Path[]; openGap: number } {
  // What is left of the border half a bar's width inside its edge: a bar from one such core to another is whole.
  const inside = Math.max(0, by - bridgeWidth / 2);
  const cores = ringsOf(grow(outlines, inside));
  const bars: Path[] = [];
  let openGap = 0;
  for (const { from, to, length } of shortestTree(cores)) {
    const gap = length - 2 * (by - inside);
    if (bridgeGap > 0 && gap <= bridgeGap) bars.push(barBetween(from, to, bridgeWidth));
    else openGap = Math.max(openGap, gap);
  }
  return { bars, openGap };
}

function barBetween(from: Point, to: Point, width: number): Path {
  const length = Math.hypot(to.x - from.x, to.y - from.y) || 1;
  const [x, y] = [((to.x - from.x) / length) * (width / 2), ((to.y - from.y) / length) * (width / 2)];
  return new PathBuilder()
    .moveTo(from.x - x + y, from.y - y - x)
    .lineTo(to.x + x + y, to.y + y - x)
    .lineTo(to.x + x - y, to.y + y + x)
    .lineTo(from.x - x - y, from.y - y + x)
    .close()
    .build();
}

interface Gap {
  readonly from: Point;
  readonly to: Point;
  readonly length: number;
}

/** The shortest gaps that join all rings. */
function shortestTree(rings: readonly Ring[]): Gap[] {
  const best = new Map<number, Gap | null>(rings.slice(1).map((_, i) => [i + 1, null]));
  const tree: Gap[] = [];
  let last = 0;
  while (best.size > 0) {
    let next: { i: number; gap: Gap } | null = null;
    for (const [i, known] of best) {
      const limit = known?.length ?? Number.POSITIVE_INFINITY;
      const gap = boxesApart(rings[last].box, rings[i].box) < limit ? gapBetween(rings[last], rings[i], known) : known;
      if (!gap) continue;
      best.set(i, gap);
      if (!next || gap.length < next.gap.length) next = { i, gap };
    }
    if (!next) break;
    tree.push(next.gap);
    best.delete(next.i);
    last = next.i;
  }
  return tree;
}

function boxesApart(a: Box, b: Box): number {
  return Math.hypot(Math.max(0, a.minX - b.maxX, b.minX - a.maxX), Math.max(0, a.minY - b.maxY, b.minY - a.maxY));
}

/** The narrowest place between two rings, where that is narrower than what is known. */
function gapBetween(a: Ring, b: Ring, known: Gap | null): Gap | null {
  return narrowest(b, a, narrowest(a, b, known));
}

function narrowest(from: Ring, { line, box }: Ring, known: Gap | null): Gap | null {
  let best = known;
  const { points } = from.line;
  for (let i = 0; i < points.length; i += 2) {
    const place = { x: points[i], y: points[i + 1] };
    const limit = best?.length ?? Number.POSITIVE_INFINITY;
    if (boxesApart({ minX: place.x, minY: place.y, maxX: place.x, maxY: place.y }, box) >= limit) continue;
    const near = nearestOnLine(line, place.x, place.y);
    if (near.distance < limit) best = { from: place, to: near, length: near.distance };
  }
  return best;
}

/** Where a loop's hole goes: its edge touches where the border would be without it, and is outside. */
function loopCentre(outlines: readonly Outline[], edge: Path, { u, v, holeMm }: HangingLoop): Point {
  const box = boundsOfOutlines(outlines);
  const place = { x: box.minX + u * (box.maxX - box.minX), y: box.minY + v * (box.maxY - box.minY) };
  let best: { near: Near; points: Float64Array } | null = null;
  for (const line of flatten(edge)) {
    const near = nearestOnLine(line, place.x, place.y);
    if (!best || near.distance < best.near.distance) best = { near, points: line.points };
  }
  if (!best) return place;
  const { near, points } = best;
  const j = (near.i + 1) % (points.length / 2);
  const [dx, dy] = [points[2 * j] - points[2 * near.i], points[2 * j + 1] - points[2 * near.i + 1]];
  const length = Math.hypot(dx, dy) || 1;
  // Outer edges have their outside on the right of their direction.
  return { x: near.x + (dy / length) * (holeMm / 2), y: near.y - (dx / length) * (holeMm / 2) };
}

/** A point of the bed as a loop keeps it: in shares of the width and height of what is surrounded. */
export function loopPlace(outlines: readonly Outline[], { x, y }: Point): { u: number; v: number } {
  const { minX, minY, maxX, maxY } = boundsOfOutlines(outlines);
  return { u: (x - minX) / (maxX - minX || 1), v: (y - minY) / (maxY - minY || 1) };
}

function boundsOfOutlines(outlines: readonly Outline[]): Box {
  return outlines.reduce((box, { path }) => uniteBoxes(box, pathBounds(path)), emptyBox);
}
