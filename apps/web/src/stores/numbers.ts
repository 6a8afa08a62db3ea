import type { NumberStyle } from '@lambent/contracts';
import { type LengthUnit, lengthsIn, type SpeedUnit, speedsIn } from '@lambent/core/units';
import { useCallback } from 'react';
import { create } from 'zustand';
import { said } from '../words/words.ts';
import { shownUnit, useShownUnit } from './length-unit.ts';
import { shownSpeedUnit, useSpeedUnit } from './speed-unit.ts';

const place = 'numbers';

/** What parts the decimals, and what the thousands. */
const marks: Readonly<Record<NumberStyle, { readonly decimal: string; readonly thousands: string }>> = {
  point: { decimal: '.', thousands: ',' },
  comma: { decimal: ',', thousands: '.' },
  space: { decimal: ',', thousands: '\u202f' },
};

/** As the shop writes numbers: what this browser heard last, until the server says. */
const store = create<{ readonly style: NumberStyle }>(() => {
  // Where there is no browser, as in tests, nothing was heard.
  const known = globalThis.localStorage?.getItem(place) ?? null;
  return { style: known !== null && Object.hasOwn(marks, known) ? (known as NumberStyle) : 'point' };
});

/** Writes numbers as the shop has settled. */
export function takeNumberStyle(style: NumberStyle): void {
  localStorage.setItem(place, style);
  store.setState({ style });
}

/** Figures, such as `12.5 mm`, as the shop writes them. What is typed is read either way. */
export function written(figures: string): string {
  const { decimal } = marks[store.getState().style];
  return decimal === '.' ? figures : figures.replace(/(?<=\d)\.(?=\d)/g, decimal);
}

/**
 * A sentence with figures in it. Lengths in mm and speeds are said in the units that are shown. Figures with a unit are
 * written as the shop writes them. A point elsewhere may be one of a name, a file or an address.
 */
export function inSentence(
  sentence: string,
  unit: LengthUnit = shownUnit(),
  speedUnit: SpeedUnit = shownSpeedUnit(),
): string {
  const { decimal } = marks[store.getState().style];
  const inUnit = speedsIn(lengthsIn(said(sentence), unit), speedUnit);
  if (decimal === '.') return inUnit;
  return inUnit.replace(/(?<=\d)\.(?=\d+ ?(?:mm|cm|in|m|s|ms|%|°|W|J|bar|l|MB|kB)(?![\p{L}\d]))/gu, decimal);
}

/** The same, of a part that follows when lengths or speeds are shown in another unit. */
export function useInSentence(): (sentence: string) => string {
  const unit = useShownUnit();
  const speedUnit = useSpeedUnit();
  return useCallback((sentence) => inSentence(sentence, unit, speedUnit), [unit, speedUnit]);
}

/** Thousands that a number is parted in: by spaces, which every shop may type, or by the shop's own mark. */
const inThousands = {
  spaces: /(?<![\d.,])[1-9]\d{0,2}(?:[ \u00a0\u2009\u202f]\d{3})+(?!\d|\s*\/)/g,
  '.': /(?<![\d.,])[1-9]\d{0,2}(?:\.\d{3})+(?![\d.])/g,
  ',': /(?<![\d.,])[1-9]\d{0,2}(?:,\d{3})+(?![\d,])/g,
};

/** What was typed, such as `1 234,5`, with its numbers as they are read: without marks between thousands. */
export function asTyped(text: string): string {
  const { thousands } = marks[store.getState().style];
  const joined = text.replace(inThousands.spaces, (number) => number.replace(/\s/g, ''));
  if (thousands !== '.' && thousands !== ',') return joined;
  return joined.replace(inThousands[thousands], (number) => number.replaceAll(thousands, ''));
}

/** A count, such as `20,000`. */
export function counted(count: number): string {
  return count.toLocaleString('en-GB').replaceAll(',', marks[store.getState().style].thousands);
}
