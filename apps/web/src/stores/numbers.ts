import type { NumberStyle } from '@lambent/contracts';
import { create } from 'zustand';

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
 * A sentence with figures in it: those with a unit are written as the shop writes them. A point elsewhere may be one of a
 * name, a file or an address.
 */
export function inSentence(sentence: string): string {
  const { decimal } = marks[store.getState().style];
  if (decimal === '.') return sentence;
  return sentence.replace(/(?<=\d)\.(?=\d+ ?(?:mm|cm|in|m|s|ms|%|°|W|J|bar|l|MB|kB)(?![\p{L}\d]))/gu, decimal);
}

/** A count, such as `20,000`. */
export function counted(count: number): string {
  return count.toLocaleString('en-GB').replaceAll(',', marks[store.getState().style].thousands);
}
