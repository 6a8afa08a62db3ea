import { Clipper, FillRule as ClipperRule } from 'clipper2-ts';
import type { Outline } from '../areas/combine.ts';
import { hasExtent } from '../areas/spikes.ts';
import { areaWithin, CurvedRings, straightened } from '../areas/trace.ts';
import type { Path } from '../paths/path.ts';
import { counting, type Progress, partOf } from '../paths/progress.ts';
import {
  lineSegment,
  pathOfSubpaths,
  reversed,
  reversedSubpath,
  type Segment,
  type Subpath,
  subpathsOf,
  withoutShort,
} from '../paths/segments.ts';
import { type Cap, capAt, cornerBetween, type Join } from './corner-joins.ts';
import { type Edge, edgeComponents } from './outline-edges.ts';
import { parallelTo, rightAt, withoutCusps } from './parallel.ts';
import { roundOffsetRing } from './ring-offset.ts';

export type { Cap, Join };

export interface OffsetSettings {
  /** In mm; outlines grow, below 0 they shrink. */
  readonly by: number;
  readonly join: Join;
  /** A point reaches no further than this many times the distance, at least once; where it would, it is cut across there. */
  readonly miterLimit: number;
  readonly cap: Cap;
  /** Whether holes are filled first. */
  readonly ignoreHoles: boolean;
  /** Of open lines: what lies within the distance on both sides, or a line to the right or the left of them. */
  readonly side: Side;
}

export type Side = 'both' | 'right' | 'left';

export const plainOffset: Omit<OffsetSettings, 'by'> = {
  join: 'round',
  miterLimit: 4,
  cap: 'round',
  ignoreHoles: false,
  side: 'both',
};

/** Distances from this on, in mm, move nothing. */
const leastDistance = 1e-6;
/** Straight outlines of so many nodes are offset node by node where that is enough, the others all together. */
const manyNodes = 500;
/** How much of the work it is to find the edges, as a share. */
const foundShare = 0.2;
/** Rings thinner than this, in mm, are rounding. */
const leastWidth = 0.004;

/**
 * The outlines at a distance from closed ones, holes turning the other way: of curves the true parallel curves,
 * fitted within 0.004 mm; corners as asked. Open ones are taken as what lies within the distance of them, on both
 * sides, and come to nothing where that is below 0; or by the side asked for, as the line parallel to them without
 * the parts that come nearer to them than that.
 *
 * Each outline is led along all its parallel pieces and corners as one closed ring, as clipping libraries do with
 * polygons; what it goes round at least once the right way is kept (Chen & McMains, "Polygon Offsetting by
 * Computing Winding Numbers", 2005). That is found over chords, and traced back to the curves.
 *
 * @param progress told how much of it is done, up to 1
 * @returns empty when nothing is left
 */
export function offsetOutlines(outlines: readonly Outline[], settings: OffsetSettings, progress?: Progress): Path {
  const path = offsetWith(outlines, settings, progress);
  progress?.(1);
  return path;
}

function offsetWith(outlines: readonly Outline[], settings: OffsetSettings, progress?: Progress): Path {
  const { by, ignoreHoles } = settings;
  const parts = outlines.map(({ path, rule }) => ({ subpaths: [...subpathsOf(path)].map(closedWhereItMeets), rule }));
  const lines = parts.flatMap(({ subpaths }) => subpaths.filter(({ closed }) => !closed));
  const closed = parts.map(({ subpaths, rule }) => ({ subpaths: subpaths.filter((subpath) => subpath.closed), rule }));
  const width = 2 * Math.abs(by);
  // Points reach further than the distance.
  const reach = settings.join === 'miter' ? width * Math.max(1, settings.miterLimit) : width;
  const components = edgeComponents(closed, width, reach, ignoreHoles, partOf(progress, 0, foundShare));
  progress?.(foundShare);
  // Each segment is offset, united and traced.
  const total = 3 * components.flat().reduce((sum, { segments }) => sum + segments.length, 0);
  const done = counting(partOf(progress, foundShare, 1), total);
  const offsetAll = () => components.flatMap((component) => offsetEdges(component, settings, done));
  if (Math.abs(by) < leastDistance) return pathOfSubpaths(components.flat().map(outlineOfEdge));
  if (settings.side !== 'both') {
    const aside = lines.flatMap((line) => parallelLine(line, settings));
    return pathOfSubpaths([...offsetAll(), ...aside]);
  }
  if (by < 0 || lines.length === 0) return pathOfSubpaths(offsetAll());
  const raw = components.flat().map(({ segments }) => sideOf(segments, settings, true, done).curve);
  return pathOfSubpaths(
    keptOf([...raw, ...lines.map(({ segments }) => ringAround(segments, settings))], () => done(total / 3)),
  );
}

