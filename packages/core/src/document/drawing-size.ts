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
  return items.length > mostItems ? tooManyItems(items.length) : tooManyVerbs(verbsOf(items));
}

/** The same of a drawing with so many copies of some of its items, before they are made. */
export function tooMuchWithCopies(
  items: readonly Pick<Item, 'shape'>[],
  copied: readonly Pick<Item, 'shape'>[],
  copies: number,
): string | null {
  const count = items.length + copies * copied.length;
  return count > mostItems ? tooManyItems(count) : tooManyVerbs(verbsOf(items) + copies * verbsOf(copied));
}

function tooManyItems(count: number): string {
  return `holds ${thousands(count)} items; Lambent takes up to ${thousands(mostItems)}`;
}

function tooManyVerbs(verbs: number): string | null {
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
