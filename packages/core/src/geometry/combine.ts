import { Clipper, Clipper64, FillRule as ClipperRule, ClipType, type Path64, type Paths64 } from 'clipper2-ts';
import type { FillRule } from './area.ts';
import { type Chord, chordsOf, indexOf, refine } from './crossings.ts';
import type { Path } from './path.ts';
import {
  isLine,
  lineStretch,
  pathOfSubpaths,
  pieceOf,
  pointAt,
  type Stretch,
  type Subpath,
  subpathsOf,
} from './stretches.ts';

/** How outlines are put together: all they cover, the first without the others, what all cover, what an odd number covers. */
export type Combining = 'unite' | 'subtract' | 'intersect' | 'exclude';

export interface Outline {
  readonly path: Path;
  readonly rule: FillRule;
}

/** The raster of the polygon arithmetic, in mm. */
const grid = 1e-4;
/** How far a chord strays from its curve there, in mm. The curves themselves come back exactly. */
const chordTolerance = 0.002;
/** Outlines that cover less, in mm², are rounding. */
const leastArea = 1e-4;

/**
 * Puts closed outlines together. The polygon arithmetic is clipper2-ts's (Vatti's), over chords of the curves;
 * then each edge of the answer is traced back to the stretch it is a chord of, so that lines stay lines and
 * curves stay pieces of the very curves that came in, cut where they truly cross.
 *
 * @returns outlines that do not cross, holes turning the other way; empty when nothing is left
 */
export function combineOutlines(outlines: readonly Outline[], how: Combining): Path {
  const stretches: Stretch[] = [];
  const areas = outlines.map(({ path, rule }) => {
    const rings: Paths64 = [];
    for (const subpath of subpathsOf(path)) {
      const all = closedUp(subpath);
      const first = stretches.length;
      stretches.push(...all);
      const chords = chordsOf(all, chordTolerance);
      rings.push(chords.map(({ x0, y0 }) => ({ x: toGrid(x0), y: toGrid(y0) })));
      if (first === stretches.length) rings.pop();
    }
    return Clipper.union(rings, rule === 'evenodd' ? ClipperRule.EvenOdd : ClipperRule.NonZero);
  });
  return traceBack(combineAreas(areas, how), stretches);
}

function closedUp({ stretches }: Subpath): Stretch[] {
  const first = stretches[0];
  const last = stretches[stretches.length - 1];
  const gap = Math.hypot(first[0] - last[6], first[1] - last[7]);
  return gap < 1e-9 ? [...stretches] : [...stretches, lineStretch(last[6], last[7], first[0], first[1])];
}

const kinds = {
  unite: ClipType.Union,
  subtract: ClipType.Difference,
  intersect: ClipType.Intersection,
  exclude: ClipType.Xor,
} as const;

function combineAreas([first, ...others]: Paths64[], how: Combining): Paths64 {
  if (!first) return [];
  const apply = (subject: Paths64, clip: Paths64) => {
    const clipper = new Clipper64();
    clipper.addSubject(subject);
    clipper.addClip(clip);
    const out: Paths64 = [];
    clipper.execute(kinds[how], ClipperRule.NonZero, out);
    return out;
  };
  // What is taken away, or added, can be so in one go; the rest goes one after another.
  if (how === 'unite' || how === 'subtract') return apply(first, others.flat());
  return others.reduce(apply, first);
}

/** A run of an answer's edges along one stretch. */
interface Run {
  readonly stretch: number;
  from: number;
  to: number;
}

function traceBack(rings: Paths64, stretches: readonly Stretch[]): Path {
  const chords = chordsOf(stretches, chordTolerance);
  const index = indexOf(chords);
  if (!index) return pathOfSubpaths([]);
  const subpaths: Subpath[] = [];
  for (const ring of rings) {
    if (Math.abs(Clipper.area(ring)) * grid * grid < leastArea) continue;
    const runs = runsOf(ring, chords, (x, y, reach) => index.search(x - reach, y - reach, x + reach, y + reach));
    const traced = straightened(joined(runs, stretches));
    if (traced.length > 0) subpaths.push({ stretches: traced, closed: true });
  }
  return pathOfSubpaths(subpaths);
}

function runsOf(
  ring: Path64,
  chords: readonly Chord[],
  near: (x: number, y: number, reach: number) => readonly number[],
): Run[] {
  const runs: Run[] = [];
  ring.forEach((end, i) => {
    const start = ring[(i + ring.length - 1) % ring.length];
    const edge = { x0: start.x * grid, y0: start.y * grid, x1: end.x * grid, y1: end.y * grid };
    const chord = chordAlong(edge, chords, near);
    if (!chord) return;
    const [from, to] = [paramOn(chord, edge.x0, edge.y0), paramOn(chord, edge.x1, edge.y1)];
    const last = runs.at(-1);
    const goesOn =
      last?.stretch === chord.stretch && Math.abs(last.to - from) < 1e-3 && to > from === last.to > last.from;
    if (last && goesOn) last.to = to;
    else runs.push({ stretch: chord.stretch, from, to });
  });
  // The ring may begin in the middle of a run.
  const [first, last] = [runs[0], runs.at(-1)];
  if (last && runs.length > 1 && first.stretch === last.stretch && Math.abs(last.to - first.from) < 1e-3) {
    if (first.to > first.from === last.to > last.from) {
      first.from = last.from;
      runs.pop();
    }
  }
  return runs.filter(({ from, to }) => from !== to);
}

