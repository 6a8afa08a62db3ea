import type { Path64, Paths64 } from 'clipper2-ts';
import Flatbush from 'flatbush';
import { isLine, lineSegment, pieceOf, pointAt, type Segment, type Subpath } from '../paths/segments.ts';
import { chordCount, refine } from '../questions/crossings.ts';
import { isSliver, withoutSpikes, withoutTurnbacks } from './spikes.ts';

/*
 * From curves to the polygon arithmetic and back. Outlines go into it as chords; each edge of the answer is then
 * traced back to the segment that it is a chord of. So lines stay lines, and curves stay pieces of the very curves
 * that went in, cut where they truly cross.
 */

/** The raster of the polygon arithmetic, in mm. */
const grid = 1e-4;
/** How far a chord strays from its curve there, in mm. The curves themselves come back exactly. */
const chordTolerance = 0.002;
/** How far from a chord, in steps of the raster, an edge along it lies as a rule, and how far it may. */
const reach = 4;
const furthest = 40;

/** A run of an answer's edges along one segment. */
interface Run {
  readonly segment: number;
  from: number;
  to: number;
}

/** A piece of a segment, and which one that is, counted as they were added. */
export interface Traced {
  readonly owner: number;
  readonly piece: Segment;
}

/** Closed runs of segments as rings of chords, which an answer's rings are traced back to. */
export class CurvedRings {
  private readonly segments: Segment[] = [];
  /** Of each of them, which one that was added it is, or is a part of. */
  private readonly sources: number[] = [];
  /*
   * The chords, by number: there may be a million, and as objects they would be most of the work. Of each the
   * segment, its parameters and its points on the raster.
   */
  private readonly owners: number[] = [];
  private readonly from: number[] = [];
  private readonly to: number[] = [];
  private readonly x0: number[] = [];
  private readonly y0: number[] = [];
  private readonly x1: number[] = [];
  private readonly y1: number[] = [];
  /** Chords by the point where they start: a table of their numbers plus 1, the next place tried where one is taken. */
  private byStart = new Int32Array(0);
  private index: Flatbush | undefined;

  /** Adds a closed run of segments. @returns it as a ring of chords, on the raster, without turning back on itself */
  add(run: readonly Segment[]): Path64 {
    const ring: Path64 = [];
    this.byStart = new Int32Array(0);
    this.index = undefined;
    for (const segment of run) {
      const number = this.segments.push(segment) - 1;
      this.sources.push(number);
      const steps = chordCount(segment, chordTolerance);
      let x = toGrid(segment[0]);
      let y = toGrid(segment[1]);
      for (let i = 1; i <= steps; i++) {
        const end = i === steps ? { x: segment[6], y: segment[7] } : pointAt(segment, i / steps);
        ring.push({ x, y });
        this.owners.push(number);
        this.from.push((i - 1) / steps);
        this.to.push(i / steps);
        this.x0.push(x);
        this.y0.push(y);
        x = toGrid(end.x);
        y = toGrid(end.y);
        this.x1.push(x);
        this.y1.push(y);
      }
    }
    return withoutTurnbacks(ring);
  }

  /**
   * The outlines that the rings of an answer are made of: pieces of the segments whose chords went into it. Rings
   * of no extent are left out.
   */
  outlinesOf(rings: Paths64): Subpath[] {
    return this.piecesOf(rings)
      .map((ring) => ({ segments: straightened(ring.map(pieceIn), true), closed: true }))
      .filter(({ segments }) => segments.length > 0);
  }

  /** The rings of an answer, each as the pieces of segments that it is made of, in its order. */
  piecesOf(rings: Paths64): Traced[][] {
    return rings
      .map(withoutSpikes)
      .filter((ring) => !isSliver(ring, grid))
      .map((ring) =>
        joined(this.runsOf(ring), this.segments).map(({ owner, piece }) => ({ owner: this.sources[owner], piece })),
      );
  }

  private runsOf(ring: Path64): Run[] {
    const runs: Run[] = [];
    ring.forEach((end, i) => {
      const run = this.runAlong(ring[(i + ring.length - 1) % ring.length], end);
      const last = runs.at(-1);
      if (last && goesOn(last, run)) last.to = run.to;
      else runs.push(run);
    });
    // The ring may begin in the middle of a run.
    const [first, last] = [runs[0], runs.at(-1)];
    if (last && runs.length > 1 && goesOn(last, first)) {
      first.from = last.from;
      runs.pop();
    }
    return runs.filter(({ from, to }) => from !== to);
  }

