/**
 * What the head does: travels as fast as it can, runs at burning speed unlit, or burns on its way; or, standing, burns
 * for a while, or moves its focus.
 */
export const Move = { travel: 0, dark: 1, lit: 2, wait: 3, focus: 4 } as const;

/**
 * A list of straight moves. Move i goes to (xs[i], ys[i]) from where move i − 1 ended.
 * In mm from the bed's top left, y down, on a raster of 0.001 mm: the plan holds the very
 * numbers that the program will hold.
 */
export interface Moves {
  readonly kinds: Uint8Array;
  readonly xs: Float64Array;
  readonly ys: Float64Array;
  /** The share of the step's power each move burns with, 0 to 1; null where all burn with all of it. */
  readonly powers: Float32Array | null;
  /** For how many seconds the head waits, or to how many mm above the stock its focus goes; null where it does neither. */
  readonly values: Float64Array | null;
}

/** Rounds to the 0.001 mm that programs are written in. */
export function toProgramGrid(mm: number): number {
  return Math.round(mm * 1000) / 1000;
}

/** Collects moves; one that goes nowhere is left out. */
export class MoveList {
  private readonly kinds: number[] = [];
  private readonly xs: number[] = [];
  private readonly ys: number[] = [];
  private readonly powers: number[] = [];
  private readonly values: number[] = [];
  private uneven = false;
  private stands = false;
  /** The share of power of the moves to come. */
  power = 1;
  x: number;
  y: number;
  /** How far above the stock the focus is. */
  z: number;
  /** How far the head burns and how far it moves unlit, in mm. */
  litMm = 0;
  unlitMm = 0;

  constructor(start: { x: number; y: number; z?: number }) {
    this.x = toProgramGrid(start.x);
    this.y = toProgramGrid(start.y);
    this.z = toProgramGrid(start.z ?? 0);
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
    this.stands = true;
    this.put(kind, this.x, this.y, value);
  }

  private put(kind: number, x: number, y: number, value: number): void {
    this.kinds.push(kind);
    this.xs.push(x);
    this.ys.push(y);
    this.powers.push(this.power);
    this.values.push(value);
    if (this.power !== 1) this.uneven = true;
  }

  to(kind: number, x: number, y: number): void {
    const nx = toProgramGrid(x);
    const ny = toProgramGrid(y);
    const distance = Math.hypot(nx - this.x, ny - this.y);
    if (distance === 0) return;
    this.put(kind, nx, ny, 0);
    this.x = nx;
    this.y = ny;
    if (kind === Move.lit) this.litMm += distance;
    else this.unlitMm += distance;
  }

  build(): Moves {
    return {
      kinds: Uint8Array.from(this.kinds),
      xs: Float64Array.from(this.xs),
      ys: Float64Array.from(this.ys),
      powers: this.uneven ? Float32Array.from(this.powers) : null,
      values: this.stands ? Float64Array.from(this.values) : null,
    };
  }
}
