import { type Item, type Paint, perItem, polylinesOf } from '../document/item.ts';
import type { JobDocument, PaintPart } from '../document/job.ts';
import { sameMark } from '../edits/items.ts';
import { type Polyline, polylineLength, signedArea } from '../geometry/paths/flatten.ts';
import { nestDepths } from '../geometry/questions/nesting.ts';
import { burnsPictures } from '../operations/operations.ts';
import { type ColourKey, type Layer, layerByKey, layersUnder, type Mark } from './key.ts';

/** One paint of the drawing, as the Colours stage lists it. */
export interface PaintUse extends Mark {
  readonly itemIds: readonly string[];
  readonly layerId: string | null;
  /** Whether this job's own word decided, not its key. */
  readonly byJob: boolean;
}

/** An item on a layer, and the halves of its paint that put it there. */
export interface Placed {
  readonly item: Item;
  readonly parts: readonly PaintPart[];
}

/** What every item means: derived from the drawing, the key and the job's own words. */
export interface Meaning {
  readonly layers: readonly Layer[];
  /** The same list in two meanings says that in both of them every item, by its place, means the same. */
  readonly paints: readonly PaintUse[];
  /** By layer id, in drawing order. Every layer has an entry. */
  readonly placed: ReadonlyMap<string, readonly Placed[]>;
  /** Items with a paint that nothing gives a meaning. */
  readonly undecided: readonly Item[];
}

/** The halves of a paint an item has. */
export function marksOf(item: Item): Mark[] {
  const marks: Mark[] = [];
  const { stroke, strokeWidthMm, fill } = item.paint;
  if (stroke !== null) marks.push({ part: 'stroke', colour: stroke, widthMm: strokeWidthMm });
  if (fill !== null) marks.push({ part: 'fill', colour: fill, widthMm: null });
  return marks;
}

/** What one half of a paint was decided to mean, and who has it. */
interface Decision {
  readonly mark: Mark;
  readonly layerId: string | null;
  readonly byJob: boolean;
  readonly items: Item[];
}

const paintNames = new WeakMap<Paint, string>();

/** The same for items that mean the same under any key. */
function paintName({ paint, pinned, also }: Item): string {
  let name = paintNames.get(paint);
  if (name === undefined) {
    name = `${paint.stroke} ${paint.strokeWidthMm} ${paint.fill}`;
    paintNames.set(paint, name);
  }
  return pinned === null && also === undefined ? name : `${name} ${pinned ?? ''} ${also ?? ''}`;
}

/** What was derived last: most edits change few items, and none in a way that changes what it means. */
let last: { readonly job: JobDocument; readonly key: ColourKey; readonly meaning: Meaning } | null = null;

/** Puts every item on its layer: pinned, else by the job's own word, else by the key's first rule. */
export function deriveMeaning(job: JobDocument, key: ColourKey): Meaning {
  const meaning = (last && patched(last, job, key)) ?? derive(job, key);
  last = { job, key, meaning };
  return meaning;
}

/** More changed items than this are derived anew. */
const mostPatched = 2000;

/** The last meaning with items put in the place of those they were, where that is all that changed; else null. */
function patched(known: NonNullable<typeof last>, job: JobDocument, key: ColourKey): Meaning | null {
  const { job: before, meaning } = known;
  const [old, items] = [before.drawing.items, job.drawing.items];
  const alike = known.key === key && before.assignments === job.assignments && before.layers === job.layers;
  if (!alike || old.length !== items.length) return null;
  const replaced = new Map<Item, Item>();
  for (let i = 0; i < items.length; i++) {
    const [was, is] = [old[i], items[i]];
    if (was === is) continue;
    const sameMeaning =
      was.id === is.id &&
      was.hidden === is.hidden &&
      (was.shape.kind === 'picture') === (is.shape.kind === 'picture') &&
      paintName(was) === paintName(is);
    if (!sameMeaning || replaced.size >= mostPatched) return null;
    replaced.set(was, is);
  }
  if (replaced.size === 0) return meaning;
  const nowPlaced = (entry: Placed) => {
    const item = replaced.get(entry.item);
    return item ? { ...entry, item } : entry;
  };
  const placed = new Map([...meaning.placed].map(([layerId, list]) => [layerId, list.map(nowPlaced)]));
  return { ...meaning, placed, undecided: meaning.undecided.map((item) => replaced.get(item) ?? item) };
}

