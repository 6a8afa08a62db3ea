import { type Drawing, gatherThings, type Item, type Shape } from '@lambent/core';

/** What shapes are called, where they have no name of their own. */
export const shapeNames: Record<Shape['kind'], string> = {
  path: 'Path',
  rectangle: 'Rectangle',
  ellipse: 'Ellipse',
  slot: 'Slot',
  polygon: 'Polygon',
  arc: 'Arc',
  text: 'Text',
  combined: 'Combination',
  picture: 'Picture',
};

export function nameOf({ name, shape }: Item): string {
  if (name) return name;
  if (shape.kind === 'text') return `“${shape.text.words.split('\n')[0]}”`;
  if (shape.kind === 'ellipse' && shape.rx === shape.ry) return 'Circle';
  return shape.kind === 'polygon' && shape.inner !== null ? 'Star' : shapeNames[shape.kind];
}

/** What the list shows as one: an outermost group, or an item that is in none. */
export interface Thing {
  readonly key: string;
  readonly name: string;
  readonly ids: readonly string[];
}

const known = new WeakMap<Drawing, readonly Thing[]>();

/** Everything that is shown, as things; kept for as long as the drawing is. */
export function thingsOf(drawing: Drawing): readonly Thing[] {
  let things = known.get(drawing);
  if (!things) {
    things = findThings(drawing);
    known.set(drawing, things);
  }
  return things;
}

function findThings(drawing: Drawing): Thing[] {
  const shown = drawing.items.filter((item) => !item.hidden);
  return [...gatherThings(drawing, shown)].map(([key, { group, items }]) => ({
    key,
    name: group ? (group.name ?? 'Group') : nameOf(items[0]),
    ids: items.map(({ id }) => id),
  }));
}
