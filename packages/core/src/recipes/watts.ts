import type { Machine, Recipe } from './shop.ts';

/** The power of a machine's beam in watts: as measured, else as rated, else as its description says; null where nothing does. */
export function wattsOf({
  measuredW,
  ratedW,
  source,
}: Pick<Machine, 'measuredW' | 'ratedW' | 'source'>): number | null {
  const said = /([\d.]+)\s*W\b/.exec(source);
  return measuredW ?? ratedW ?? (said ? Number(said[1]) : null);
}

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
  return operation === 'engrave' ? along / lineSpacingMm : along;
}
