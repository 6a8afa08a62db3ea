import type { Machine } from './shop.ts';

/** The power of a machine's beam in watts: as measured, else as rated, else as its description says; null where nothing does. */
export function wattsOf({
  measuredW,
  ratedW,
  source,
}: Pick<Machine, 'measuredW' | 'ratedW' | 'source'>): number | null {
  const said = /([\d.]+)\s*W\b/.exec(source);
  return measuredW ?? ratedW ?? (said ? Number(said[1]) : null);
}
