import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Tone } from '../document/tone.ts';
import { blurred } from './blur.ts';
import { curveThrough, inverseOf } from './curve.ts';
import type { DotRaster } from './dots.ts';
import { raiseLocalContrast } from './local-contrast.ts';
import { sharesToBurn } from './tone.ts';

const grid = { left: 0, top: 0, dotMm: 0.1, rowMm: 0.1 };

/** The shares that greys burn with. */
function burnt(
  greys: readonly number[],
  tone: Tone,
  columns = greys.length,
  shown: readonly number[] | null = null,
): number[] {
  const dots: DotRaster = {
    ...grid,
    columns,
    rows: greys.length / columns,
    greys: Float32Array.from(greys),
    shown: shown && Float32Array.from(shown),
  };
  return [...sharesToBurn(dots, tone)];
}

const close = (values: readonly number[]) => values.map((value) => expect.closeTo(value, 3));
const share = fc.double({ min: 0, max: 1, noNaN: true });

describe('what of a grey burns', () => {
  test('is what it lacks of white, and of stock that turns lighter what it has of it', () => {
    expect(burnt([0, 0.25, 1], {})).toEqual([1, 0.75, 0]);
    expect(burnt([0, 0.25, 1], { lighter: true })).toEqual([0, 0.25, 1]);
    expect(burnt([0, 0.25, 1], { inverted: true })).toEqual([0, 0.25, 1]);
    expect(burnt([0, 0.25, 1], { inverted: true, lighter: true })).toEqual([1, 0.75, 0]);
  });

  test('is nothing of what does not show, and a part of what shows in part, whatever its tone', () => {
    expect(burnt([0, 0, 0], {}, 3, [0, 0.5, 1])).toEqual([0, 0.5, 1]);
    expect(burnt([1, 1, 1], { lighter: true }, 3, [0, 0.5, 1])).toEqual([0, 0.5, 1]);
  });

  test('goes by the curve, black and white points and all between', () => {
    const curve = [
      { from: 0.2, to: 0 },
      { from: 0.5, to: 0.6 },
      { from: 0.9, to: 1 },
    ];
    expect(burnt([0.1, 0.2, 0.5, 0.9, 1], { curve })).toEqual(close([1, 1, 0.4, 0, 0]));
  });

  test('goes by brightness and contrast, about the middle grey', () => {
    expect(burnt([0, 0.4, 0.5, 0.95], { brightness: 20 })).toEqual(close([0.9, 0.5, 0.4, 0]));
    expect(burnt([0, 0.25, 0.5, 1], { contrast: -50 })).toEqual(close([0.75, 0.625, 0.5, 0.25]));
    const [less, middle, more] = burnt([0.4, 0.5, 0.6], { contrast: 50 });
    expect([less, middle, more]).toEqual(close([0.5 + 0.1 * (101 / 51), 0.5, 0.5 - 0.1 * (101 / 51)]));
  });
});

describe('a curve', () => {
  const places = fc
    .uniqueArray(fc.integer({ min: 0, max: 100 }), { minLength: 1, maxLength: 7 })
    .chain((froms) => fc.tuple(...froms.map((from) => share.map((to) => ({ from: from / 100, to })))));

  test('goes through its places, and between two of them stays between them', () => {
    fc.assert(
      fc.property(places, share, (all, value) => {
        const curve = curveThrough(all);
        for (const { from, to } of all) expect(curve(from)).toBeCloseTo(to, 9);
        const before = all.filter(({ from }) => from <= value).toSorted((a, b) => b.from - a.from)[0];
        const after = all.filter(({ from }) => from >= value).toSorted((a, b) => a.from - b.from)[0];
        const ends = [before ?? after, after ?? before].map(({ to }) => to);
        expect(curve(value)).toBeGreaterThanOrEqual(Math.min(...ends) - 1e-9);
        expect(curve(value)).toBeLessThanOrEqual(Math.max(...ends) + 1e-9);
      }),
    );
  });

  test('through none leaves all as it is; its inverse undoes one that rises', () => {
    expect(curveThrough([])(0.3)).toBe(0.3);
    const rising = curveThrough([
      { from: 0, to: 0 },
      { from: 0.3, to: 0.7 },
      { from: 1, to: 1 },
    ]);
    for (const value of [0, 0.2, 0.7, 0.93, 1]) expect(rising(inverseOf(rising)(value))).toBeCloseTo(value, 6);
  });
});

