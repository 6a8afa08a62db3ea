import type { Meaning } from '../colours/derive.ts';
import { fadingEngraved } from '../colours/fading.ts';
import type { Item } from '../document/item.ts';
import type { Mend } from '../mends/mend.ts';
import { burnsPictures } from '../operations/operations.ts';
import { type Check, countOf, finding, ifAny, withMends } from './finding.ts';

/** Puts items on the layer that burns greys; null where the key has none. */
export function burntInGreys({ layers }: Meaning, items: readonly Item[]): Mend | null {
  const photo = layers.find(({ operation }) => burnsPictures(operation));
  if (!photo) return null;
  const words = items.length === 1 ? 'Burn its greys' : 'Burn their greys';
  const itemIds = items.map(({ id }) => id);
  return {
    words,
    name: `put on ${photo.name}`,
    isSafe: false,
    step: { kind: 'put on layer', itemIds, layerId: photo.id },
  };
}

/** Fills that fade, or can be seen through, where they are engraved all over alike. */
export const checkFading: Check = ({ meaning }) => {
  const items = fadingEngraved(meaning);
  return ifAny(items, () =>
    withMends(
      finding(
        'fading-engraved',
        'warns',
        `${countOf(items.length, 'fill fades or can be seen through, and is', 'fills fade or can be seen through, and are')} engraved all over alike. On Photo ${items.length === 1 ? 'its' : 'their'} greys burn.`,
        items,
      ),
      burntInGreys(meaning, items),
    ),
  );
};
