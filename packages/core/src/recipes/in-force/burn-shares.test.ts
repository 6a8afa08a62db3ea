import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { machine, material } from '../../fixtures/shop.ts';
import { burntOperations, fillsAreas, type Operation, separates } from '../../operations/operations.ts';
import { usualSettings } from '../../settings/settings.ts';
import { settingsInRecipe } from '../book/recipe.ts';
import { findRecipe } from './apply.ts';
import { burnShares } from './burn-shares.ts';

const settingsOf = (operation: Operation) => {
  const recipe = findRecipe(material, machine.id, operation);
  if (!recipe) throw new Error(`no recipe to ${operation}`);
  return { ...usualSettings(), powerPercent: 1, speedMmPerS: 1, ...settingsInRecipe(recipe) };
};
const mainOf = (operation: Operation) => (separates(operation) ? 'through' : 'dark');

test.each(burntOperations)('all passes of the recipe itself do what it is for: %s', (operation) => {
  const settings = settingsOf(operation);
  const { [mainOf(operation)]: share } = burnShares(operation, settings, material, machine);
  expect(share * settings.passes).toBeCloseTo(1, 9);
});

test.each(burntOperations)('it goes with power, and against speed: %s', (operation) => {
  const factor = fc.double({ min: 0.1, max: 4, noNaN: true });
  fc.assert(
    fc.property(factor, factor, fc.integer({ min: 1, max: 5 }), (power, speed, passes) => {
      const usual = settingsOf(operation);
      const other = {
        ...usual,
        powerPercent: usual.powerPercent * power,
        speedMmPerS: usual.speedMmPerS * speed,
        passes,
      };
      const [was, is] = [usual, other].map((settings) => burnShares(operation, settings, material, machine));
      expect(is.dark).toBeCloseTo((was.dark * power) / speed, 6);
      expect(is.through).toBeCloseTo((was.through * power) / speed, 6);
    }),
  );
});

test('lines of an area twice as close burn it twice as dark, and never through', () => {
  const settings = settingsOf('engrave');
  const [was, is] = [settings, { ...settings, lineSpacingMm: settings.lineSpacingMm / 2 }].map((entry) =>
    burnShares('engrave', entry, material, machine),
  );
  expect(is.dark).toBeCloseTo(2 * was.dark, 9);
  expect([was.through, is.through]).toEqual([0, 0]);
});

test('a score that gives what a cut takes cuts through; without a recipe the passes do what they are meant to', () => {
  const cut = settingsOf('cut');
  expect(burnShares('score', cut, material, machine).through * cut.passes).toBeCloseTo(1, 9);
  for (const operation of burntOperations) {
    const shares = burnShares(operation, { ...cut, passes: 4 }, null, machine);
    expect(shares).toEqual(separates(operation) ? { through: 0.25, dark: 0 } : { through: 0, dark: 0.25 });
    expect(fillsAreas(operation) && shares.through > 0).toBe(false);
  }
});
