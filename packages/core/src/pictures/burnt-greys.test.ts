import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { greyPicture } from '../fixtures/grey-picture.ts';
import { scaling } from '../geometry/paths/matrix.ts';
import { burntLook } from '../plan/burnt-look.ts';
import { burntGreysColumn, burntGreysSchema } from '../settings/burnt-greys.ts';
import { type Grain, grains } from '../settings/grain.ts';
import { usualSettings } from '../settings/settings.ts';
import { burntCurve, sharesToAsk } from './burnt-greys.ts';

/** Greys that come out darker than they should, and the darker the more, as most stuff shows them. */
const heavy = [10, 25, 50, 75, 100].map((percent) => ({
  asked: percent / 100,
  burnt: (1 - Math.exp(-percent / 40)) / (1 - Math.exp(-2.5)),
}));

const rising = fc.array(fc.integer({ min: 1, max: 40 }), { minLength: 3, maxLength: 10 }).map((parts) => {
  const whole = parts.reduce((sum, part) => sum + part, 0);
  let sum = 0;
  return parts.map((part, i) => {
    sum += part;
    return { asked: (i + 1) / parts.length, burnt: sum / whole };
  });
});

describe('measured greys', () => {
  test('what is asked for comes out as is wanted', () => {
    fc.assert(
      fc.property(rising, (greys) => {
        const wanted = Float32Array.from({ length: 101 }, (_, i) => i / 100);
        const curve = burntCurve(greys);
        sharesToAsk(wanted, greys).forEach((share, i) => expect(Math.abs(curve(share) - wanted[i])).toBeLessThan(0.01));
      }),
    );
  });

  test('white stays bare and black is whole, where nine tenths burn black already', () => {
    const greys = [
      { asked: 0.2, burnt: 0 },
      { asked: 0.5, burnt: 0.6 },
      { asked: 0.9, burnt: 1 },
      { asked: 1, burnt: 1 },
    ];
    const asked = sharesToAsk(Float32Array.of(0, 0.01, 0.6, 0.999, 1), greys);
    expect([asked[0], asked[4]]).toEqual([0, 1]);
    expect(asked[1]).toBeGreaterThan(0.2);
    expect(asked[2]).toBeCloseTo(0.5, 2);
    expect(asked[3]).toBeLessThan(1);
  });

  test('change nothing where there are none', () => {
    const wanted = Float32Array.of(0.2, 0.7);
    expect(sharesToAsk(wanted, [])).toBe(wanted);
    expect(burntCurve([])(0.3)).toBe(0.3);
  });
});

describe('a picture that is burnt by measured greys', () => {
  const [side, steps] = [64, 7];
  const values = Array.from({ length: steps * side * side }, (_, i) =>
    Math.round((255 * (Math.floor(i / side) % steps)) / (steps - 1)),
  );
  const picture = { pixels: greyPicture(steps * side, values), matrix: scaling(0.1, 0.1), tone: {} };
  const settings = { ...usualSettings(), powerPercent: 40, speedMmPerS: 200, lineSpacingMm: 0.1 };

  /** How dark each of the even steps comes out, in the middle of its stripe. */
  const darknesses = (grain: Grain, burntGreys: typeof heavy) => {
    const look = burntLook(picture, { ...settings, grain, burntGreys }, 1e9);
    return Array.from({ length: steps }, (_, step) => {
      let [sum, count] = [0, 0];
      for (let y = 12; y < side - 12; y++) {
        for (let x = step * side + 12; x < (step + 1) * side - 12; x++, count++) {
          sum += look?.burnt[y * steps * side + x] ?? Number.NaN;
        }
      }
      return sum / count / 255;
    });
  };
  const even = Array.from({ length: steps }, (_, step) => 1 - step / (steps - 1));

  test.each(grains.filter((grain) => grain !== 'threshold'))('%s: steps that are even come out even', (grain) => {
    darknesses(grain, heavy).forEach((dark, i) => expect(Math.abs(dark - even[i])).toBeLessThan(0.03));
  });

  test('a threshold stays where it is', () => {
    expect(darknesses('threshold', heavy).map(Math.round)).toEqual(even.map((share) => (share > 0.5 ? 1 : 0)));
  });
});

describe('measured greys in files', () => {
  test('stand in a table as they were asked for and burnt', () => {
    const greys = [
      { asked: 0.1, burnt: 0.22 },
      { asked: 1, burnt: 1 },
    ];
    expect(burntGreysColumn.write(greys)).toBe('10:22 100:100');
    expect(burntGreysColumn.read(' 10:22  100:100 ')).toEqual(greys);
    for (const cell of ['10', '10:x', '10:120', '10:20:30']) expect(() => burntGreysColumn.read(cell)).toThrow(cell);
  });

  test('never fall', () => {
    const read =
      (...burnt: readonly number[]) =>
      () =>
        burntGreysSchema.read(burnt.map((value, i) => ({ asked: (i + 1) / burnt.length, burnt: value })));
    expect(read(0.1, 0.1, 1)()).toHaveLength(3);
    expect(read(0.5, 0.4, 1)).toThrow('grey 2 must go from the lightest grey to the darkest');
    expect(() =>
      burntGreysSchema.read([
        { asked: 0.5, burnt: 0 },
        { asked: 0.5, burnt: 1 },
      ]),
    ).toThrow('grey 2');
  });
});
