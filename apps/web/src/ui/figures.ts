import { formatMoney as moneyOf } from '@lambent/core/recipes';
import * as units from '@lambent/core/units';
import { written } from '../stores/numbers.ts';

/*
 * Figures as they are shown: as the shop writes numbers.
 */

export function formatLength(...words: Parameters<typeof units.formatLength>): string {
  return written(units.formatLength(...words));
}

export function formatSpeed(...words: Parameters<typeof units.formatSpeed>): string {
  return written(units.formatSpeed(...words));
}

export function formatDuration(seconds: number): string {
  return written(units.formatDuration(seconds));
}

export function formatMoney(...words: Parameters<typeof moneyOf>): string {
  return written(moneyOf(...words));
}

/** A length that is always in mm, such as the thickness of stock. */
export function inMm(mm: number): string {
  return written(`${mm} mm`);
}

/** A number with so many decimals. */
export function fixed(value: number, decimals: number): string {
  return written(value.toFixed(decimals));
}
