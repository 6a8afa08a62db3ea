import { fillsAreas, type Operation } from '@lambent/core/operations';
import { written } from '../stores/numbers.ts';

/** The energy of a recipe in words, per length or per area as the operation burns; nothing where it is not known. */
export function energyWords(energy: number | null | undefined, operation: Operation): string {
  return energy == null ? '' : written(`${Number(energy.toPrecision(3))} ${fillsAreas(operation) ? 'J/mm²' : 'J/mm'}`);
}
