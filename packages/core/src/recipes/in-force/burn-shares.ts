import type { Machine } from '../../machine/machine.ts';
import { burntOperations, fillsAreas, type Operation, separates } from '../../operations/operations.ts';
import type { LayerSettings } from '../../settings/settings.ts';
import type { Material } from '../book/material.ts';
import { findRecipe } from './apply.ts';
import { energyPerMm } from './energy.ts';

/** What one lit move of a step gives the stock, as shares of what the book says it takes. */
export interface BurnShares {
  /** Of cutting through: from 1 on nothing is left under the line. */
  readonly through: number;
  /** Of burning as dark as the recipe for the operation does; of an area, all its lines together. */
  readonly dark: number;
}

const cutting = burntOperations.filter(separates)[0];

/**
 * What one pass with some settings does to stock, by the energy that it gives and that the material's recipes for the
 * machine give. Where the book has no recipe, all passes together are taken to do what they are meant to.
 */
export function burnShares(
  operation: Operation,
  settings: LayerSettings,
  material: Material | null,
  machine: Pick<Machine, 'id'>,
): BurnShares {
  // Of one machine the power of the beam falls out.
  const energy = (
    wish: Pick<LayerSettings, 'powerPercent' | 'speedMmPerS' | 'passes' | 'lineSpacingMm'>,
    as: Operation,
  ) => energyPerMm({ ...wish, operation: as }, 1);
  const shareOf = (as: Operation): number | null => {
    const recipe = findRecipe(material, machine.id, as);
    return recipe && energy({ ...settings, passes: 1 }, as) / energy(recipe, as);
  };
  const meant = 1 / settings.passes;
  if (separates(operation)) return { through: shareOf(operation) ?? meant, dark: 0 };
  const dark = shareOf(operation) ?? meant;
  return { through: fillsAreas(operation) ? 0 : (shareOf(cutting) ?? 0), dark };
}
