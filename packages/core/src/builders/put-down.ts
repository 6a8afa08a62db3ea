import type { BuiltPart, BuiltThing } from '../document/built.ts';
import { boundsOf, boundsOfAll, type Item } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { addItems, removeItems } from '../edits/items.ts';
import { boxContains, boxesMeet, growBox } from '../geometry/paths/box.ts';
import { invert, type Matrix, multiply, translation } from '../geometry/paths/matrix.ts';
import type { Path } from '../geometry/paths/path.ts';
import type { Built, Part } from './builder.ts';
import { drawnAs, scoredOf } from './part-items.ts';
import { inRows } from './rows.ts';

/** What is cut or scored is drawn with, and the layer it is pinned to where its paint does not say it. */
export type Look = Pick<Item, 'paint' | 'pinned'>;

/** Where parts are put and what they are drawn with; the place and width of their rows in mm. */
export interface PutDown {
  readonly looks: Readonly<Record<BuiltPart['what'], Look>>;
  readonly x: number;
  readonly y: number;
  readonly rowMm: number;
  readonly gapMm: number;
}

/** Puts a thing's parts into a job, in rows, as a group that knows its numbers. @returns the job, and the parts' ids */
export function putDown(
  job: JobDocument,
  thing: BuiltThing,
  name: string,
  built: Built,
  { looks, x, y, rowMm, gapMm }: PutDown,
  newId: () => string,
): { job: JobDocument; ids: string[] } {
  const { places } = inRows(built.parts, rowMm, gapMm);
  const items = built.parts.flatMap((part, i) => {
    const matrix = multiply(translation(x, y), places[i]);
    return whats.flatMap((what) => itemOf(thing, part, what, matrix, looks[what], newId));
  });
  const added = addItems(job, items, [{ id: thing.id, name, parentId: null }]);
  return { job: { ...added, built: [...added.built, thing] }, ids: items.map(({ id }) => id) };
}

const whats: readonly BuiltPart['what'][] = ['cut', 'score'];

const pathFor = (part: Part, what: BuiltPart['what']): Path => (what === 'cut' ? part.cut : scoredOf(part));

/** What is cut of a part, or scored on it; none where that is nothing. */
function itemOf(
  thing: BuiltThing,
  part: Part,
  what: BuiltPart['what'],
  matrix: Matrix,
  { paint, pinned }: Look,
  newId: () => string,
): Item[] {
  const path = pathFor(part, what);
  if (path.verbs.length === 0) return [];
  return [
    {
      id: newId(),
      name: what === 'cut' ? part.name : `${part.name}, scored`,
      shape: { kind: 'path', path },
      matrix,
      paint,
      fillRule: 'evenodd',
      groupId: thing.id,
      pinned,
      hidden: false,
      part: { thingId: thing.id, partId: part.id, what },
    },
  ];
}

/** So far apart parts are put where they would come to lie on each other, in mm. */
const usualGap = 4;

/**
 * A job in which a thing came out otherwise. Parts stay about the middle where they are, and what was drawn on them stays
 * with them. Parts that there are no more go; new ones are put below the others. Where parts would then lie on each other,
 * all are laid in rows anew, from where they were; not so those of outlines that were there before.
 *
 * @param thing as it is now; the job may have it as it was
 */
export function applyBuilt(job: JobDocument, thing: BuiltThing, built: Built, newId: () => string): JobDocument {
  const before = partsIn(job, thing.id);
  const parts = new Map(built.parts.map((part) => [part.id, part]));
  const gone = new Set<string>();
  const changed = new Map<string, Item>();
  for (const item of before) {
    const part = parts.get(item.part.partId);
    const path = part && pathFor(part, item.part.what);
    if (path && path.verbs.length > 0) changed.set(item.id, { ...item, shape: { kind: 'path', path } });
    else gone.add(item.id);
  }
  const items = job.drawing.items.map((item) => changed.get(item.id) ?? item);
  const kept = removeItems({ ...job, drawing: { ...job.drawing, items } }, gone);
  const whole = addMissing(kept, thing, built, newId);
  // Outlines of the operator's own stay where they are.
  const laid = thing.outlines ? whole : spreadOut(whole, thing.id, before);
  return { ...laid, built: laid.built.map((known) => (known.id === thing.id ? thing : known)) };
}

