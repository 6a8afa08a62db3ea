import type { ColourKey } from '@lambent/core/colours';

const usual = [0.1, 0.3, 0.5, 1, 2, 3];

/**
 * Half a dozen thicknesses of lines to choose from, in mm, the thinnest first: one that each rule of a key takes which asks
 * for a thickness, then the usual ones.
 */
export function keyWidths(key: Pick<ColourKey, 'rules'>): number[] {
  const asked = key.rules.flatMap(({ part, minWidthMm: least, maxWidthMm: most }) => {
    if (part !== 'stroke' || (least === null && most === null)) return [];
    const taken = least === null || most === null ? (most ?? least ?? 0) : (least + most) / 2;
    return taken > 0 ? [Math.round(taken * 1000) / 1000] : [];
  });
  return [...new Set([...asked, ...usual])].slice(0, usual.length).toSorted((a, b) => a - b);
}
