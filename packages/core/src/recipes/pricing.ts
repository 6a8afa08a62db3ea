/** What a shop charges, in its currency. */
export interface Pricing {
  /** How amounts are named, such as `€`. */
  readonly currency: string;
  /** For a job, once. */
  readonly setUp: number;
  /** For each run. */
  readonly perRun: number;
  /** What a job costs at least. */
  readonly minimum: number;
  /** Amounts are rounded up to whole steps of this; 0 for hundredths. */
  readonly rounding: number;
  /** For a minute of each machine, by its id. */
  readonly machines: Readonly<Record<string, number>>;
  /** For a square metre of each material, by its id. */
  readonly materials: Readonly<Record<string, number>>;
  /** Whether stock is charged by the area that is used, or by the sheet; by the area where nothing is said. */
  readonly stockBy?: 'area' | 'sheet';
}

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

const most = 1_000_000;

/**
 * Takes a price list from JSON.
 * @throws NotAPriceList with one sentence that names the place
 */
export function pricingFromJson(json: unknown): Pricing {
  if (typeof json !== 'object' || json === null) throw new NotAPriceList('The price list is missing.');
  const list = json as Record<string, unknown>;
  const amount = (value: unknown, where: string): number => {
    if (typeof value !== 'number' || !(value >= 0 && value <= most)) {
      throw new NotAPriceList(`In the price list, ${where} must be a number from 0 to ${most}.`);
    }
    return value;
  };
  const amounts = (name: 'machines' | 'materials') => {
    const entries = list[name];
    if (typeof entries !== 'object' || entries === null)
      throw new NotAPriceList(`In the price list, ${name} are missing.`);
    return Object.fromEntries(Object.entries(entries).map(([id, value]) => [id, amount(value, `${name} “${id}”`)]));
  };
  if (typeof list.currency !== 'string' || list.currency.length > 8) {
    throw new NotAPriceList('In the price list, the currency must be text of up to 8 characters.');
  }
  return {
    currency: list.currency,
    setUp: amount(list.setUp, 'setting up'),
    perRun: amount(list.perRun, 'each run'),
    minimum: amount(list.minimum, 'the minimum'),
    rounding: amount(list.rounding, 'the rounding'),
    machines: amounts('machines'),
    materials: amounts('materials'),
    ...(list.stockBy === 'sheet' ? { stockBy: 'sheet' } : {}),
  };
}

/** An amount with its currency, such as `€ 6.40`. */
export function formatMoney(amount: number, { currency }: Pick<Pricing, 'currency'>): string {
  return currency === '' ? amount.toFixed(2) : `${currency} ${amount.toFixed(2)}`;
}
