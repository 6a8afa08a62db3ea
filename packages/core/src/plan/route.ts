import type { Polyline } from '../geometry/paths/flatten.ts';
import { counting, type Progress, partOf } from '../geometry/paths/progress.ts';
import { PointGrid } from './point-grid.ts';
import type { Stops, Tour } from './stops.ts';
import { improveTour } from './tour.ts';

/** A line to be burnt, and which of its nodes it may be entered at; all of a closed one's where that is null. */
export interface RouteLine {
  readonly line: Polyline;
  readonly entries: readonly number[] | null;
}

/** A line of a route: which one, and the node it is entered at. */
export interface Leg {
  readonly index: number;
  readonly node: number;
}

/** At how many of its nodes a closed outline may be entered while the order is sought. */
const entriesTried = 8;
/** How many kicks a route of so many lines is worth while somebody waits for the plan. */
const kicksFor = (count: number) => Math.min(2 * count, 3000);
/** How much of a search goes into finding the nearest next, where there are many lines. */
const nearestShare = 0.3;

/**
 * In which order lines burn, and from which node each, so that the head goes little unlit: the nearest next to begin
 * with, then improved; where each outline is entered is chosen anew for the order found, and the order for that.
 *
 * @param start where the head stands, in mm
 * @param effort how many times the usual search; the longer, the shorter the route may be
 * @param oddPasses whether an open line is left at its other end: it is after an odd number of passes
 * @param progress is told how much of the search is done, from 0 to 1
 */
export function findRoute(
  lines: readonly RouteLine[],
  start: { x: number; y: number },
  oddPasses: boolean,
  effort = 1,
  progress?: Progress,
): Leg[] {
  if (lines.length === 0) return [];
  const choices = lines.map((line) => entriesOf(line));
  let legs = nearestNext(lines, choices, start, oddPasses, partOf(progress, 0, nearestShare));
  const roundShare = (1 - nearestShare) / (1 + effort);
  for (let round = 0; round < 1 + effort && lines.length > 2; round++) {
    const kicks = round < effort ? kicksFor(lines.length) : 0;
    const from = nearestShare + round * roundShare;
    legs = improved(lines, legs, start, oddPasses, kicks, partOf(progress, from, from + roundShare));
    legs = enteredBest(lines, choices, legs, start, oddPasses);
  }
  return legs.map((leg, i) => exactEntry(lines, leg, legs, i, start, oddPasses));
}

function entriesOf({ line, entries }: RouteLine): readonly number[] {
  const count = line.points.length / 2;
  if (!line.closed) return count > 1 ? [0, count - 1] : [0];
  const all = entries?.length ?? count;
  const entry = (i: number) => entries?.[i] ?? i;
  if (all <= entriesTried) return Array.from({ length: all }, (_, i) => entry(i));
  return Array.from({ length: entriesTried }, (_, k) => entry(Math.floor((k * all) / entriesTried)));
}

/** The node at which the head leaves a line that it entered at one. */
function exitOf({ line }: RouteLine, node: number, oddPasses: boolean): number {
  return line.closed || !oddPasses ? node : node === 0 ? line.points.length / 2 - 1 : 0;
}

function nearestNext(
  lines: readonly RouteLine[],
  choices: readonly (readonly number[])[],
  start: { x: number; y: number },
  oddPasses: boolean,
  progress?: Progress,
): Leg[] {
  // Points of one line follow each other.
  const firsts = new Int32Array(lines.length + 1);
  for (let i = 0; i < lines.length; i++) firsts[i + 1] = firsts[i] + choices[i].length;
  const total = firsts[lines.length];
  const [owners, nodes] = [new Int32Array(total), new Int32Array(total)];
  const [xs, ys] = [new Float64Array(total), new Float64Array(total)];
  lines.forEach(({ line: { points } }, i) => {
    choices[i].forEach((node, k) => {
      const index = firsts[i] + k;
      owners[index] = i;
      nodes[index] = node;
      xs[index] = points[node * 2];
      ys[index] = points[node * 2 + 1];
    });
  });
  const grid = new PointGrid(xs, ys);
  const legs: Leg[] = [];
  const count = counting(progress, lines.length);
  let { x, y } = start;
  while (legs.length < lines.length) {
    const found = grid.nearest(x, y);
    const leg = { index: owners[found], node: nodes[found] };
    for (let position = firsts[leg.index]; position < firsts[leg.index + 1]; position++) grid.remove(position);
    legs.push(leg);
    count(1);
    const { points } = lines[leg.index].line;
    const out = exitOf(lines[leg.index], leg.node, oddPasses);
    [x, y] = [points[out * 2], points[out * 2 + 1]];
  }
  return legs;
}

