import type { FillRule } from '../geometry/areas/area.ts';
import { type Box, boxHeight, boxWidth, numbersOfBoxes, transformBox } from '../geometry/paths/box.ts';
import { flatten, type Polyline } from '../geometry/paths/flatten.ts';
import { identity, isIdentity, type Matrix, type Point } from '../geometry/paths/matrix.ts';
import { type Path, pathBounds, transformPath } from '../geometry/paths/path.ts';
import { numbersPerEach } from '../lists/per-each.ts';
import { type OptionalSchema, optional, orNull, type ValueOf } from '../schema/schema.ts';
import { record, unnamed } from '../schema/structures.ts';
import { flag, knownWord, number, oneOf, text, yes } from '../schema/values.ts';
import { builtPart } from './built.ts';
import { fadeInFrame, optionalFade } from './fade.ts';
import { colour, fillRule, matrix } from './fields.ts';
import { rowOfGroup } from './row-list.ts';
import { type Shape, shapeSchema } from './shape.ts';
import { boundsOfShape, outlineOf } from './shapes.ts';

/** A colour as `#RRGGBB`, in capitals. */
export type Colour = string;

/** What an item is drawn with, as it came in or as it was painted here. Width in mm, as it shows on the bed. */
export const paintSchema = record({
  stroke: orNull(colour),
  strokeWidthMm: number(),
  fill: orNull(colour),
  /** How the stroke's ends and corners look; butt and miter where nothing is said. */
  cap: knownWord(['round', 'square']),
  join: knownWord(['round', 'bevel']),
  /** How the fill fades, or can be seen through, where it is not one solid colour; `fill` is its mean then. */
  fade: optionalFade,
});
export type Paint = ValueOf<typeof paintSchema>;

/** The same paint as one that was met before, so that items painted alike share one. @param met by what they look like */
export function sharedPaint(paint: Paint, met: Map<string, Paint>): Paint {
  const { stroke, strokeWidthMm, fill, cap, join, fade } = paint;
  if (fade) return paint;
  const look = `${stroke} ${strokeWidthMm} ${fill} ${cap} ${join}`;
  const known = met.get(look);
  if (!known) met.set(look, paint);
  return known ?? paint;
}

/** The paint of pictures, and of outlines that a file draws with nothing. */
export const unpainted: Paint = { stroke: null, strokeWidthMm: 0, fill: null };

export type { FillRule };

export const keeps = ['inside', 'outside', 'line'] as const;

/** Which side of a cut is the piece that comes out as drawn; on the line, neither does. */
export type Keep = (typeof keeps)[number];

/** Anything on the bed. Its place is `matrix` applied to its shape, in mm from the bed's top left, y down. */
export const itemSchema = record({
  paint: unnamed(paintSchema),
  id: text,
  name: orNull(text),
  shape: unnamed(shapeSchema),
  matrix,
  fillRule,
  groupId: orNull(text),
  /** The layer this item was put on by hand, over the colour key; null leaves it to the key. */
  pinned: orNull(text),
  /** Hidden items are kept, but neither shown, nor burnt, nor selected, until they are brought in. */
  hidden: flag,
  /** Locked items are shown and burnt, but not selected on the bed. */
  locked: yes as OptionalSchema<boolean>,
  /** Where it lies wholly beside the bed, it is kept there and does not burn. */
  parked: yes as OptionalSchema<boolean>,
  /** Where it is a part of something built from numbers, and follows those. */
  part: optional(builtPart),
  /** Items with the same link are copies of one thing: a change to the shape of one changes all. */
  link: optional(text),
  /** Which side of its cut lines is kept; as its layer says where nothing is said. */
  keep: optional(oneOf(keeps)),
  /** In the design of a list: the column that names the file whose drawing stands in its place, row by row. */
  choice: optional(text),
  /** A second layer, on which its outline burns as well: an engraving that is cut along its own edge. */
  also: optional(text),
});
export type Item = ValueOf<typeof itemSchema>;

