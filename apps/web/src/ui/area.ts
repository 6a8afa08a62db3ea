import { type LengthUnit, parseLength } from '@lambent/core/units';
import { fixed } from './figures.ts';

/** How many mm² a square of a unit is. */
export function squareIn(unit: LengthUnit): number {
  const side = parseLength('1', unit);
  return side.ok ? side.value ** 2 : 1;
}

/** A large area, such as `12.5 cm²`: in square inches where lengths are in inches, else in cm². */
export function asArea(mm2: number, unit: LengthUnit, decimals: number): string {
  const shown = unit === 'in' ? 'in' : 'cm';
  return `${fixed(mm2 / squareIn(shown), decimals)} ${shown}²`;
}