/** The same entries in a better order; open lines may be turned. */
function improved(
  lines: readonly RouteLine[],
  legs: readonly Leg[],
  start: { x: number; y: number },
  oddPasses: boolean,
  kicks: number,
  progress?: Progress,
): Leg[] {
  const count = lines.length;
  const stops: Stops = {
    entryX: new Float64Array(count),
    entryY: new Float64Array(count),
    exitX: new Float64Array(count),
    exitY: new Float64Array(count),
  };
  const node = new Int32Array(count);
  for (const leg of legs) {
    const { points } = lines[leg.index].line;
    const out = exitOf(lines[leg.index], leg.node, oddPasses);
    node[leg.index] = leg.node;
    stops.entryX[leg.index] = points[leg.node * 2];
    stops.entryY[leg.index] = points[leg.node * 2 + 1];
    stops.exitX[leg.index] = points[out * 2];
    stops.exitY[leg.index] = points[out * 2 + 1];
  }
  const first: Tour = { order: Int32Array.from(legs, ({ index }) => index), flipped: new Uint8Array(count) };
  const { order, flipped } = improveTour(stops, first, start, null, kicks, progress);
  return Array.from(order, (index) => ({
    index,
    node: flipped[index] ? exitOf(lines[index], node[index], oddPasses) : node[index],
  }));
}

/** The best entries for an order: of every choice for a line, the shortest route to it, line by line. */
function enteredBest(
  lines: readonly RouteLine[],
  choices: readonly (readonly number[])[],
  legs: readonly Leg[],
  start: { x: number; y: number },
  oddPasses: boolean,
): Leg[] {
  // By leg and choice: from which choice of the leg before it is reached.
  const came = new Uint8Array(legs.length * entriesTried);
  let before = { count: 1, ...exits() };
  let through = { count: 0, ...exits() };
  [before.xs[0], before.ys[0]] = [start.x, start.y];
  legs.forEach(({ index }, i) => {
    const { points } = lines[index].line;
    const nodes = choices[index];
    for (let k = 0; k < nodes.length; k++) {
      const x = points[nodes[k] * 2];
      const y = points[nodes[k] * 2 + 1];
      let best = Number.POSITIVE_INFINITY;
      for (let j = 0; j < before.count; j++) {
        const dx = x - before.xs[j];
        const dy = y - before.ys[j];
        const length = before.lengths[j] + Math.sqrt(dx * dx + dy * dy);
        if (length < best - 1e-12) {
          best = length;
          came[i * entriesTried + k] = j;
        }
      }
      const out = exitOf(lines[index], nodes[k], oddPasses);
      through.xs[k] = points[out * 2];
      through.ys[k] = points[out * 2 + 1];
      through.lengths[k] = best;
    }
    through.count = nodes.length;
    [before, through] = [through, before];
  });
  const lengths = before.lengths.subarray(0, before.count);
  let k = lengths.indexOf(Math.min(...lengths));
  const nodes = new Array<number>(legs.length);
  for (let i = legs.length - 1; i >= 0; i--) {
    nodes[i] = choices[legs[i].index][k];
    k = came[i * entriesTried + k];
  }
  return legs.map(({ index }, i) => ({ index, node: nodes[i] }));
}

/** Where a line may be left, by choice of its entry, and how far it is to there. */
function exits() {
  return {
    xs: new Float64Array(entriesTried),
    ys: new Float64Array(entriesTried),
    lengths: new Float64Array(entriesTried),
  };
}

/** Of all the nodes a closed outline may be entered at, the one on the shortest route from the line before to the next. */
function exactEntry(
  lines: readonly RouteLine[],
  leg: Leg,
  legs: readonly Leg[],
  position: number,
  start: { x: number; y: number },
  oddPasses: boolean,
): Leg {
  const { line, entries } = lines[leg.index];
  if (!line.closed) return leg;
  const { points } = line;
  const before = position === 0 ? start : pointOf(lines, legs[position - 1], oddPasses);
  const next = legs[position + 1];
  const after = next ? pointOf(lines, next, true, true) : null;
  const lengthBy = (node: number) => {
    const x = points[node * 2];
    const y = points[node * 2 + 1];
    return distance(x, y, before.x, before.y) + (after ? distance(x, y, after.x, after.y) : 0);
  };
  let best = leg.node;
  let shortest = lengthBy(best);
  const count = entries?.length ?? points.length / 2;
  for (let i = 0; i < count; i++) {
    const node = entries ? entries[i] : i;
    const length = lengthBy(node);
    if (length < shortest - 1e-9) [best, shortest] = [node, length];
  }
  return { index: leg.index, node: best };
}

function distance(x0: number, y0: number, x1: number, y1: number): number {
  return Math.sqrt((x0 - x1) ** 2 + (y0 - y1) ** 2);
}

/** Where the head leaves a leg, or enters it. */
function pointOf(lines: readonly RouteLine[], { index, node }: Leg, oddPasses: boolean, entering = false) {
  const { points } = lines[index].line;
  const position = entering ? node : exitOf(lines[index], node, oddPasses);
  return { x: points[position * 2], y: points[position * 2 + 1] };
}
