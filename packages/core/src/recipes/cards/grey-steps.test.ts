import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { CardWish, LaidCard } from '../../document/card.ts';
import { shop } from '../../fixtures/shop.ts';
import { cardWish } from './card-wish.ts';
import { burntGreysOf, type GreyStep, greySteps, hasGreySteps } from './grey-steps.ts';
import { type CardCell, layCard } from './test-card.ts';

const [machine] = shop.machines;
const { wish } = cardWish(shop, { material: shop.materials[0] }, machine, 'photo', 'greys');
const card = layCard(wish);

const steps = (...darks: readonly (readonly [number, number | null])[]): GreyStep[] =>
  darks.map(([askedPercent, darkPercent]) => ({ cell: {} as CardCell, askedPercent, darkPercent }));

describe('grey steps of a card', () => {
  test('are those of one row, from the lightest on: as was typed, else as is seen', () => {
    const darks = { '2-3': 44 };
    const read = greySteps({ darks }, card, 1, ({ row, column }) => (column === 9 ? null : (row + column) / 20));
    expect(read.map(({ askedPercent }) => askedPercent)).toEqual([10, 20, 30, 40, 50, 60, 70, 80, 90, 100]);
    expect(read.map(({ darkPercent }) => darkPercent)).toEqual([5, 10, 44, 20, 25, 30, 35, 40, 45, null]);
    expect(new Set(read.map(({ cell }) => cell.row))).toEqual(new Set([1]));
  });

  test('are on cards of a Photo, and on no others; they burn as they are drawn', () => {
    const laid = (some: CardWish) => hasGreySteps({ wish: some } as LaidCard);
    expect(laid(wish)).toBe(true);
    expect(laid({ ...wish, operation: 'engrave' })).toBe(false);
    expect(laid(cardWish(shop, { material: shop.materials[0] }, machine, 'photo', 'lines').wish)).toBe(false);
    expect(card.cells.map(({ settings }) => settings.burntGreys)).toEqual(card.cells.map(() => []));
  });
});

describe('the tone curve', () => {
  test('goes from bare to the darkest', () => {
    expect(burntGreysOf(steps([25, 20], [50, 60], [100, 80]))).toEqual([
      { asked: 0.25, burnt: 0.25 },
      { asked: 0.5, burnt: 0.75 },
      { asked: 1, burnt: 1 },
    ]);
  });

  test('takes steps that fall as one', () => {
    const greys = burntGreysOf(steps([20, 40], [40, 30], [60, 20], [80, 60], [100, 50]));
    expect(greys?.map(({ burnt }) => burnt)).toEqual([0.545, 0.545, 0.545, 1, 1]);
  });

  test('leaves out what nobody knows, and is none of two greys or of bare stuff', () => {
    expect(burntGreysOf(steps([0, 3], [20, 10], [40, null], [60, 30], [100, 40]))).toHaveLength(3);
    expect(burntGreysOf(steps([20, 10], [40, null], [100, 40]))).toBeNull();
    expect(burntGreysOf(steps([20, 0], [40, 0], [100, 0]))).toBeNull();
  });

  test('never falls, whatever is measured, and keeps the mean of what it joins', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 100 }), { minLength: 3, maxLength: 20 }), (darks) => {
        const greys = burntGreysOf(steps(...darks.map((dark, i) => [(100 * (i + 1)) / darks.length, dark] as const)));
        const burnt = greys?.map((grey) => grey.burnt) ?? [];
        expect(burnt).toEqual(burnt.toSorted((a, b) => a - b));
        expect(burnt.at(-1)).toBe(1);
        const isRising = darks.every((dark, i) => i === 0 || dark >= darks[i - 1]);
        const darkest = darks.at(-1) ?? 1;
        if (isRising) darks.forEach((dark, i) => expect(burnt[i]).toBeCloseTo(dark / darkest, 2));
      }),
    );
  });
});
