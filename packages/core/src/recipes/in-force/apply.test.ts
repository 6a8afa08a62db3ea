import { describe, expect, test } from '@jest/globals';
import { machine, material, shop } from '../../fixtures/shop.ts';
import { type Machine, wattsOf } from '../../machine/machine.ts';
import type { Operation } from '../../operations/operations.ts';
import { beyondMachine, type LayerSettings, usualSettings } from '../../settings/settings.ts';
import type { Material } from '../book/material.ts';
import { sheetAsStocked } from '../book/shop.ts';
import { NotAShop, shopFromJson } from '../book/shop-json.ts';
import { applyRecipe, basisFor } from './apply.ts';

/** What a book of one material alone has. */
const basis = (of: Material | null, operation: Operation) =>
  basisFor({ materials: of ? [of] : [], machines: [machine] }, { material: of }, machine, operation);

describe('applying a recipe', () => {
  test('takes every number from the recipe, and says how well it is known', () => {
    expect(applyRecipe(basis(material, 'cut'), { operation: 'cut' })).toMatchObject({
      settings: { powerPercent: 60, speedMmPerS: 15, passes: 1, lineSpacingMm: 0.1 },
      sources: { powerPercent: { kind: 'recipe', evidence: 'proven' }, speedMmPerS: { kind: 'recipe' } },
    });
  });

  test('what was changed by hand stays, marked; the rest follows the material', () => {
    const { settings, sources } = applyRecipe(basis(material, 'score'), { operation: 'score' }, { powerPercent: 33 });
    expect(settings).toMatchObject({ powerPercent: 33, speedMmPerS: 90 });
    expect(sources).toMatchObject({ powerPercent: { kind: 'hand' }, speedMmPerS: { kind: 'recipe' } });
  });

  test('the key’s settings go over the recipe’s, its share is one of the recipe’s power, and the hand goes over both', () => {
    const shallow = { operation: 'engrave' as const, powerShare: 0.4, settings: { lineSpacingMm: 0.2 } };
    expect(applyRecipe(basis(material, 'engrave'), shallow)).toMatchObject({
      settings: { powerPercent: 8, speedMmPerS: 400, lineSpacingMm: 0.2 },
      sources: { powerPercent: { kind: 'key' }, lineSpacingMm: { kind: 'key' }, speedMmPerS: { kind: 'recipe' } },
    });
    expect(applyRecipe(basis(material, 'engrave'), shallow, { powerPercent: 30, lineSpacingMm: 0.1 })).toMatchObject({
      settings: { powerPercent: 30, lineSpacingMm: 0.1 },
      sources: { powerPercent: { kind: 'hand' }, lineSpacingMm: { kind: 'hand' } },
    });
    expect(applyRecipe(null, shallow).settings).toBeNull();
  });

  test('where there is no basis there is no number; power and speed by hand are one', () => {
    for (const none of [
      applyRecipe(basis(null, 'cut'), { operation: 'cut' }),
      applyRecipe(basis(material, 'guide'), { operation: 'guide' }),
    ]) {
      expect(none).toMatchObject({ settings: null, basis: null });
    }
    expect(applyRecipe(basis(null, 'cut'), { operation: 'cut' }, { powerPercent: 40 }).settings).toBeNull();
    expect(
      applyRecipe(basis(null, 'cut'), { operation: 'cut' }, { powerPercent: 40, speedMmPerS: 8 }).settings,
    ).toEqual({
      ...usualSettings(),
      powerPercent: 40,
      speedMmPerS: 8,
    });
  });

  test('what a recipe says of focus, air and waiting is taken for the operations that have it', () => {
    const finer = { focusMm: -1, air: 'low' as const, pierceS: 0.3, scanAngle: 45, bothWays: false };
    const ply = { ...material, recipes: material.recipes.map((one) => ({ ...one, ...finer })) };
    expect(applyRecipe(basis(ply, 'cut'), { operation: 'cut' }, { air: 'high' })).toMatchObject({
      settings: { focusMm: -1, air: 'high', pierceS: 0.3, scanAngle: 0, bothWays: true },
      sources: { focusMm: { kind: 'recipe' }, air: { kind: 'hand' } },
    });
    expect(applyRecipe(basis(ply, 'engrave'), { operation: 'engrave' }).settings).toMatchObject({
      pierceS: 0,
      scanAngle: 45,
      bothWays: false,
    });
  });
});