export const groupSchema = record({
  id: text,
  name: orNull(text),
  parentId: orNull(text),
  /** The row of a list that it was made for. */
  row: optional(rowOfGroup),
});
export type Group = ValueOf<typeof groupSchema>;

/** Items from back to front, and the groups they are in. */
export interface Drawing {
  readonly items: readonly Item[];
  readonly groups: readonly Group[];
}

export const emptyDrawing: Drawing = { items: [], groups: [] };

/** Keeps what is computed from an item for as long as the item itself is kept. */
export function perItem<T extends object | number | null>(compute: (item: Item) => T): (item: Item) => T {
  const known = new WeakMap<Item, T>();
  return (item) => {
    let value = known.get(item);
    if (value === undefined) {
      value = compute(item);
      known.set(item, value);
    }
    return value;
  };
}

/** As many lists are kept: those that the plan and the checks of one job ask for. */
const mostLists = 6;

/** Keeps what is computed from a list of items, of the lists that were asked for last. */
export function perItems<T>(compute: (items: readonly Item[]) => T): (items: readonly Item[]) => T {
  let kept: { items: readonly Item[]; value: T }[] = [];
  return (items) => {
    const known = kept.find(
      (entry) => entry.items.length === items.length && entry.items.every((item, i) => item === items[i]),
    );
    if (known) return known.value;
    const value = compute(items);
    kept = [{ items, value }, ...kept].slice(0, mostLists);
    return value;
  };
}

/** An item's outline on the bed, in mm. */
export const pathOf: (item: Item) => Path = perItem(placedPath);

function placedPath({ shape, matrix }: Item): Path {
  return transformPath(outlineOf(shape), matrix);
}

/** An item of another shape, in another frame. What its fill fades along stays where it is on the bed. */
export function reshaped<T extends Pick<Item, 'paint' | 'matrix'>>(
  item: T,
  shape: Shape,
  matrix: Matrix = identity,
): T & Pick<Item, 'shape'> {
  const { fade } = item.paint;
  const paint = fade ? { ...item.paint, fade: fadeInFrame(fade, item.matrix, matrix) } : item.paint;
  return { ...item, paint, shape, matrix };
}

/** An item's exact bounds on the bed, in mm, its stroke's width not counted. */
export function boundsOf(item: Item): Box {
  const { shape, matrix } = item;
  // Most items lie where they were drawn; every check asks for the bounds of each.
  if (isIdentity(matrix)) return boundsOfShape(shape);
  // Bounds stay bounds where x goes along x, or along y: thousands of items are moved without their outlines.
  return keepsAxes(matrix) ? transformBox(boundsOfShape(shape), matrix) : boundsOfTurned(item);
}

/** The bounds of every item of a list as numbers, by place; what checks and the pointer ask of whole drawings. */
export const boxesOfEach: (items: readonly Item[]) => Float64Array = numbersPerEach(4, (items: readonly Item[]) =>
  numbersOfBoxes(items, boundsOf),
);

const boundsOfTurned: (item: Item) => Box = perItem((item) => pathBounds(pathOf(item)));

function keepsAxes([a, b, c, d]: Matrix): boolean {
  return (b === 0 && c === 0) || (a === 0 && d === 0);
}

/**
 * An item's outline as straight lines within 0.01 mm. The curves of simple shapes are not kept with them: a plan of
 * 100,000 circles needs the lines alone.
 */
export const polylinesOf: (item: Item) => Polyline[] = perItem((item) =>
  flatten('path' in item.shape ? pathOf(item) : placedPath(item)),
);

/** The box around items, in the drawing's mm; the empty one where there are none. */
export function boundsOfAll(items: Iterable<Item>): Box {
  let [minX, minY, maxX, maxY] = [Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY, -Infinity, -Infinity];
  const take = (x1: number, y1: number, x2: number, y2: number) => {
    minX = Math.min(minX, x1, x2);
    minY = Math.min(minY, y1, y2);
    maxX = Math.max(maxX, x1, x2);
    maxY = Math.max(maxY, y1, y2);
  };
  for (const item of items) {
    const { shape, matrix } = item;
    // Of thousands of items most are not turned: no box is made of each of them.
    const isLevel = matrix[1] === 0 && matrix[2] === 0;
    const { minX: left, minY: top, maxX: right, maxY: bottom } = isLevel ? boundsOfShape(shape) : boundsOf(item);
    if (!(left <= right && top <= bottom)) continue;
    if (!isLevel) take(left, top, right, bottom);
    else {
      const [x, y] = [matrix[4], matrix[5]];
      take(matrix[0] * left + x, matrix[3] * top + y, matrix[0] * right + x, matrix[3] * bottom + y);
    }
  }
  return { minX, minY, maxX, maxY };
}

