import type { Parsed } from '@lambent/core/units';
import { t } from '../words/words.ts';

/** Reads a plain number as people type it, with a sign such as ° or % behind it or without. */
export function parsePlain(text: string, sign: string, otherwise: string): Parsed {
  const value = Number(text.replace(',', '.').replace(sign, '').trim());
  return Number.isFinite(value) && text.trim() !== '' ? { ok: true, value } : { ok: false, reason: otherwise };
}

/** An angle, in degrees. */
export function parseAngle(text: string): Parsed {
  return parsePlain(text, '°', t('Type degrees, for example 15 or -7.5.'));
}
