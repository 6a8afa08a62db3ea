import type { TonePoint } from '../document/tone.ts';

/**
 * The curve through places, as a function of numbers from 0 to 1: it goes up and down only where they do (monotone
 * cubic interpolation: Fritsch and Carlson, 1980). Before the first place and after the last it stays level.
 *
 * @param places in any order; of several at one place the last counts
 */
export function curveThrough(places: readonly TonePoint[]): (value: number) => number {
  const sorted = [...new Map(places.map(({ from, to }) => [from, to]))].sort(([a], [b]) => a - b);
  const xs = sorted.map(([x]) => x);
  const ys = sorted.map(([, y]) => y);
  const last = xs.length - 1;
  if (last < 0) return (value) => value;
  if (last === 0) return () => ys[0];
  const slopes = tangents(xs, ys);
  return (value) => {
    if (value <= xs[0]) return ys[0];
    if (value >= xs[last]) return ys[last];
    let i = 0;
    while (value > xs[i + 1]) i++;
    const width = xs[i + 1] - xs[i];
    const t = (value - xs[i]) / width;
    const [t2, t3] = [t * t, t * t * t];
    return (
      (2 * t3 - 3 * t2 + 1) * ys[i] +
      (t3 - 2 * t2 + t) * width * slopes[i] +
      (3 * t2 - 2 * t3) * ys[i + 1] +
      (t3 - t2) * width * slopes[i + 1]
    );
  };
}

function tangents(xs: readonly number[], ys: readonly number[]): number[] {
  const last = xs.length - 1;
  const secants = Array.from({ length: last }, (_, i) => (ys[i + 1] - ys[i]) / (xs[i + 1] - xs[i]));
  const slopes = xs.map((_, i) => {
    if (i === 0) return secants[0];
    if (i === last) return secants[last - 1];
    return secants[i - 1] * secants[i] <= 0 ? 0 : (secants[i - 1] + secants[i]) / 2;
  });
  for (const [i, secant] of secants.entries()) {
    if (secant === 0) {
      slopes[i] = slopes[i + 1] = 0;
      continue;
    }
    const [a, b] = [slopes[i] / secant, slopes[i + 1] / secant];
    const length = Math.hypot(a, b);
    if (length <= 3) continue;
    slopes[i] = (3 / length) * a * secant;
    slopes[i + 1] = (3 / length) * b * secant;
  }
  return slopes;
}

/** The function that undoes one which never falls, between 0 and 1, by halving. */
export function inverseOf(rising: (value: number) => number): (value: number) => number {
  return (value) => {
    let [least, most] = [0, 1];
    for (let i = 0; i < 40; i++) {
      const middle = (least + most) / 2;
      if (rising(middle) < value) least = middle;
      else most = middle;
    }
    return (least + most) / 2;
  };
}

/** Functions that change many numbers are looked up at so many places, and read between them. */
const lookups = 1024;

/** Maps numbers from 0 to 1 in place, by a table of what a function makes of them. */
export function mapShares(shares: Float32Array, change: (share: number) => number): void {
  // The last entry stands twice: what comes after 1 is read as well.
  const table = Float64Array.from({ length: lookups + 2 }, (_, i) => change(Math.min(1, i / lookups)));
  for (let i = 0; i < shares.length; i++) {
    const place = shares[i] * lookups;
    const entry = Math.floor(place);
    shares[i] = table[entry] + (table[entry + 1] - table[entry]) * (place - entry);
  }
}
