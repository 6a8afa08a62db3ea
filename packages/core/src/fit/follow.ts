import { type Item, pathOf } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { type FollowingShape, isFollowing, type Shape } from '../document/shape.ts';
import type { PartTie } from '../document/ties.ts';
import type { TraceSettings } from '../document/traced.ts';
import { changeItems } from '../edits/items.ts';
import { combineOutlines, type Outline } from '../geometry/areas/combine.ts';
import { borderAround } from '../geometry/offsets/border.ts';
import { type OffsetSettings, offsetOutlines } from '../geometry/offsets/offset.ts';
import { boxCentre } from '../geometry/paths/box.ts';
import { identity, invert, isIdentity, type Matrix, multiply, translation } from '../geometry/paths/matrix.ts';
import { nodeCount, type Path, pathBounds, transformPath } from '../geometry/paths/path.ts';
import type { Progress } from '../geometry/paths/progress.ts';
import { plainOffsetOf } from './plain-offset.ts';

/** What lies at a distance from items, in bed mm. */
export function offsetOf(items: readonly Item[], settings: OffsetSettings, progress?: Progress): Path {
  return offsetOutlines(outlinesOfItems(items), settings, progress);
}

/** Items as outlines in bed mm; of pictures what shows of them. */
export function outlinesOfItems(items: readonly Item[]): Outline[] {
  return items.map((item) => {
    const { shape, matrix, fillRule } = item;
    if (shape.kind !== 'picture' || !shape.visible) return { path: pathOf(item), rule: fillRule };
    const visible = { path: transformPath(shape.visible, matrix), rule: fillRule };
    if (!shape.crop) return visible;
    return { path: combineOutlines([visible, { path: pathOf(item), rule: 'nonzero' }], 'intersect'), rule: 'nonzero' };
  });
}

/** The same about (0, 0), whatever the items' place. */
export function centredOffset(items: readonly Item[], settings: OffsetSettings): Path {
  const path = offsetOf(items, settings);
  if (path.verbs.length === 0) return path;
  const { x, y } = boxCentre(pathBounds(path));
  return transformPath(path, translation(-x, -y));
}

/**
 * What a shape that follows others comes to, in bed mm; of one that lies where it is put, about (0, 0). Outlines of a
 * picture go where it goes; what they are in other settings is found where its pixels are at hand.
 */
export function followedPath(shape: FollowingShape, sources: readonly Item[]): Path {
  if (shape.kind === 'traced') {
    const toPixels = invert(shape.frame);
    return toPixels ? transformPath(shape.path, multiply(sources[0].matrix, toPixels)) : shape.path;
  }
  if (isPlaced(shape)) return centredOffset(sources, shape.settings);
  if (shape.kind === 'offset') return offsetOf(sources, shape.settings);
  return borderAround(outlinesOfItems(sources), shape.settings).path;
}

/** Whether a shape is made from other items, or has a part that is. */
export function isLive(shape: Shape): boolean {
  return isFollowing(shape) || (shape.kind === 'combined' && shape.parts.some((part) => isLive(part.shape)));
}

const liveLists = new WeakMap<readonly Item[], boolean>();

/** Whether any of a drawing's items is made from others; kept for as long as the list is, which nobody may change. */
export function hasLive(items: readonly Item[]): boolean {
  let known = liveLists.get(items);
  if (known === undefined) {
    known = items.some(({ shape }) => isLive(shape));
    liveLists.set(items, known);
  }
  return known;
}

/**
 * A job after an edit, with everything in it that is made from other items made anew where those have changed; those
 * whose sources are gone are settled into plain outlines, and so are copies, which have sources of their own no more.
 * What follows others stays where they put it: to be moved alone, it is settled first.
 *
 * @param before the job before the edit
 * @param mostNodes what is made from items of more nodes than this is marked stale instead, unless it is in a combination
 */
