import type { Item } from '../document/item.ts';
import type { Box } from '../geometry/paths/box.ts';
import { perEach } from '../lists/per-each.ts';
import type { Mend } from '../mends/mend.ts';
import { isBurnt, type Operation } from '../operations/operations.ts';
import type { BurnPlan } from '../plan/plan.ts';
import type { PreparedJob, PreparedLayer } from '../plan/prepare.ts';
import type { FindingCode, FindingLevel } from './catalogue.ts';

/** One result of the checks: what, where and why, in a plain sentence. */
export interface Finding {
  readonly code: FindingCode;
  readonly level: FindingLevel;
  readonly message: string;
  readonly itemIds: readonly string[];
  /** The layer concerned, where it is one. */
  readonly layerId: string | null;
  /** Where on the bed it is, where that says more than the items do. */
  readonly places?: readonly Box[];
  /** What puts it right, the usual one first. */
  readonly mends?: readonly Mend[];
  /** What it is about, where that is neither its items nor its words. */
  readonly about?: string;
  /** Why the operator accepts it; it is not there where that is not so. */
  readonly accepted?: string;
}

export type Check = (prepared: PreparedJob, plan: BurnPlan) => Finding[];

/** Makes a finding. @param places where it is, in bed mm, where that is less than the items */
export function finding(
  code: FindingCode,
  level: FindingLevel,
  message: string,
  items: readonly Item[] = [],
  layerId: string | null = null,
  places: readonly Box[] = [],
): Finding {
  const found = { code, level, message, itemIds: idsOf(items), layerId };
  return places.length > 0 ? { ...found, places } : found;
}

/** The ids of items. Those of thousands are kept: after an edit they are mostly the same. */
export function idsOf(items: readonly Item[]): readonly string[] {
  return items.length < manyItems ? items.map(({ id }) => id) : idOfEach(items);
}

const manyItems = 1000;
const idOfEach = perEach((items: readonly Item[]) => items.map(({ id }) => id));

/** A finding with what puts it right, the usual way first; those that are null are left out. */
export function withMends(found: Finding, ...mends: readonly (Mend | null)[]): Finding {
  const offered = mends.filter((mend) => mend !== null);
  return offered.length > 0 ? { ...found, mends: offered } : found;
}

/** One finding on items, where there are any. */
export function ifAny(items: readonly Item[], make: () => Finding): Finding[] {
  return items.length === 0 ? [] : [make()];
}

/** `1 item is`, `3 items are`. */
export function countOf(count: number, entry: string, many: string): string {
  return `${count} ${count === 1 ? entry : many}`;
}

/**
 * Every item that burns in this run, where it burns, each once; layers that are off left out.
 * @param wanted whether items of an operation are asked for; those of all operations where it is not given
 */
export function burntItems(
  prepared: PreparedJob,
  wanted: (operation: Operation) => boolean = isBurnt,
): readonly Item[] {
  const known = burnt.get(prepared) ?? new Map<typeof wanted, readonly Item[]>();
  burnt.set(prepared, known);
  let found = known.get(wanted);
  if (!found) {
    found = itemsOfLayers(prepared.layers.filter(({ layer, on }) => on && wanted(layer.operation)));
    known.set(wanted, found);
  }
  return found;
}

/** The items of lines, in their order, each once; those of one item on one layer follow each other. */
export function itemsOfLines(itemOfEach: readonly Item[]): readonly Item[] {
  return eachOnce(itemOfEach.filter((item, i) => item !== itemOfEach[i - 1]));
}

/** Items of several layers, each once. */
export function eachOnce(items: readonly Item[]): readonly Item[] {
  return mayBeOnTwo(items).includes(true) ? [...new Set(items)] : items;
}

/** Whether each item may be on two layers: by a second one of its own, or by its stroke and its fill. */
const mayBeOnTwo = perEach((items: readonly Item[]) =>
  items.map(({ also, paint: { stroke, fill } }) => also !== undefined || (stroke !== null && fill !== null)),
);

/** Every check asks for them. */
const burnt = new WeakMap<PreparedJob, Map<(operation: Operation) => boolean, readonly Item[]>>();

/** The items of some layers, each once. */
export function itemsOfLayers(layers: readonly PreparedLayer[]): readonly Item[] {
  const lists = layers.filter(({ placed }) => placed.length > 0).map(itemsOfLayer);
  // On one layer an item stands once.
  return lists.length === 1 ? lists[0] : eachOnce(lists.flat());
}

const layerItems = new WeakMap<PreparedLayer, readonly Item[]>();

function itemsOfLayer(layer: PreparedLayer): readonly Item[] {
  const items = layerItems.get(layer) ?? layer.placed.map(({ item }) => item);
  layerItems.set(layer, items);
  return items;
}
