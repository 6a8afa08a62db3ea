import type { Diffusion } from '../settings/grain.ts';

/** How far an error goes: to so many dots of this row and of the next two, by weights. */
interface Kernel {
  /** Dots further on in the direction of the row, rows further down, and the weight. */
  readonly taps: readonly (readonly [along: number, down: number, weight: number])[];
  readonly whole: number;
}

const kernel = (...rows: readonly (readonly number[])[]): Kernel => {
  // The first row holds what lies ahead; the others are centred.
  const taps = rows.flatMap((weights, down) =>
    weights.flatMap((weight, i) => {
      const along = down === 0 ? i + 1 : i - (weights.length - 1) / 2;
      return weight === 0 ? [] : [[along, down, weight] as const];
    }),
  );
  return { taps, whole: taps.reduce((sum, [, , weight]) => sum + weight, 0) };
};

/** The published ways to spread an error, from the nearest to the widest. */
const kernels: Readonly<Record<Diffusion, Kernel>> = {
  /** Floyd and Steinberg, 1976. */
  near: kernel([7], [3, 5, 1]),
  /** Stucki, 1981. */
  wide: kernel([8, 4], [2, 4, 8, 4, 2], [1, 2, 4, 2, 1]),
  /** Jarvis, Judice and Ninke, 1976. */
  widest: kernel([7, 5], [3, 5, 7, 5, 3], [1, 3, 5, 3, 1]),
};

/** No kernel reaches further along a row, or down. */
const reach = 2;

/**
 * Error diffusion: each dot burns or not, and what that is off goes to dots that come later. Rows run there and back
 * (serpentine), so that no worms grow. At the edges, and beside dots that do not show, an error goes to the others
 * whole: none is lost but that of the last dot.
 *
 * @param shares what of each dot is to burn, 0 to 1, row by row
 * @param shown how much of each dot shows; one that does not neither burns nor takes an error
 * @returns 1 for each dot that burns, else 0
 */
export function diffuse(
  shares: Float32Array,
  columns: number,
  shown: Float32Array | null,
  diffusion: Diffusion,
): Uint8Array {
  const rows = shares.length / columns;
  const { taps, whole } = kernels[diffusion];
  const out = new Uint8Array(shares.length);
  const width = columns + 2 * reach;
  // Errors that rows have taken so far; each has room beside it, which takes what nobody reads.
  let errors = Array.from({ length: reach + 1 }, () => new Float32Array(width));
  const count = taps.length;
  const alongs = Int32Array.from(taps, ([along]) => along);
  const downs = Int32Array.from(taps, ([, down]) => down);
  const weights = Float64Array.from(taps, ([, , weight]) => weight / whole);
  for (let row = 0; row < rows; row++) {
    const step = row % 2 === 0 ? 1 : -1;
    const base = row * columns;
    const own = errors[0];
    const isLow = row + reach >= rows;
    for (let k = 0, column = step > 0 ? 0 : columns - 1; k < columns; k++, column += step) {
      if (shown && shown[base + column] === 0) continue;
      const wanted = shares[base + column] + own[column + reach];
      const burns = wanted >= 0.5 ? 1 : 0;
      out[base + column] = burns;
      const error = wanted - burns;
      if (error === 0) continue;
      if (!isLow && !shown && column >= reach && column < columns - reach) {
        for (let tap = 0; tap < count; tap++) {
          errors[downs[tap]][column + reach + step * alongs[tap]] += error * weights[tap];
        }
      } else spread(row, column, step, error);
    }
    errors = [...errors.slice(1), own.fill(0)];
  }
  return out;

  /** Gives an error to those of its dots that there are. */
  function spread(row: number, column: number, step: number, error: number): void {
    let taken = 0;
    for (let pass = 0; pass < 2; pass++) {
      for (let tap = 0; tap < count; tap++) {
        const to = column + step * alongs[tap];
        const down = row + downs[tap];
        if (to < 0 || to >= columns || down >= rows || (shown && shown[down * columns + to] === 0)) continue;
        if (pass === 0) taken += weights[tap];
        else errors[downs[tap]][to + reach] += (error * weights[tap]) / taken;
      }
      if (taken === 0) return;
    }
  }
}
