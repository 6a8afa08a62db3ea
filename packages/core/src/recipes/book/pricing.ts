import { Mismatch, type Schema, such, type ValueOf } from '../../schema/schema.ts';
import { record, table } from '../../schema/structures.ts';
import { knownWord, text } from '../../schema/values.ts';

const most = 1_000_000;

const amount: Schema<number> = {
  read: (json) => {
    if (typeof json !== 'number' || !(json >= 0 && json <= most))
      throw new Mismatch(`must be a number from 0 to ${most}`);
    return json;
  },
};

/** What a shop charges, in its currency. */
export const pricingSchema = record({
  /** How amounts are named, such as `€`. */
  currency: such(text, (words) => (words.length > 8 ? 'must be text of up to 8 characters' : null)),
  /** For a job, once. */
  setUp: amount,
  /** For each run. */
  perRun: amount,
  /** What a job costs at least. */
  minimum: amount,
  /** Amounts are rounded up to whole steps of this; 0 for hundredths. */
  rounding: amount,
  /** For a minute of each machine, by its id. */
  machines: table(amount, (id) => `“${id}”`),
  /** For a square metre of each material, by its id. */
  materials: table(amount, (id) => `“${id}”`),
  /** Whether stock is charged by the area that is used, or by the sheet; by the area where nothing is said. */
  stockBy: knownWord(['area', 'sheet']),
});
export type Pricing = ValueOf<typeof pricingSchema>;

export const freeOfCharge: Pricing = {
  currency: '',
  setUp: 0,
  perRun: 0,
  minimum: 0,
  rounding: 0,
  machines: {},
  materials: {},
};

/** Says what in sent JSON is no price list. */
export class NotAPriceList extends Error {
  override readonly name = 'NotAPriceList';
}

/**
 * Takes a price list from JSON.
 * @throws NotAPriceList with one sentence that names the place
 */
export function pricingFromJson(json: unknown): Pricing {
  try {
    return pricingSchema.read(json);
  } catch (error) {
    if (!(error instanceof Mismatch)) throw error;
    throw new NotAPriceList(error.place === '' ? 'The price list is missing.' : `In the price list, ${error.message}.`);
  }
}

/** An amount with its currency, such as `€ 6.40`. */
export function formatMoney(amount: number, { currency }: Pick<Pricing, 'currency'>): string {
  return currency === '' ? amount.toFixed(2) : `${currency} ${amount.toFixed(2)}`;
}
