/** Greys on a raster, row by row, with how much of each place shows; null where all of all do. */
export interface Plane {
  readonly columns: number;
  readonly rows: number;
  readonly values: Float32Array;
  readonly shown: Float32Array | null;
}

/** Below this, in places, a Gaussian is taken as it is; above, three means in a row come as near to it as the eye can tell. */
const widestExact = 2;

/**
 * A plane blurred by a Gaussian. What does not show, and what lies beyond the edge, has no part in it.
 * Wide ones are three box filters one after the other (Kovesi, 2010).
 *
 * @param acrossSigma the standard deviation along rows, in places; `downSigma` that along columns
 */
export function blurred({ columns, rows, values, shown }: Plane, acrossSigma: number, downSigma: number): Float32Array {
  const weights = shown ? shown.slice() : null;
  const out = shown ? values.map((value, i) => value * shown[i]) : values.slice();
  for (const plane of weights ? [out, weights] : [out]) {
    const isCounted = weights !== null;
    alongLines(plane, rows, columns, columns, 1, acrossSigma, isCounted);
    alongLines(plane, columns, rows, 1, columns, downSigma, isCounted);
  }
  if (weights) for (let i = 0; i < out.length; i++) out[i] = weights[i] > 1e-6 ? out[i] / weights[i] : values[i];
  return out;
}

/**
 * Blurs lines of a plane in place.
 * @param isCounted whether what lies beyond the edge counts as nothing; else the rest stands for it
 */
function alongLines(
  plane: Float32Array,
  lines: number,
  length: number,
  lineStep: number,
  step: number,
  sigma: number,
  isCounted: boolean,
): void {
  const line = new Float64Array(length);
  const filters = sigma < widestExact ? [gaussianFilter(sigma)] : boxSizes(sigma).map((size) => boxFilter(size));
  for (let k = 0; k < lines; k++) {
    for (let i = 0; i < length; i++) line[i] = plane[k * lineStep + i * step];
    for (const filter of filters) filter(line, isCounted);
    for (let i = 0; i < length; i++) plane[k * lineStep + i * step] = line[i];
  }
}

type LineFilter = (line: Float64Array, isCounted: boolean) => void;

function gaussianFilter(sigma: number): LineFilter {
  const reach = Math.ceil(3 * sigma);
  const kernel = Float64Array.from({ length: 2 * reach + 1 }, (_, i) =>
    sigma > 0 ? Math.exp(-((i - reach) ** 2) / (2 * sigma * sigma)) : Number(i === reach),
  );
  const whole = kernel.reduce((sum, weight) => sum + weight, 0);
  let before = new Float64Array(0);
  return (line, isCounted) => {
    if (before.length !== line.length) before = new Float64Array(line.length);
    before.set(line);
    for (let i = 0; i < line.length; i++) {
      let [sum, weight] = [0, 0];
      for (let k = Math.max(-reach, -i); k <= reach && i + k < line.length; k++) {
        sum += before[i + k] * kernel[k + reach];
        weight += kernel[k + reach];
      }
      line[i] = sum / (isCounted ? whole : weight);
    }
  };
}

/** The odd widths of three boxes that come nearest to a Gaussian together. */
function boxSizes(sigma: number): number[] {
  const ideal = Math.sqrt((12 * sigma * sigma) / 3 + 1);
  const small = 2 * Math.floor((ideal - 1) / 2) + 1;
  const smalls = Math.round((12 * sigma * sigma - 3 * small * small - 12 * small - 9) / (-4 * small - 4));
  return [0, 1, 2].map((i) => (i < smalls ? small : small + 2));
}

function boxFilter(size: number): LineFilter {
  const half = (size - 1) / 2;
  let sums = new Float64Array(0);
  return (line, isCounted) => {
    if (sums.length !== line.length + 1) sums = new Float64Array(line.length + 1);
    for (let i = 0; i < line.length; i++) sums[i + 1] = sums[i] + line[i];
    for (let i = 0; i < line.length; i++) {
      const [from, to] = [Math.max(0, i - half), Math.min(line.length, i + half + 1)];
      line[i] = (sums[to] - sums[from]) / (isCounted ? size : to - from);
    }
  };
}
