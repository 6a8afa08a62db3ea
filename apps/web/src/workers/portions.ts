import { boundsOf, type Item, isOutlineUnknown, knowOutline, outlineOf, verbsIn } from '@lambent/core/document';
import type { Path } from '@lambent/core/geometry';

/** Some of a drawing's items, on their way from a worker to the page. */
export interface Portion {
  readonly items: readonly Item[];
  /** Outlines that took work, by the places of their items in this portion. */
  readonly outlines: readonly (readonly [number, Path])[];
}

/** As much goes at once, so that the page gets to its frames in between. */
const itemsAtOnce = 1000;
const verbsAtOnce = 50_000;

/** Parts a list of items; their outlines are worked out here, where they take work. */
export function* portionsOf(items: readonly Item[]): Generator<Portion> {
  let some: Item[] = [];
  let verbs = 0;
  for (const item of items) {
    some.push(item);
    verbs += verbsIn(item.shape);
    if (some.length < itemsAtOnce && verbs < verbsAtOnce) continue;
    yield portionOf(some);
    some = [];
    verbs = 0;
  }
  if (some.length > 0) yield portionOf(some);
}

function portionOf(items: readonly Item[]): Portion {
  const outlines = items.flatMap(({ shape }, i) =>
    isOutlineUnknown(shape) ? [[i, outlineOf(shape)] satisfies [number, Path]] : [],
  );
  return { items, outlines };
}

/** Puts portions together again. */
export class GatheredItems {
  readonly items: Item[] = [];

  take({ items, outlines }: Portion): void {
    for (const [place, outline] of outlines) knowOutline(items[place].shape, outline);
    for (const item of items) {
      this.items.push(item);
      // Found now, a few at a time: whoever shows them all asks for all of them.
      boundsOf(item);
    }
  }
}
