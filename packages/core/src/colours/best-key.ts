import type { Item } from '../document/item.ts';
import { marksOf } from './derive.ts';
import { type ColourKey, type Mark, ruleFits } from './key.ts';

/** How much of a drawing means something under a key. */
interface KeyFit {
  readonly key: ColourKey;
  /** How many of its paints mean something. */
  readonly meant: number;
  /** How many paints it has. */
  readonly paints: number;
}

/**
 * The key under which more paints of a drawing mean something than under the one at hand; null where none is better. Of
 * several that are as good, the one whose rules name more of the colours. One that takes whatever colour there is fits
 * everything: it counts only where a drawing tells its lines apart by width alone.
 *
 * @param items what arrives; hidden ones do not count
 */
export function betterKey(items: readonly Item[], keys: readonly ColourKey[], own: ColourKey): KeyFit | null {
  const marks = new Map<string, Mark>();
  for (const item of items) {
    if (item.hidden) continue;
    for (const mark of marksOf(item)) marks.set(`${mark.part} ${mark.colour} ${mark.widthMm}`, mark);
  }
  const paints = [...marks.values()];
  const byWidth = paints.length > 1 && new Set(paints.map(({ colour }) => colour)).size === 1;
  const fitOf = (key: ColourKey) => {
    const rules = paints.map((mark) => key.rules.find((rule) => ruleFits(rule, mark)));
    return {
      key,
      meant: rules.filter((rule) => rule !== undefined).length,
      named: rules.filter((rule) => rule !== undefined && rule.colour !== null).length,
      paints: paints.length,
    };
  };
  const known = fitOf(own).meant;
  const better = keys.map(fitOf).filter(({ meant, named }) => meant > known && (named > 0 || byWidth));
  const [best] = better.sort((a, b) => b.meant - a.meant || b.named - a.named);
  return best ? { key: best.key, meant: best.meant, paints: best.paints } : null;
}
