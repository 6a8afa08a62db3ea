import type { ReadingChoices } from '../../document/arrival.ts';
import type { Item } from '../../document/item.ts';
import { operations } from '../../operations/operations.ts';
import type { NamedLayer } from '../reading.ts';
import { nameOf } from './elements.ts';
import { layerAttribute, operationAttribute } from './layer-attributes.ts';
import type { SvgElement } from './xml.ts';

/** Gathers the layers that elements say what they hold is on. */
export class LayersSaid {
  readonly named: NamedLayer[] = [];
  private readonly taken = new Set<string>();

  constructor(private readonly choices: ReadingChoices) {}

  /** @param from where what the element holds begins among the items; what was said within it counts over it */
  take(element: SvgElement, items: readonly Item[], from: number): void {
    const operation = operations.find((known) => known === element.attributes[operationAttribute]);
    if (!operation || this.choices.layers === 'by-colour') return;
    const itemIds = items.slice(from).flatMap(({ id }) => (this.taken.has(id) ? [] : [id]));
    if (itemIds.length === 0) return;
    for (const id of itemIds) this.taken.add(id);
    const id = element.attributes[layerAttribute] ?? null;
    this.named.push({ id, name: nameOf(element) ?? id ?? operation, operation, itemIds });
  }
}
