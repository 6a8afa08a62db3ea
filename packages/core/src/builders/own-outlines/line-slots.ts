import { flatten } from '../../geometry/paths/flatten.ts';
import type { Path } from '../../geometry/paths/path.ts';
import {
  lineSegment,
  pathOfSubpaths,
  pieceOf,
  type Segment,
  type Subpath,
  subpathsOf,
} from '../../geometry/paths/segments.ts';
import { crossingsOf } from '../../geometry/questions/crossings.ts';

/*
 * Outlines about the upright line x = 0, y down, in mm: where they meet it, and slots along it.
 */

/** So far beyond an outline a line goes that is to cross it, in mm. */
const beyond = 1e4;

/** Where an upright line meets the closed lines of an outline, from the top. */
interface Meeting {
  readonly line: number;
  readonly segment: number;
  readonly t: number;
  readonly y: number;
}

function meetingsAt(lines: readonly Subpath[], x: number): Meeting[] {
  const upright = [lineSegment(x, -beyond, x, beyond)];
  return lines
    .flatMap(({ segments, closed }, line) => {
      if (!closed) return [];
      // Most segments lie all on one side.
      const near = segments.flatMap((segment, i) => (goesOver(segment, x) ? [i] : []));
      const found = crossingsOf(
        near.map((i) => segments[i]),
        upright,
      );
      return found.map(({ a, ta, y }): Meeting => ({ line, segment: near[a], t: ta, y }));
    })
    .sort((a, b) => a.y - b.y)
    .filter(({ y }, i, all) => i === 0 || y - all[i - 1].y > 1e-9);
}

const goesOver = ([x0, , x1, , x2, , x3]: Segment, x: number) =>
  Math.min(x0, x1, x2, x3) <= x && Math.max(x0, x1, x2, x3) >= x;

/** From where to where down an outline lies on the line: all of it, and its first stretch. Null where it lies not on it. */
export function onLine(path: Path): { readonly top: number; readonly foot: number; readonly first: number } | null {
  const met = meetingsAt([...subpathsOf(path)], 0);
  return met.length < 2 ? null : { top: met[0].y, foot: met[met.length - 1].y, first: met[1].y };
}

/** The places of an outline's edge within a strip about the line: nodes, and where it comes in and goes out. */
export function edgeWithin(path: Path, half: number): { readonly x: number; readonly y: number }[] {
  const lines = [...subpathsOf(path)];
  const sides = [-half, half].flatMap((x) => meetingsAt(lines, x).map(({ y }) => ({ x, y })));
  const nodes = flatten(path).flatMap(({ points, closed }) =>
    closed ? Array.from({ length: points.length / 2 }, (_, i) => ({ x: points[2 * i], y: points[2 * i + 1] })) : [],
  );
  return [...sides, ...nodes.filter(({ x }) => Math.abs(x) < half)];
}

/** An outline with a slot, and how far the slot's two sides go from its ground at least. */
interface Slotted {
  readonly path: Path;
  readonly wallMm: number;
}

/**
 * Cuts a slot along the line, from a ground to the outline's edge above (-1) or below it (1). All but the slot stays as it
 * was, curves and all.
 *
 * @returns null where the slot's sides meet the outline more than once on their way, or something else lies in it.
 */
export function slotFrom(path: Path, ground: number, way: -1 | 1, half: number): Slotted | null {
  const lines = [...subpathsOf(path)];
  const outOf = (x: number) => meetingsAt(lines, x).filter(({ y }) => way * (y - ground) > 0);
  const [lefts, rights] = [outOf(-half), outOf(half)];
  if (lefts.length !== 1 || rights.length !== 1 || lefts[0].line !== rights[0].line) return null;
  const [[left], [right]] = [lefts, rights];
  const isInSlot = ([x0, y0, , , , , x1, y1]: Segment) =>
    [
      [x0, y0],
      [x1, y1],
    ].every(([x, y]) => Math.abs(x) < half + 1e-6 && way * (y - ground) > 0);
  const { segments } = lines[left.line];
  const [toRight, toLeft] = [arcFrom(segments, left, right), arcFrom(segments, right, left)];
  const isGone = [toRight, toLeft].map((arc) => arc.every(isInSlot));
  const isFree = lines.every((line, i) => i === left.line || !line.segments.some((segment) => isInSlot(segment)));
  if (isGone[0] === isGone[1] || !isFree) return null;
  const slot = [
    [-half, left.y],
    [-half, ground],
    [half, ground],
    [half, right.y],
  ];
  const [kept, corners] = isGone[0] ? [toLeft, slot] : [toRight, slot.reverse()];
  const added = corners.slice(1).map(([x, y], i) => lineSegment(corners[i][0], corners[i][1], x, y));
  const whole = lines.map((line, i) => (i === left.line ? { segments: [...kept, ...added], closed: true } : line));
  const wallMm = Math.min(Math.abs(left.y - ground), Math.abs(right.y - ground));
  return { path: pathOfSubpaths(whole), wallMm };
}

/** What lies on a closed line from one place to another, as it goes round. */
function arcFrom(segments: readonly Segment[], from: Meeting, to: Meeting): Segment[] {
  if (from.segment === to.segment && from.t < to.t) return [pieceOf(segments[from.segment], from.t, to.t)];
  const arc = [pieceOf(segments[from.segment], from.t, 1)];
  for (let i = (from.segment + 1) % segments.length; i !== to.segment; i = (i + 1) % segments.length)
    arc.push(segments[i]);
  arc.push(pieceOf(segments[to.segment], 0, to.t));
  return arc.filter(([x0, y0, , , , , x1, y1]) => Math.hypot(x1 - x0, y1 - y0) > 1e-9);
}
