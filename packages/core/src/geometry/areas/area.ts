import {
  Clipper,
  Clipper64,
  FillRule as ClipperRule,
  ClipType,
  EndType,
  JoinType,
  type Path64,
  type Paths64,
} from 'clipper2-ts';
import { type Box, boxContains, boxesMeet, emptyBox } from '../paths/box.ts';
import { flatten, type Polyline, polylineLength } from '../paths/flatten.ts';
import { type Path, PathBuilder } from '../paths/path.ts';
import { hasExtent, withoutTurnbacks } from './spikes.ts';

/*
 * Areas bounded by straight lines, and what they leave of paths. The polygon arithmetic is that of
 * clipper2-ts (Vatti's clipping), on whole numbers.
 */

export type FillRule = 'nonzero' | 'evenodd';

/** The raster of the arithmetic, in mm. */
const grid = 1e-4;
/** How far a curve's stand-in of straight lines may stray where an area cuts it, in mm. */
const tolerance = 0.004;
/** Coordinates beyond this, in mm, are not computed with. */
const furthest = 1e7;

/** A part of the plane. Its outlines do not cross; holes turn the other way round. */
export interface Area {
  readonly outlines: Paths64;
  readonly bounds: Box;
  /** Whether it is exactly its bounds. */
  readonly isBox: boolean;
}

export const emptyArea: Area = { outlines: [], bounds: emptyBox, isBox: false };

/** What a path's fill covers. Open subpaths are closed, as filling does. */
export function areaOf(path: Path, rule: FillRule): Area {
  return toArea(Clipper.union(toRings(path), clipperRule(rule)));
}

/** A box as an area. */
export function boxArea({ minX, minY, maxX, maxY }: Box): Area {
  const outline = new PathBuilder().moveTo(minX, minY).lineTo(maxX, minY).lineTo(maxX, maxY).lineTo(minX, maxY);
  return areaOf(outline.close().build(), 'nonzero');
}

/** What lies in any of some areas. */
export function uniteAreas(areas: readonly Area[]): Area {
  if (areas.length < 2) return areas[0] ?? emptyArea;
  return toArea(
    Clipper.union(
      areas.flatMap((area) => area.outlines),
      ClipperRule.NonZero,
    ),
  );
}

/** What lies in both of two areas. */
export function intersectAreas(a: Area, b: Area): Area {
  return toArea(Clipper.intersect(a.outlines, b.outlines, ClipperRule.NonZero));
}

/** What an odd number of the areas cover: where two overlap, neither counts. */
export function excludeAreas(areas: readonly Area[]): Area {
  if (areas.length < 2) return areas[0] ?? emptyArea;
  return toArea(
    Clipper.union(
      areas.flatMap((area) => area.outlines),
      ClipperRule.EvenOdd,
    ),
  );
}

/** What of an area lies outside another. */
export function subtractAreas(a: Area, b: Area): Area {
  if (!boxesMeet(a.bounds, b.bounds)) return a;
  return toArea(Clipper.difference(a.outlines, b.outlines, ClipperRule.NonZero));
}

/** An area with its edge moved outwards by `distance` mm, inwards where that is below 0; corners stay sharp, or are made round. */
export function growArea(area: Area, distance: number, join: 'miter' | 'round' = 'miter'): Area {
  if (distance === 0) return area;
  return toArea(
    Clipper.inflatePaths(area.outlines, distance / grid, joins[join], EndType.Polygon, 2, tolerance / grid),
  );
}

const joins = { miter: JoinType.Miter, round: JoinType.Round, bevel: JoinType.Bevel };
const caps = { butt: EndType.Butt, round: EndType.Round, square: EndType.Square };
/** A mitre longer than this share of the stroke's width is cut off (SVG's own limit). */
const miterLimit = 4;

/** What a stroke covers: `width` mm wide along a path, with its corners and ends. */
export function strokeArea(
  path: Path,
  width: number,
  join: keyof typeof joins = 'miter',
  cap: keyof typeof caps = 'butt',
): Area {
  const lines = flatten(path, tolerance);
  const rings = (closed: boolean) =>
    lines.filter((line) => line.closed === closed && line.points.length >= 4).map(({ points }) => toPoints(points));
  const half = width / 2 / grid;
  const grown = (paths: Paths64, end: EndType) =>
    paths.length === 0 ? [] : Clipper.inflatePaths(paths, half, joins[join], end, miterLimit, tolerance / grid);
  const all = [...grown(rings(true), EndType.Joined), ...grown(rings(false), caps[cap])];
  return toArea(Clipper.union(all, ClipperRule.NonZero));
}

/** An area's outlines as closed polylines in mm. */
export function linesOfArea(area: Area): Polyline[] {
  return area.outlines.map((ring) => ({
    points: Float64Array.from(ring.flatMap(({ x, y }) => [x * grid, y * grid])),
    closed: true,
  }));
}

