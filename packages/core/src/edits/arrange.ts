import {
  type Anchor,
  anchorPoint,
  boundsAmong,
  boundsOfAll,
  type Drawing,
  type Group,
  type Item,
  topGroupOf,
} from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import type { Box } from '../geometry/paths/box.ts';
import { type Matrix, multiply, type Point, rotation, scaling, translation } from '../geometry/paths/matrix.ts';
import { moveItems, transformEach, transformItems, withoutEmptyGroups } from './items.ts';

/*
 * Placing things by each other: a thing is what moves as one, an outermost group or an item in none.
 */

export interface Thing {
  readonly ids: readonly string[];
  readonly bounds: Box;
}

/** Items by the thing they belong to, named by its id: their outermost group's, or their own. In the drawing's order. */
export function gatherThings(
  drawing: Drawing,
  items: Iterable<Item>,
): Map<string, { group: Group | null; items: Item[] }> {
  const things = new Map<string, { group: Group | null; items: Item[] }>();
  for (const item of items) {
    const group = topGroupOf(drawing, item);
    const key = group?.id ?? item.id;
    const thing = things.get(key);
    if (thing) thing.items.push(item);
    else things.set(key, { group, items: [item] });
  }
  return things;
}

/** The things that some items make up, in the drawing's order. */
export function thingsAmong(drawing: Drawing, ids: ReadonlySet<string>): Thing[] {
  const chosen = drawing.items.filter((item) => ids.has(item.id));
  return [...gatherThings(drawing, chosen).values()].map(({ items }) => ({
    ids: items.map(({ id }) => id),
    bounds: boundsOfAll(items),
  }));
}

/** Applies to each of the things that some items make up a map of its own, in bed mm; null leaves one as it is. */
export function transformThings(
  job: JobDocument,
  things: readonly Thing[],
  mapOf: (thing: Thing) => Matrix | null,
): JobDocument {
  const maps = new Map<string, Matrix>();
  for (const thing of things) {
    const map = mapOf(thing);
    if (map) for (const id of thing.ids) maps.set(id, map);
  }
  return transformEach(job, maps);
}

function moveBy(dx: number, dy: number): Matrix | null {
  return dx === 0 && dy === 0 ? null : translation(dx, dy);
}

/** Mirrors items across a line through a point, at an angle in degrees from the x axis. */
export function mirrorItems(job: JobDocument, ids: ReadonlySet<string>, through: Point, degrees: number): JobDocument {
  const upright = multiply(scaling(1, -1, through), rotation(-degrees, through));
  return transformItems(job, ids, multiply(rotation(degrees, through), upright));
}

/** Which line of things is aligned: their left edges, their middles across, and so on. */
export type Alignment = 'left' | 'centre' | 'right' | 'top' | 'middle' | 'bottom';

/** Where a box has an alignment's line: its x, or its y. */
function lineOf(box: Box, alignment: Alignment): number {
  switch (alignment) {
    case 'left':
      return box.minX;
    case 'centre':
      return (box.minX + box.maxX) / 2;
    case 'right':
      return box.maxX;
    case 'top':
      return box.minY;
    case 'middle':
      return (box.minY + box.maxY) / 2;
    case 'bottom':
      return box.maxY;
  }
}

const alongX: readonly Alignment[] = ['left', 'centre', 'right'];

/** Moves the selected things as one, until the line of their common box is that of `to`. */
export function alignAsOne(job: JobDocument, ids: ReadonlySet<string>, alignment: Alignment, to: Box): JobDocument {
  const distance = lineOf(to, alignment) - lineOf(boundsAmong(job.drawing, ids), alignment);
  return alongX.includes(alignment) ? moveItems(job, ids, distance, 0) : moveItems(job, ids, 0, distance);
}

/** Moves each of the selected things, but for those that stay put, until its line is that of `to`. */
export function alignItems(
  job: JobDocument,
  ids: ReadonlySet<string>,
  alignment: Alignment,
  to: Box,
  staying: ReadonlySet<string> = new Set(),
): JobDocument {
  const target = lineOf(to, alignment);
  return transformThings(job, thingsAmong(job.drawing, ids), (thing) => {
    if (thing.ids.some((id) => staying.has(id))) return null;
    const distance = target - lineOf(thing.bounds, alignment);
    return alongX.includes(alignment) ? moveBy(distance, 0) : moveBy(0, distance);
  });
}

/** How things are spread: with the same gap between them, or with their middles the same distance apart. */
export type Spreading = 'gap' | 'centres';

/**
 * Spreads things evenly along an axis, in the order they stand. With `distance` in mm each follows the one
 * before it; without, the outermost two stay and those between them are spread.
 */