interface Some {
  readonly items: readonly Item[];
  /** Null until somebody asks for it. */
  bounds: Box | null;
}

const someKnown = new WeakMap<readonly Item[], WeakMap<ReadonlySet<string>, Some>>();

function someOf({ items }: Pick<Drawing, 'items'>, ids: ReadonlySet<string>): Some {
  let known = someKnown.get(items);
  if (!known) {
    known = new WeakMap();
    someKnown.set(items, known);
  }
  let some = known.get(ids);
  if (!some) {
    const chosen = ids.size === 0 ? [] : items.filter((item) => ids.has(item.id));
    some = { items: chosen, bounds: null };
    known.set(ids, some);
  }
  return some;
}

/** Some of a drawing's items, in its order; kept for as long as the list and the set are, which nobody may change. */
export function itemsAmong(drawing: Pick<Drawing, 'items'>, ids: ReadonlySet<string>): readonly Item[] {
  return someOf(drawing, ids).items;
}

/** The bounds of some of a drawing's items, kept like them. */
export function boundsAmong(drawing: Pick<Drawing, 'items'>, ids: ReadonlySet<string>): Box {
  const some = someOf(drawing, ids);
  some.bounds ??= boundsOfAll(some.items);
  return some.bounds;
}

/** A point of a box: 0, ½ or 1 of its width and height. */
export interface Anchor {
  readonly u: number;
  readonly v: number;
}

/** The point of a box that an anchor names. */
export function anchorPoint(box: Box, { u, v }: Anchor): Point {
  return { x: box.minX + u * boxWidth(box), y: box.minY + v * boxHeight(box) };
}

/** The groups that an item is in, the outermost first. */
export function groupsAround({ groups }: Pick<Drawing, 'groups'>, { groupId }: Item): Group[] {
  const byId = groupsById(groups);
  const around: Group[] = [];
  let group = groupId === null ? undefined : byId.get(groupId);
  // Groups in a ring end where the ring is closed.
  while (group && !around.includes(group)) {
    around.unshift(group);
    group = group.parentId === null ? undefined : byId.get(group.parentId);
  }
  return around;
}

const knownGroups = new WeakMap<readonly Group[], ReadonlyMap<string, Group>>();

function groupsById(groups: readonly Group[]): ReadonlyMap<string, Group> {
  let byId = knownGroups.get(groups);
  if (!byId) {
    byId = new Map(groups.map((group) => [group.id, group]));
    knownGroups.set(groups, byId);
  }
  return byId;
}

/** The outermost group an item is in, or null. */
export function topGroupOf({ groups }: Pick<Drawing, 'groups'>, { groupId }: Item): Group | null {
  if (groupId === null) return null;
  let tops = topGroups.get(groups);
  if (!tops) {
    tops = findTopGroups(groups);
    topGroups.set(groups, tops);
  }
  return tops.get(groupId) ?? null;
}

const topGroups = new WeakMap<readonly Group[], ReadonlyMap<string, Group>>();

/** By group: the outermost one that it is in, itself where it is in none. */
function findTopGroups(groups: readonly Group[]): Map<string, Group> {
  const byId = groupsById(groups);
  const tops = new Map<string, Group>();
  for (const group of groups) {
    let top = group;
    // Groups in a ring end where the ring is closed.
    for (let steps = 0; top.parentId && steps < groups.length; steps++) {
      const parent = byId.get(top.parentId);
      if (!parent) break;
      top = parent;
    }
    tops.set(group.id, top);
  }
  return tops;
}
