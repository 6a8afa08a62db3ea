import { marksOf } from '../colours/derive.ts';
import { type ColourKey, type Layer, layerByKey, layersUnder } from '../colours/key.ts';
import type { Drawing, Item, Paint } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { sameMark } from '../edits/items.ts';
import { setLayer } from '../edits/layers.ts';
import { type Operation, operationOf, operations } from '../operations/operations.ts';
import type { NamedLayer, Notes, Reading } from './reading.ts';

/*
 * Files of ours say which layer each part is on, and others may: that counts over the colours.
 */

/** Between an operation and the name of a layer, where a format has but one name for both. */
const between = ' - ';

/** A layer's name in a format that has but one name for its operation and itself. */
export function nameWithOperation(operation: Operation, name: string): string {
  const own = operationOf(operation).name;
  return name.toLowerCase() === own.toLowerCase() ? name : `${own}${between}${name}`;
}

/** The layer that such a name means; null where it names no operation. */
function layerNamed(text: string): Pick<NamedLayer, 'name' | 'operation'> | null {
  const said = text.trim().toLowerCase();
  for (const operation of operations) {
    const own = operationOf(operation).name;
    if (said === own.toLowerCase()) return { operation, name: own };
    const start = `${own}${between}`;
    if (said.startsWith(start.toLowerCase()) && said.length > start.length) {
      return { operation, name: text.trim().slice(start.length) };
    }
  }
  return null;
}

/** The layers that the names of a drawing's groups mean, with the items in them. */
export function layersByGroup({ items, groups }: Drawing): NamedLayer[] {
  const byGroup = new Map<string, NamedLayer & { itemIds: string[] }>();
  for (const { id, name } of groups) {
    const named = name === null ? null : layerNamed(name);
    if (named) byGroup.set(id, { ...named, id: null, itemIds: [] });
  }
  for (const { id, groupId } of items) if (groupId !== null) byGroup.get(groupId)?.itemIds.push(id);
  return [...byGroup.values()].filter(({ itemIds }) => itemIds.length > 0);
}

/** Says that parts are on the layers that their file names. */
export function noteLayers(layers: readonly NamedLayer[], notes: Notes): void {
  if (layers.length === 0) return;
  const names = layers.map(({ operation, name }) => nameWithOperation(operation, name)).join(', ');
  const ids = layers.flatMap(({ itemIds }) => itemIds);
  notes.add(
    'taken',
    'layers-taken',
    `parts go on the layers that the file names, whatever their colours: ${names}`,
    ids,
  );
}

/** The layer of a job that one of a file is: by its id, or its name; null where the job has none like it. */
function sameLayer(layers: readonly Layer[], { id, name, operation }: NamedLayer): Layer | null {
  const alike = layers.filter((layer) => layer.operation === operation);
  const plain = (text: string) =>
    text
      .toLowerCase()
      .replace(/[^\p{L}\p{N}]+/gu, ' ')
      .trim();
  const named = (layer: Layer) => plain(layer.name) === plain(name);
  const byId = alike.find((layer) => layer.id === id);
  if (byId && named(byId)) return byId;
  return alike.find(named) ?? (plain(operationOf(operation).name) === plain(name) ? (alike[0] ?? null) : null);
}

/**
 * A job with the layers that a file names, and which of them each of its items is to be put on by hand: those that the
 * job and its key put elsewhere by their colours.
 */
export function withNamedLayers(
  job: JobDocument,
  { layers = [], drawing }: Pick<Reading, 'layers' | 'drawing'>,
  key: ColourKey,
): { job: JobDocument; pins: ReadonlyMap<string, string> } {
  const pins = new Map<string, string>();
  const items = new Map(drawing.items.map((item) => [item.id, item]));
  let changed = job;
  for (const named of layers) {
    let layer = sameLayer(layersUnder(key, changed.layers), named);
    if (!layer) {
      layer = { id: freeId(named, layersUnder(key, changed.layers)), name: named.name, operation: named.operation };
      changed = setLayer(changed, layer);
    }
    // Of thousands of items most share a paint.
    const meant = new Map<Paint, boolean>();
    for (const id of named.itemIds) {
      const item = items.get(id);
      if (!item) continue;
      const isKnown = meant.get(item.paint) ?? isMeant(item, layer.id, changed, key);
      meant.set(item.paint, isKnown);
      if (!isKnown) pins.set(id, layer.id);
    }
  }
  return { job: changed, pins };
}

function freeId({ name, operation }: NamedLayer, layers: readonly Layer[]): string {
  const plain = `${operation}-${name.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '-')}`;
  const taken = new Set(layers.map(({ id }) => id));
  let id = plain;
  for (let i = 2; taken.has(id); i++) id = `${plain}-${i}`;
  return id;
}

/** Whether all of an item's paint means a layer already. */
function isMeant(item: Item, layerId: string, job: JobDocument, key: ColourKey): boolean {
  const marks = marksOf(item);
  return (
    marks.length > 0 &&
    marks.every((mark) => {
      const own = job.assignments.find((assignment) => sameMark(assignment, mark));
      return (own?.layerId ?? layerByKey(key, mark)) === layerId;
    })
  );
}
