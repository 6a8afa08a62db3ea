import type { Item } from './item.ts';
import { verbsIn } from './shapes.ts';

/** A drawing holds no more items, and its outlines no more lines and curves, than this. */
export const mostItems = 200_000;
export const mostVerbs = 1_000_000;

const thousands = (count: number) => count.toLocaleString('en');

/**
 * What is too much of a drawing to be kept, planned and shown, as the end of a sentence; null where nothing is.
 * @returns for example `holds 2,000,000 lines and curves; Lambent takes up to 1,000,000`
 */
export function tooMuchOf(items: readonly Pick<Item, 'shape'>[]): string | null {
  if (items.length > mostItems) {
    return `holds ${thousands(items.length)} items; Lambent takes up to ${thousands(mostItems)}`;
  }
  const verbs = verbsOf(items);
  if (verbs <= mostVerbs) return null;
  return `holds ${thousands(verbs)} lines and curves; Lambent takes up to ${thousands(mostVerbs)}`;
}

const known = new WeakMap<readonly Pick<Item, 'shape'>[], number>();

/** About how many lines and curves a list of items has; kept for as long as the list is, which nobody may change. */
export function verbsOf(items: readonly Pick<Item, 'shape'>[]): number {
  let verbs = known.get(items);
  if (verbs === undefined) {
    verbs = items.reduce((sum, { shape }) => sum + verbsIn(shape), 0);
    known.set(items, verbs);
  }
  return verbs;
}
