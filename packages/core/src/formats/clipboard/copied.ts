import type { Meaning } from '../../colours/derive.ts';
import { drawingSchema } from '../../document/drawing-schema.ts';
import { boundsOfAll, type Drawing, type Item, itemsAmong } from '../../document/item.ts';
import { layerSchema } from '../../document/layer.ts';
import { NotADrawing, readBy } from '../../document/not-a-drawing.ts';
import { withoutEmptyGroups } from '../../edits/items.ts';
import { fillsAreas, operationOf } from '../../operations/operations.ts';
import type { ValueOf } from '../../schema/schema.ts';
import { list, record } from '../../schema/structures.ts';
import { number, text } from '../../schema/values.ts';
import { writeSvg } from '../svg/write.ts';

const copiedSchema = record({
  version: number(1, 1),
  drawing: drawingSchema,
  /** The layers that its items are on, with the ids of those; what engraves stands before what is cut. */
  layers: list(record({ layer: layerSchema, itemIds: list(text) })),
});

/** Items as they were copied, with what they mean where they came from. */
export type Copied = ValueOf<typeof copiedSchema>;

/** Items of a job, to be pasted there or in another; hidden ones stay behind. */
export function copiedFrom(drawing: Drawing, meaning: Meaning, ids: ReadonlySet<string>): Copied {
  const items = itemsAmong(drawing, ids).filter(({ hidden }) => !hidden);
  const chosen = new Set(items.map(({ id }) => id));
  const layers = meaning.layers.flatMap((layer) => {
    const itemIds = (meaning.placed.get(layer.id) ?? []).map(({ item }) => item.id).filter((id) => chosen.has(id));
    return itemIds.length > 0 ? [{ layer, itemIds: [...new Set(itemIds)] }] : [];
  });
  const areasFirst = layers.sort((a, b) => +fillsAreas(b.layer.operation) - +fillsAreas(a.layer.operation));
  return {
    version: 1,
    drawing: { items: items.map(apart), groups: withoutEmptyGroups(drawing.groups, items) },
    layers: areasFirst,
  };
}

/** An item without what ties it to the job that it is in. */
function apart({ link: _, part: __, locked: ___, parked: ____, ...item }: Item): Item {
  return item;
}

/** What was copied, as text. */
export function copiedToText(copied: Copied): string {
  return JSON.stringify(copiedSchema.write?.(copied));
}

/** Reads what `copiedToText` wrote, checking all of it. @throws NotADrawing naming the first thing that is wrong */
export function copiedFromText(words: string): Copied {
  let json: unknown;
  try {
    json = JSON.parse(words);
  } catch {
    throw new NotADrawing('what was copied is not whole');
  }
  return readBy(copiedSchema, json, 'what was copied');
}

/** The same as SVG for other programs: the size of what was copied, a group a layer; pictures stay behind. */
export function copiedAsSvg({ drawing, layers }: Copied): string {
  const byId = new Map(drawing.items.map((item) => [item.id, item]));
  const met = new Set<string>();
  const isNew = (id: string) => !met.has(id) && met.add(id) !== undefined;
  const itemsOf = (ids: readonly string[]) =>
    ids.filter(isNew).flatMap((id) => {
      const item = byId.get(id);
      return item && item.shape.kind !== 'picture' ? [item] : [];
    });
  const placed = layers.map(({ layer, itemIds }) => ({
    name: layer.name,
    meant: { id: layer.id, operation: layer.operation },
    colour: operationOf(layer.operation).colour,
    items: itemsOf(itemIds),
  }));
  const rest = { name: 'Without meaning', meant: null, colour: '#000000', items: itemsOf([...byId.keys()]) };
  const shown = [...placed, rest].filter(({ items }) => items.length > 0);
  return writeSvg({ page: boundsOfAll(drawing.items), layers: shown, pictures: new Map() });
}