/** The chord that an edge runs along: the one whose line is nearest to both of its ends. */
function chordAlong(
  { x0, y0, x1, y1 }: { x0: number; y0: number; x1: number; y1: number },
  chords: readonly Chord[],
  near: (x: number, y: number, reach: number) => readonly number[],
): Chord | null {
  const reach = 4 * grid;
  let best: Chord | null = null;
  let least = Infinity;
  for (const i of near((x0 + x1) / 2, (y0 + y1) / 2, reach)) {
    const chord = chords[i];
    const [dx, dy] = [chord.x1 - chord.x0, chord.y1 - chord.y0];
    const length = Math.hypot(dx, dy);
    const off = (x: number, y: number) => Math.abs((x - chord.x0) * dy - (y - chord.y0) * dx) / length;
    const miss = Math.max(off(x0, y0), off(x1, y1));
    if (miss < least) {
      least = miss;
      best = chord;
    }
  }
  return best;
}

/** The parameter of a chord's stretch at a point on it; its ends exactly, within rounding. */
function paramOn({ from, to, x0, y0, x1, y1 }: Chord, x: number, y: number): number {
  const [dx, dy] = [x1 - x0, y1 - y0];
  const length = Math.hypot(dx, dy);
  const along = ((x - x0) * dx + (y - y0) * dy) / (length * length);
  if (along * length < 2 * grid) return from;
  if ((1 - along) * length < 2 * grid) return to;
  return from + along * (to - from);
}

/** The runs as pieces of their stretches, each cut where the next one truly crosses it. */
function joined(runs: readonly Run[], stretches: readonly Stretch[]): Stretch[] {
  const cuts = runs.map(({ stretch, to }, i) => {
    const next = runs[(i + 1) % runs.length];
    const [a, b] = [stretches[stretch], stretches[next.stretch]];
    const met = next.stretch === stretch ? null : refine(a, b, to, next.from);
    const [p, q] = [pointAt(a, to), pointAt(b, next.from)];
    const near = met !== null && Math.hypot(met.x - p.x, met.y - p.y) < 50 * chordTolerance;
    if (near) return { ta: met.ta, tb: met.tb, x: met.x, y: met.y };
    return { ta: to, tb: next.from, x: (p.x + q.x) / 2, y: (p.y + q.y) / 2 };
  });
  return runs.flatMap(({ stretch }, i) => {
    const before = cuts[(i + runs.length - 1) % runs.length];
    const after = cuts[i];
    const [from, to] = runs.length === 1 ? [runs[0].from, runs[0].to] : [before.tb, after.ta];
    if (from === to) return [];
    const piece = pieceOf(stretches[stretch], from, to);
    if (runs.length === 1) return [piece];
    if (isLine(piece)) return [lineStretch(before.x, before.y, after.x, after.y)];
    const [, , x1, y1, x2, y2] = piece;
    return [[before.x, before.y, x1, y1, x2, y2, after.x, after.y] as const];
  });
}

/** Without nodes in the middle of a straight line, and lines of rounding's length. */
function straightened(stretches: readonly Stretch[]): Stretch[] {
  const out: Stretch[] = [];
  for (const stretch of stretches) {
    const last = out.at(-1);
    if (last && goesStraightOn(last, stretch))
      out[out.length - 1] = lineStretch(last[0], last[1], stretch[6], stretch[7]);
    else out.push(stretch);
  }
  const [first, last] = [out[0], out.at(-1)];
  if (last && out.length > 2 && goesStraightOn(last, first)) {
    out[0] = lineStretch(last[0], last[1], first[6], first[7]);
    out.pop();
  }
  return out;
}

function goesStraightOn(a: Stretch, b: Stretch): boolean {
  if (!isLine(a) || !isLine(b)) return false;
  const [ax, ay, bx, by] = [a[6] - a[0], a[7] - a[1], b[6] - b[0], b[7] - b[1]];
  const [along, across] = [ax * bx + ay * by, Math.abs(ax * by - ay * bx)];
  return (
    along > 0 &&
    across <= 1e-5 * Math.hypot(ax, ay) * Math.hypot(bx, by) &&
    across <= grid * Math.hypot(ax + bx, ay + by)
  );
}

function toGrid(mm: number): number {
  return Math.round(mm / grid);
}