type PartItem = Item & { readonly part: BuiltPart };

const isPartOf = (item: Item, thingId: string): item is PartItem => item.part?.thingId === thingId;

/** Of a part, what is cut and what is scored: of copies of a thing, each its own. */
const keyOf = ({ groupId, part }: PartItem) => `${groupId} ${part.partId}`;

/** The items that are parts of a thing. */
export function partsIn({ drawing }: JobDocument, thingId: string): PartItem[] {
  return drawing.items.filter((item) => isPartOf(item, thingId));
}

/** With the parts that are not there yet: what is scored where its part lies, new parts below. */
function addMissing(job: JobDocument, thing: BuiltThing, built: Built, newId: () => string): JobDocument {
  const there = partsIn(job, thing.id);
  const lookOf = (what: BuiltPart['what']): Look =>
    there.find(({ part }) => part.what === what) ?? { paint: drawnAs(what), pinned: null };
  const { minX, maxX, maxY } = boundsOfAll(there);
  const fresh = built.parts.filter(({ id }) => !there.some(({ part }) => part.partId === id));
  const { places } = inRows(fresh, Math.max(usualRow, maxX - minX), usualGap);
  const below = translation(minX, maxY + usualGap);
  const items = built.parts.flatMap((part) =>
    whats.flatMap((what): Item[] => {
      if (there.some((item) => item.part.partId === part.id && item.part.what === what)) return [];
      const sibling = there.find((item) => item.part.partId === part.id);
      const matrix = sibling?.matrix ?? multiply(below, places[fresh.indexOf(part)]);
      return itemOf(thing, part, what, matrix, lookOf(what), newId);
    }),
  );
  return items.length > 0 ? addItems(job, items) : job;
}

const usualRow = 200;

/** Lays a thing's parts in rows anew where they lie on each other, and takes along what was drawn on them. */
function spreadOut(job: JobDocument, thingId: string, before: readonly PartItem[]): JobDocument {
  const cuts = partsIn(job, thingId).filter(({ part }) => part.what === 'cut');
  const boxes = cuts.map((item) => growBox(boundsOf(item), -1e-6));
  if (!boxes.some((box, i) => boxes.slice(i + 1).some((other) => boxesMeet(box, other)))) return job;
  const { minX, minY, maxX } = boundsOfAll(before.length > 0 ? before : cuts);
  const { places } = inRows(
    cuts.map((item) => ({ cut: pathOfShape(item) })),
    Math.max(usualRow, maxX - minX),
    usualGap,
  );
  const moves = new Map<string, Matrix>();
  cuts.forEach((item, i) => {
    const target = multiply(translation(minX, minY), places[i]);
    const back = invert(item.matrix);
    if (back) moves.set(keyOf(item), multiply(target, back));
  });
  const outlines = before.filter(({ part }) => part.what === 'cut').map((item) => ({ item, box: boundsOf(item) }));
  const items = job.drawing.items.map((item) => {
    const under = isPartOf(item, thingId) ? item : outlines.find(({ box }) => boxContains(box, boundsOf(item)))?.item;
    const move = under && moves.get(keyOf(under));
    return move ? { ...item, matrix: multiply(move, item.matrix) } : item;
  });
  return { ...job, drawing: { ...job.drawing, items } };
}

function pathOfShape({ shape }: Item): Path {
  if (shape.kind !== 'path') throw new RangeError(`spreadOut: a part is a path, and not ${shape.kind}`);
  return shape.path;
}

/** Makes parts plain outlines, which follow nothing; of things of which none is left, the numbers go. */
export function settleParts(job: JobDocument, ids: ReadonlySet<string>): JobDocument {
  if (ids.size === 0) return withoutEmptyThings(job);
  const items = job.drawing.items.map((item) => {
    if (!item.part || !ids.has(item.id)) return item;
    const { part: _, ...plain } = item;
    return plain;
  });
  return withoutEmptyThings({ ...job, drawing: { ...job.drawing, items } });
}

/** Without the things of which no part lies in the job. */
function withoutEmptyThings(job: JobDocument): JobDocument {
  const there = new Set(job.drawing.items.map(({ part }) => part?.thingId));
  const built = job.built.filter(({ id }) => there.has(id));
  return built.length === job.built.length ? job : { ...job, built };
}