  /** What an edge of an answer runs along: most often a whole chord, else a part of the nearest. */
  private runAlong(start: GridPoint, end: GridPoint): Run {
    const { owners, from, to, x1, y1 } = this;
    const ahead = this.chordFrom(start);
    if (ahead >= 0 && x1[ahead] === end.x && y1[ahead] === end.y)
      return { segment: owners[ahead], from: from[ahead], to: to[ahead] };
    const back = this.chordFrom(end);
    if (back >= 0 && x1[back] === start.x && y1[back] === start.y)
      return { segment: owners[back], from: to[back], to: from[back] };
    const chord = this.chordAlong(start, end);
    // Where straight pieces lie over each other, an edge may be longer than each of them.
    if (Math.max(this.missOf(chord, start), this.missOf(chord, end)) > furthest) {
      const whole = lineSegment(start.x * grid, start.y * grid, end.x * grid, end.y * grid);
      this.sources.push(this.sources[owners[chord]]);
      return { segment: this.segments.push(whole) - 1, from: 0, to: 1 };
    }
    return { segment: owners[chord], from: this.paramOn(chord, start), to: this.paramOn(chord, end) };
  }

  /** How far a point is from a chord. */
  private missOf(i: number, { x, y }: GridPoint): number {
    const [dx, dy] = [this.x1[i] - this.x0[i], this.y1[i] - this.y0[i]];
    const [px, py] = [x - this.x0[i], y - this.y0[i]];
    const square = dx * dx + dy * dy;
    const t = square === 0 ? 0 : Math.max(0, Math.min(1, (px * dx + py * dy) / square));
    return Math.hypot(px - t * dx, py - t * dy);
  }

  /** A chord that starts at a point, -1 where none does. */
  private chordFrom({ x, y }: GridPoint): number {
    const { x0, y0 } = this;
    if (this.byStart.length === 0) this.fileByStart();
    const mask = this.byStart.length - 1;
    for (let place = hashOf(x, y) & mask; ; place = (place + 1) & mask) {
      const chord = this.byStart[place] - 1;
      if (chord < 0 || (x0[chord] === x && y0[chord] === y)) return chord;
    }
  }

  private fileByStart(): void {
    const { x0, y0 } = this;
    const table = new Int32Array(2 ** Math.ceil(Math.log2(2 * x0.length + 2)));
    const mask = table.length - 1;
    for (let i = 0; i < x0.length; i++) {
      let place = hashOf(x0[i], y0[i]) & mask;
      while (table[place] !== 0) place = (place + 1) & mask;
      table[place] = i + 1;
    }
    this.byStart = table;
  }

  /** The chord that an edge runs along: the one that is nearest to both of its ends. */
  private chordAlong(start: GridPoint, end: GridPoint): number {
    this.index ??= this.indexed();
    const [x, y] = [(start.x + end.x) / 2, (start.y + end.y) / 2];
    const missOf = (i: number) => Math.max(this.missOf(i, start), this.missOf(i, end));
    for (const away of [reach, furthest]) {
      const near = this.index.search(x - away, y - away, x + away, y + away);
      if (near.length > 0) return near.reduce((best, i) => (missOf(i) < missOf(best) ? i : best));
    }
    return this.index.neighbors(x, y, 1)[0];
  }

  private indexed(): Flatbush {
    const { x0, y0, x1, y1 } = this;
    const index = new Flatbush(x0.length);
    for (let i = 0; i < x0.length; i++)
      index.add(Math.min(x0[i], x1[i]), Math.min(y0[i], y1[i]), Math.max(x0[i], x1[i]), Math.max(y0[i], y1[i]));
    index.finish();
    return index;
  }

  /** The parameter of a chord's segment at a point on it; its ends exactly, within rounding. */
  private paramOn(i: number, { x, y }: GridPoint): number {
    const { x0, y0 } = this;
    const [dx, dy] = [this.x1[i] - x0[i], this.y1[i] - y0[i]];
    const length = Math.hypot(dx, dy);
    const along = ((x - x0[i]) * dx + (y - y0[i]) * dy) / (length * length);
    if (along * length < 2) return this.from[i];
    if ((1 - along) * length < 2) return this.to[i];
    return this.from[i] + along * (this.to[i] - this.from[i]);
  }
}

