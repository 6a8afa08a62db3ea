import { fillsAreas } from '../../operations/operations.ts';
import type { Recipe } from '../book/recipe.ts';

/**
 * The energy that a recipe gives to each mm of a line, all passes together, in J/mm; of an engraving to each mm², in
 * J/mm². Null where the power of the beam is not known.
 */
export function energyPerMm(
  { operation, powerPercent, speedMmPerS, passes, lineSpacingMm }: Recipe,
  watts: number | null,
): number | null {
  if (watts === null) return null;
  const along = (((watts * powerPercent) / 100) * passes) / speedMmPerS;
  return fillsAreas(operation) ? along / lineSpacingMm : along;
}
