import type { ColourKey } from '../colours/key.ts';
import { type Arrival, type ArrivalNote, mostNotedItems } from '../document/arrival.ts';
import { type Anchor, anchorPoint, boundsOfAll, type Drawing, type Item, type Paint } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { sameShape } from '../document/shape.ts';
import { addItems } from '../edits/items.ts';
import { type Box, isEmpty } from '../geometry/paths/box.ts';
import {
  invert,
  type Matrix,
  meanScale,
  multiplierBy,
  multiply,
  type Point,
  scaling,
  translation,
} from '../geometry/paths/matrix.ts';
import { withNamedLayers } from './named-layers.ts';
import type { Reading } from './reading.ts';

/**
 * Where what arrives is put: as the file has it, or by a point of its frame: its middle, a corner, the middle of a side.
 * That goes to the same point of a box, or anywhere.
 */
export type ArrivalPlace =
  | { readonly kind: 'as-in-file' }
  | { readonly kind: 'within'; readonly box: Box; readonly anchor: Anchor }
  | { readonly kind: 'point'; readonly at: Point; readonly anchor: Anchor };

/** The map from a drawing as read to the bed. @param factor how much larger than read, more than 0 */
export function arrivalMap(reading: Pick<Reading, 'drawing'>, factor: number, place: ArrivalPlace): Matrix {
  if (!(factor > 0 && Number.isFinite(factor)))
    throw new RangeError(`arrivalMap: factor must be above 0, got ${factor}`);
  const grown = scaling(factor, factor);
  const box = shownBounds(reading);
  if (place.kind === 'as-in-file' || isEmpty(box)) return grown;
  const from = anchorPoint(box, place.anchor);
  const to = place.kind === 'within' ? anchorPoint(place.box, place.anchor) : place.at;
  return multiply(translation(to.x - from.x * factor, to.y - from.y * factor), grown);
}

const shownBoxes = new WeakMap<Drawing, Box>();

/**
 * The bounds of what a reading shows, in mm as read; of everything where nothing is shown. Kept for as
 * long as the drawing is: the page asks with every change of what is on screen.
 */
export function shownBounds({ drawing }: Pick<Reading, 'drawing'>): Box {
  let box = shownBoxes.get(drawing);
  if (!box) {
    box = boundsOfAll(drawing.items.filter((item) => !item.hidden));
    if (isEmpty(box)) box = boundsOfAll(drawing.items);
    shownBoxes.set(drawing, box);
  }
  return box;
}

/** A reading's items where a map puts them; strokes grow along. */
export function arrivedItems(items: readonly Item[], map: Matrix): Item[] {
  const factor = meanScale(map);
  // Items that shared a paint go on sharing it: what is known of a paint is known by it.
  const scaled = new Map<Paint, Paint>();
  const scaledPaint = (paint: Paint) => {
    let made = scaled.get(paint);
    if (!made) {
      made = { ...paint, strokeWidthMm: Math.round(paint.strokeWidthMm * factor * 1e4) / 1e4 };
      scaled.set(paint, made);
    }
    return made;
  };
  const placed = multiplierBy(map);
  return items.map((item) => ({ ...item, matrix: placed(item.matrix), paint: scaledPaint(item.paint) }));
}

/** An arrival as it is known before the file is in the job. */
type Coming = Omit<Arrival, 'notes'>;

/** What a reading decided that the operator may not have meant: it stays with the job until that is accepted. */
function decidedIn({ notes }: Reading): ArrivalNote[] {
  return notes
    .filter(({ kind, code }) => kind !== 'taken' || code === 'layers-taken')
    .map(({ code, message, count, itemIds }) => ({ code, message, count, itemIds: itemIds.slice(0, mostNotedItems) }));
}

/** Puts what was read into a job under a key, on the layers that the file names, and remembers how. */
export function acceptArrival(job: JobDocument, arrival: Coming, reading: Reading, key: ColourKey): JobDocument {
  const named = withNamedLayers(job, reading, key);
  const { items, groups } = reading.drawing;
  const pinned = arrivedItems(items, arrival.place).map((item) => {
    const layerId = named.pins.get(item.id);
    return layerId === undefined ? item : { ...item, pinned: layerId };
  });
  return {
    ...addItems(named.job, pinned, groups),
    arrivals: [...job.arrivals, { ...arrival, notes: decidedIn(reading) }],
  };
}

/**
 * Replaces what an arrival brought by the same file read with other choices. What was done since is kept
 * where the part is still there: its place, what it was pinned to, and that it was hidden or taken away. Its shape is
 * kept where that was changed by hand. What was put on a layer because the file named it follows the new choices.
 *
 * @param before the file read with the choices of `job`'s record of it
 * @param after the file read with the choices of `arrival`
 * @throws RangeError when the job has no such arrival
 */
export function rereadArrival(
  job: JobDocument,
  arrival: Coming,
  { before, after }: { readonly before: Reading; readonly after: Reading },
  key: ColourKey,
): JobDocument {
  const known = job.arrivals.find(({ id }) => id === arrival.id);
  if (!known) throw new RangeError(`rereadArrival: the job has no arrival ${arrival.id}`);
  const was = new Map(arrivedItems(before.drawing.items, known.place).map((item) => [item.id, item]));
  const now = new Map(job.drawing.items.map((item) => [item.id, item]));
  const wasPinned = withNamedLayers(job, before, key).pins;
  const named = withNamedLayers(job, after, key);
  const pinnedNow = (id: string) => named.pins.get(id) ?? null;
  const left = invert(known.place);
  const grown = left && multiply(arrival.place, left);
  const fresh = new Set(after.drawing.items.map((item) => item.id));
  const read = arrivedItems(after.drawing.items, arrival.place).flatMap((item): Item[] => {
    const old = was.get(item.id);
    const current = now.get(item.id);
    if (!old) return [{ ...item, pinned: pinnedNow(item.id) }];
    if (!current) return [];
    if (grown && !sameShape(old.shape, current.shape)) return [{ ...current, matrix: multiply(grown, current.matrix) }];
    const back = invert(old.matrix);
    const matrix = back ? multiply(multiply(current.matrix, back), item.matrix) : item.matrix;
    const hidden = current.hidden === old.hidden ? item.hidden : current.hidden;
    const byFile = current.pinned === (wasPinned.get(item.id) ?? null);
    const pinned = byFile ? pinnedNow(item.id) : current.pinned;
    return [{ ...item, matrix, hidden, pinned, name: current.name, groupId: current.groupId }];
  });
  const ours = (id: string) => was.has(id) || fresh.has(id);
  const first = job.drawing.items.findIndex(({ id }) => ours(id));
  const others = job.drawing.items.filter(({ id }) => !ours(id));
  const index = first < 0 ? others.length : job.drawing.items.slice(0, first).filter(({ id }) => !ours(id)).length;
  const groupIds = new Set(job.drawing.groups.map(({ id }) => id));
  return {
    ...named.job,
    drawing: {
      items: [...others.slice(0, index), ...read, ...others.slice(index)],
      groups: [...job.drawing.groups, ...after.drawing.groups.filter(({ id }) => !groupIds.has(id))],
    },
    arrivals: job.arrivals.map((entry) => (entry.id === arrival.id ? { ...arrival, notes: decidedIn(after) } : entry)),
  };
}