describe('blurring', () => {
  const plane = (values: readonly number[], columns: number, shown: readonly number[] | null = null) => ({
    columns,
    rows: values.length / columns,
    values: Float32Array.from(values),
    shown: shown && Float32Array.from(shown),
  });

  test.each([0.7, 1.5, 2.5, 6])(
    'by %d leaves an even plane even, and spreads a dot by its standard deviation',
    (sigma) => {
      const side = 81;
      expect([...blurred(plane(Array(400).fill(0.4), 20), sigma, sigma)]).toEqual(close(Array(400).fill(0.4)));
      const dot = Array.from({ length: side * side }, (_, i) => Number(i === (side * side - 1) / 2));
      const out = blurred(plane(dot, side), sigma, 1.3 * sigma);
      const variance = (axis: (i: number) => number) =>
        out.reduce((sum, value, i) => sum + value * (axis(i) - 40) ** 2, 0);
      expect(out.reduce((sum, value) => sum + value, 0)).toBeCloseTo(1, 3);
      expect(Math.abs(Math.sqrt(variance((i) => i % side)) / sigma - 1)).toBeLessThan(0.07);
      expect(Math.abs(Math.sqrt(variance((i) => Math.floor(i / side))) / (1.3 * sigma) - 1)).toBeLessThan(0.07);
    },
  );

  test.each([0.7, 5])('by %d takes nothing from what does not show', (sigma) => {
    const shown = Array.from({ length: 100 }, (_, i) => (i % 10 < 5 ? 1 : 0));
    const out = blurred(
      plane(
        shown.map((seen) => (seen ? 0.3 : 0.9)),
        10,
        shown,
      ),
      sigma,
      sigma,
    );
    shown.forEach((seen, i) => seen && expect(out[i]).toBeCloseTo(0.3, 5));
  });
});

test('sharpening leaves even parts even, and raises edges by as much as is asked for', () => {
  const even = Array<number>(100).fill(0.4);
  expect(burnt(even, { sharpen: 300, sharpenMm: 0.2 }, 10)).toEqual(close(Array(100).fill(0.6)));
  const edge = Array.from({ length: 400 }, (_, i) => (i % 20 < 10 ? 0.4 : 0.6));
  const plain = burnt(edge, { sharpen: 50, sharpenMm: 0.2 }, 20).slice(0, 20);
  const strong = burnt(edge, { sharpen: 100, sharpenMm: 0.2 }, 20).slice(0, 20);
  expect(plain[0]).toBeCloseTo(0.6, 3);
  expect(plain[9]).toBeGreaterThan(0.63);
  expect(strong[9] - 0.6).toBeCloseTo(2 * (plain[9] - 0.6), 3);
  expect(plain[10]).toBeLessThan(0.37);
});

describe('local contrast', () => {
  test('of nothing leaves all as it is; of even parts they stay even', () => {
    const values = Float32Array.from({ length: 256 }, (_, i) => i / 255);
    const before = values.slice();
    raiseLocalContrast({ columns: 16, rows: 16, values, shown: null }, 0);
    expect(values).toEqual(before);
    const even = new Float32Array(400).fill(0.5);
    raiseLocalContrast({ columns: 20, rows: 20, values: even, shown: null }, 1);
    expect(new Set(even).size).toBe(1);
  });

  test('raises small differences wherever they lie, and keeps their order', () => {
    const [columns, rows] = [64, 64];
    const at = (i: number) => 0.2 + 0.5 * ((i % columns) / columns) + (Math.floor(i / 2) % 2 ? 0.03 : 0);
    const values = Float32Array.from({ length: columns * rows }, (_, i) => at(i));
    raiseLocalContrast({ columns, rows, values, shown: null }, 1);
    for (const x of [6, 30, 54]) {
      const i = 32 * columns + x;
      expect(Math.abs(values[i + 2] - values[i])).toBeGreaterThan(1.5 * Math.abs(at(i + 2) - at(i)));
      expect(Math.sign(values[i + 2] - values[i])).toBe(Math.sign(at(i + 2) - at(i)));
    }
  });

  test('goes by what shows alone', () => {
    const raised = (hidden: number) => {
      const values = Float32Array.from({ length: 1024 }, (_, i) => (i % 32 < 16 ? 0.4 + (i % 7) / 50 : hidden));
      const shown = Float32Array.from({ length: 1024 }, (_, i) => (i % 32 < 16 ? 1 : 0));
      raiseLocalContrast({ columns: 32, rows: 32, values, shown }, 1);
      return values.filter((_, i) => shown[i] > 0);
    };
    expect(raised(0)).toEqual(raised(1));
  });
});
