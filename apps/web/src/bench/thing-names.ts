import { type Drawing, type Item, itemsAmong, type Shape, symbologyNames, topGroupOf } from '@lambent/core/document';
import { gatherThings } from '@lambent/core/edits';
import { t } from '../words/words.ts';

/** What shapes are called, where they have no name of their own. */
export const shapeNames: Record<Shape['kind'], string> = {
  path: t('Path'),
  rectangle: t('Rectangle'),
  ellipse: t('Ellipse'),
  slot: t('Slot'),
  polygon: t('Polygon'),
  arc: t('Arc'),
  text: t('Text'),
  code: t('Code'),
  combined: t('Combination'),
  offset: t('Offset'),
  border: t('Border'),
  traced: t('Outlines of a picture'),
  picture: t('Picture'),
};

/** What an item is called in lists: its own name, or that of its kind. */
export function nameOf({ name, shape }: Item): string {
  if (name) return name;
  if (shape.kind === 'text') return `“${shape.text.words.split('\n')[0]}”`;
  if (shape.kind === 'code') return `${symbologyNames[shape.code.symbology]} “${shape.code.words.split('\n')[0]}”`;
  if (shape.kind === 'ellipse' && shape.rx === shape.ry) return t('Circle');
  return shape.kind === 'polygon' && shape.inner !== null ? t('Star') : shapeNames[shape.kind];
}

/** What the list shows as one: an outermost group, or an item that is in none. */
export interface Thing {
  readonly key: string;
  readonly name: string;
  readonly ids: readonly string[];
}

/** What is on the bed by name, and a drawing it was found in. */
export interface Listing {
  readonly drawing: Drawing;
  readonly things: readonly Thing[];
}

const known = new WeakMap<Drawing, Listing>();
let last: Listing | null = null;

/** Everything that is shown, as things. A drawing in which things only moved has the listing it had before. */
export function listingOf(drawing: Drawing): Listing {
  let listing = known.get(drawing);
  if (!listing) {
    listing = last && isListedAlike(last.drawing, drawing) ? last : { drawing, things: findThings(drawing) };
    last = listing;
    known.set(drawing, listing);
  }
  return listing;
}

/** Whether two drawings hold the same items, called, grouped, locked and hidden the same. */
function isListedAlike(a: Drawing, b: Drawing): boolean {
  if (a === b) return true;
  if (a.groups !== b.groups || a.items.length !== b.items.length) return false;
  return a.items.every((item, i) => {
    const other = b.items[i];
    if (item === other) return true;
    return (
      item.id === other.id &&
      item.name === other.name &&
      item.shape === other.shape &&
      item.groupId === other.groupId &&
      item.hidden === other.hidden &&
      item.locked === other.locked
    );
  });
}

function findThings(drawing: Drawing): Thing[] {
  const shown = drawing.items.filter((item) => !item.hidden);
  return [...gatherThings(drawing, shown)].map(([key, { group, items }]) => ({
    key,
    name: group ? (group.name ?? t('Group')) : nameOf(items[0]),
    ids: items.map(({ id }) => id),
  }));
}

export interface Named {
  /** Of the item or group that is selected alone; null where several things are. */
  readonly id: string | null;
  readonly name: string | null;
  /** What it is called without a name of its own, or how many things it is. */
  readonly usual: string;
}

/** The name of what is selected: its group's, its own, or how many things it is. */
export function nameOfSelection(drawing: Drawing, selection: ReadonlySet<string>): Named {
  const items = itemsAmong(drawing, selection);
  if (items.length === 0) return { id: null, name: null, usual: '' };
  const [first] = items;
  if (items.length === 1) return { id: first.id, name: first.name, usual: nameOf({ ...first, name: null }) };
  const things = new Set(items.map((item) => topGroupOf(drawing, item)?.id ?? item.id));
  const group = topGroupOf(drawing, first);
  if (things.size > 1 || !group)
    return { id: null, name: null, usual: t('{{things}} things', { things: things.size }) };
  return { id: group.id, name: group.name, usual: t('Group') };
}
