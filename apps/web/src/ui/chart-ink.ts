import { written } from '../stores/numbers.ts';

/** What charts are written in: the page's own ink, light or dark. */
export function ink(): string {
  return getComputedStyle(document.body).color;
}

/** An axis in it. */
export function axisInk() {
  const line = { lineStyle: { color: 'rgb(128 128 128 / 0.25)' } };
  const formatter = (value: number | string) => written(String(value));
  return { nameTextStyle: { color: ink() }, axisLabel: { color: ink(), formatter }, splitLine: line };
}
