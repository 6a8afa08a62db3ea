import type { Around } from '../geometry/paths/arc-chords.ts';
import { type Box, emptyBox } from '../geometry/paths/box.ts';
import type { Point } from '../geometry/paths/matrix.ts';

/**
 * What the head does: travels as fast as it can, runs at burning speed unlit, or burns on its way; or, standing, burns
 * for a while, or moves its focus.
 */
export const Move = { travel: 0, dark: 1, lit: 2, wait: 3, focus: 4 } as const;

/** Moves that are the chords of an arc, as the machine makes them: the program says them in one line. */
export interface MoveArc {
  /** The first of them, and how many they are. */
  readonly first: number;
  readonly count: number;
  /** Where its centre is, seen from where it begins, on the raster. */
  readonly toCentre: Point;
  /** As it is seen on screen. */
  readonly isClockwise: boolean;
}

/**
 * A list of straight moves. Move i goes to (xs[i], ys[i]) from where move i − 1 ended.
 * In mm from the bed's top left, y down, on a raster of 0.001 mm: the plan holds the very
 * numbers that the program will hold. Within arcs, of which it holds none, chords end where the machine ends them.
 */
export interface Moves {
  readonly kinds: Uint8Array;
  readonly xs: Float64Array;
  readonly ys: Float64Array;
  /** The share of the step's power each move burns with, 0 to 1; null where all burn with all of it. */
  readonly powers: Float32Array | null;
  /** The box around where they end, in mm; empty where there are none. */
  readonly bounds: Box;
  /** For how many seconds the head waits, or to how many mm above the stock its focus goes; null where it does neither. */
  readonly values: Float64Array | null;
  /** In the order of their moves. */
  readonly arcs: readonly MoveArc[];
}

function boundsOfPlaces(xs: Float64Array, ys: Float64Array): Box {
  let { minX, minY, maxX, maxY } = emptyBox;
  for (let i = 0; i < xs.length; i++) {
    if (xs[i] < minX) minX = xs[i];
    if (xs[i] > maxX) maxX = xs[i];
    if (ys[i] < minY) minY = ys[i];
    if (ys[i] > maxY) maxY = ys[i];
  }
  return { minX, minY, maxX, maxY };
}

/** Rounds to the 0.001 mm that programs are written in. */
export function toProgramGrid(mm: number): number {
  return Math.round(mm * 1000) / 1000;
}

/** For so many moves there is room to begin with. */
const firstRoom = 64;

/** Collects moves; one that goes nowhere is left out. */
export class MoveList {
  private count = 0;
  private kinds = new Uint8Array(firstRoom);
  private xs = new Float64Array(firstRoom);
  private ys = new Float64Array(firstRoom);
  private powers: Float32Array<ArrayBuffer> | null = null;
  private values: Float64Array<ArrayBuffer> | null = null;
  /** The share of power of the moves to come. */
  power = 1;
  x: number;
  y: number;
  /** How far above the stock the focus is. */
  z: number;
  /** How far the head burns and how far it moves unlit, in mm. */
  litMm = 0;
  unlitMm = 0;
  /** The bounds of what was to burn and of which no move came, in bed mm. */
  readonly missed: Box[] = [];
  /** Pictures that would have more dots than can be worked out, which burn nothing: where they lie, and how many. */
  readonly tooFine: { readonly box: Box; readonly dots: number }[] = [];

  /** How many moves there are after each line that was burnt, in the order they burn. */
  readonly lineEnds: number[] = [];
  private readonly arcs: MoveArc[] = [];

  constructor(start: { x: number; y: number; z?: number }) {
    this.x = toProgramGrid(start.x);
    this.y = toProgramGrid(start.y);
    this.z = toProgramGrid(start.z ?? 0);
  }

  /** A line is burnt to its end. */
  endLine(): void {
    this.lineEnds.push(this.count);
  }

  /** Burns where the head stands. */
  wait(seconds: number): void {
    if (seconds > 0) this.stand(Move.wait, seconds);
  }

  /** Moves the focus to so many mm above the stock. */
  focus(mm: number): void {
    const z = toProgramGrid(mm);
    if (z === this.z) return;
    this.stand(Move.focus, z);
    this.z = z;
  }

  private stand(kind: number, value: number): void {
    this.put(kind, this.x, this.y);
    this.values ??= new Float64Array(this.kinds.length);
    this.values[this.count - 1] = value;
  }

  private put(kind: number, x: number, y: number): void {
    const index = this.count;
    if (index === this.kinds.length) this.makeRoom(2 * index);
    this.kinds[index] = kind;
    this.xs[index] = x;
    this.ys[index] = y;
    if (this.power !== 1 || this.powers) this.putPower(index);
    this.count = index + 1;
  }

  private putPower(index: number): void {
    this.powers ??= new Float32Array(this.kinds.length).fill(1, 0, index);
    this.powers[index] = this.power;
  }

  /** Makes room for so many moves more: that spares copies where many come. */
  reserve(moves: number): void {
    if (this.count + moves > this.kinds.length) this.makeRoom(this.count + moves);
  }

  private makeRoom(room: number): void {
    const { kinds, xs, ys, powers, values } = this;
    this.kinds = new Uint8Array(room);
    this.xs = new Float64Array(room);
    this.ys = new Float64Array(room);
    this.kinds.set(kinds);
    this.xs.set(xs);
    this.ys.set(ys);
    if (powers) {
      this.powers = new Float32Array(room);
      this.powers.set(powers);
    }
    if (values) {
      this.values = new Float64Array(room);
      this.values.set(values);
    }
  }

  to(kind: number, x: number, y: number): void {
    const nx = toProgramGrid(x);
    const ny = toProgramGrid(y);
    const [dx, dy] = [nx - this.x, ny - this.y];
    if (dx === 0 && dy === 0) return;
    const distance = dy === 0 ? Math.abs(dx) : Math.sqrt(dx * dx + dy * dy);
    this.put(kind, nx, ny);
    this.x = nx;
    this.y = ny;
    if (kind === Move.lit) this.litMm += distance;
    else this.unlitMm += distance;
  }

  /** Burns along an arc, by the ends of its chords: the last of them lies on the raster. */
  arc({ cx, cy, isClockwise }: Around, chords: readonly Point[]): void {
    const toCentre = { x: toProgramGrid(cx - this.x), y: toProgramGrid(cy - this.y) };
    this.arcs.push({ first: this.count, count: chords.length, toCentre, isClockwise });
    for (const { x, y } of chords) {
      this.litMm += Math.hypot(x - this.x, y - this.y);
      this.put(Move.lit, x, y);
      this.x = x;
      this.y = y;
    }
  }

  /** The moves so far. The list must not be used afterwards. */
  build(): Moves {
    const { count } = this;
    const [xs, ys] = [trimmed(this.xs, count), trimmed(this.ys, count)];
    return {
      kinds: trimmed(this.kinds, count),
      xs,
      ys,
      bounds: boundsOfPlaces(xs, ys),
      powers: this.powers && trimmed(this.powers, count),
      values: this.values && trimmed(this.values, count),
      arcs: this.arcs,
    };
  }
}

/** The first entries of an array: in the same memory where nearly all of it is used, else copied. */
function trimmed<T extends Uint8Array | Float32Array | Float64Array>(array: T, count: number): T {
  const isFull = count > 0.9 * array.length;
  return (isFull ? array.subarray(0, count) : array.slice(0, count)) as T;
}