export function spreadItems(
  job: JobDocument,
  ids: ReadonlySet<string>,
  axis: 'x' | 'y',
  spacing: Spreading,
  distance: number | null,
): JobDocument {
  const [low, high] = axis === 'x' ? (['minX', 'maxX'] as const) : (['minY', 'maxY'] as const);
  const middle = ({ bounds }: Thing) => (bounds[low] + bounds[high]) / 2;
  const things = thingsAmong(job.drawing, ids).sort((a, b) => middle(a) - middle(b));
  if (things.length < 2) return job;
  const size = ({ bounds }: Thing) => bounds[high] - bounds[low];
  const [first, last] = [things[0], things[things.length - 1]];
  const between = things.length - 1;
  const used = things.reduce((sum, thing) => sum + size(thing), 0);
  const step =
    distance ??
    (spacing === 'gap'
      ? (last.bounds[high] - first.bounds[low] - used) / between
      : (middle(last) - middle(first)) / between);
  let position = spacing === 'gap' ? first.bounds[low] : middle(first);
  return transformThings(job, things, (thing) => {
    const shift = position - (spacing === 'gap' ? thing.bounds[low] : middle(thing));
    position += spacing === 'gap' ? size(thing) + step : step;
    return axis === 'x' ? moveBy(shift, 0) : moveBy(0, shift);
  });
}

/** Puts a selection's anchor so far from a point. */
export function placeFrom(
  job: JobDocument,
  ids: ReadonlySet<string>,
  anchor: Anchor,
  from: Point,
  offset: Point,
): JobDocument {
  const place = anchorPoint(boundsAmong(job.drawing, ids), anchor);
  return moveItems(job, ids, from.x + offset.x - place.x, from.y + offset.y - place.y);
}

/** Puts items in a new group, taking them out of the groups they are in as far as those are not selected whole. */
export function groupItems(job: JobDocument, ids: ReadonlySet<string>, id: string, name: string | null): JobDocument {
  const { items, groups } = job.drawing;
  const chosen = items.filter((item) => ids.has(item.id));
  if (chosen.length === 0) return job;
  const group: Group = { id, name, parentId: null };
  // Groups that are selected whole go into the new one as they are.
  const whole = new Set(chosen.map((item) => topGroupOf(job.drawing, item)?.id));
  for (const item of items) if (!ids.has(item.id)) whole.delete(topGroupOf(job.drawing, item)?.id);
  // The group stands where its foremost member stood.
  const inside = (item: Item): Item => {
    const top = topGroupOf(job.drawing, item);
    return top && whole.has(top.id) ? item : { ...item, groupId: id };
  };
  const lastPlace = items.findLastIndex((item) => ids.has(item.id));
  const before = items.slice(0, lastPlace).filter((item) => !ids.has(item.id));
  const after = items.slice(lastPlace + 1).filter((item) => !ids.has(item.id));
  const nested = groups.map((known) => (whole.has(known.id) ? { ...known, parentId: id } : known));
  const ordered = [...before, ...chosen.map(inside), ...after];
  return { ...job, drawing: { items: ordered, groups: withoutEmptyGroups([...nested, group], ordered) } };
}

/** Takes the outermost groups of the items apart. */
export function ungroupItems(job: JobDocument, ids: ReadonlySet<string>): JobDocument {
  const { drawing } = job;
  const tops = new Set(
    drawing.items.filter((item) => ids.has(item.id)).map((item) => topGroupOf(drawing, item)?.id ?? null),
  );
  tops.delete(null);
  if (tops.size === 0) return job;
  return {
    ...job,
    drawing: {
      items: drawing.items.map((item) => (tops.has(item.groupId) ? { ...item, groupId: null } : item)),
      groups: drawing.groups
        .filter((group) => !tops.has(group.id))
        .map((group) => (tops.has(group.parentId) ? { ...group, parentId: null } : group)),
    },
  };
}

/** Locks items, which keeps them from being selected on the bed, or unlocks them. */
export function lockItems(job: JobDocument, ids: ReadonlySet<string>, locked: boolean): JobDocument {
  const { items } = job.drawing;
  if (!items.some((item) => ids.has(item.id) && (item.locked ?? false) !== locked)) return job;
  const lock = ({ locked: _, ...item }: Item): Item => (locked ? { ...item, locked } : item);
  return { ...job, drawing: { ...job.drawing, items: items.map((item) => (ids.has(item.id) ? lock(item) : item)) } };
}

/** Where in the drawing's order, from back to front, things go. */
export type Ordering = 'front' | 'forward' | 'back' | 'backward';

/** Puts items before or behind the others, in their own order; the same job where nothing changes. */
export function orderItems(job: JobDocument, ids: ReadonlySet<string>, to: Ordering): JobDocument {
  const { items } = job.drawing;
  const moved = items.filter((item) => ids.has(item.id));
  const others = items.filter((item) => !ids.has(item.id));
  if (moved.length === 0 || others.length === 0) return job;
  const foremost = items.findLastIndex((item) => ids.has(item.id));
  const hindmost = items.findIndex((item) => ids.has(item.id));
  // How many of the others stay behind what is moved.
  const behind = {
    front: others.length,
    back: 0,
    forward: Math.min(others.length, foremost - moved.length + 2),
    backward: Math.max(0, hindmost - 1),
  }[to];
  const ordered = [...others.slice(0, behind), ...moved, ...others.slice(behind)];
  if (ordered.every((item, i) => item === items[i])) return job;
  return { ...job, drawing: { ...job.drawing, items: ordered } };
}
