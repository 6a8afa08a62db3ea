/** What charts are written in: the page's own ink, light or dark. */
export function ink(): string {
  return getComputedStyle(document.body).color;
}

/** An axis in it. */
export function axisInk() {
  const line = { lineStyle: { color: 'rgb(128 128 128 / 0.25)' } };
  return { nameTextStyle: { color: ink() }, axisLabel: { color: ink() }, splitLine: line };
}
