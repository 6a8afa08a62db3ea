import { type FitName, fitNames } from '../../document/ties.ts';
import { type Figure, guessedFits } from './figures.ts';
import type { Material } from './material.ts';
import type { Recipe } from './recipe.ts';

/** How much wider than a thing its pocket is, for a fit in a material; a guess where none was kept. */
export function fitOf(material: Material | null, fit: FitName): Figure {
  return material?.fits?.[fit] ?? { mm: guessedFits[fit], source: null };
}

/** How much wider openings are than what goes into them, for every fit in a material, in mm. */
export function playsOf(material: Material | null): Record<FitName, number> {
  return Object.fromEntries(fitNames.map((fit) => [fit, fitOf(material, fit).mm])) as Record<FitName, number>;
}

/** The kerf of a recipe, with where it comes from; null where it was never said. */
export function kerfOf(recipe: Recipe | null): Figure | null {
  if (!recipe || recipe.kerfMm === null || recipe.kerfMm === undefined) return null;
  return { mm: recipe.kerfMm, source: recipe.kerfFrom ?? null };
}
