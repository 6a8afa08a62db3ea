import type { Colour } from '../../document/item.ts';
import type { Matrix } from '../../geometry/paths/matrix.ts';
import { indexColour, trueColour } from './colours.ts';
import type { Fields } from './groups.ts';
import type { Layer } from './tables.ts';

/** Where an entity stands: the block it is in, and what it takes over from its insertion. */
export interface Place {
  readonly matrix: Matrix;
  readonly chain: string;
  readonly depth: number;
  readonly blocks: readonly string[];
  readonly layer: Layer | null;
  readonly colour: Colour | null;
  /** Whether it, or what it is in, is not to be seen. */
  readonly hidden: boolean;
}

/** The colour of an entity: its own, its layer's, or that of the insertion of the block it is in. */
export function colourOf(fields: Fields, layer: Layer, place: Place): Colour {
  if (fields.text(420) !== null) return trueColour(fields.number(420, 0));
  const index = fields.number(62, 256);
  if (index === 0) return place.colour ?? layer.colour;
  return index >= 256 || index < 0 ? layer.colour : indexColour(index);
}
