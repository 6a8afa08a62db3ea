import { indexBoxes } from '../geometry/paths/box-index.ts';
import { gather } from '../lists/gather.ts';
import type { BurnLine } from './order.ts';

/** Edges nearer to each other than this, in mm, are one for the beam. */
const near = 0.02;
/** What is left of an edge, shorter than this in mm, is none. */
const shortest = 0.01;

/** An edge of a line, from one point to the next. */
interface Edge {
  readonly line: number;
  readonly ax: number;
  readonly ay: number;
  readonly bx: number;
  readonly by: number;
  readonly length: number;
}

/** A stretch of an edge, in mm from where it begins. */
type Stretch = readonly [from: number, to: number];

/**
 * Lines with every edge burnt once: what lies along an edge of an earlier line is left out, and what remains of a
 * closed line is open. Lines with tabs stay as they are.
 */
export function withEdgesOnce(lines: readonly BurnLine[]): BurnLine[] {
  const isPlain = ({ gaps = [] }: BurnLine) => gaps.length === 0;
  const edges = lines.flatMap((line, i) => (isPlain(line) ? edgesOf(line, i) : []));
  const index = indexBoxes(
    edges.map(({ ax, ay, bx, by }) => ({
      minX: Math.min(ax, bx),
      minY: Math.min(ay, by),
      maxX: Math.max(ax, bx),
      maxY: Math.max(ay, by),
    })),
  );
  const left = new Map<number, { edge: Edge; stretches: Stretch[] }[]>();
  const shortened = new Set<number>();
  edges.forEach((edge, i) => {
    const { ax, ay, bx, by, line, length } = edge;
    const [minX, maxX] = [Math.min(ax, bx) - near, Math.max(ax, bx) + near];
    const [minY, maxY] = [Math.min(ay, by) - near, Math.max(ay, by) + near];
    const covered = (index?.search(minX, minY, maxX, maxY) ?? []).flatMap((j) => {
      const stretch = j < i && edges[j].line !== line ? coveredBy(edge, edges[j]) : null;
      return stretch ? [stretch] : [];
    });
    const stretches = without(length, covered);
    if (covered.length > 0) shortened.add(line);
    gather(left, line, { edge, stretches });
  });
  return lines.flatMap((line, i) => (shortened.has(i) ? runsOf(line, left.get(i) ?? []) : [line]));
}

function edgesOf({ line: { points, closed } }: BurnLine, line: number): Edge[] {
  const count = points.length / 2;
  return Array.from({ length: closed ? count : count - 1 }, (_, i) => {
    const j = (i + 1) % count;
    const [ax, ay, bx, by] = [points[2 * i], points[2 * i + 1], points[2 * j], points[2 * j + 1]];
    return { line, ax, ay, bx, by, length: Math.hypot(bx - ax, by - ay) };
  });
}

/** The stretch of an edge along which another lies; null where it does not. */
function coveredBy({ ax, ay, bx, by, length }: Edge, other: Edge): Stretch | null {
  if (length === 0) return null;
  const [ux, uy] = [(bx - ax) / length, (by - ay) / length];
  const along = (x: number, y: number) => (x - ax) * ux + (y - ay) * uy;
  const across = (x: number, y: number) => Math.abs((x - ax) * uy - (y - ay) * ux);
  if (across(other.ax, other.ay) > near || across(other.bx, other.by) > near) return null;
  const [s, t] = [along(other.ax, other.ay), along(other.bx, other.by)];
  const [from, to] = [Math.max(0, Math.min(s, t)), Math.min(length, Math.max(s, t))];
  return to - from > shortest ? [from, to] : null;
}

/** What is left of an edge without the stretches that are burnt already. */
function without(length: number, covered: readonly Stretch[]): Stretch[] {
  const left: Stretch[] = [];
  let place = 0;
  for (const [from, to] of covered.toSorted((a, b) => a[0] - b[0])) {
    if (from - place > shortest) left.push([place, from]);
    place = Math.max(place, to);
  }
  if (length - place > shortest || (place === 0 && length <= shortest)) left.push([place, length]);
  return left;
}

/** The open lines that are left of one. */
function runsOf(line: BurnLine, edges: readonly { edge: Edge; stretches: readonly Stretch[] }[]): BurnLine[] {
  const pieces = edges.flatMap(({ edge: { ax, ay, bx, by, length }, stretches }) =>
    stretches.map(([from, to]) => {
      const pointAlong = (mm: number) =>
        length > 0 ? [ax + ((bx - ax) * mm) / length, ay + ((by - ay) * mm) / length] : [ax, ay];
      return { start: pointAlong(from), end: pointAlong(to) };
    }),
  );
  const runs: number[][][] = [];
  for (const { start, end } of pieces) {
    const last = runs.at(-1);
    if (last && meets(last[last.length - 1], start)) last.push(end);
    else runs.push([start, end]);
  }
  // What runs over the place where a closed line began is one.
  const [first, last] = [runs[0], runs.at(-1)];
  if (first && last && first !== last && meets(last[last.length - 1], first[0])) {
    first.unshift(...last.slice(0, -1));
    runs.pop();
  }
  return runs.map((points) => ({
    ...line,
    start: null,
    line: { points: Float64Array.from(points.flat()), closed: false },
  }));
}

function meets([x, y]: number[], [otherX, otherY]: number[]): boolean {
  return Math.hypot(otherX - x, otherY - y) < shortest;
}
