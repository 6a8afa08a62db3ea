import { operations } from '../../operations/operations.ts';
import type { NamedLayer } from '../reading.ts';
import type { SvgElement } from './xml.ts';

/*
 * What a group of an SVG says of the layer that its parts are on.
 */

export const layerAttribute = 'data-lambent-layer';
export const operationAttribute = 'data-lambent-operation';

/** The layer that an element is said to be on; null where nothing is said, or an operation that there is none of. */
export function layerOfElement(element: SvgElement, name: string | null): Omit<NamedLayer, 'itemIds'> | null {
  const said = element.attributes[operationAttribute];
  const operation = operations.find((known) => known === said);
  const id = element.attributes[layerAttribute] ?? null;
  return operation ? { id, name: name ?? id ?? operation, operation } : null;
}