/** Told that so many more steps are done. */
type Done = (steps: number) => void;
const noted: Done = () => undefined;

function outlineOfEdge({ segments }: Edge): Subpath {
  return { segments, closed: true };
}

/** What is at the distance from edges that come near each other, or from one that is alone. */
function offsetEdges(component: readonly Edge[], settings: OffsetSettings, done: Done): Subpath[] {
  const count = component.reduce((sum, { segments }) => sum + segments.length, 0);
  const [edge] = component;
  const isAlone = component.length === 1 && !edge.nearItself;
  if (isAlone && edge.isStraight && settings.join === 'round' && edge.ring.count >= manyNodes) {
    const curve = roundOffsetRing(edge.ring, settings.by);
    if (curve) {
      done(3 * count);
      return [withoutShort({ segments: straightened(curve, true), closed: true })];
    }
  }
  const sides = component.map(({ segments }) => sideOf(segments, settings, true, done));
  if (isAlone && sides[0].isPlain) {
    done(2 * count);
    return [withoutShort({ segments: straightened(sides[0].curve, true), closed: true })];
  }
  // In holes what lies around is covered: what is at the distance from them is found as if they were solid.
  const { ring } = component.reduce((most, entry) =>
    Math.abs(entry.ring.area) > Math.abs(most.ring.area) ? entry : most,
  );
  if (ring.area > 0)
    return keptOf(
      sides.map(({ curve }) => curve),
      () => done(count),
    );
  return keptOf(
    sides.map(({ curve }) => curve.map(reversed).reverse()),
    () => done(count),
  ).map(reversedSubpath);
}

/** A line whose end is its start is a closed one, whether or not it says so. */
function closedWhereItMeets(subpath: Subpath): Subpath {
  const { segments, closed } = subpath;
  if (closed || segments.length < 2) return subpath;
  const [first, last] = [segments[0], segments[segments.length - 1]];
  const meets = Math.abs(first[0] - last[6]) < 1e-6 && Math.abs(first[1] - last[7]) < 1e-6;
  return meets ? { segments, closed: true } : subpath;
}

/** The line parallel to an open one, on the side asked for; on the other where the distance is below 0. */
function parallelLine({ segments }: Subpath, settings: OffsetSettings): Subpath[] {
  const right = settings.by > 0 === (settings.side === 'right');
  // What lies to the right of the line, within the distance: its edge without the line itself and the ends.
  const line = right ? segments : segments.map(reversed).reverse();
  const along = sideOf(line, { ...settings, by: Math.abs(settings.by) }, false).curve;
  const [first, last] = [along[0], along[along.length - 1]];
  const back = [
    lineSegment(last[6], last[7], line[line.length - 1][6], line[line.length - 1][7]),
    ...line.map(reversed).reverse(),
    lineSegment(line[0][0], line[0][1], first[0], first[1]),
  ].filter(hasLength);
  const lines = partsOf([...along, ...back], along.length);
  return right ? lines : lines.map(reversedSubpath);
}

/** The ring round an open line, along both its sides and round its ends. */
function ringAround(segments: readonly Segment[], settings: OffsetSettings): Segment[] {
  const back = segments.map(reversed).reverse();
  const out: Segment[] = [];
  for (const side of [segments, back]) {
    for (const segment of sideOf(side, settings, false).curve) addJoined(out, segment);
    for (const segment of capAt(side[side.length - 1], settings)) addJoined(out, segment);
  }
  closeUp(out);
  return out.filter(hasLength);
}