export function followSources(before: JobDocument, after: JobDocument, mostNodes = Infinity): JobDocument {
  const { items } = after.drawing;
  if (items === before.drawing.items || !hasLive(items)) return after;
  const known = new Map(before.drawing.items.map((item) => [item.id, item]));
  const now = new Map(items.map((item) => [item.id, item]));
  const changed = (id: string) => !hasSameOutline(known.get(id), now.get(id));

  // What was asked for another distance, say.
  const asked = new Set<Shape>();
  for (const { id, shape } of items) {
    const was = known.get(id)?.shape;
    if (isFollowing(shape) && was?.kind === shape.kind && was.settings !== shape.settings) asked.add(shape);
  }
  const followed = (item: Item): Item => {
    const isCopy = !known.has(item.id) && !isIdentity(item.matrix);
    if (isFollowing(item.shape) && !isPlaced(item.shape)) {
      if (isCopy) return settled(item, items);
      const shape = followedShape(item.shape, identity, true);
      if (shape !== item.shape) return { ...item, shape, matrix: identity };
      return isIdentity(item.matrix) ? item : backFrom(item, known.get(item.id));
    }
    const shape = followedShape(item.shape, item.matrix);
    return shape === item.shape ? item : { ...item, shape };
  };
  const followedShape = (shape: Shape, frame: Matrix, isWhole = false): Shape => {
    if (shape.kind === 'combined') {
      const parts = shape.parts.map((part) => {
        const inside = followedShape(part.shape, multiply(frame, part.matrix));
        return inside === part.shape ? part : { ...part, shape: inside };
      });
      return parts.every((part, i) => part === shape.parts[i]) ? shape : { ...shape, parts };
    }
    if (!isFollowing(shape)) return shape;
    if (!shape.sources.some(changed) && !asked.has(shape)) return shape;
    const sources = shape.sources.flatMap((id) => now.get(id) ?? []);
    if (sources.length === 0) return plainPath(shape, before.drawing.items);
    // What takes long is worked out elsewhere (`freshened`); until then it is as it was.
    const { stale: _, ...fresh } = shape;
    if (isWhole && nodesOf(sources) > mostNodes) {
      return { ...fresh, sources: sources.map(({ id }) => id), stale: true };
    }
    const back = isPlaced(shape) ? identity : (invert(frame) ?? identity);
    const path = transformPath(followedPath(shape, sources), back);
    const made = { ...fresh, sources: sources.map(({ id }) => id), path };
    return made.kind === 'traced' ? { ...made, frame: sources[0].matrix } : made;
  };

  // What is made from what is made: once round for each in a chain, and no further, should it be a ring.
  const live = items.filter(({ shape }) => isLive(shape)).map(({ id }) => id);
  let waiting = new Set(live);
  for (let round = 0; round < live.length && waiting.size > 0; round++) {
    const next = new Set<string>();
    for (const id of waiting) {
      const item = now.get(id);
      if (!item) continue;
      const made = followed(item);
      if (made === item) continue;
      now.set(id, made);
      for (const other of live) if (other !== id && sourcesIn(now.get(other)?.shape).includes(id)) next.add(other);
    }
    waiting = next;
  }
  const made = items.map((item) => now.get(item.id) ?? item);
  if (sameItems(made, items)) return after;
  const asBefore = sameItems(made, before.drawing.items) && after.drawing.groups === before.drawing.groups;
  const job = { ...after, drawing: asBefore ? before.drawing : { ...after.drawing, items: made } };
  const names = Object.keys(job) as (keyof JobDocument)[];
  return names.every((name) => job[name] === before[name]) ? before : job;
}

function nodesOf(items: readonly Item[]): number {
  return items.reduce((sum, item) => sum + nodeCount(pathOf(item)), 0);
}

/** Something that is to be made anew, with the items it is made from. */
export interface StaleOutline {
  readonly item: Item & { readonly shape: FollowingShape };
  readonly sources: readonly Item[];
}

/** The first outline whose sources have changed since it was worked out; null where all are as they should be. */
export function staleOutline({ drawing: { items } }: JobDocument): StaleOutline | null {
  const item = items.find(
    (entry): entry is StaleOutline['item'] => isFollowing(entry.shape) && entry.shape.stale === true,
  );
  if (!item) return null;
  return { item, sources: items.filter(({ id }) => item.shape.sources.includes(id)) };
}

