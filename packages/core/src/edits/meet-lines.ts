import { type Item, reshaped } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { sharpOutlineOf } from '../document/shapes.ts';
import { type Corner, largestCorner } from '../geometry/paths/corners.ts';
import { applyTo, meanScale, type Point } from '../geometry/paths/matrix.ts';
import { transformPath } from '../geometry/paths/path.ts';
import {
  isLine,
  lineSegment,
  pathOfSubpaths,
  reversedSubpath,
  type Segment,
  type Subpath,
  subpathsOf,
} from '../geometry/paths/segments.ts';
import { type OutlinePlace, replaceShape } from './reshape.ts';

/** A place on one of two lines that are to meet: the part of the line on that side of the meeting stays. */
export interface MeetingLine {
  readonly id: string;
  readonly place: OutlinePlace;
}

/**
 * Lengthens or shortens two straight ends until they meet, and shapes the corner there, which keeps its size and
 * can be changed later. The two become one line, in the place of the first; two ends of one line close it.
 *
 * @param size the corner's radius, or how much is cut off, in mm; 0 leaves it sharp
 * @returns the job, or a sentence why it cannot be
 */
export function meetLines(
  job: JobDocument,
  a: MeetingLine,
  b: MeetingLine,
  { kind, size }: Pick<Corner, 'kind' | 'size'>,
  newId: () => string,
): JobDocument | string {
  const [itemA, itemB] = [a, b].map(({ id }) => job.drawing.items.find((item) => item.id === id));
  if (!itemA || !itemB) return 'One of the lines is no longer there.';
  const linesA = onBed(itemA);
  const linesB = itemA === itemB ? linesA : onBed(itemB);
  const [lineA, lineB] = [linesA[a.place.subpath], linesB[b.place.subpath]];
  if (!lineA || !lineB || lineA.closed || lineB.closed) return 'Both lines must be open: a closed outline has no end.';
  const [segmentA, segmentB] = [clicked(lineA, a.place), clicked(lineB, b.place)];
  if (!isLine(segmentA) || !isLine(segmentB)) return 'Only straight ends can be led to each other.';
  const entry = lineA === lineB;
  if (entry && segmentA === segmentB) return 'Click two different lines.';
  const meeting = crossing(segmentA, segmentB);
  if (!meeting) return 'The lines are parallel and never meet.';
  if (entry && Math.abs(lineA.segments.indexOf(segmentA) - lineA.segments.indexOf(segmentB)) === 1)
    return 'These two meet already: click their corner.';
  const into = endingAt(lineA, a.place, meeting);
  const outOf = endingAt(lineB, b.place, meeting);
  if (!into || !outOf) return 'Click the last straight stretch of each line.';
  const corner: Corner = { ...meeting, kind, size };
  const joined: Subpath = entry ? closing(lineA, into, outOf) : { segments: [...into, ...back(outOf)], closed: false };
  const rest = [...new Set([...linesA, ...linesB])].filter((line) => line !== lineA && line !== lineB);
  const sharp = pathOfSubpaths([joined, ...rest]);
  const most = largestCorner(sharp, meeting, kind);
  if (size > most + 1e-6) return `The corner can be ${most.toFixed(2)} mm at most; the lines are too short for more.`;
  const corners = [
    ...cornersOnBed(itemA),
    ...(itemA === itemB ? [] : cornersOnBed(itemB)),
    ...(size > 0 ? [corner] : []),
  ];
  const shape = { kind: 'path' as const, path: sharp, ...(corners.length > 0 ? { corners } : {}) };
  const items = job.drawing.items
    .filter((item) => item === itemA || item !== itemB)
    .map((item) => (item === itemA ? reshaped(item, shape) : item));
  return replaceShape({ ...job, drawing: { ...job.drawing, items } }, itemA.id, [shape], newId);
}

function onBed(item: Item): Subpath[] {
  return [...subpathsOf(transformPath(sharpOutlineOf(item.shape), item.matrix))];
}

function cornersOnBed({ shape, matrix }: Item): Corner[] {
  if (shape.kind !== 'path') return [];
  return (shape.corners ?? []).map((corner) => ({
    ...corner,
    ...applyTo(matrix, corner.x, corner.y),
    size: corner.size * meanScale(matrix),
  }));
}

function clicked({ segments }: Subpath, { at }: OutlinePlace): Segment {
  return segments[Math.min(Math.floor(at), segments.length - 1)];
}

/** Where the lines through two straight segments cross. */
function crossing(a: Segment, b: Segment): Point | null {
  const [ax, ay, bx, by] = [a[6] - a[0], a[7] - a[1], b[6] - b[0], b[7] - b[1]];
  const cross = ax * by - ay * bx;
  if (Math.abs(cross) < 1e-9 * Math.hypot(ax, ay) * Math.hypot(bx, by)) return null;
  const t = ((b[0] - a[0]) * by - (b[1] - a[1]) * bx) / cross;
  return { x: a[0] + ax * t, y: a[1] + ay * t };
}

/** The part of a line on the clicked side of the meeting, led there: it ends in it. Null where more of the line follows. */
function endingAt(line: Subpath, { at }: OutlinePlace, meeting: Point): Segment[] | null {
  const { segments } = line;
  const i = Math.min(Math.floor(at), segments.length - 1);
  const [x0, y0, , , , , x1, y1] = segments[i];
  const length2 = (x1 - x0) ** 2 + (y1 - y0) ** 2;
  const share = ((meeting.x - x0) * (x1 - x0) + (meeting.y - y0) * (y1 - y0)) / length2;
  if (share > at - i) {
    if (i < segments.length - 1) return null;
    return [...segments.slice(0, i), lineSegment(x0, y0, meeting.x, meeting.y)];
  }
  if (i > 0) return null;
  const turned = reversedSubpath(line).segments;
  return [...turned.slice(0, -1), lineSegment(x1, y1, meeting.x, meeting.y)];
}

/** A line that ends in the meeting, led away from it. */
function back(segments: readonly Segment[]): readonly Segment[] {
  return reversedSubpath({ segments, closed: false }).segments;
}

/** One line whose both ends meet: closed there. */
function closing({ segments }: Subpath, into: readonly Segment[], outOf: readonly Segment[]): Subpath {
  // `into` ends in the meeting and `outOf` too, from the other side: the segments between are in both.
  const forwards = into[0][0] === segments[0][0] && into[0][1] === segments[0][1];
  const [end, start] = forwards ? [into, outOf] : [outOf, into];
  const first = back(start)[0];
  return { segments: [first, ...end.slice(1)], closed: true };
}
