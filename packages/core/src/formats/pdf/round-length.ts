/** The longest length of 1, 2 or 5 times a power of ten that is no longer than so many mm. */
export function roundLength(most: number): number {
  const ten = 10 ** Math.floor(Math.log10(most));
  return [5, 2, 1].map((times) => times * ten).find((length) => length <= most) ?? ten;
}
