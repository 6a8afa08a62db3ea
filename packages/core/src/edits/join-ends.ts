import { type Item, pathOf, reshaped } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import type { Box } from '../geometry/paths/box.ts';
import { indexBoxes } from '../geometry/paths/box-index.ts';
import { chainsOf } from '../geometry/paths/join.ts';
import type { Point } from '../geometry/paths/matrix.ts';
import {
  isLine,
  lineSegment,
  pathOfSubpaths,
  reversed,
  reversedSubpath,
  type Segment,
  type Subpath,
  subpathsOf,
} from '../geometry/paths/segments.ts';

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
  const open: { item: Item; line: Subpath }[] = [];
  /** What the lines of each item become, and its closed outlines, which it keeps. */
  const kept = new Map<Item, Subpath[]>();
  const closed: { item: Item; line: Subpath }[] = [];
  for (const item of job.drawing.items) {
    if (!ids.has(item.id) || item.shape.kind === 'picture') continue;
    const lines = [...subpathsOf(pathOf(item))];
    // What has no open line is left as it is.
    if (lines.every((line) => line.closed)) continue;
    kept.set(item, []);
    for (const line of lines) (line.closed ? closed : open).push({ item, line });
  }
  const ends = open.flatMap(({ line: { segments } }): Point[] => {
    const [first, last] = [segments[0], segments[segments.length - 1]];
    return [
      { x: first[0], y: first[1] },
      { x: last[6], y: last[7] },
    ];
  });
  const { partner, widest } = nearestPairs(ends, tolerance);
  const joined = partner.filter((end) => end >= 0).length / 2;
  const report: JoinReport = { joined, widest, open: openEnds(ends, partner) };
  if (joined === 0) return { job, report };

  for (const chain of chainsOf(open.length, (end) => partner[end])) {
    const members = chain.ends.map((end) => open[end >> 1]);
    const lines = members.map(({ line }, i) =>
      chain.ends[i] % 2 === 0 ? line.segments : reversedSubpath(line).segments,
    );
    // The line is the hindmost item's: lines stand in the drawing's order.
    const home = open[Math.min(...chain.ends) >> 1].item;
    kept.get(home)?.push(linked(lines, chain.closed));
  }
  for (const { item, line } of closed) kept.get(item)?.push(line);
  const items = job.drawing.items.flatMap((item): Item[] => {
    const lines = kept.get(item);
    if (!lines) return [item];
    if (lines.length === 0) return [];
    const { link: _, ...free } = item;
    return [reshaped(free, { kind: 'path', path: pathOfSubpaths(lines) })];
  });
  return { job: { ...job, drawing: { ...job.drawing, items } }, report };
}

/** Ends by the one each is joined to, the nearest pairs within `tolerance` first; -1 where none is left. */
function nearestPairs(ends: readonly Point[], tolerance: number): { partner: number[]; widest: number } {
  const index = indexBoxes(ends.map(pointBox));
  const pairs = ends.flatMap(({ x, y }, i) =>
    (index?.search(x - tolerance, y - tolerance, x + tolerance, y + tolerance) ?? [])
      .filter((j) => j > i)
      .map((j) => ({ i, j, gap: Math.hypot(ends[j].x - x, ends[j].y - y) }))
      .filter(({ gap }) => gap <= tolerance),
  );
  pairs.sort((a, b) => a.gap - b.gap || a.i - b.i || a.j - b.j);
  const partner = new Array<number>(ends.length).fill(-1);
  let widest = 0;
  for (const { i, j, gap } of pairs) {
    if (partner[i] >= 0 || partner[j] >= 0) continue;
    partner[i] = j;
    partner[j] = i;
    widest = Math.max(widest, gap);
  }
  return { partner, widest };
}

function openEnds(ends: readonly Point[], partner: readonly number[]): JoinReport['open'] {
  const index = indexBoxes(ends.map(pointBox));
  return ends.flatMap(({ x, y }, i) => {
    if (partner[i] >= 0) return [];
    const [j] = index?.neighbors(x, y, 1, Infinity, (other) => other !== i) ?? [];
    return [{ x, y, gap: j === undefined ? Infinity : Math.hypot(ends[j].x - x, ends[j].y - y) }];
  });
}

function pointBox({ x, y }: Point): Box {
  return { minX: x, minY: y, maxX: x, maxY: y };
}

/** Lines one after another, the ends of each two drawn together halfway. */
function linked(lines: readonly (readonly Segment[])[], closed: boolean): Subpath {
  const out = lines.map((line) => [...line]);
  const count = closed ? out.length : out.length - 1;
  for (let i = 0; i < count; i++) {
    const [a, b] = [out[i], out[(i + 1) % out.length]];
    const [end, start] = [a[a.length - 1], b[0]];
    const [x, y] = [(end[6] + start[0]) / 2, (end[7] + start[1]) / 2];
    a[a.length - 1] = withEnd(a[a.length - 1], x, y);
    b[0] = reversed(withEnd(reversed(b[0]), x, y));
  }
  return { segments: out.flat(), closed };
}

/** A segment drawn to another end, its last handle with it. */
function withEnd(s: Segment, x: number, y: number): Segment {
  if (isLine(s)) return lineSegment(s[0], s[1], x, y);
  return [s[0], s[1], s[2], s[3], s[4] + x - s[6], s[5] + y - s[7], x, y];
}
