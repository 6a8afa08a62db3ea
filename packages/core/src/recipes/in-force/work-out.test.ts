import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { machine } from '../../fixtures/shop.ts';
import type { Machine } from '../../machine/machine.ts';
import type { Material } from '../book/material.ts';
import type { Recipe } from '../book/recipe.ts';
import { basisFor } from './apply.ts';
import { expectEnergy, studentQuantile975 } from './energy-fit.ts';
import { workOut } from './work-out.ts';

const strong: Machine = { ...machine, id: 'strong', name: 'Strong', kind: 'co2', ratedW: 100, topSpeed: 800 };
const machines = [machine, strong];

const ply = (thicknessMm: number, recipes: Partial<Recipe>[], more: Partial<Material> = {}): Material => ({
  id: `ply-${thicknessMm}`,
  name: 'Ply',
  thicknessMm,
  tone: '#fff',
  sheetWidth: 300,
  sheetHeight: 200,
  forbidden: null,
  recipes: recipes.map((one) => ({
    machineId: 'm',
    operation: 'cut',
    powerPercent: 60,
    speedMmPerS: 10,
    passes: 1,
    lineSpacingMm: 0.1,
    evidence: 'proven',
    note: '',
    ...one,
  })),
  ...more,
});

/** Seeded noise: normal, of one sigma. */
function normals(seed: number): () => number {
  let state = seed;
  // Mulberry32.
  const uniform = () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return (((mixed ^ (mixed >>> 14)) >>> 0) + 0.5) / 2 ** 32;
  };
  return () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform());
}

describe('a law behind noisy burns', () => {
  test.each([
    ['as expected, many burns', 1.1, 12, 0.1],
    ['as expected, few', 1.1, 3, 0.1],
    ['steeper than expected', 1.5, 8, 0.1],
    ['flatter, and rough', 0.8, 10, 0.2],
    ['fine burns', 1.2, 6, 0.05],
  ])('is recovered within the stated range in 95 of 100 trials: %s', (_, exponent, count, sigma) => {
    let within = 0;
    const trials = 1000;
    for (let trial = 1; trial <= trials; trial++) {
      const noise = normals(trial * 7919);
      const energy = (thickness: number) => 2 * thickness ** exponent;
      const materials = Array.from({ length: count }, (__, i) => {
        const thickness = 2 + (i % 6);
        const powerPercent = 50 + ((i * 17) % 45);
        const taken = energy(thickness) * Math.exp(sigma * noise());
        return ply(thickness, [{ powerPercent, speedMmPerS: (60 * powerPercent) / 100 / taken }], {
          id: `${trial}-${i}`,
        });
      });
      const wanted = ply(5.5, []);
      const found = workOut(
        { materials: [...materials, wanted], machines },
        { material: wanted, thicknessMm: 5.5, machine, operation: 'cut' },
      );
      if (!found) throw new Error('nothing was worked out');
      // The next burn, which strays as the others did.
      const { powerPercent, passes } = found.settings;
      const right = (60 * powerPercent * passes) / 100 / (energy(5.5) * Math.exp(sigma * noise()));
      if (right >= found.doubt.least && right <= found.doubt.most) within++;
    }
    expect(within / trials).toBeGreaterThanOrEqual(0.95);
  });

  test('is found exactly where the burns have no noise and are many, whatever their powers', () => {
    const materials = [2, 3, 4, 6, 8].flatMap((thickness, i) =>
      [45, 60, 90].map((powerPercent) =>
        ply(thickness, [{ powerPercent, speedMmPerS: (60 * powerPercent) / 100 / (1.7 * thickness ** 1.1) }], {
          id: `${i}-${powerPercent}`,
        }),
      ),
    );
    const wanted = ply(5, []);
    const found = workOut({ materials, machines }, { material: wanted, thicknessMm: 5, machine, operation: 'cut' });
    const exact = (0.6 * (found?.settings.powerPercent ?? 0)) / (1.7 * 5 ** 1.1);
    expect(found?.settings.speedMmPerS).toBeCloseTo(exact, 1);
  });

  test('more burns leave less doubt, and what is farther off more', () => {
    const sample = (t: number) => ({ logs: [Math.log(t)], logEnergy: Math.log(2 * t ** 1.1), variance: 1 });
    const law = [{ exponent: 1.1, sigma: 0.3 }];
    const width = (count: number, at: number) => {
      const samples = Array.from({ length: count }, (_, i) => sample(3 + (i % 3)));
      const found = expectEnergy(samples, law, [Math.log(at)]);
      return found ? found.most - found.least : Number.NaN;
    };
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 20 }), fc.integer({ min: 41, max: 80 }), (count, tenths) => {
        expect(width(count + 1, tenths / 10)).toBeLessThan(width(count, tenths / 10) + 1e-9);
        expect(width(count, tenths / 10 + 0.5)).toBeGreaterThan(width(count, tenths / 10) - 1e-9);
      }),
    );
    expect(expectEnergy([], law, [1])).toBeNull();
  });

  test('the quantile is that of the tables', () => {
    for (const [freedom, t] of [
      [3, 3.182],
      [4, 2.776],
      [5, 2.571],
      [10, 2.228],
      [30, 2.042],
      [1000, 1.962],
    ]) {
      expect(Math.abs(studentQuantile975(freedom) / t - 1)).toBeLessThan(0.003);
    }
  });
});

