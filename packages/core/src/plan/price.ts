import { boundsOfAll } from '../document/item.ts';
import { ownSheet } from '../document/run-sheets.ts';
import { type Sheet, sheetUnder } from '../document/sheet.ts';
import { boxHeight, boxWidth, isEmpty } from '../geometry/paths/box.ts';
import type { Pricing } from '../recipes/book/pricing.ts';
import type { Shop } from '../recipes/book/shop.ts';
import { stockOf } from '../recipes/book/stock.ts';
import type { BurnPlan } from './plan.ts';
import { type PreparedJob, prepareJob } from './prepare.ts';

/** One part of a price, in the shop's currency. */
export interface PricePart {
  /** Whether it is for the time of the machine, for stock, or the same however long and large it is. */
  readonly kind: 'machine' | 'stock' | 'fee';
  readonly what: string;
  readonly amount: number;
}

/** What a run costs: its parts in whole hundredths, and what they add up to, rounded as the shop rounds. */
export interface Price {
  readonly parts: readonly PricePart[];
  readonly total: number;
  /** What is used and has no price in a shop that charges: it is not in the total, which is no gift. */
  readonly unpriced: readonly string[];
}

/**
 * The price of a run: the machine's minutes, the stock that no earlier run of the job has used, and the fee of each run.
 * Each material is charged by the sheets that are used of it, where the shop charges so and knows what each costs.
 * Else it goes by the area that encloses what burns on it. Setting up and the minimum are for the job, and count with
 * its first run. Nothing to burn costs nothing. What has no price is named: a price of 0 is one that was set.
 *
 * @param copies how often all of it is burnt, 1 or more: stock by the sheet and the fee of the run are counted once
 */
export function priceOf(
  plan: BurnPlan,
  prepared: PreparedJob,
  shop: Pick<Shop, 'machines' | 'keys' | 'materials'>,
  pricing: Pricing,
  copies = 1,
): Price {
  if (plan.steps.length === 0) return { parts: [], total: 0, unpriced: [] };
  const { job, run, machine } = prepared;
  const earlier = job.runs.slice(0, job.runs.indexOf(run));
  // What another run burns on a sheet of its own is other stock.
  const own = ownSheet(job, run);
  const onSame = earlier.filter((other) => ownSheet(job, other) === own);
  const used = new Set(
    onSame.flatMap((other) => [...areasByMaterial(prepareJob(job, shop, { runId: other.id })).keys()]),
  );
  const unpriced = pricing.machines[machine.id] === undefined ? [machine.name] : [];
  const minutes = (plan.timeS * copies) / 60;
  const parts: PricePart[] = [
    {
      kind: 'machine',
      what: `${machine.name}, ${minutes.toFixed(1)} min`,
      amount: minutes * (pricing.machines[machine.id] ?? 0),
    },
  ];
  for (const [id, { name, mm2 }] of areasByMaterial(prepared)) {
    if (used.has(id)) continue;
    const sheets = pricing.stockBy === 'sheet' ? bySheet(prepared, shop, id) : null;
    if (!sheets && pricing.materials[id] === undefined) unpriced.push(name);
    parts.push(
      sheets ?? {
        kind: 'stock',
        what: `${name}, ${((mm2 * copies) / 100).toFixed(0)} cm²`,
        amount: ((mm2 * copies) / 1e6) * (pricing.materials[id] ?? 0),
      },
    );
  }
  if (earlier.length === 0) parts.push({ kind: 'fee', what: 'Setting up', amount: pricing.setUp });
  parts.push({ kind: 'fee', what: 'Each run', amount: pricing.perRun });
  const cents = parts.map((part) => ({ ...part, amount: inCents(part.amount) }));
  const sum = () => inCents(cents.reduce((total, { amount }) => total + amount, 0));
  const minimum = inCents(pricing.minimum);
  if (earlier.length === 0 && sum() < minimum)
    cents.push({ kind: 'fee', what: 'Up to the minimum', amount: inCents(minimum - sum()) });
  const total = roundedTo(sum(), pricing.rounding);
  cents.push({ kind: 'fee', what: 'Rounded up', amount: inCents(total - sum()) });
  return { parts: cents.filter(({ amount }) => amount > 0), total, unpriced: isCharging(pricing) ? unpriced : [] };
}

/** Whether a shop charges for anything at all. */
function isCharging({ setUp, perRun, minimum, machines, materials }: Pricing): boolean {
  return [setUp, perRun, minimum, ...Object.values(machines), ...Object.values(materials)].some((amount) => amount > 0);
}

/** What the used sheets of a material cost; null where one of them has no price. */
function bySheet(prepared: PreparedJob, { materials }: Pick<Shop, 'materials'>, materialId: string): PricePart | null {
  const material = materials.find(({ id }) => id === materialId);
  const taken = sheetsUsed(prepared)
    .filter((sheet) => sheet.materialId === materialId)
    .map((sheet) => stockOf(material?.stock, sheet));
  const prices = taken.flatMap((entry) => entry?.price ?? []);
  if (!material || prices.length === 0 || prices.length < taken.length) return null;
  const [first] = taken;
  const what = taken.length === 1 ? `a sheet ${first?.width} × ${first?.height} mm` : `${taken.length} sheets`;
  return { kind: 'stock', what: `${material.name}, ${what}`, amount: prices.reduce((sum, price) => sum + price, 0) };
}

/** The sheets on which something burns in a run; what lies beside them all burns on the first. */
export function sheetsUsed({ sheets, layers }: PreparedJob): Sheet[] {
  const items = layers.flatMap(({ burns, placed }) => (burns ? placed.map(({ item }) => item) : []));
  const used = new Set(items.map((item) => sheetUnder(sheets, item) ?? sheets[0]));
  return sheets.filter((sheet) => used.has(sheet));
}

/** The area in mm² that encloses what burns on each material, by its id. */
function areasByMaterial({ layers }: PreparedJob): Map<string, { name: string; mm2: number }> {
  const areas = new Map<string, { name: string; mm2: number }>();
  const materials = new Set(layers.flatMap(({ burns, material }) => (burns && material ? [material] : [])));
  for (const material of materials) {
    const items = layers
      .filter(({ burns, material: stock }) => burns && stock === material)
      .flatMap(({ placed }) => placed.map(({ item }) => item));
    const bounds = boundsOfAll(items);
    if (!isEmpty(bounds)) areas.set(material.id, { name: material.name, mm2: boxWidth(bounds) * boxHeight(bounds) });
  }
  return areas;
}

/** Rounded up to whole steps; to hundredths where there is no step. */
function roundedTo(amount: number, step: number): number {
  return inCents(step > 0 ? Math.max(0, Math.ceil(amount / step - 1e-9)) * step : amount);
}

function inCents(amount: number): number {
  return Math.round(amount * 100) / 100;
}
