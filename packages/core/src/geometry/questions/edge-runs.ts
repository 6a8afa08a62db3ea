import type { Polyline } from '../paths/flatten.ts';
import { forEachMeeting } from './meeting-boxes.ts';

/** So many edges that follow each other are looked at as one. */
export const edgesInRun = 8;
/** Edges that turn less than this from each other, and lie no further apart in mm, may be in one line. */
const inLineSine = 0.02;
const inLineMm = 0.2;

/** A line, and whose it is. */
export interface OwnedLine {
  readonly owner: number;
  readonly line: Polyline;
}

/** How many edges a line has. */
function edgesIn({ points, closed }: Polyline): number {
  const nodes = points.length / 2;
  return closed && nodes > 2 ? nodes : Math.max(0, nodes - 1);
}

/** The quarter of a full turn that a direction is in, as a bit; 0 for none. */
function quarterOf(x: number, y: number): number {
  if (x > 0 && y >= 0) return 1;
  if (x <= 0 && y > 0) return 2;
  if (x < 0) return 4;
  return y < 0 ? 8 : 0;
}

/** Whether quarters are one, or two side by side: what runs within less than half a turn can't come back to where it was. */
function areWithinHalf(quarters: number): boolean {
  return (quarters & 5) !== 5 && (quarters & 10) !== 10;
}

/**
 * The edges of lines in runs of a few that follow each other: of a million edges, only those of runs whose boxes meet
 * have to be compared.
 */
export class EdgeRuns {
  /** By run, whose it is. */
  readonly owners: Int32Array;
  private readonly lines: readonly Polyline[];
  /** By run, the line that it is of, by place. */
  private readonly lineOf: Int32Array;
  /** By line, its first run; one more than there are lines. */
  private readonly firstRuns: Int32Array;
  /** Four numbers a run: the box around it. */
  private readonly boxes: Float64Array;
  /** By run, the quarters that its edges run into. */
  private readonly quarters: Uint8Array;
  private readonly own = EdgeRuns.scratch();
  private readonly other = EdgeRuns.scratch();

  constructor(owned: readonly OwnedLine[]) {
    this.lines = owned.map(({ line }) => line);
    this.firstRuns = new Int32Array(owned.length + 1);
    owned.forEach(({ line }, i) => {
      this.firstRuns[i + 1] = this.firstRuns[i] + Math.ceil(edgesIn(line) / edgesInRun);
    });
    const runs = this.firstRuns[owned.length];
    this.owners = new Int32Array(runs);
    this.lineOf = new Int32Array(runs);
    this.boxes = new Float64Array(4 * runs);
    this.quarters = new Uint8Array(runs);
    owned.forEach(({ owner }, i) => {
      const [first, end] = [this.firstRuns[i], this.firstRuns[i + 1]];
      this.owners.fill(owner, first, end);
      this.lineOf.fill(i, first, end);
      for (let run = first; run < end; run++) this.measure(run, this.lines[i], (run - first) * edgesInRun);
    });
  }

  /** The box around a run, and the quarters that its edges run into. @param first the place of its first edge in its line. */
  private measure(run: number, line: Polyline, first: number): void {
    const { points } = line;
    const end = Math.min(edgesIn(line), first + edgesInRun);
    let [x, y] = [points[2 * first], points[2 * first + 1]];
    let [minX, minY, maxX, maxY, quarters] = [x, y, x, y, 0];
    for (let edge = first; edge < end; edge++) {
      const to = 2 * edge + 2 === points.length ? 0 : 2 * edge + 2;
      const nextX = points[to];
      const nextY = points[to + 1];
      if (nextX < minX) minX = nextX;
      if (nextX > maxX) maxX = nextX;
      if (nextY < minY) minY = nextY;
      if (nextY > maxY) maxY = nextY;
      quarters |= quarterOf(nextX - x, nextY - y);
      x = nextX;
      y = nextY;
    }
    const { boxes } = this;
    boxes[4 * run] = minX;
    boxes[4 * run + 1] = minY;
    boxes[4 * run + 2] = maxX;
    boxes[4 * run + 3] = maxY;
    this.quarters[run] = quarters;
  }

  /** Room for the edges of a run. */
  static scratch(): Float64Array {
    return new Float64Array(4 * edgesInRun);
  }

