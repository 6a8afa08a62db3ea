import type { Item } from '../../document/item.ts';
import type { Notes, ReadingNote } from '../reading.ts';
import type { Context } from './context.ts';
import type { SvgItems } from './items.ts';
import type { StyleSheet } from './style.ts';
import type { SvgElement } from './xml.ts';

/** What reads the parts of a file, as those use it that draw what is kept elsewhere in it. */
export interface Host {
  readonly byId: ReadonlyMap<string, SvgElement>;
  readonly sheet: StyleSheet;
  readonly out: SvgItems;
  readonly notes: Notes;
  /** Reads what an element holds. */
  children(parent: SvgElement, context: Context): void;
  /** Reads without adding to the drawing. */
  aside(read: () => void): { readonly items: readonly Item[]; readonly notes: readonly ReadingNote[] };
}