/** A job with a stale outline as it was worked out; the same one where its sources have changed again meanwhile. */
export function freshened(job: JobDocument, { item, sources }: StaleOutline, path: Path): JobDocument {
  const { items } = job.drawing;
  const now = items.find(({ id }) => id === item.id);
  const still = sources.every((source) =>
    hasSameOutline(
      source,
      items.find(({ id }) => id === source.id),
    ),
  );
  if (!now || now.shape !== item.shape || !still) return job;
  const { stale: _, ...fresh } = item.shape;
  const made = { ...now, shape: { ...fresh, path } };
  return { ...job, drawing: { ...job.drawing, items: items.map((entry) => (entry === now ? made : entry)) } };
}

/** Whether an item covers what it did; a new colour, say, changes nothing for what follows it. */
function hasSameOutline(a: Item | undefined, b: Item | undefined): boolean {
  if (a === b || !a || !b) return a === b;
  return a.shape === b.shape && a.fillRule === b.fillRule && a.matrix.every((value, i) => value === b.matrix[i]);
}

/** Whether a shape that follows others lies where it is put. */
function isPlaced(shape: Shape): shape is Extract<Shape, { kind: 'offset' }> & { readonly meets: PartTie } {
  return shape.kind === 'offset' && shape.meets !== undefined;
}

function sameItems(a: readonly Item[], b: readonly Item[]): boolean {
  return a.length === b.length && a.every((item, i) => item === b[i]);
}

/** An item put back where it was; itself as it was, where that is all that had changed. */
function backFrom(item: Item, was: Item | undefined): Item {
  const back: Item = { ...item, matrix: was?.matrix ?? identity };
  const names = Object.keys(back) as (keyof Item)[];
  return was && names.every((name) => back[name] === was[name]) ? was : { ...back, matrix: identity };
}

/** Outlines of a picture as they are found in it with other settings. @param found in the picture's pixels */
export function changeTraced(
  job: JobDocument,
  id: string,
  found: { readonly settings: TraceSettings; readonly path: Path; readonly widthsPx?: readonly number[] | undefined },
  { matrix }: Pick<Item, 'matrix'>,
): JobDocument {
  return changeItems(job, new Set([id]), (item) => {
    if (item.shape.kind !== 'traced') return item;
    const { widthsPx: _, ...shape } = item.shape;
    const { settings, path, widthsPx } = found;
    const widths = widthsPx ? { widthsPx } : {};
    return { ...item, shape: { ...shape, ...widths, settings, frame: matrix, path: transformPath(path, matrix) } };
  });
}

/** Turns what follows others into plain outlines, which stay as they are. */
export function settleItems(job: JobDocument, ids: ReadonlySet<string>): JobDocument {
  const { items } = job.drawing;
  if (!items.some(({ id, shape }) => ids.has(id) && isFollowing(shape))) return job;
  return {
    ...job,
    drawing: {
      ...job.drawing,
      items: items.map((item) => (ids.has(item.id) ? (plainly(item, items) ?? settled(item, items)) : item)),
    },
  };
}

/** An offset that is a circle, a rectangle or a slot again, as that. */
function plainly(item: Item, items: readonly Item[]): Item | null {
  const { shape } = item;
  if (shape.kind !== 'offset' || shape.meets) return null;
  const sources = items.filter(({ id }) => shape.sources.includes(id));
  const plain = plainOffsetOf(sources, shape.settings);
  return plain && { ...item, ...plain };
}

function settled(item: Item, items: readonly Item[]): Item {
  return isFollowing(item.shape) ? { ...item, shape: plainPath(item.shape, items) } : item;
}

/** What a shape comes to as a path that follows nothing; where it is stale, that is worked out from its sources first. */
function plainPath(shape: FollowingShape, items: readonly Item[]): Shape {
  const sources = items.filter(({ id }) => shape.sources.includes(id));
  return { kind: 'path', path: shape.stale && sources.length > 0 ? followedPath(shape, sources) : shape.path };
}

function sourcesIn(shape: Shape | undefined): readonly string[] {
  if (!shape) return [];
  if (isFollowing(shape)) return shape.sources;
  return shape.kind === 'combined' ? shape.parts.flatMap((part) => sourcesIn(part.shape)) : [];
}