  /**
   * Writes down the edges of a run, x and y of both ends each, in mm.
   * @param into what `scratch` makes.
   * @returns how many edges it has.
   */
  edgesOf(run: number, into: Float64Array): number {
    const place = this.lineOf[run];
    const line = this.lines[place];
    const { points } = line;
    const first = (run - this.firstRuns[place]) * edgesInRun;
    const count = Math.min(edgesInRun, edgesIn(line) - first);
    for (let k = 0; k < count; k++) {
      const from = 2 * (first + k);
      const to = from + 2 === points.length ? 0 : from + 2;
      into[4 * k] = points[from];
      into[4 * k + 1] = points[from + 1];
      into[4 * k + 2] = points[to];
      into[4 * k + 3] = points[to + 1];
    }
    return count;
  }

  /** Visits pairs of edges of two runs that run along one line, or of one with itself; each by its place in its run. */
  forEachInLine(run: number, other: number, visit: (edge: number, otherEdge: number) => void): void {
    const { own, other: others } = this;
    const count = this.edgesOf(run, own);
    const otherCount = this.edgesOf(other, others);
    for (let a = 0; a < count; a++) {
      for (let b = run === other ? a + 1 : 0; b < otherCount; b++)
        if (areInLine(own, 4 * a, others, 4 * b)) visit(a, b);
    }
  }

  /**
   * Finds pairs of runs whose boxes come within a distance of each other. Runs that follow each other along a line count
   * only where together they may turn back on themselves.
   * @param visit is told of both, the earlier one first; also of a run with itself
   */
  forEachPair(within: number, visit: (run: number, other: number) => void): void {
    const runs = this.owners.length;
    for (let run = 0; run < runs; run++) if (this.mayTurnBack(run, run)) visit(run, run);
    forEachMeeting(this.boxes, within, (run, other) => {
      if (!this.doFollow(run, other) || this.mayTurnBack(run, other)) visit(run, other);
    });
  }

  /** Whether runs follow each other along one line; the last of a line and its first do, too. */
  private doFollow(run: number, other: number): boolean {
    const line = this.lineOf[run];
    if (line !== this.lineOf[other]) return false;
    return other === run + 1 || (run === this.firstRuns[line] && other === this.firstRuns[line + 1] - 1);
  }

  /** Whether edges of a run, or of two that follow each other, may lie on each other: whether any two run along one line. */
  private mayTurnBack(run: number, other: number): boolean {
    if (areWithinHalf(this.quarters[run] | this.quarters[other])) return false;
    let found = false;
    this.forEachInLine(run, other, () => {
      found = true;
    });
    return found;
  }
}

/** Whether two edges run along one line, give or take what rounding may add, and reach into each other. */
function areInLine(a: Float64Array, i: number, b: Float64Array, j: number): boolean {
  const ux = a[i + 2] - a[i];
  const uy = a[i + 3] - a[i + 1];
  const vx = b[j + 2] - b[j];
  const vy = b[j + 3] - b[j + 1];
  const u2 = ux * ux + uy * uy;
  const v2 = vx * vx + vy * vy;
  const cross = ux * vy - uy * vx;
  // Squares, for this is asked of millions of pairs: most turn too much from each other.
  if (u2 === 0 || v2 === 0 || cross * cross > inLineSine * inLineSine * u2 * v2) return false;
  // The longer one says where the line lies.
  return u2 >= v2 ? reachesAlong(a, i, ux, uy, b, j) : reachesAlong(b, j, vx, vy, a, i);
}

/** Whether an edge lies along another one's line, and beside some of it. */
function reachesAlong(a: Float64Array, i: number, ux: number, uy: number, b: Float64Array, j: number): boolean {
  const wx = b[j] - a[i];
  const wy = b[j + 1] - a[i + 1];
  const u2 = ux * ux + uy * uy;
  const beside = ux * wy - uy * wx;
  if (beside * beside > inLineMm * inLineMm * u2) return false;
  const start = ux * wx + uy * wy;
  const end = start + ux * (b[j + 2] - b[j]) + uy * (b[j + 3] - b[j + 1]);
  return Math.max(start, end) > 0 && Math.min(start, end) < u2;
}
