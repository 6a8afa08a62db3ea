import { formatMoney as moneyText } from '@lambent/core/recipes';
import {
  formatDuration as durationText,
  formatLength as lengthText,
  formatSpeed as speedText,
} from '@lambent/core/units';
import { written } from '../stores/numbers.ts';

/*
 * Figures as they are shown: as the shop writes numbers.
 */

/** A length, such as `12.5 mm`. */
export function formatLength(...words: Parameters<typeof lengthText>): string {
  return written(lengthText(...words));
}

/** A speed, such as `14 mm/s`. */
export function formatSpeed(...words: Parameters<typeof speedText>): string {
  return written(speedText(...words));
}

/** A time, such as `9.5 s`. */
export function formatDuration(seconds: number): string {
  return written(durationText(seconds));
}

/** An amount with its currency, such as `€ 6.40`. */
export function formatMoney(...words: Parameters<typeof moneyText>): string {
  return written(moneyText(...words));
}

/** A length that is always in mm, such as the thickness of stock. */
export function inMm(mm: number): string {
  return written(`${mm} mm`);
}

/** A number with so many decimals. */
export function fixed(value: number, decimals: number): string {
  return written(value.toFixed(decimals));
}
