import { type Box, boxHeight, boxWidth } from '../geometry/paths/box.ts';
import { type Polyline, polylineLength } from '../geometry/paths/flatten.ts';
import { nearestOnLine } from '../geometry/questions/distance.ts';
import { polylineBounds } from '../geometry/questions/nesting.ts';

/** A line of a drawing, in mm, and what is done with it: lines that say the same are done alike. */
export interface DrawnLine {
  readonly line: Polyline;
  readonly does: string;
}

/** What became of the lines of a drawing; those that went lie where they would lie in the new one. */
export interface Difference {
  readonly same: readonly Polyline[];
  /** Where they were, but done otherwise. */
  readonly otherwise: readonly Polyline[];
  readonly gone: readonly Polyline[];
  readonly added: readonly Polyline[];
}

/** Lines no further from each other than this are the same: each was made straight within 0.01 mm of what it is. In mm. */
const tolerance = 0.03;

interface Measured extends DrawnLine {
  readonly box: Box;
  readonly length: number;
}

/**
 * Compares two states of a drawing line by line. The new one may lie elsewhere as a whole: the shift by which most lines, by
 * their length, lie on each other is found by vote, as in a Hough transform.
 * @param before its lines, in mm
 * @param after the same
 */
export function compareLines(before: readonly DrawnLine[], after: readonly DrawnLine[]): Difference {
  const old = before.map(measured);
  const now = after.map(measured);
  const [dx, dy] = shiftOf(old, now);
  const shifted = old.map((known) => shiftedBy(known, dx, dy));
  const free = new Grid(now);
  const same: Polyline[] = [];
  const otherwise: Polyline[] = [];
  const match = (known: Measured, isAlike: (found: Measured) => boolean, into: Polyline[]): boolean => {
    const found = free.near(known.box).find((candidate) => isAlike(candidate) && areSame(known, candidate));
    if (!found) return false;
    free.take(found);
    into.push(found.line);
    return true;
  };
  const left = shifted.filter((known) => !match(known, ({ does }) => does === known.does, same));
  const gone = left.filter((known) => !match(known, () => true, otherwise));
  return { same, otherwise, gone: gone.map(({ line }) => line), added: free.left().map(({ line }) => line) };
}

function measured({ line, does }: DrawnLine): Measured {
  return { line, does, box: polylineBounds(line), length: polylineLength(line) };
}

function shiftedBy({ line, does }: Measured, dx: number, dy: number): Measured {
  const points = line.points.map((value, i) => value + (i % 2 === 0 ? dx : dy));
  return measured({ line: { ...line, points }, does });
}

/** So many of the longest lines vote, each with so many that could be it at most. */
const mostVoters = 300;
const mostCandidates = 30;
/** Votes for shifts within this are for the same one, in mm. */
const voteMm = 0.1;

/** By how much most of what was drawn has moved, in mm. */
function shiftOf(old: readonly Measured[], now: readonly Measured[]): [number, number] {
  const byLength = now.toSorted((a, b) => a.length - b.length);
  const votes = new Map<string, { weight: number; dx: number; dy: number }>();
  for (const known of old.toSorted((a, b) => b.length - a.length).slice(0, mostVoters)) {
    for (const found of alike(known, byLength)) {
      const [dx, dy] = [found.box.minX - known.box.minX, found.box.minY - known.box.minY];
      const place = `${Math.round(dx / voteMm)} ${Math.round(dy / voteMm)}`;
      const vote = votes.get(place) ?? { weight: 0, dx, dy };
      votes.set(place, { ...vote, weight: vote.weight + known.length });
    }
  }
  let best = { weight: 0, dx: 0, dy: 0 };
  for (const vote of votes.values()) {
    const isNearer = Math.hypot(vote.dx, vote.dy) < Math.hypot(best.dx, best.dy);
    // In a row of equal parts many shifts get nearly as many votes: of equals it is the least.
    if (vote.weight > best.weight + tolerance || (vote.weight > best.weight - tolerance && isNearer)) best = vote;
  }
  return [best.dx, best.dy];
}

/** Lines as long and as large as another. @param byLength the shortest first */
function alike(known: Measured, byLength: readonly Measured[]): Measured[] {
  const found: Measured[] = [];
  for (let i = firstFrom(byLength, known.length - slack(known)); i < byLength.length; i++) {
    const candidate = byLength[i];
    if (candidate.length > known.length + slack(known) || found.length === mostCandidates) break;
    if (hasSameSize(known, candidate)) found.push(candidate);
  }
  return found;
}

/** How much the lengths of lines that are the same differ at most: curves are made straight in another number of pieces. In mm. */
function slack({ length }: Measured): number {
  return Math.max(tolerance, length * 1e-3);
}

function hasSameSize(a: Measured, b: Measured): boolean {
  return (
    a.line.closed === b.line.closed &&
    Math.abs(boxWidth(a.box) - boxWidth(b.box)) <= tolerance &&
    Math.abs(boxHeight(a.box) - boxHeight(b.box)) <= tolerance
  );
}

/** The place of the first line that is at least so long. */
function firstFrom(byLength: readonly Measured[], length: number): number {
  let [low, high] = [0, byLength.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (byLength[middle].length < length) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Whether two lines lie on each other, wherever they begin and whichever way they go. */
function areSame(a: Measured, b: Measured): boolean {
  if (!hasSameSize(a, b) || Math.abs(a.length - b.length) > slack(a)) return false;
  return hasSamePoints(a.line, b.line) || (liesOn(a.line, b.line) && liesOn(b.line, a.line));
}

function hasSamePoints({ points: a }: Polyline, { points: b }: Polyline): boolean {
  return a.length === b.length && a.every((value, i) => Math.abs(value - b[i]) <= tolerance);
}

/** So many steps at most are spent on whether one line lies on another; of longer ones every so many points are looked at. */
const mostSteps = 4e6;

function liesOn({ points }: Polyline, other: Polyline): boolean {
  const stride = 2 * Math.max(1, Math.ceil(((points.length / 2) * (other.points.length / 2)) / mostSteps));
  for (let i = 0; i < points.length; i += stride) {
    if (nearestOnLine(other, points[i], points[i + 1]).distance > tolerance) return false;
  }
  return true;
}

/** Lines by the corner of their boxes, until they are taken. */
class Grid {
  private readonly cells = new Map<string, Set<Measured>>();

  constructor(lines: readonly Measured[]) {
    for (const line of lines) {
      const place = this.placeOf(line.box.minX, line.box.minY);
      const cell = this.cells.get(place) ?? new Set();
      this.cells.set(place, cell.add(line));
    }
  }

  /** Those whose corner lies near that of a box. */
  near({ minX, minY }: Box): Measured[] {
    const around = [-voteMm, 0, voteMm];
    const places = new Set(around.flatMap((dx) => around.map((dy) => this.placeOf(minX + dx, minY + dy))));
    return [...places].flatMap((place) => [...(this.cells.get(place) ?? [])]);
  }

  take(line: Measured): void {
    this.cells.get(this.placeOf(line.box.minX, line.box.minY))?.delete(line);
  }

  left(): Measured[] {
    return [...this.cells.values()].flatMap((cell) => [...cell]);
  }

  private placeOf(x: number, y: number): string {
    return `${Math.round(x)} ${Math.round(y)}`;
  }
}
