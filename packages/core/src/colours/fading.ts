import type { Item } from '../document/item.ts';
import { engravesAreas } from '../operations/operations.ts';
import type { Meaning } from './derive.ts';

/** Items whose fill fades or can be seen through, and that are engraved: all of it alike. */
export function fadingEngraved({ layers, placed }: Meaning): Item[] {
  return layers
    .filter(({ operation }) => engravesAreas(operation))
    .flatMap(({ id }) => placed.get(id) ?? [])
    .flatMap(({ item, parts }) => (item.paint.fade && parts.includes('fill') ? [item] : []));
}
