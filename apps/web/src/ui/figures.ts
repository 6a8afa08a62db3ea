import { formatMoney as moneyText } from '@lambent/core/recipes';
import {
  formatDuration as durationText,
  formatLength as lengthText,
  formatSpeed as speedText,
} from '@lambent/core/units';
import { shownUnit } from '../stores/length-unit.ts';
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

/** A length in the unit that is shown, such as the thickness of stock: `3.175 mm`. */
export function asLength(mm: number, unit = shownUnit()): string {
  return formatLength(mm, unit, { decimals: 4 });
}

/** A width and a height in the unit that is shown, such as `600 × 400 mm`; measured ones with all their decimals. */
export function asSize(widthMm: number, heightMm: number, unit = shownUnit(), isMeasured = false): string {
  const fixed = isMeasured && unit === 'mm';
  return `${formatLength(widthMm, unit, { bare: true, fixed })} × ${formatLength(heightMm, unit, { fixed })}`;
}

/** A number with so many decimals. */
export function fixed(value: number, decimals: number): string {
  return written(value.toFixed(decimals));
}