function derive(job: JobDocument, key: ColourKey): Meaning {
  const layers = layersUnder(key, job.layers);
  const known = new Set(layers.map((layer) => layer.id));
  const ofPictures = new Set(layers.flatMap(({ id, operation }) => (burnsPictures(operation) ? [id] : [])));
  const existing = (id: string | null) => (id !== null && known.has(id) ? id : null);

  const decisions = new Map<string, Decision>();
  const decide = (mark: Mark): Decision => {
    const name = `${mark.part} ${mark.colour} ${mark.widthMm}`;
    let decision = decisions.get(name);
    if (!decision) {
      const own = existing(job.assignments.find((assignment) => sameMark(assignment, mark))?.layerId ?? null);
      decision = { mark, layerId: own ?? existing(layerByKey(key, mark)), byJob: own !== null, items: [] };
      decisions.set(name, decision);
    }
    return decision;
  };
  // Items of one paint that are pinned alike mean the same: what one means is worked out once for all of them.
  const alike = new Map<string, { uses: Decision[]; layers: [string, PaintPart[]][]; open: boolean }>();
  const placed = new Map<string, Placed[]>(layers.map((layer) => [layer.id, []]));
  const undecided: Item[] = [];
  for (const item of job.drawing.items) {
    if (item.hidden) continue;
    if (item.shape.kind === 'picture') {
      // Pictures have no paint: they burn where they are put by hand, if that burns pictures; else they are only shown.
      const layerId = existing(item.pinned);
      if (layerId !== null && ofPictures.has(layerId)) placed.get(layerId)?.push({ item, parts: [] });
      continue;
    }
    const name = paintName(item);
    let meant = alike.get(name);
    if (!meant) {
      const pinned = existing(item.pinned);
      const uses = marksOf(item).map(decide);
      const parts = new Map<string, PaintPart[]>();
      // What has no paint at all can only be put on a layer by hand.
      let open = uses.length === 0 && pinned === null;
      if (uses.length === 0 && pinned !== null) parts.set(pinned, ['stroke']);
      for (const { mark, layerId: decided } of uses) {
        const layerId = pinned ?? decided;
        if (layerId === null) open = true;
        else parts.set(layerId, [...(parts.get(layerId) ?? []), mark.part]);
      }
      const also = existing(item.also ?? null);
      if (also !== null && !parts.has(also)) parts.set(also, ['stroke']);
      meant = { uses, layers: [...parts], open };
      alike.set(name, meant);
    }
    for (const use of meant.uses) use.items.push(item);
    if (meant.open) undecided.push(item);
    for (const [layerId, parts] of meant.layers) placed.get(layerId)?.push({ item, parts });
  }
  const paints = [...decisions.values()].map(({ mark, layerId, byJob, items }) => ({
    ...mark,
    layerId,
    byJob,
    itemIds: items.map((item) => item.id),
  }));
  return { layers, paints, placed, undecided };
}

const itemExtent = perItem((item) => {
  const outlines = polylinesOf(item);
  return {
    lengthMm: outlines.reduce((sum, outline) => sum + polylineLength(outline), 0),
    areaMm2: enclosedArea(outlines),
  };
});

/** The length of outlines in mm, and the area that they enclose in mm². */
export interface Extent {
  readonly lengthMm: number;
  readonly areaMm2: number;
}

/** The items that have a paint, as far as they show. */
export function itemsOfPaint({ drawing }: JobDocument, paint: Mark): Item[] {
  return drawing.items.filter(
    (item) => !item.hidden && item.shape.kind !== 'picture' && marksOf(item).some((mark) => sameMark(mark, paint)),
  );
}

/** What items come to, each drawn once. */
export function extentOf(items: readonly Item[]): Extent {
  let lengthMm = 0;
  let areaMm2 = 0;
  for (const item of items) {
    const extent = itemExtent(item);
    lengthMm += extent.lengthMm;
    areaMm2 += extent.areaMm2;
  }
  return { lengthMm, areaMm2 };
}

const areas = new WeakMap<readonly Polyline[], number>();

/** The even-odd area of outlines that do not cross each other, in mm². */
export function enclosedArea(outlines: readonly Polyline[]): number {
  let area = areas.get(outlines);
  if (area === undefined) {
    const closed = outlines.filter((outline) => outline.closed);
    const depths = nestDepths(closed);
    area = closed.reduce((sum, outline, i) => sum + Math.abs(signedArea(outline)) * (depths[i] % 2 ? -1 : 1), 0);
    areas.set(outlines, area);
  }
  return area;
}
