import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { diffusions, type Grain, grains } from '../settings/grain.ts';
import { blueNoise, noiseSize } from './blue-noise.ts';
import { type GrainSettings, grainOf } from './grain.ts';

const usual: GrainSettings = {
  grain: 'diffused',
  diffusion: 'near',
  screenPerCm: 15,
  screenAngle: 45,
  greyLevels: 256,
  burntGreys: [],
};

const side = 200;
const gridOf = (columns: number, rows: number) => ({ columns, rows, left: 0, top: 0, dotMm: 0.1, rowMm: 0.1 });

/** The shares that come out of a raster. */
function grained(
  shares: Float32Array,
  columns: number,
  settings: Partial<GrainSettings>,
  shown: Float32Array | null = null,
) {
  const grid = gridOf(columns, shares.length / columns);
  const { levels, topLevel } = grainOf(shares, grid, shown, { ...usual, ...settings });
  return Float64Array.from(levels, (level) => level / topLevel);
}

function meanOf(values: ArrayLike<number>): number {
  let sum = 0;
  for (let i = 0; i < values.length; i++) sum += values[i];
  return sum / values.length;
}
const patch = (share: number) => new Float32Array(side * side).fill(share);

/** Every grain that makes greys, with every way of its own. */
const ways: readonly (readonly [string, Partial<GrainSettings>])[] = [
  ...diffusions.map((diffusion) => [`diffused ${diffusion}`, { diffusion }] as const),
  ...grains
    .filter((grain) => grain !== 'threshold' && grain !== 'diffused')
    .map((grain): readonly [string, Partial<GrainSettings>] => [grain, { grain }]),
  ...[0, 17.3, 90].map((screenAngle) => [`dots at ${screenAngle}°`, { grain: 'dots' as Grain, screenAngle }] as const),
  // Coarse dots that fit the raster exactly: they have few places to grow by.
  ['dots of a fifth of a mm', { grain: 'dots', screenAngle: 0, screenPerCm: 50 }],
  ['lines along the rows', { grain: 'lines', screenAngle: 0, screenPerCm: 10 }],
];

describe.each(ways)('%s', (_, settings) => {
  test('brings out every grey with its mean, to 0.5 %', () => {
    for (let grey = 0; grey <= 255; grey += 5) {
      const share = 1 - grey / 255;
      expect(Math.abs(meanOf(grained(patch(share), side, settings)) - share)).toBeLessThan(0.005);
    }
  });

  test('burns nothing of white and all of black', () => {
    expect(Math.max(...grained(new Float32Array(100), 10, settings))).toBe(0);
    expect(Math.min(...grained(new Float32Array(100).fill(1), 10, settings))).toBe(1);
  });

  test('makes an even ramp of an even ramp', () => {
    const [columns, rows, stripes] = [640, 200, 16];
    const ramp = Float32Array.from({ length: columns * rows }, (_, i) => (i % columns) / (columns - 1));
    const out = grained(ramp, columns, settings);
    const means = Array.from({ length: stripes }, (_, stripe) => {
      const from = (stripe * columns) / stripes;
      return meanOf(out.filter((_, i) => i % columns >= from && i % columns < from + columns / stripes));
    });
    means.forEach((mean, stripe) => expect(Math.abs(mean - (stripe + 0.5) / stripes)).toBeLessThan(0.02));
    expect(means).toEqual(means.toSorted((a, b) => a - b));
  });
});

test('a threshold burns what is at least half dark', () => {
  expect([...grained(Float32Array.of(0, 0.49, 0.5, 1), 4, { grain: 'threshold' })]).toEqual([0, 0, 1, 1]);
});

test('true greys have as many levels as are asked for, evenly apart', () => {
  const shares = Float32Array.of(0, 0.2, 0.3, 0.6, 0.8, 1);
  expect([...grained(shares, 6, { grain: 'true-greys', greyLevels: 3 })]).toEqual([0, 0, 0.5, 0.5, 1, 1]);
});

test('a screen has as many lines to the centimetre as are asked for', () => {
  const out = grained(patch(0.5), side, { grain: 'lines', screenAngle: 0, screenPerCm: 10 });
  const column = Array.from({ length: side }, (_, row) => out[row * side + 7]);
  const starts = column.filter((burns, row) => burns === 1 && (column[row - 1] ?? 1) === 0);
  expect(starts).toHaveLength(20);
});

test('an error goes on to dots that show alone: none of it burns in a hole, and none is lost', () => {
  const holes = fc.array(fc.nat(39), { maxLength: 12 });
  fc.assert(
    fc.property(
      holes,
      fc.constantFrom(...diffusions),
      fc.double({ min: 0, max: 1, noNaN: true }),
      (at, diffusion, share) => {
        const [columns, rows] = [40, 60];
        const isHole = (i: number) => at.includes(i % columns) && i % 3 === 0;
        const shown = Float32Array.from({ length: columns * rows }, (_, i) => (isHole(i) ? 0 : 1));
        const shares = shown.map((seen) => seen * share);
        const out = grained(shares, columns, { diffusion }, shown);
        shown.forEach((seen, i) => {
          if (seen === 0) expect(out[i]).toBe(0);
        });
        // What is left over is that of the last dot, and of ones with nowhere to go.
        expect(Math.abs(meanOf(out) - meanOf(shares)) * out.length).toBeLessThan(4);
      },
    ),
    { numRuns: 40 },
  );
});

describe('blue noise', () => {
  test('has every threshold once, evenly from 0 to 1', () => {
    const sorted = blueNoise().toSorted();
    const count = noiseSize * noiseSize;
    expect(sorted).toHaveLength(count);
    sorted.forEach((threshold, i) => expect(threshold).toBeCloseTo((i + 0.5) / count, 6));
  });

  test.each([0.15, 0.25, 0.4, 0.5, 0.6, 0.75, 0.85])(
    'of %d has under 5 % of white noise’s power at low frequencies',
    (share) => {
      const size = noiseSize;
      const out = grained(new Float32Array(size * size).fill(share), size, { grain: 'blue-noise' });
      // Below a quarter of the Nyquist frequency: one wave in 8 dots.
      const most = size / 8;
      const low = powers(out, size, most).flatMap((column, u) =>
        column.filter((_, k) => Math.hypot(u, k - most) > 0 && Math.hypot(u, k - most) < most),
      );
      // Of white noise each frequency has on average the variance of a dot.
      expect(low.length).toBeGreaterThan(300);
      expect(meanOf(low) / (share * (1 - share))).toBeLessThan(0.05);
    },
  );
});

/** The power of low frequencies, in waves over the whole, divided by the number of dots: by `u` from 0, and `v` from −most. */
function powers(values: Float64Array, size: number, most: number): number[][] {
  const turn = (i: number) => [Math.cos((2 * Math.PI * i) / size), -Math.sin((2 * Math.PI * i) / size)];
  return Array.from({ length: most + 1 }, (_, u) => {
    const rows = Array.from({ length: size }, (_, y) => {
      let [real, imaginary] = [0, 0];
      for (let x = 0; x < size; x++) {
        const [cos, sin] = turn(u * x);
        real += values[y * size + x] * cos;
        imaginary += values[y * size + x] * sin;
      }
      return [real, imaginary];
    });
    return Array.from({ length: 2 * most + 1 }, (_, k) => {
      let [real, imaginary] = [0, 0];
      rows.forEach(([a, b], y) => {
        const [cos, sin] = turn((k - most) * y);
        real += a * cos - b * sin;
        imaginary += a * sin + b * cos;
      });
      return (real * real + imaginary * imaginary) / values.length;
    });
  });
}
