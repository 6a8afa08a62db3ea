import { Mismatch, objectFrom, type Schema } from '../schema/schema.ts';
import { list } from '../schema/structures.ts';
import { mostItems, tooMuchOf } from './drawing-size.ts';
import { type Drawing, groupSchema, type Item, itemSchema, type Paint, sharedPaint } from './item.ts';

const items = list(itemSchema, { each: (i) => `item ${i}` });
const groups = list(groupSchema, { each: (i) => `group ${i}` });

/** The items of a job and their groups. Items painted alike share one paint. */
export const drawingSchema: Schema<Drawing> = {
  read: (json) => {
    const from = objectFrom(json);
    if (!Array.isArray(from.items) || !Array.isArray(from.groups)) {
      throw new Mismatch('items and groups must be lists', '', true);
    }
    if (from.items.length > mostItems) throw tooMuch(from.items);
    const paints = new Map<string, Paint>();
    const ids = new Set<string>();
    const read = items.read(from.items).map((item, i): Item => {
      if (ids.has(item.id)) throw new Mismatch(`the id ${item.id} is there twice`, `item ${i}`, true, true);
      ids.add(item.id);
      const paint = sharedPaint(item.paint, paints);
      return paint === item.paint ? item : { ...item, paint };
    });
    if (tooMuchOf(read)) throw tooMuch(read);
    return { items: read, groups: groups.read(from.groups) };
  },
  write: ({ items: all, groups }) => ({ items: items.write?.(all), groups }),
};

function tooMuch(all: readonly Pick<Item, 'shape'>[]): Mismatch {
  return new Mismatch(tooMuchOf(all) ?? '', 'the drawing', false, true);
}
