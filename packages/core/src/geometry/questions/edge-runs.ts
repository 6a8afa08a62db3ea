import type { Polyline } from '../paths/flatten.ts';
import { forEachMeeting } from './meeting-boxes.ts';

/** So many edges that follow each other are looked at as one. */
const edgesInRun = 8;
/** Edges that turn less than this from each other, and lie no further apart in mm, may be in one line. */
const inLineSine = 0.02;
const inLineMm = 0.2;

/** A line, and whose it is. */
export interface OwnedLine {
  readonly owner: number;
  readonly line: Polyline;
}

/**
 * The edges of lines in flat arrays, and in runs of a few that follow each other: of a million edges, only those of runs
 * whose boxes meet have to be compared.
 */
export class EdgeRuns {
  /** How many edges there are. */
  readonly count: number;
  /** By edge, whose it is. */
  readonly owners: Int32Array;
  /** Four numbers an edge: x and y of its ends, in mm. */
  readonly ends: Float64Array;
  /** By run, its first edge; one more than there are runs. */
  readonly firsts: Int32Array;
  /** By run, the line that it is of, by place. */
  private readonly lines: Int32Array;
  /** Four numbers a run: the box around it. */
  private readonly boxes: Float64Array;

  constructor(owned: readonly OwnedLine[]) {
    const sizes = owned.map(({ line: { points, closed } }) => {
      const nodes = points.length / 2;
      return closed && nodes > 2 ? nodes : Math.max(0, nodes - 1);
    });
    this.count = sizes.reduce((sum, size) => sum + size, 0);
    const runs = sizes.reduce((sum, size) => sum + Math.ceil(size / edgesInRun), 0);
    this.owners = new Int32Array(this.count);
    this.ends = new Float64Array(4 * this.count);
    this.firsts = new Int32Array(runs + 1);
    this.lines = new Int32Array(runs);
    this.boxes = new Float64Array(4 * runs);
    let [edge, run] = [0, 0];
    owned.forEach(({ owner, line: { points } }, place) => {
      for (let k = 0; k < sizes[place]; k++) {
        if (k % edgesInRun === 0) {
          this.firsts[run] = edge;
          this.lines[run] = place;
          run++;
        }
        const [from, to] = [2 * k, (2 * k + 2) % points.length];
        this.add(run - 1, edge, points[from], points[from + 1], points[to], points[to + 1]);
        this.owners[edge++] = owner;
      }
    });
    this.firsts[run] = edge;
  }

  private add(run: number, edge: number, x0: number, y0: number, x1: number, y1: number): void {
    const { ends, boxes, firsts } = this;
    const e = 4 * edge;
    ends[e] = x0;
    ends[e + 1] = y0;
    ends[e + 2] = x1;
    ends[e + 3] = y1;
    const b = 4 * run;
    const isFirst = firsts[run] === edge;
    boxes[b] = Math.min(isFirst ? x0 : boxes[b], x0, x1);
    boxes[b + 1] = Math.min(isFirst ? y0 : boxes[b + 1], y0, y1);
    boxes[b + 2] = Math.max(isFirst ? x0 : boxes[b + 2], x0, x1);
    boxes[b + 3] = Math.max(isFirst ? y0 : boxes[b + 3], y0, y1);
  }

  /**
   * Finds pairs of runs whose boxes come within a distance of each other. Runs that follow each other along a line count
   * only where together they may turn back on themselves.
   * @param visit is told of both, the earlier one first; also of a run with itself
   */
  forEachPair(within: number, visit: (run: number, other: number) => void): void {
    const runs = this.lines.length;
    for (let run = 0; run < runs; run++) if (this.mayTurnBack(run, run)) visit(run, run);
    forEachMeeting(this.boxes, within, (run, other) => {
      if (!this.doFollow(run, other) || this.mayTurnBack(run, other)) visit(run, other);
    });
  }

  /** Whether runs follow each other along one line; the last of a line and its first do, too. */
  private doFollow(run: number, other: number): boolean {
    if (this.lines[run] !== this.lines[other]) return false;
    if (other === run + 1) return true;
    const isFirst = run === 0 || this.lines[run - 1] !== this.lines[run];
    const isLast = other === this.lines.length - 1 || this.lines[other + 1] !== this.lines[other];
    return isFirst && isLast;
  }

  /** Whether edges of a run, or of two that follow each other, may lie on each other: whether any two run along one line. */
  private mayTurnBack(run: number, other: number): boolean {
    if (this.leadsOn(run, other)) return false;
    const { firsts } = this;
    for (let a = firsts[run]; a < firsts[run + 1]; a++) {
      for (let b = run === other ? a + 1 : firsts[other]; b < firsts[other + 1]; b++)
        if (this.areInLine(a, b)) return true;
    }
    return false;
  }

  /** Whether every edge leads on in the direction from where runs that follow each other start to where they end. */
  private leadsOn(run: number, other: number): boolean {
    const { ends, firsts } = this;
    const [before, after] = other === run || other === run + 1 ? [run, other] : [other, run];
    const [start, end] = [4 * firsts[before], 4 * (firsts[after + 1] - 1)];
    const [dx, dy] = [ends[end + 2] - ends[start], ends[end + 3] - ends[start + 1]];
    for (const part of before === after ? [before] : [before, after]) {
      for (let e = 4 * firsts[part]; e < 4 * firsts[part + 1]; e += 4) {
        const [ex, ey] = [ends[e + 2] - ends[e], ends[e + 3] - ends[e + 1]];
        if (ex * dx + ey * dy <= 0 && (ex !== 0 || ey !== 0)) return false;
      }
    }
    return true;
  }

  /** Whether two edges run along one line, give or take what rounding may add, and reach into each other. */
  private areInLine(a: number, b: number): boolean {
    const { ends } = this;
    const i = 4 * a;
    const j = 4 * b;
    const ux = ends[i + 2] - ends[i];
    const uy = ends[i + 3] - ends[i + 1];
    const vx = ends[j + 2] - ends[j];
    const vy = ends[j + 3] - ends[j + 1];
    const u2 = ux * ux + uy * uy;
    const v2 = vx * vx + vy * vy;
    const cross = ux * vy - uy * vx;
    // Squares, for this is asked of millions of pairs: most turn too much from each other.
    if (u2 === 0 || v2 === 0 || cross * cross > inLineSine * inLineSine * u2 * v2) return false;
    const wx = ends[j] - ends[i];
    const wy = ends[j + 1] - ends[i + 1];
    const beside = ux * wy - uy * wx;
    if (beside * beside > inLineMm * inLineMm * u2) return false;
    const start = ux * wx + uy * wy;
    const end = start + ux * vx + uy * vy;
    return Math.max(start, end) > 0 && Math.min(start, end) < u2;
  }
}