/** The area within a closed run of segments, in mm², over four chords a curve; its sign says which way round it goes. */
export function areaWithin(segments: readonly Segment[]): number {
  let twice = 0;
  for (const s of segments) {
    let [x, y] = [s[0], s[1]];
    const steps = isLine(s) ? 1 : 4;
    for (let i = 1; i <= steps; i++) {
      const to = pointAt(s, i / steps);
      twice += x * to.y - to.x * y;
      [x, y] = [to.x, to.y];
    }
  }
  return twice / 2;
}

type GridPoint = Path64[number];

/** Different points may share it: what is found by it is looked at. */
function hashOf(x: number, y: number): number {
  const mixed = Math.imul(x, 0x9e3779b1) ^ Math.imul(y, 0x85ebca6b);
  return mixed ^ (mixed >>> 15);
}

function goesOn(a: Run, b: Run): boolean {
  return a.segment === b.segment && Math.abs(a.to - b.from) < 1e-3 && b.to > b.from === a.to > a.from;
}

const pieceIn = ({ piece }: Traced) => piece;

/** The runs as pieces of their segments, each cut where the next one truly crosses it. */
function joined(runs: readonly Run[], segments: readonly Segment[]): Traced[] {
  const cuts = runs.map(({ segment, to }, i) => cutBetween(segments, segment, to, runs[(i + 1) % runs.length]));
  return runs.flatMap(({ segment, from, to }, i) => {
    if (runs.length === 1) return [{ owner: segment, piece: pieceOf(segments[segment], from, to) }];
    const before = cuts[(i + runs.length - 1) % runs.length];
    const after = cuts[i];
    if (before.tb === after.ta) return [];
    const piece = pieceOf(segments[segment], before.tb, after.ta);
    if (isLine(piece)) return [{ owner: segment, piece: lineSegment(before.x, before.y, after.x, after.y) }];
    const [, , x1, y1, x2, y2] = piece;
    return [{ owner: segment, piece: [before.x, before.y, x1, y1, x2, y2, after.x, after.y] as const }];
  });
}

/** Where a run ends and the next begins: the parameters of both, and the point. */
function cutBetween(
  segments: readonly Segment[],
  segment: number,
  to: number,
  next: Run,
): { ta: number; tb: number; x: number; y: number } {
  const [a, b] = [segments[segment], segments[next.segment]];
  const [p, q] = [pointAt(a, to), pointAt(b, next.from)];
  // Most of them meet end to end.
  if (p.x === q.x && p.y === q.y) return { ta: to, tb: next.from, x: p.x, y: p.y };
  const met = next.segment === segment ? null : refine(a, b, to, next.from);
  // Sides that are all but parallel may meet far off, and a curve whose end is its start is there twice.
  const near =
    met !== null &&
    Math.hypot(met.x - p.x, met.y - p.y) < 5 * chordTolerance &&
    Math.abs(met.ta - to) < 0.5 &&
    Math.abs(met.tb - next.from) < 0.5;
  if (near) return { ta: met.ta, tb: met.tb, x: met.x, y: met.y };
  return { ta: to, tb: next.from, x: (p.x + q.x) / 2, y: (p.y + q.y) / 2 };
}

/** Without nodes in the middle of a straight line, and lines of rounding's length. */
export function straightened(segments: readonly Segment[], closed: boolean): Segment[] {
  const out: Segment[] = [];
  for (const segment of segments) {
    const last = out.at(-1);
    if (last && goesStraightOn(last, segment))
      out[out.length - 1] = lineSegment(last[0], last[1], segment[6], segment[7]);
    else out.push(segment);
  }
  const [first, last] = [out[0], out.at(-1)];
  if (closed && last && out.length > 2 && goesStraightOn(last, first)) {
    out[0] = lineSegment(last[0], last[1], first[6], first[7]);
    out.pop();
  }
  return out;
}

function goesStraightOn(a: Segment, b: Segment): boolean {
  if (!isLine(a) || !isLine(b)) return false;
  const [ax, ay, bx, by] = [a[6] - a[0], a[7] - a[1], b[6] - b[0], b[7] - b[1]];
  const [along, across] = [ax * bx + ay * by, Math.abs(ax * by - ay * bx)];
  return (
    along > 0 &&
    across <= 1e-5 * Math.hypot(ax, ay) * Math.hypot(bx, by) &&
    across <= grid * Math.hypot(ax + bx, ay + by)
  );
}

function toGrid(mm: number): number {
  return Math.round(mm / grid);
}
