import type { Parsed } from './length.ts';

/** Units a speed can be typed and shown in. Inside Lambent every speed is in mm/s. */
export type SpeedUnit = 'mm/s' | 'mm/min' | 'in/s' | 'in/min' | '%';

export const speedUnits: readonly SpeedUnit[] = ['mm/s', 'mm/min', 'in/s', 'in/min', '%'];

function mmPerSecond(unit: SpeedUnit, topSpeed: number): number {
  switch (unit) {
    case 'mm/s':
      return 1;
    case 'mm/min':
      return 1 / 60;
    case 'in/s':
      return 25.4;
    case 'in/min':
      return 25.4 / 60;
    case '%':
      return topSpeed / 100;
  }
}

/**
 * Reads a speed such as `14`, `840 mm/min`, `0.5 in/s` or `35 %`.
 *
 * @param text what was typed; a bare number takes `unit`
 * @param unit the unit of the field
 * @param topSpeed the machine's top speed in mm/s, which 100 % means
 * @returns mm/s, or a sentence that says what is wrong
 */
export function parseSpeed(text: string, unit: SpeedUnit, topSpeed: number): Parsed {
  const match = /^\s*([0-9]*[.,]?[0-9]+)\s*(.*?)\s*$/.exec(text);
  if (!match) return { ok: false, reason: 'Type a speed, for example 14 or 840 mm/min.' };
  const word = match[2].replace(/\s+/g, '').toLowerCase();
  const typed = word === '' ? unit : speedUnits.find((known) => known === word);
  if (!typed) return { ok: false, reason: `“${match[2]}” is not a unit of speed; use ${speedUnits.join(', ')}.` };
  const value = Number(match[1].replace(',', '.')) * mmPerSecond(typed, topSpeed);
  if (!(value > 0)) return { ok: false, reason: 'A speed is more than 0.' };
  return { ok: true, value };
}

/** A speed in mm/s as text in `unit`: `14 mm/s`, `33.1 in/min`. `topSpeed` in mm/s is what 100 % means. */
export function formatSpeed(speed: number, unit: SpeedUnit, topSpeed: number): string {
  const value = speed / mmPerSecond(unit, topSpeed);
  const decimals = value >= 100 ? 0 : value >= 10 ? 1 : 2;
  return `${Number(value.toFixed(decimals))} ${unit}`;
}
