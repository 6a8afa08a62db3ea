import { Clipper, FillRule as ClipperRule } from 'clipper2-ts';
import { addEllipticArc } from './arc.ts';
import { roundBesideRing } from './beside-ring.ts';
import type { Outline } from './combine.ts';
import { type Edge, edgeFamilies } from './outline-edges.ts';
import { parallelTo, rightAt, withoutCusps } from './parallel.ts';
import { type Path, PathBuilder } from './path.ts';
import {
  isLine,
  lineStretch,
  pathOfSubpaths,
  reversed,
  reversedSubpath,
  type Stretch,
  type Subpath,
  subpathsOf,
} from './stretches.ts';
import { areaWithin, CurvedRings, straightened } from './trace.ts';

/** How an offset goes round corners: on a circle, on to a point, or straight across. */
export type Join = 'round' | 'miter' | 'bevel';
/** How the offset of an open line goes round its ends: on a circle, straight across, or straight across further on. */
export type Cap = 'round' | 'flat' | 'square';

export interface OffsetSettings {
  /** In mm; outlines grow, below 0 they shrink. */
  readonly by: number;
  readonly join: Join;
  /** A point reaches no further than this many times the distance; where it would, it is cut across. */
  readonly miterLimit: number;
  readonly cap: Cap;
  /** Whether holes are filled first. */
  readonly ignoreHoles: boolean;
  /** Of open lines: what lies within the distance on both sides, or a line to the right or the left of their way. */
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
/** Straight outlines of so many nodes are gone beside node by node where that is enough, the others all together. */
const manyNodes = 500;
/** Turns smaller than this, in radians, are no corners: the two sides are joined straight. */
const leastTurn = 1e-3;
/** Arcs round corners that rise less than this above their chord, in mm, are that chord. */
const leastSagitta = 5e-4;
/** Rings thinner than this, in mm, are rounding. */
const leastWidth = 0.004;
/** Pieces shorter than this, in mm, are rounding where curves cross. */
const leastLength = 0.002;

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
 * @returns empty when nothing is left
 */
export function offsetOutlines(outlines: readonly Outline[], settings: OffsetSettings): Path {
  const { by, ignoreHoles } = settings;
  const parts = outlines.map(({ path, rule }) => ({ subpaths: [...subpathsOf(path)].map(closedWhereItMeets), rule }));
  const lines = parts.flatMap(({ subpaths }) => subpaths.filter(({ closed }) => !closed));
  const closed = parts.map(({ subpaths, rule }) => ({ subpaths: subpaths.filter((subpath) => subpath.closed), rule }));
  const width = 2 * Math.abs(by);
  // Points reach further than the distance.
  const reach = settings.join === 'miter' ? width * Math.max(1, settings.miterLimit) : width;
  const families = edgeFamilies(closed, width, reach, ignoreHoles);
  if (Math.abs(by) < leastDistance) return pathOfSubpaths(families.flat().map(outlineOfEdge));
  if (settings.side !== 'both') {
    const aside = lines.flatMap((line) => besideLine(line, settings));
    return pathOfSubpaths([...families.flatMap((family) => besideEdges(family, settings)), ...aside]);
  }
  if (by < 0 || lines.length === 0) return pathOfSubpaths(families.flatMap((family) => besideEdges(family, settings)));
  const raw = families.flat().map(({ stretches }) => sideOf(stretches, settings, true).way);
  return pathOfSubpaths(keptOf([...raw, ...lines.map(({ stretches }) => ringAround(stretches, settings))]));
}

function outlineOfEdge({ stretches }: Edge): Subpath {
  return { stretches, closed: true };
}

/** What is at the distance from edges that come near each other, or from one that is alone. */
function besideEdges(family: readonly Edge[], settings: OffsetSettings): Subpath[] {
  const [edge] = family;
  const isAlone = family.length === 1 && !edge.nearItself;
  if (isAlone && edge.isStraight && settings.join === 'round' && edge.ring.count >= manyNodes) {
    const way = roundBesideRing(edge.ring, settings.by);
    if (way) return [tidied({ stretches: straightened(way, true), closed: true })];
  }
  const sides = family.map(({ stretches }) => sideOf(stretches, settings, true));
  if (isAlone && sides[0].isPlain) return [tidied({ stretches: straightened(sides[0].way, true), closed: true })];
  // In holes what lies around is covered: what is at the distance from them is found as if they were solid.
  const { ring } = family.reduce((most, one) => (Math.abs(one.ring.area) > Math.abs(most.ring.area) ? one : most));
  if (ring.area > 0) return keptOf(sides.map(({ way }) => way));
  return keptOf(sides.map(({ way }) => way.map(reversed).reverse())).map(reversedSubpath);
}

/** A line whose end is its start is a closed one, whether or not it says so. */
function closedWhereItMeets(subpath: Subpath): Subpath {
  const { stretches, closed } = subpath;
  if (closed || stretches.length < 2) return subpath;
  const [first, last] = [stretches[0], stretches[stretches.length - 1]];
  const meets = Math.abs(first[0] - last[6]) < 1e-6 && Math.abs(first[1] - last[7]) < 1e-6;
  return meets ? { stretches, closed: true } : subpath;
}

/** The line beside an open one, on the side asked for; on the other where the distance is below 0. */
function besideLine({ stretches }: Subpath, settings: OffsetSettings): Subpath[] {
  const right = settings.by > 0 === (settings.side === 'right');
  // What lies to the right of the way, within the distance: its edge without the line itself and the ends.
  const way = right ? stretches : stretches.map(reversed).reverse();
  const along = sideOf(way, { ...settings, by: Math.abs(settings.by) }, false).way;
  const [first, last] = [along[0], along[along.length - 1]];
  const back = [
    lineStretch(last[6], last[7], way[way.length - 1][6], way[way.length - 1][7]),
    ...way.map(reversed).reverse(),
    lineStretch(way[0][0], way[0][1], first[0], first[1]),
  ].filter(hasLength);
  const lines = partsOf([...along, ...back], along.length);
  return right ? lines : lines.map(reversedSubpath);
}

/** The way round an open line, along both its sides and round its ends. */
function ringAround(stretches: readonly Stretch[], settings: OffsetSettings): Stretch[] {
  const back = stretches.map(reversed).reverse();
  const out: Stretch[] = [];
  for (const way of [stretches, back]) {
    for (const one of sideOf(way, settings, false).way) addJoined(out, one);
    for (const one of capAt(way[way.length - 1], settings)) addJoined(out, one);
  }
  closeUp(out);
  return out.filter(hasLength);
}

/**
 * The way along one side of a run of stretches, corners and all; and whether it is plain: nowhere on the inner side of
 * a corner, nor folded.
 */
function sideOf(
  run: readonly Stretch[],
  settings: OffsetSettings,
  closed: boolean,
): { way: Stretch[]; isPlain: boolean } {
  const { by } = settings;
  const stretches = run.flatMap(withoutCusps);
  const out: Stretch[] = [];
  let isPlain = true;
  stretches.forEach((stretch, i) => {
    for (const piece of parallelTo(stretch, by)) {
      if (!piece.folded) {
        for (const one of piece.stretches) addJoined(out, one);
        continue;
      }
      isPlain = false;
      for (const chord of piece.chords) addAroundChord(out, chord, by);
    }
    const next = stretches[i + 1] ?? (closed ? stretches[0] : null);
    if (!next) return;
    const corner = cornerBetween(stretch, next, settings);
    if (corner.isInner) isPlain = false;
    for (const one of corner.way) addJoined(out, one);
  });
  if (closed && out.length > 0) closeUp(out);
  return { way: out.filter(hasLength), isPlain };
}

function addJoined(out: Stretch[], stretch: Stretch): void {
  const last = out.at(-1);
  if (last && (last[6] !== stretch[0] || last[7] !== stretch[1]))
    out.push(lineStretch(last[6], last[7], stretch[0], stretch[1]));
  out.push(stretch);
}

/** Out from a chord, along beside it, and back: what a piece that bends too tightly for a parallel covers. */
function addAroundChord(out: Stretch[], chord: Stretch, by: number): void {
  const [x0, y0, , , , , x1, y1] = chord;
  const { x, y } = rightAt(chord, 0);
  addJoined(out, lineStretch(x0, y0, x0 + by * x, y0 + by * y));
  addJoined(out, lineStretch(x0 + by * x, y0 + by * y, x1 + by * x, y1 + by * y));
  addJoined(out, lineStretch(x1 + by * x, y1 + by * y, x1, y1));
}

function closeUp(out: Stretch[]): void {
  const [first, last] = [out[0], out[out.length - 1]];
  out.push(lineStretch(last[6], last[7], first[0], first[1]));
}

function hasLength(s: Stretch): boolean {
  return s[0] !== s[6] || s[1] !== s[7] || s[2] !== s[0] || s[3] !== s[1];
}

/** What leads from the side of one stretch to that of the next; whether that is on the inner side of the corner. */
function cornerBetween(
  a: Stretch,
  b: Stretch,
  { by, join, miterLimit }: OffsetSettings,
): { way: Stretch[]; isInner: boolean } {
  const [x, y] = [a[6], a[7]];
  const [m, n] = [rightAt(a, 1), rightAt(b, 0)];
  const [x0, y0, x1, y1] = [x + by * m.x, y + by * m.y, x + by * n.x, y + by * n.y];
  const outer = (way: Stretch[]) => ({ way, isInner: false });
  const turn = Math.atan2(m.x * n.y - m.y * n.x, m.x * n.x + m.y * n.y);
  const isSlight = Math.abs(by) * (1 - Math.cos(turn / 2)) < leastSagitta && turn * by > 0;
  if (Math.abs(turn) < leastTurn || isSlight) return outer([lineStretch(x0, y0, x1, y1)]);
  const turnsBack = Math.PI - Math.abs(turn) < leastTurn;
  // On the inner side of a corner the way leads through the corner itself: what it goes round there does not count.
  if (turn * by < 0 && !turnsBack)
    return { way: [lineStretch(x0, y0, x, y), lineStretch(x, y, x1, y1)], isInner: true };
  if (join === 'round') return outer(arc(x, y, by, m, turnsBack ? Math.sign(by) * Math.PI : turn, { x: x1, y: y1 }));
  const reach = 1 / Math.cos(turn / 2);
  if (join === 'miter' && !turnsBack && reach <= miterLimit) {
    const share = by / (1 + m.x * n.x + m.y * n.y);
    const [px, py] = [x + share * (m.x + n.x), y + share * (m.y + n.y)];
    return outer([lineStretch(x0, y0, px, py), lineStretch(px, py, x1, y1)]);
  }
  return outer([lineStretch(x0, y0, x1, y1)]);
}

/** The way round an open line's end. */
function capAt(last: Stretch, { by, cap }: OffsetSettings): Stretch[] {
  const [x, y] = [last[6], last[7]];
  const n = rightAt(last, 1);
  const [x0, y0, x1, y1] = [x + by * n.x, y + by * n.y, x - by * n.x, y - by * n.y];
  if (cap === 'round') return arc(x, y, by, n, Math.sign(by) * Math.PI, { x: x1, y: y1 });
  if (cap === 'flat') return [lineStretch(x0, y0, x1, y1)];
  // On by the distance: the way is to the left of what is right of it.
  const [fx, fy] = [-n.y * Math.abs(by), n.x * Math.abs(by)];
  return [
    lineStretch(x0, y0, x0 + fx, y0 + fy),
    lineStretch(x0 + fx, y0 + fy, x1 + fx, y1 + fy),
    lineStretch(x1 + fx, y1 + fy, x1, y1),
  ];
}

/** Round a point, from where its side is to where that is after a turn. */
function arc(
  cx: number,
  cy: number,
  by: number,
  from: { x: number; y: number },
  span: number,
  end: { x: number; y: number },
): Stretch[] {
  const builder = new PathBuilder().moveTo(cx + by * from.x, cy + by * from.y);
  const start = Math.atan2(by * from.y, by * from.x);
  addEllipticArc(builder, cx, cy, Math.abs(by), Math.abs(by), 0, start, span, end);
  return [...subpathsOf(builder.build())].flatMap(({ stretches }) => stretches);
}

/** Of rings that may cross themselves and each other: what they go round at least once the right way. */
function keptOf(raw: readonly (readonly Stretch[])[]): Subpath[] {
  const curves = new CurvedRings();
  const rings = raw.filter((ring) => ring.length > 0).map((ring) => curves.add(ring));
  return curves.outlinesOf(Clipper.union(rings, ClipperRule.Positive)).map(tidied).filter(isWide);
}

/** Of the edge of what a ring goes round, the parts that come from the first `count` of its stretches, as open lines. */
function partsOf(ring: readonly Stretch[], count: number): Subpath[] {
  const parts: Subpath[] = [];
  const curves = new CurvedRings();
  for (const traced of curves.piecesOf(Clipper.union([curves.add(ring)], ClipperRule.Positive))) {
    // A ring begins anywhere: its parts are told apart from what is none of them on.
    const start = traced.findIndex(({ of }) => of >= count);
    if (start < 0) {
      parts.push(tidied({ stretches: traced.map(({ piece }) => piece), closed: true }));
      continue;
    }
    let part: Stretch[] = [];
    for (let i = 0; i <= traced.length; i++) {
      const { of, piece } = traced[(start + i) % traced.length];
      if (of < count) part.push(piece);
      else if (part.length > 0) {
        parts.push(tidied({ stretches: straightened(part, false), closed: false }));
        part = [];
      }
    }
  }
  return parts;
}

/** Without what rounding left where curves cross. */
function tidied({ stretches, closed }: Subpath): Subpath {
  const isLong = (s: Stretch) => (s[6] - s[0]) ** 2 + (s[7] - s[1]) ** 2 > leastLength ** 2;
  if (stretches.every(isLong)) return { stretches, closed };
  const kept = stretches.filter(isLong);
  if (kept.length < 2) return { stretches, closed };
  const moved = kept.map((s, i): Stretch => {
    if (i === 0 && !closed) return s;
    const before = kept[(i + kept.length - 1) % kept.length];
    if (isLine(s)) return lineStretch(before[6], before[7], s[6], s[7]);
    const [dx, dy] = [before[6] - s[0], before[7] - s[1]];
    return [before[6], before[7], s[2] + dx, s[3] + dy, s[4], s[5], s[6], s[7]];
  });
  return { stretches: moved, closed };
}

function isWide({ stretches }: Subpath): boolean {
  let around = 0;
  for (const s of stretches) around += Math.hypot(s[6] - s[0], s[7] - s[1]);
  return Math.abs(areaWithin(stretches)) > (leastWidth * around) / 2;
}
