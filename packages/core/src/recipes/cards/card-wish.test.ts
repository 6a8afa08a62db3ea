import { describe, expect, test } from '@jest/globals';
import { shop } from '../../fixtures/shop.ts';
import { type Machine, wattsOf } from '../../machine/machine.ts';
import { burnsPictures, burntOperations, fillsAreas } from '../../operations/operations.ts';
import { beyondMachine } from '../../settings/settings.ts';
import type { Material } from '../book/material.ts';
import { cardKinds, cardWish, safeWords } from './card-wish.ts';
import { layCard } from './test-card.ts';

const [machine] = shop.machines;
const unknown: Material = {
  id: 'nobody-knows',
  family: 'Felt',
  name: 'Felt',
  thicknessMm: 5,
  tone: '#888888',
  sheetWidth: 300,
  sheetHeight: 200,
  forbidden: null,
  recipes: [],
};

describe('the card to begin with', () => {
  test.each(
    burntOperations.flatMap((operation) => cardKinds(operation).map(({ name, id }) => [name, operation, id] as const)),
  )('%s, %s: every cell is within the machine', (_, operation, kind) => {
    for (const material of [...shop.materials.filter(({ forbidden }) => !forbidden), unknown]) {
      const able: Machine = { ...machine, leastPower: 4, focus: { lowest: -10, highest: 20, speed: 5 } };
      const { wish } = cardWish(shop, { material }, able, operation, kind);
      const card = layCard(wish);
      expect(card.cells.length).toBeGreaterThan(1);
      for (const { settings } of card.cells) expect(beyondMachine(settings, operation, able)).toEqual([]);
    }
  });

  test('lies around the recipe that is known', () => {
    const material = shop.materials.find(({ recipes }) =>
      recipes.some(({ machineId, operation }) => machineId === machine.id && operation === 'cut'),
    ) as Material;
    const recipe = material.recipes.find(({ machineId, operation }) => machineId === machine.id && operation === 'cut');
    const { wish, ground } = cardWish(shop, { material }, machine, 'cut', 'power-speed');
    expect(ground).toBe('recipe');
    expect(wish.across.from).toBeLessThan(recipe?.speedMmPerS ?? 0);
    expect(wish.across.to).toBeGreaterThan(recipe?.speedMmPerS ?? 0);
    expect(wish.down?.from).toBeLessThan(recipe?.powerPercent ?? 0);
    expect(wish.rest.kerfMm).toBe(0);
  });

  test('is wide where nothing is known, from half the energy that any stuff takes to five times that', () => {
    const { wish, ground } = cardWish(shop, { material: unknown }, machine, 'cut', 'power-speed');
    expect(ground).toBe('nothing');
    const energies = layCard(wish).cells.map(
      ({ settings }) => (wattsOf(machine) * settings.powerPercent) / 100 / settings.speedMmPerS,
    );
    const any = 0.5 * 5 ** 1.1;
    expect(Math.min(...energies)).toBeLessThan(any / 2);
    expect(Math.max(...energies)).toBeGreaterThan(any * 2.5);
  });

  test('its words are scored as the stock’s recipe says, or as the mildest one that is proven', () => {
    const mildest = shop.materials
      .flatMap(({ recipes }) => recipes)
      .filter((one) => one.machineId === machine.id && one.operation === 'score' && one.evidence === 'proven')
      .toSorted((a, b) => a.powerPercent / a.speedMmPerS - b.powerPercent / b.speedMmPerS)[0];
    const words = safeWords(shop, { material: unknown }, machine);
    if (mildest) expect(words).toEqual({ powerPercent: mildest.powerPercent, speedMmPerS: mildest.speedMmPerS });
    else expect(words.powerPercent).toBeLessThan(15);
    const scored: Material = {
      ...unknown,
      recipes: [
        {
          machineId: machine.id,
          operation: 'score',
          powerPercent: 33,
          speedMmPerS: 44,
          passes: 1,
          lineSpacingMm: 0.1,
          evidence: 'proven',
          note: '',
        },
      ],
    };
    expect(safeWords(shop, { material: scored }, machine)).toEqual({ powerPercent: 33, speedMmPerS: 44 });
    expect(safeWords({ materials: [] }, { material: null }, machine).powerPercent).toBeGreaterThan(0);
  });
});

test('an operation has the kinds that make sense for it', () => {
  for (const operation of burntOperations) {
    const names = cardKinds(operation).map(({ id }) => id);
    expect(names).toContain('power-speed');
    expect(names.includes('lines')).toBe(fillsAreas(operation));
    expect(names.includes('greys')).toBe(burnsPictures(operation));
  }
});
