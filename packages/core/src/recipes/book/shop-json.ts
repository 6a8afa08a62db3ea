import { keySchema } from '../../colours/key.ts';
import { machineSchema } from '../../machine/machine.ts';
import { Mismatch, optional, type Schema, such, withUsual } from '../../schema/schema.ts';
import { list, record } from '../../schema/structures.ts';
import { text } from '../../schema/values.ts';
import { materialSchema } from './material.ts';
import { pricingSchema } from './pricing.ts';
import type { Shop } from './shop.ts';

/** Says what in a shop file cannot be used. */
export class NotAShop extends Error {
  override readonly name = 'NotAShop';
}

/** A list of at least one entry. Each has an id of its own, by which its faults are told. */
function idsApart<T extends { readonly id: string }>(schema: Schema<T>, what: string): Schema<readonly T[]> {
  const named: Schema<T> = {
    read: (json) => {
      try {
        return schema.read(json);
      } catch (error) {
        const id = (json as { id?: unknown } | null)?.id;
        if (!(error instanceof Mismatch) || typeof id !== 'string') throw error;
        throw error.within(`the ${what} “${id}”`, true);
      }
    },
  };
  return such(list(named, { each: (place) => `${what} ${place + 1}` }), (entries) => {
    if (entries.length === 0) return 'must have at least one entry';
    const seen = new Set<string>();
    for (const { id } of entries) {
      if (seen.has(id)) return new Mismatch(`“${id}” is not an id of its own`, `the ${what}s`, true, true);
      seen.add(id);
    }
    return null;
  });
}

const shopSchema = record({
  name: withUsual(text, ''),
  machines: idsApart(machineSchema, 'machine'),
  keys: idsApart(keySchema, 'key'),
  materials: idsApart(materialSchema, 'material'),
  pricing: optional(pricingSchema),
});

/**
 * Takes a shop from JSON: at least one machine, key and material, each with an id of its own.
 *
 * @throws NotAShop with one sentence that names the place
 */
export function shopFromJson(json: unknown): Shop {
  try {
    return shopSchema.read(json);
  } catch (error) {
    if (!(error instanceof Mismatch)) throw error;
    throw new NotAShop(error.place === '' ? 'The shop file holds no shop.' : `In the shop file, ${error.message}.`);
  }
}
