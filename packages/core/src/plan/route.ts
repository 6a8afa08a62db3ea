import Flatbush from 'flatbush';
import type { Polyline } from '../geometry/paths/flatten.ts';
import { counting, type Progress, partOf } from '../geometry/paths/progress.ts';
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
 * @param effort how many times the usual search; the longer, the shorter the way may be
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
  const all = entries ?? Array.from({ length: count }, (_, i) => i);
  if (all.length <= entriesTried) return all;
  return Array.from({ length: entriesTried }, (_, k) => all[Math.floor((k * all.length) / entriesTried)]);
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
  const owners: number[] = [];
  const nodes: number[] = [];
  choices.forEach((entries, i) => {
    for (const node of entries) {
      owners.push(i);
      nodes.push(node);
    }
  });
  const index = new Flatbush(owners.length);
  owners.forEach((owner, i) => {
    const { points } = lines[owner].line;
    const [x, y] = [points[nodes[i] * 2], points[nodes[i] * 2 + 1]];
    index.add(x, y, x, y);
  });
  index.finish();
  const done = new Uint8Array(lines.length);
  const legs: Leg[] = [];
  const count = counting(progress, lines.length);
  let { x, y } = start;
  while (legs.length < lines.length) {
    const [found] = index.neighbors(x, y, 1, Infinity, (place) => !done[owners[place]]);
    const leg = { index: owners[found], node: nodes[found] };
    done[leg.index] = 1;
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

/** The best entries for an order: of every choice for a line, the shortest way to it, line by line. */
function enteredBest(
  lines: readonly RouteLine[],
  choices: readonly (readonly number[])[],
  legs: readonly Leg[],
  start: { x: number; y: number },
  oddPasses: boolean,
): Leg[] {
  const came: Int32Array[] = [];
  let exits: { x: number; y: number; length: number }[] = [{ ...start, length: 0 }];
  for (const { index } of legs) {
    const { points } = lines[index].line;
    const from = new Int32Array(choices[index].length);
    exits = choices[index].map((node, k) => {
      let best = Infinity;
      exits.forEach(({ x, y, length }, j) => {
        const way = length + Math.hypot(points[node * 2] - x, points[node * 2 + 1] - y);
        if (way < best - 1e-12) {
          best = way;
          from[k] = j;
        }
      });
      const out = exitOf(lines[index], node, oddPasses);
      return { x: points[out * 2], y: points[out * 2 + 1], length: best };
    });
    came.push(from);
  }
  let k = exits.reduce((best, exit, i) => (exit.length < exits[best].length ? i : best), 0);
  const nodes = new Array<number>(legs.length);
  for (let i = legs.length - 1; i >= 0; i--) {
    nodes[i] = choices[legs[i].index][k];
    k = came[i][k];
  }
  return legs.map(({ index }, i) => ({ index, node: nodes[i] }));
}

/** Of all the nodes a closed outline may be entered at, the one on the shortest way from the line before to the next. */
function exactEntry(
  lines: readonly RouteLine[],
  leg: Leg,
  legs: readonly Leg[],
  at: number,
  start: { x: number; y: number },
  oddPasses: boolean,
): Leg {
  const { line, entries } = lines[leg.index];
  if (!line.closed) return leg;
  const { points } = line;
  const before = at === 0 ? start : pointOf(lines, legs[at - 1], oddPasses);
  const next = legs[at + 1];
  const after = next ? pointOf(lines, next, true, true) : null;
  const length = (node: number) => {
    const [x, y] = [points[node * 2], points[node * 2 + 1]];
    return Math.hypot(x - before.x, y - before.y) + (after ? Math.hypot(x - after.x, y - after.y) : 0);
  };
  let best = leg.node;
  let shortest = length(best);
  const count = points.length / 2;
  const tryNode = (node: number) => {
    const way = length(node);
    if (way < shortest - 1e-9) [best, shortest] = [node, way];
  };
  if (entries) for (const node of entries) tryNode(node);
  else for (let node = 0; node < count; node++) tryNode(node);
  return { index: leg.index, node: best };
}

/** Where the head leaves a leg, or enters it. */
function pointOf(lines: readonly RouteLine[], { index, node }: Leg, oddPasses: boolean, entering = false) {
  const { points } = lines[index].line;
  const at = entering ? node : exitOf(lines[index], node, oddPasses);
  return { x: points[at * 2], y: points[at * 2 + 1] };
}
