import { chordsOfArc, turnOfArc } from '../geometry/paths/arc-chords.ts';
import { centreThrough } from '../geometry/paths/arc-of.ts';
import { type Box, boxContains } from '../geometry/paths/box.ts';
import type { Point } from '../geometry/paths/matrix.ts';
import { Move, MoveList, type Moves, toProgramGrid } from './moves.ts';

/** Fewer chords than these are no shorter as an arc. */
const fewestChords = 3;
/** How far the ends of chords may lie from their arc, in mm. */
const endsWithin = 0.004;
/** How far their middles may, in mm: with the raster of programs, no arc is further than 0.01 mm from its chords. */
const chordsWithin = 0.009;
/** How much the centre may be out by the raster of programs, in mm, seen from the end of an arc. */
const radiiWithin = 0.002;
/** Larger circles, in mm, are straight. */
const largestRadius = 1000;
/** An arc that turns further than half a turn is parted: halves of a circle tell its middle best. */
const mostTurn = Math.PI + 0.01;

/** Moves one after the other that could be chords of arcs. */
interface Chords {
  /** The first of them among all moves. */
  readonly first: number;
  /** Where the first one begins, then where each ends. */
  readonly points: readonly Point[];
}

interface FittedArc {
  /** Among the points. */
  readonly from: number;
  readonly to: number;
  readonly cx: number;
  readonly cy: number;
  readonly isClockwise: boolean;
}

/**
 * Says the burning moves of a list as arcs where they go along circles. Each arc is taken as long as it can be, from the
 * first move on. No arc leaves its chords by more than 0.01 mm, or leaves the bed.
 *
 * @param start where the moves begin, and how far above the stock the focus is then.
 * @param lineEnds how many moves there are after each line that is burnt: no arc goes on from one into the next.
 * @param tolerance how far the machine's own chords are from its arcs, in mm.
 */
export function withArcs(
  moves: Moves,
  start: Point & { readonly z?: number },
  lineEnds: readonly number[],
  bed: Box,
  tolerance: number,
): MoveList {
  const list = new MoveList(start);
  const { kinds, xs, ys, powers, values } = moves;
  const arcs = new Map<number, FittedArc>();
  for (const { first, points } of runsOf(moves, start, lineEnds)) {
    for (const arc of arcsThrough(points)) arcs.set(first + arc.from, arc);
  }
  let ended = 0;
  for (let i = 0; i < kinds.length; i++) {
    for (; lineEnds[ended] === i; ended++) list.endLine();
    list.power = powers?.[i] ?? 1;
    const arc = arcs.get(i);
    const last = arc ? i + arc.to - arc.from - 1 : i;
    const to = { x: xs[last], y: ys[last] };
    const chords = arc ? chordsOfArc(list, to, arc, tolerance) : [];
    if (arc && chords.every(({ x, y }) => boxContains(bed, { minX: x, minY: y, maxX: x, maxY: y }))) {
      list.arc(arc, chords);
      i = last;
    } else if (kinds[i] === Move.wait) list.wait(values?.[i] ?? 0);
    else if (kinds[i] === Move.focus) list.focus(values?.[i] ?? 0);
    else list.to(kinds[i], xs[i], ys[i]);
  }
  for (; ended < lineEnds.length; ended++) list.endLine();
  return list;
}

/** Burning moves of one power that go on from each other, within one line. */
function* runsOf({ kinds, xs, ys, powers }: Moves, start: Point, lineEnds: readonly number[]): Generator<Chords> {
  const ends = new Set(lineEnds);
  let run: { first: number; points: Point[] } | null = null;
  for (let i = 0; i < kinds.length; i++) {
    const goesOn = run && kinds[i] === Move.lit && !ends.has(i) && powers?.[i] === powers?.[i - 1];
    if (!goesOn) {
      if (run) yield run;
      const from = i > 0 ? { x: xs[i - 1], y: ys[i - 1] } : { x: toProgramGrid(start.x), y: toProgramGrid(start.y) };
      run = kinds[i] === Move.lit ? { first: i, points: [from] } : null;
    }
    run?.points.push({ x: xs[i], y: ys[i] });
  }
  if (run) yield run;
}

function* arcsThrough(points: readonly Point[]): Generator<FittedArc> {
  for (let from = 0; from + fewestChords < points.length; ) {
    const arc = longestArc(points, from);
    if (arc) yield arc;
    from = arc?.to ?? from + 1;
  }
}

/** Twice as long each time, then back by halves: few are tried. */
function longestArc(points: readonly Point[], from: number): FittedArc | null {
  let best: FittedArc | null = null;
  let [good, step] = [from, fewestChords];
  while (step >= 1) {
    const to = Math.min(points.length - 1, good + step);
    const arc = to - from >= fewestChords && to > good ? arcBetween(points, from, to) : null;
    if (arc) {
      best = arc;
      good = to;
      step *= 2;
    } else {
      if (!best) return null;
      step >>= 1;
    }
  }
  return best;
}

/** The arc from one point to another by those between them; null where they lie on none. */
function arcBetween(points: readonly Point[], from: number, to: number): FittedArc | null {
  const [a, b] = [points[from], points[to]];
  const centre = centreThrough(a, points[(from + to) >> 1], b);
  if (!centre) return null;
  // Programs say where the centre is from the beginning.
  const [i, j] = [toProgramGrid(centre.x - a.x), toProgramGrid(centre.y - a.y)];
  const [cx, cy] = [a.x + i, a.y + j];
  const radius = Math.hypot(i, j);
  if (!(radius > radiiWithin && radius < largestRadius)) return null;
  if (Math.abs(Math.hypot(b.x - cx, b.y - cy) - radius) > radiiWithin) return null;
  const first = points[from + 1];
  const isClockwise = (a.x - cx) * (first.y - cy) - (a.y - cy) * (first.x - cx) > 0;
  const around = { cx, cy, isClockwise };
  let turn = 0;
  for (let k = from; k < to; k++) {
    const [p, q] = [points[k], points[k + 1]];
    const chord = turnOfArc(p, q, around);
    turn += chord;
    if (chord > Math.PI / 2 || turn > mostTurn) return null;
    if (Math.abs(Math.hypot(q.x - cx, q.y - cy) - radius) > endsWithin) return null;
    if (Math.abs(Math.hypot((p.x + q.x) / 2 - cx, (p.y + q.y) / 2 - cy) - radius) > chordsWithin) return null;
  }
  return { from, to, ...around };
}