/** An area's outlines as a path, to be filled by either rule. */
export function pathOfArea(area: Area): Path {
  const builder = new PathBuilder();
  for (const ring of area.outlines) addLine(builder, ring, true);
  return builder.build();
}

/** The size of an area in mm². */
export function sizeOfArea(area: Area): number {
  return Math.abs(Clipper.areaPaths(area.outlines)) * grid * grid;
}

/** What is left of something that was cut: all of it, nothing, or a part. */
export type Left = { readonly left: 'all' | 'nothing' } | { readonly left: 'part'; readonly path: Path };

/** What of a path's fill lies in an area. Curves that are cut come back as lines within 0.005 mm. */
export function fillWithin(path: Path, bounds: Box, rule: FillRule, area: Area): Left {
  const quick = byBounds(bounds, area);
  if (quick) return quick;
  const whole = areaOf(path, rule);
  const inside = intersectAreas(whole, area);
  return judge(sizeOfArea(inside), sizeOfArea(whole), () => pathOfArea(inside));
}

/** How far beyond an area's edge a line still counts as in it, in mm: one along the edge does. */
const edge = 0.005;
const edged = new WeakMap<Area, Paths64>();

function withEdge(area: Area): Paths64 {
  let outlines = edged.get(area);
  if (!outlines) {
    outlines = Clipper.inflatePaths(area.outlines, edge / grid, JoinType.Miter, EndType.Polygon);
    edged.set(area, outlines);
  }
  return outlines;
}

/** What of a path's line lies in an area, as open lines. Curves that are cut come back as lines within 0.005 mm. */
export function lineWithin(path: Path, bounds: Box, area: Area): Left {
  const quick = byBounds(bounds, area);
  if (quick) return quick;
  const lines = flatten(path, tolerance);
  const clipper = new Clipper64();
  clipper.addOpenSubject(lines.map(toLine));
  clipper.addClip(withEdge(area));
  const closed: Paths64 = [];
  const open: Paths64 = [];
  clipper.execute(ClipType.Intersection, ClipperRule.NonZero, closed, open);
  const before = lines.reduce((sum, line) => sum + polylineLength(line), 0);
  const after = open.reduce((sum, line) => sum + lengthOf(line), 0);
  return judge(after, before, () => {
    const builder = new PathBuilder();
    for (const line of open) addLine(builder, line, false);
    return builder.build();
  });
}

function byBounds(bounds: Box, area: Area): Left | null {
  if (!boxesMeet(bounds, area.bounds)) return { left: 'nothing' };
  return area.isBox && boxContains(area.bounds, bounds, grid) ? { left: 'all' } : null;
}

/** A share that only rounding can have taken away counts as all. */
function judge(after: number, before: number, makePath: () => Path): Left {
  if (after <= before * 1e-7) return { left: 'nothing' };
  if (after >= before * (1 - 1e-5)) return { left: 'all' };
  return { left: 'part', path: makePath() };
}

function clipperRule(rule: FillRule): ClipperRule {
  return rule === 'evenodd' ? ClipperRule.EvenOdd : ClipperRule.NonZero;
}

function toArea(outlines: Paths64): Area {
  if (outlines.length === 0) return emptyArea;
  const { left, top, right, bottom } = Clipper.getBounds(outlines.flat());
  const bounds = { minX: left * grid, minY: top * grid, maxX: right * grid, maxY: bottom * grid };
  const boxSize = (right - left) * (bottom - top);
  const isBox = outlines.length === 1 && Math.abs(Math.abs(Clipper.area(outlines[0])) - boxSize) <= boxSize * 1e-12;
  return { outlines, bounds, isBox };
}

function toRings(path: Path): Paths64 {
  return flatten(path, tolerance)
    .filter(({ points }) => points.length >= 6)
    .map(({ points }) => withoutTurnbacks(toPoints(points)))
    .filter(hasExtent);
}

/** A polyline with its closing edge, as an open line. */
function toLine({ points, closed }: Polyline): Path64 {
  const line = toPoints(points);
  return closed ? [...line, line[0]] : line;
}

function toPoints(points: Float64Array): Path64 {
  const out: Path64 = [];
  for (let i = 0; i < points.length; i += 2) out.push({ x: toGrid(points[i]), y: toGrid(points[i + 1]) });
  return out;
}

function toGrid(mm: number): number {
  return Math.round(Math.min(furthest, Math.max(-furthest, mm)) / grid);
}

function lengthOf(line: Path64): number {
  let sum = 0;
  for (let i = 1; i < line.length; i++) sum += Math.hypot(line[i].x - line[i - 1].x, line[i].y - line[i - 1].y);
  return sum * grid;
}

function addLine(builder: PathBuilder, line: Path64, close: boolean): void {
  line.forEach(({ x, y }, i) => {
    if (i === 0) builder.moveTo(x * grid, y * grid);
    else builder.lineTo(x * grid, y * grid);
  });
  if (close) builder.close();
}