describe('working out', () => {
  const three = ply(3, [{ powerPercent: 60, speedMmPerS: 15 }]);
  const book = { materials: [three], machines };
  const wish = { material: three, thicknessMm: 3, machine, operation: 'cut' as const };

  test('a cut of another thickness goes by the energy per length', () => {
    const found = workOut(book, { ...wish, thicknessMm: 4 });
    expect(found?.settings).toMatchObject({ powerPercent: 60, passes: 1 });
    expect(found?.settings.speedMmPerS).toBeCloseTo(15 / (4 / 3) ** 1.1, 1);
    expect(found?.doubt.least).toBeLessThan(found?.settings.speedMmPerS as number);
    expect(found?.doubt.most).toBeGreaterThan(found?.settings.speedMmPerS as number);
  });

  test('another machine goes by the power of its beam, as measured', () => {
    // 36 W of 100: at as many watts, the same speed.
    expect(workOut(book, { ...wish, machine: strong })?.settings).toMatchObject({ powerPercent: 36, speedMmPerS: 15 });
    const worn = { ...strong, measuredW: 72 };
    expect(workOut({ ...book, machines: [machine, worn] }, { ...wish, machine: worn })?.settings).toMatchObject({
      powerPercent: 50,
      speedMmPerS: 15,
    });
  });

  test('what would creep goes round more often; what would race burns with less', () => {
    const slow = ply(8, [{ powerPercent: 95, speedMmPerS: 2.5 }]);
    const thick = workOut({ materials: [slow], machines }, { ...wish, material: slow, thicknessMm: 15 });
    expect(thick?.settings.passes).toBeGreaterThan(1);
    expect(thick?.settings.speedMmPerS).toBeGreaterThanOrEqual(2);
    const card = ply(1, [{ operation: 'score', powerPercent: 10, speedMmPerS: 480 }]);
    const fast = workOut(
      { materials: [card], machines: [machine, { ...strong, kind: 'co2', ratedW: 600, leastPower: 1 }] },
      { ...wish, material: card, operation: 'score', machine: { ...strong, topSpeed: 100 } },
    );
    expect(fast?.settings.speedMmPerS).toBeLessThanOrEqual(100);
  });

  test('engravings go by the energy per area, whatever the thickness', () => {
    const engraved = ply(3, [{ operation: 'engrave', powerPercent: 20, speedMmPerS: 400, lineSpacingMm: 0.2 }]);
    const found = workOut(
      { materials: [engraved], machines },
      { material: ply(9, []), thicknessMm: 9, machine, operation: 'engrave' },
    );
    expect(found?.settings).toMatchObject({ powerPercent: 20, speedMmPerS: 400, lineSpacingMm: 0.2 });
  });

  test('a photo is as an engraving, until there is a photo', () => {
    const engraved = { operation: 'engrave' as const, powerPercent: 20, speedMmPerS: 400 };
    const stock = ply(3, [engraved]);
    const photo = { ...wish, material: stock, operation: 'photo' as const };
    const found = workOut({ materials: [stock], machines }, photo);
    expect(found?.settings).toMatchObject({ powerPercent: 20, speedMmPerS: 400, lineSpacingMm: 0.1 });
    const other = ply(4, [{ ...engraved, operation: 'photo', speedMmPerS: 250 }]);
    expect(workOut({ materials: [stock, other], machines }, photo)?.settings.speedMmPerS).toBe(250);
    // An engraving is none that follows a photo.
    expect(workOut({ materials: [other], machines }, { ...photo, operation: 'engrave' })).toBeNull();
  });

  test('without basis there is no number', () => {
    for (const none of [
      // Nothing proven, only copied.
      workOut({ materials: [ply(3, [{ evidence: 'copied' }])], machines }, wish),
      // Another stuff.
      workOut(book, { ...wish, material: ply(3, [], { name: 'Acrylic' }) }),
      // Far too thick.
      workOut(book, { ...wish, thicknessMm: 6.1 }),
      // Another operation.
      workOut(book, { ...wish, operation: 'engrave' }),
      workOut(
        { materials: [{ ...three, forbidden: 'poison' }], machines },
        { ...wish, material: { ...three, forbidden: 'poison' } },
      ),
      workOut({ materials: [ply(3, [{ archived: true }])], machines }, wish),
    ]) {
      expect(none).toBeNull();
    }
  });

  test('others of the family count, less than the same stuff', () => {
    const poplar = ply(5, [{ speedMmPerS: 12 }], { name: 'Poplar', family: 'Plywood' });
    const birch = ply(5, [], { id: 'birch', name: 'Birch', family: 'Plywood' });
    const of = (...materials: Material[]) =>
      workOut({ materials, machines }, { material: birch, thicknessMm: 5, machine, operation: 'cut' });
    const alone = of(poplar);
    expect(alone?.settings.speedMmPerS).toBeCloseTo(12, 1);
    const both = of(poplar, ply(4.5, [{ speedMmPerS: 12 }], { name: 'Birch', family: 'Plywood' }));
    expect(both?.settings.speedMmPerS).toBeLessThan(11.5);
    expect((both?.doubt.most ?? 0) / (both?.doubt.least ?? 1)).toBeLessThan(
      (alone?.doubt.most ?? 0) / (alone?.doubt.least ?? 1),
    );
  });

  test('the book takes a recipe where it fits, and says what it worked out from where it does not', () => {
    const four = ply(4, [{ speedMmPerS: 11 }]);
    const all = { materials: [three, four, ply(4, [], { id: 'other', name: 'Card' })], machines };
    const basis = (thicknessMm: number, on = machine) => basisFor(all, { material: three, thicknessMm }, on, 'cut');
    expect(basis(3.3)?.source).toEqual({ kind: 'recipe', evidence: 'proven', from: 'Ply 3 mm, Test machine' });
    expect(basis(3.31)?.source).toMatchObject({ kind: 'worked out', from: 'Ply 3 and 4 mm, Test machine' });
    expect(basis(3, strong)?.source.kind).toBe('worked out');
    // What is sold as 4 mm and measures 3.6 is that thick, for its own recipe and for others.
    const thin = { ...four, measuredMm: 3.6 };
    const measured = (thicknessMm?: number) =>
      basisFor({ ...all, materials: [thin] }, { material: thin, thicknessMm }, machine, 'cut');
    expect([measured()?.source.kind, measured(3.9)?.source.kind]).toEqual(['recipe', 'recipe']);
    expect([measured(4)?.source.kind, measured(3.2)?.source.kind]).toEqual(['worked out', 'worked out']);
    expect(basis(9)).toBeNull();
    const variants = ply(3, [
      { variant: 'masked', speedMmPerS: 9 },
      { lensId: 'long', speedMmPerS: 8 },
      { speedMmPerS: 10 },
    ]);
    const of = (choice: object) =>
      basisFor({ ...all, materials: [variants] }, { material: variants }, machine, 'cut', choice)?.settings.speedMmPerS;
    expect([
      of({}),
      of({ variant: 'masked' }),
      of({ variant: 'deep' }),
      of({ lensId: 'long' }),
      of({ lensId: 'short' }),
    ]).toEqual([10, 9, 10, 8, 10]);
  });
});
