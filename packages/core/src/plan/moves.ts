/** What the head does on its way: travels as fast as it can, runs at burning speed unlit, or burns. */
export const Move = { travel: 0, dark: 1, lit: 2 } as const;

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
  private uneven = false;
  /** The share of power of the moves to come. */
  power = 1;
  x: number;
  y: number;
  /** How far the head burns and how far it moves unlit, in mm. */
  litMm = 0;
  unlitMm = 0;

  constructor(start: { x: number; y: number }) {
    this.x = toProgramGrid(start.x);
    this.y = toProgramGrid(start.y);
  }

  to(kind: number, x: number, y: number): void {
    const nx = toProgramGrid(x);
    const ny = toProgramGrid(y);
    const distance = Math.hypot(nx - this.x, ny - this.y);
    if (distance === 0) return;
    this.kinds.push(kind);
    this.xs.push(nx);
    this.ys.push(ny);
    this.powers.push(this.power);
    if (this.power !== 1) this.uneven = true;
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
    };
  }
}
