import { describe, expect, test } from '@jest/globals';
import { machine, material, shop } from '../fixtures/shop.ts';
import { applyRecipe, beyondMachine } from './apply.ts';
import { sheetAsStocked } from './shop.ts';
import { NotAShop, shopFromJson } from './shop-json.ts';

describe('applying a recipe', () => {
  test('takes every number from the recipe, and says how well it is known', () => {
    expect(applyRecipe(material, 'm', { operation: 'cut' })).toMatchObject({
      settings: { powerPercent: 60, speedMmPerS: 15, passes: 1, lineSpacingMm: 0.1 },
      sources: { powerPercent: { kind: 'recipe', evidence: 'proven' }, speedMmPerS: { kind: 'recipe' } },
    });
  });

  test('what was changed by hand stays, marked; the rest follows the material', () => {
    const { settings, sources } = applyRecipe(material, 'm', { operation: 'score' }, { powerPercent: 33 });
    expect(settings).toMatchObject({ powerPercent: 33, speedMmPerS: 90 });
    expect(sources).toMatchObject({ powerPercent: { kind: 'hand' }, speedMmPerS: { kind: 'recipe' } });
  });

  test('the key’s settings go over the recipe’s, its share is one of the recipe’s power, and the hand goes over both', () => {
    const shallow = { operation: 'engrave' as const, powerShare: 0.4, settings: { lineSpacingMm: 0.2 } };
    expect(applyRecipe(material, 'm', shallow)).toMatchObject({
      settings: { powerPercent: 8, speedMmPerS: 400, lineSpacingMm: 0.2 },
      sources: { powerPercent: { kind: 'key' }, lineSpacingMm: { kind: 'key' }, speedMmPerS: { kind: 'recipe' } },
    });
    expect(applyRecipe(material, 'm', shallow, { powerPercent: 30, lineSpacingMm: 0.1 })).toMatchObject({
      settings: { powerPercent: 30, lineSpacingMm: 0.1 },
      sources: { powerPercent: { kind: 'hand' }, lineSpacingMm: { kind: 'hand' } },
    });
    expect(applyRecipe(null, 'm', shallow).settings).toBeNull();
  });

  test('where there is no basis there is no number; power and speed by hand are one', () => {
    for (const none of [
      applyRecipe(null, 'm', { operation: 'cut' }),
      applyRecipe(material, 'other', { operation: 'cut' }),
      applyRecipe(material, 'm', { operation: 'guide' }),
    ]) {
      expect(none).toMatchObject({ settings: null, recipe: null });
    }
    expect(applyRecipe(null, 'm', { operation: 'cut' }, { powerPercent: 40 }).settings).toBeNull();
    expect(applyRecipe(null, 'm', { operation: 'cut' }, { powerPercent: 40, speedMmPerS: 8 }).settings).toEqual({
      powerPercent: 40,
      speedMmPerS: 8,
      passes: 1,
      lineSpacingMm: 0.1,
      kerfMm: 0,
    });
  });

  test('line spacing is a limit of engraving alone', () => {
    const fine = { powerPercent: 20, speedMmPerS: 100, passes: 1, lineSpacingMm: 0.01, kerfMm: 0 };
    expect(beyondMachine(fine, 'cut', machine)).toEqual([]);
    expect(beyondMachine(fine, 'engrave', machine)).toEqual([
      'Line spacing is 0.01 mm; Test machine holds lines from 0.05 to 5 mm apart.',
    ]);
    expect(
      beyondMachine({ ...fine, powerPercent: Number.NaN, speedMmPerS: -1, passes: 51 }, 'cut', machine),
    ).toHaveLength(3);
  });
});

describe('a sheet as it is stocked', () => {
  test.each([
    ['top-left', { x: 0, y: 0, width: 500, height: 300 }],
    ['bottom-left', { x: 0, y: 100, width: 500, height: 300 }],
    ['centre', { x: 50, y: 50, width: 500, height: 300 }],
  ] as const)('lies at the zero corner of a machine with its zero %s', (origin, place) => {
    expect(sheetAsStocked('s', material, { ...machine, origin })).toMatchObject({ ...place, materialId: 'ply' });
  });

  test('is cut to the bed', () => {
    const small = { ...machine, bedWidth: 400, bedHeight: 200 };
    expect(sheetAsStocked('s', material, small)).toMatchObject({ x: 0, y: 0, width: 400, height: 200 });
  });
});

describe('a shop from JSON', () => {
  const json = () => JSON.parse(JSON.stringify(shop));

  test('is the shop it was', () => {
    expect(shopFromJson(json())).toEqual(shop);
  });

  test.each<[string, (loose: ReturnType<typeof json>) => unknown, string]>([
    ['nothing', () => null, 'holds no shop'],
    ['no keys', (loose) => ({ ...loose, keys: [] }), 'has no keys'],
    [
      'two machines of one id',
      (loose) => ({ ...loose, machines: [loose.machines[0], loose.machines[0]] }),
      '“m” is not an id of its own',
    ],
    [
      'a bed without size',
      (loose) => ({ ...loose, machines: [{ ...machine, bedWidth: 0 }] }),
      'bedWidth of the machine “m”',
    ],
    [
      'a speed that is text',
      (loose) => ({ ...loose, machines: [{ ...machine, topSpeed: 'fast' }] }),
      'topSpeed of the machine “m”',
    ],
    [
      'an unknown zero',
      (loose) => ({ ...loose, machines: [{ ...machine, origin: 'top' }] }),
      'origin of the machine “m”',
    ],
    [
      'a key without rules',
      (loose) => ({ ...loose, keys: [{ id: 'k', layers: [] }] }),
      'the key “k” needs layers and rules',
    ],
    [
      'a material without recipes',
      (loose) => ({ ...loose, materials: [{ id: 'x' }] }),
      'the material “x” needs recipes',
    ],
  ])('%s is refused by name', (_, change, sentence) => {
    expect(() => shopFromJson(change(json()))).toThrow(NotAShop);
    expect(() => shopFromJson(change(json()))).toThrow(sentence);
  });
});