describe('the limits of a machine', () => {
  const able: Machine = {
    ...machine,
    topSpeeds: { cut: 60 },
    leastPower: 8,
    mostPower: 95,
    focus: { lowest: -6, highest: 4, speed: 10 },
    air: { levels: ['low'], mostBar: 1.5 },
  };
  const fine: LayerSettings = { ...usualSettings(), powerPercent: 20, speedMmPerS: 40 };

  test.each<[Operation, Partial<LayerSettings>, Partial<LayerSettings>, keyof LayerSettings, string]>([
    ['cut', { powerPercent: 8 }, { powerPercent: 7.9 }, 'powerPercent', 'takes from 8 to 95 %'],
    ['cut', { powerPercent: 95 }, { powerPercent: 95.1 }, 'powerPercent', 'takes from 8 to 95 %'],
    ['cut', { speedMmPerS: 60 }, { speedMmPerS: 60.1 }, 'speedMmPerS', 'cuts at more than 0 and up to 60 mm/s'],
    ['score', { speedMmPerS: 500 }, { speedMmPerS: 501 }, 'speedMmPerS', 'burns at more than 0 and up to 500 mm/s'],
    ['cut', { speedMmPerS: 0.01 }, { speedMmPerS: 0 }, 'speedMmPerS', 'more than 0'],
    ['cut', { passes: 50 }, { passes: 51 }, 'passes', 'from 1 to 50'],
    ['cut', { passes: 1 }, { passes: 1.5 }, 'passes', 'a whole number'],
    ['cut', { kerfMm: 2 }, { kerfMm: 2.01 }, 'kerfMm', 'from 0 to 2 mm'],
    ['engrave', { lineSpacingMm: 0.05 }, { lineSpacingMm: 0.049 }, 'lineSpacingMm', 'from 0.05 to 5 mm apart'],
    ['engrave', { lineSpacingMm: 5 }, { lineSpacingMm: 5.1 }, 'lineSpacingMm', 'from 0.05 to 5 mm apart'],
    ['engrave', { scanAngle: -360 }, { scanAngle: 361 }, 'scanAngle', 'turned 361°'],
    ['engrave', { runUpMm: 200 }, { runUpMm: -1 }, 'runUpMm', 'from 0 to 200 mm'],
    ['cut', { cornerPowerPercent: 20 }, { cornerPowerPercent: 21 }, 'cornerPowerPercent', 'the 20 % of the line'],
    ['cut', { pierceS: 10 }, { pierceS: 10.1 }, 'pierceS', 'for 0 to 10 s'],
    ['cut', { cornerWaitS: 0 }, { cornerWaitS: -0.1 }, 'cornerWaitS', 'for 0 to 10 s'],
    [
      'cut',
      { focusMm: 4 },
      { focusMm: 4.1 },
      'focusMm',
      'would be at 4.1 mm; that of Test machine reaches from -6 to 4 mm',
    ],
    ['cut', { passes: 4, focusStepMm: 2 }, { passes: 5, focusStepMm: 2 }, 'focusStepMm', 'from -8 to 0 mm'],
    ['cut', { air: 'low' }, { air: 'high' }, 'air', 'has only low'],
    ['cut', { air: 1.5 }, { air: 1.6 }, 'air', 'up to 1.5 bar'],
  ])('%s: %p is within, %p beyond', (operation, within, beyond, setting, says) => {
    expect(beyondMachine({ ...fine, ...within }, operation, able)).toEqual([]);
    const said = beyondMachine({ ...fine, ...beyond }, operation, able);
    expect(said.map((one) => one.setting)).toEqual([setting]);
    expect(said[0].sentence).toContain(says);
  });

  test('are those of what an operation burns with, and of what the machine has', () => {
    expect(beyondMachine({ ...fine, lineSpacingMm: 0.01, scanAngle: 999 }, 'cut', machine)).toEqual([]);
    expect(beyondMachine({ ...fine, focusMm: 1, air: 'low' }, 'cut', machine)).toEqual([
      {
        setting: 'focusMm',
        sentence: 'The focus would go to 1 mm; that of Test machine is set by hand. Leave it at 0 mm.',
        nearest: 0,
      },
      { setting: 'air', sentence: 'Air is low; Test machine cannot switch its air.', nearest: 'off' },
    ]);
    expect(beyondMachine({ ...fine, air: 0.5 }, 'cut', machine)[0].sentence).toContain('cannot set a pressure');
    expect(
      beyondMachine({ ...fine, powerPercent: Number.NaN, speedMmPerS: -1, passes: 51 }, 'cut', machine),
    ).toHaveLength(3);
  });

  test('the power of the beam is as measured, else as rated, else as described', () => {
    expect(wattsOf({ ratedW: 65 })).toBe(65);
    expect(wattsOf({ ratedW: 65, measuredW: null })).toBe(65);
    expect(wattsOf({ ratedW: 65, measuredW: 51.5 })).toBe(51.5);
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
    ['no keys', (loose) => ({ ...loose, keys: [] }), 'keys must have at least one entry'],
    [
      'two machines of one id',
      (loose) => ({ ...loose, machines: [loose.machines[0], loose.machines[0]] }),
      '“m” is not an id of its own',
    ],
    [
      'a bed without size',
      (loose) => ({ ...loose, machines: [{ ...machine, bedWidth: 0 }] }),
      'the machine “m”: bedWidth must lie between 10 and 20000, and is 0',
    ],
    [
      'a speed that is text',
      (loose) => ({ ...loose, machines: [{ ...machine, topSpeed: 'fast' }] }),
      'the machine “m”: topSpeed must be a number',
    ],
    [
      'an unknown zero',
      (loose) => ({ ...loose, machines: [{ ...machine, origin: 'top' }] }),
      'the machine “m”: origin must be top-left, bottom-left, centre',
    ],
    [
      'a key without rules',
      (loose) => ({ ...loose, keys: [{ id: 'k', name: 'K', layers: [] }] }),
      'the key “k”: rules must be a list',
    ],
    [
      'a recipe of no known operation',
      (loose) => ({ ...loose, materials: [{ ...material, recipes: [{ ...material.recipes[0], operation: 'melt' }] }] }),
      '“ply”: recipe 1',
    ],
  ])('%s is refused by name', (_, change, sentence) => {
    expect(() => shopFromJson(change(json()))).toThrow(NotAShop);
    expect(() => shopFromJson(change(json()))).toThrow(sentence);
  });
});
