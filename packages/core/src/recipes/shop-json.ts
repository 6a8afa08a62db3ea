import type { Shop } from './shop.ts';

/** Says what in a shop file cannot be used. */
export class NotAShop extends Error {
  override readonly name = 'NotAShop';
}

/**
 * Takes a shop from JSON, checking what plans rest on: that there are machines, keys and materials,
 * each with an id of its own, and that a machine's figures are sizes and speeds above 0.
 *
 * @throws NotAShop with one sentence that names the place
 */
export function shopFromJson(json: unknown): Shop {
  if (typeof json !== 'object' || json === null) throw new NotAShop('The shop file holds no shop.');
  const shop = json as Shop;
  for (const list of ['machines', 'keys', 'materials'] as const) {
    const entries: unknown = shop[list];
    if (!Array.isArray(entries) || entries.length === 0) throw new NotAShop(`The shop file has no ${list}.`);
    const ids = new Set<unknown>();
    for (const entry of entries) {
      if (typeof entry?.id !== 'string' || ids.has(entry.id)) {
        throw new NotAShop(`In the shop file's ${list}, “${String(entry?.id)}” is not an id of its own.`);
      }
      ids.add(entry.id);
    }
  }
  const figures = [
    'bedWidth',
    'bedHeight',
    'topSpeed',
    'travelSpeed',
    'acceleration',
    'cornerDeviation',
    'powerScale',
  ] as const;
  for (const machine of shop.machines) {
    for (const figure of figures) {
      if (!(Number.isFinite(machine[figure]) && machine[figure] > 0)) {
        throw new NotAShop(`In the shop file, ${figure} of the machine “${machine.id}” must be a number above 0.`);
      }
    }
    if (!['top-left', 'bottom-left', 'centre'].includes(machine.origin)) {
      throw new NotAShop(
        `In the shop file, origin of the machine “${machine.id}” must be top-left, bottom-left or centre.`,
      );
    }
  }
  for (const key of shop.keys) {
    if (!Array.isArray(key.rules) || !Array.isArray(key.layers)) {
      throw new NotAShop(`In the shop file, the key “${key.id}” needs layers and rules.`);
    }
  }
  for (const material of shop.materials) {
    if (!Array.isArray(material.recipes)) {
      throw new NotAShop(`In the shop file, the material “${material.id}” needs recipes.`);
    }
  }
  return shop;
}
