import { fillsAreas, type Operation } from '../../operations/operations.ts';
import type { LayerSettings } from '../../settings/settings.ts';

/** What the energy that a recipe gives depends on, besides the power of the beam. */
type Energetic = Pick<LayerSettings, 'powerPercent' | 'speedMmPerS' | 'passes' | 'lineSpacingMm'> & {
  readonly operation: Operation;
};

/**
 * The energy that a recipe gives to each mm of a line, all passes together, in J/mm; of an engraving to each mm², in
 * J/mm².
 */
export function energyPerMm(
  { operation, powerPercent, speedMmPerS, passes, lineSpacingMm }: Energetic,
  watts: number,
): number {
  const along = (((watts * powerPercent) / 100) * passes) / speedMmPerS;
  return fillsAreas(operation) ? along / lineSpacingMm : along;
}