/**
 * The offset curve along one side of a run of segments, corners and all; and whether it is plain: nowhere on the inner side of
 * a corner, nor folded.
 */
function sideOf(
  run: readonly Segment[],
  settings: OffsetSettings,
  closed: boolean,
  done: Done = noted,
): { curve: Segment[]; isPlain: boolean } {
  const { by } = settings;
  const segments = run.flatMap(withoutCusps);
  const out: Segment[] = [];
  let isPlain = true;
  segments.forEach((segment, i) => {
    for (const piece of parallelTo(segment, by)) {
      if (!piece.folded) {
        for (const entry of piece.segments) addJoined(out, entry);
        continue;
      }
      isPlain = false;
      for (const chord of piece.chords) addAroundChord(out, chord, by);
    }
    done(1);
    const next = segments[i + 1] ?? (closed ? segments[0] : null);
    if (!next) return;
    const corner = cornerBetween(segment, next, settings);
    if (corner.isInner) isPlain = false;
    for (const entry of corner.curve) addJoined(out, entry);
  });
  if (closed && out.length > 0) closeUp(out);
  return { curve: out.filter(hasLength), isPlain };
}

function addJoined(out: Segment[], segment: Segment): void {
  const last = out.at(-1);
  if (last && (last[6] !== segment[0] || last[7] !== segment[1]))
    out.push(lineSegment(last[6], last[7], segment[0], segment[1]));
  out.push(segment);
}

/** Out from a chord, along its parallel, and back: what a piece that is curved too tightly for a parallel covers. */
function addAroundChord(out: Segment[], chord: Segment, distance: number): void {
  const [x0, y0, , , , , x1, y1] = chord;
  const { x, y } = rightAt(chord, 0);
  addJoined(out, lineSegment(x0, y0, x0 + distance * x, y0 + distance * y));
  addJoined(out, lineSegment(x0 + distance * x, y0 + distance * y, x1 + distance * x, y1 + distance * y));
  addJoined(out, lineSegment(x1 + distance * x, y1 + distance * y, x1, y1));
}

function closeUp(out: Segment[]): void {
  const [first, last] = [out[0], out[out.length - 1]];
  out.push(lineSegment(last[6], last[7], first[0], first[1]));
}

function hasLength(s: Segment): boolean {
  return s[0] !== s[6] || s[1] !== s[7] || s[2] !== s[0] || s[3] !== s[1];
}

/** Of rings that may cross themselves and each other: what they go round at least once the right way. */
function keptOf(raw: readonly (readonly Segment[])[], step: () => void): Subpath[] {
  const curves = new CurvedRings();
  const rings = raw.map((ring) => curves.add(ring)).filter(hasExtent);
  const kept = Clipper.union(rings, ClipperRule.Positive);
  step();
  const outlines = curves.outlinesOf(kept).map(withoutShort).filter(isWide);
  step();
  return outlines;
}

/** Of the edge of what a ring goes round, the parts that come from the first `count` of its segments, as open lines. */
function partsOf(ring: readonly Segment[], count: number): Subpath[] {
  const parts: Subpath[] = [];
  const curves = new CurvedRings();
  for (const traced of curves.piecesOf(Clipper.union([curves.add(ring)].filter(hasExtent), ClipperRule.Positive))) {
    // A ring begins anywhere: its parts are told apart from what is none of them on.
    const start = traced.findIndex(({ owner }) => owner >= count);
    if (start < 0) {
      parts.push(withoutShort({ segments: traced.map(({ piece }) => piece), closed: true }));
      continue;
    }
    let part: Segment[] = [];
    for (let i = 0; i <= traced.length; i++) {
      const { owner, piece } = traced[(start + i) % traced.length];
      if (owner < count) part.push(piece);
      else if (part.length > 0) {
        parts.push(withoutShort({ segments: straightened(part, false), closed: false }));
        part = [];
      }
    }
  }
  return parts;
}

function isWide({ segments }: Subpath): boolean {
  let around = 0;
  for (const s of segments) around += Math.hypot(s[6] - s[0], s[7] - s[1]);
  return Math.abs(areaWithin(segments)) > (leastWidth * around) / 2;
}
