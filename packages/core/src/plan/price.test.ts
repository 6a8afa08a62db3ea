import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { firstRun } from '../document/run.ts';
import { addRun } from '../edits/layers.ts';
import { box, item, jobWith, line, shop } from '../fixtures/shop.ts';
import { freeOfCharge, NotAPriceList, type Pricing, pricingFromJson } from '../recipes/book/pricing.ts';
import { planJob } from './plan.ts';
import { prepareJob } from './prepare.ts';
import { priceOf, sheetsUsed } from './price.ts';

const list: Pricing = {
  currency: '€',
  setUp: 2,
  perRun: 0.5,
  minimum: 0,
  rounding: 0,
  machines: { m: 0.6 },
  materials: { ply: 20 },
};
const plate = item(box(10, 10, 200, 100), 'cut');
const mark = item(line(20, 20, 120, 20), 'score');
const priced = (job = jobWith([plate, mark]), pricing = list, runId = 'run-1') => {
  const prepared = prepareJob(job, shop, { runId });
  const plan = planJob(prepared);
  return { plan, price: priceOf(plan, prepared, shop, pricing) };
};

describe('the price of a run', () => {
  test('is the machine’s minutes, the stock by area, setting up and the fee', () => {
    const { plan, price } = priced();
    const minutes = (plan.timeS / 60) * 0.6;
    expect(price.parts.map(({ amount }) => amount)).toEqual(
      [minutes, 0.02 * 20, 2, 0.5].map((x) => Math.round(x * 100) / 100),
    );
    expect(price.total).toBeCloseTo(minutes + 0.4 + 2.5, 2);
  });

  test('what has no price is named, and no gift; a price of 0 is one; a shop that charges nothing has no prices', () => {
    const unpriced = (change: Partial<Pricing>) => priced(undefined, { ...list, ...change }).price.unpriced;
    expect(unpriced({})).toEqual([]);
    expect(unpriced({ materials: {} })).toEqual(['Plywood']);
    expect(unpriced({ materials: { ply: 0 }, machines: {} })).toEqual(['Test machine']);
    expect(unpriced({ materials: {}, machines: {} })).toEqual(['Test machine', 'Plywood']);
    expect(unpriced({ ...freeOfCharge })).toEqual([]);
    expect(unpriced({ ...freeOfCharge, minimum: 1 })).toEqual(['Test machine', 'Plywood']);
    // By the sheet, in stock without a price there, and without one by the area.
    expect(unpriced({ stockBy: 'sheet', materials: {} })).toEqual(['Plywood']);
    const empty = jobWith([]);
    expect(priced(empty, { ...list, machines: {} }).price).toEqual({ parts: [], total: 0, unpriced: [] });
  });

  test('rounds up in steps, and is the minimum at least', () => {
    const exact = priced().price.total;
    fc.assert(
      fc.property(
        fc.double({ min: 0.05, max: 5, noNaN: true }),
        fc.double({ min: 0, max: 50, noNaN: true }),
        (rounding, minimum) => {
          const { total } = priced(undefined, { ...list, rounding, minimum }).price;
          expect(total).toBeGreaterThanOrEqual(Math.max(exact, minimum) - 0.011);
          expect(total).toBeLessThanOrEqual(Math.max(exact, minimum) + rounding + 0.011);
        },
      ),
    );
    expect(priced(undefined, { ...list, minimum: 30, rounding: 0.1 }).price.total).toBe(30);
  });

  test('adds up to the cent, part by part, whatever the shop charges', () => {
    const charge = fc.double({ min: 0, max: 40, noNaN: true });
    fc.assert(
      fc.property(
        charge,
        charge,
        charge,
        charge,
        fc.constantFrom(0, 0.05, 0.5, 3),
        (setUp, perRun, minute, m2, rounding) => {
          const pricing = {
            ...list,
            setUp,
            perRun,
            minimum: 7 * m2,
            rounding,
            machines: { m: minute },
            materials: { ply: m2 },
          };
          const { parts, total } = priced(undefined, pricing).price;
          const inCents = parts.map(({ amount }) => Math.round(amount * 100));
          expect(parts.map(({ amount }) => amount)).toEqual(inCents.map((cents) => cents / 100));
          expect(inCents.reduce((sum, cents) => sum + cents, 0)).toBe(Math.round(total * 100));
        },
      ),
    );
  });

  test('says what each part is for, also what is missing to the minimum; just the minimum is enough', () => {
    const { plan, price } = priced();
    const minutes = (plan.timeS / 60).toFixed(1);
    // Long enough for a minute of other than 60 s to show.
    const long = priced(jobWith(Array.from({ length: 30 }, (_, i) => item(box(10 + i, 10, 200, 100), 'cut'))));
    expect(long.plan.timeS).toBeGreaterThan(600);
    expect(long.price.parts[0].what).toBe(`Test machine, ${(long.plan.timeS / 60).toFixed(1)} min`);
    expect(price.parts.map(({ what }) => what)).toEqual([
      `Test machine, ${minutes} min`,
      'Plywood, 200 cm²',
      'Setting up',
      'Each run',
    ]);
    const sum = price.parts.reduce((total, { amount }) => total + amount, 0);
    const upTo = (minimum: number) => priced(undefined, { ...list, minimum }).price.parts.slice(4);
    expect(upTo(sum)).toEqual([]);
    expect(upTo(sum + 3)).toEqual([{ kind: 'fee', what: 'Up to the minimum', amount: expect.closeTo(3, 9) }]);
  });

  test('rounds up to whole steps, an exact one staying, and to hundredths where there is none', () => {
    const only = (perRun: number, rounding: number) =>
      priced(undefined, { ...freeOfCharge, perRun, rounding }).price.total;
    expect([only(2.5, 0.5), only(2.51, 0.5), only(0.3, 0.1), only(7, 5)]).toEqual([2.5, 3, 0.3, 10]);
    expect([only(2.504, 0), only(2.506, 0)]).toEqual([2.5, 2.51]);
  });

  test('charges the sheets that something burns on; what lies beside all of them burns on the first', () => {
    const [ply] = shop.materials;
    const sheet = (id: string, x: number) => ({ id, materialId: ply.id, x, y: 0, width: 100, height: 100, margin: 0 });
    const sheets = [sheet('a', 0), sheet('b', 150), sheet('c', 300)];
    const usedBy = (...xs: number[]) => {
      const items = xs.map((x) => item(box(x, 10, 20), 'cut'));
      const prepared = prepareJob({ ...jobWith(items), sheets }, shop);
      return sheetsUsed(prepared).map(({ id }) => id);
    };
    expect([usedBy(10, 40), usedBy(310, 160), usedBy(500), usedBy(310, 500)]).toEqual([
      ['a'],
      ['b', 'c'],
      ['a'],
      ['a', 'c'],
    ]);
    const stock = [{ id: 'x', width: 100, height: 100, count: 4, price: 3 }];
    const stocked = { ...shop, materials: [{ ...ply, stock }, ...shop.materials.slice(1)] };
    const two = { ...jobWith([item(box(10, 10, 20), 'cut'), item(box(160, 10, 20), 'cut')]), sheets };
    const prepared = prepareJob(two, stocked);
    expect(priceOf(planJob(prepared), prepared, stocked, { ...list, stockBy: 'sheet' }).parts[1]).toEqual({
      kind: 'stock',
      what: 'Plywood, 2 sheets',
      amount: 6,
    });
  });

  test('charges stock, setting up and the minimum once a job', () => {
    const job = addRun(jobWith([plate, mark]), { ...firstRun, id: 'b', name: 'B', off: ['cut'] });
    const { plan, price } = priced(job, { ...list, minimum: 100 }, 'b');
    expect(price.total).toBeCloseTo((plan.timeS / 60) * 0.6 + 0.5, 2);
    expect(price.parts.map(({ what }) => what)).toEqual([expect.stringMatching(/ min$/), 'Each run']);
  });

  test('charges whole sheets where the shop does and knows their price, else the area', () => {
    const [ply] = shop.materials;
    const sheet = { id: 's', materialId: ply.id, x: 0, y: 0, width: 420, height: 360, margin: 3 };
    const job = { ...jobWith([plate]), sheets: [sheet] };
    const priceWith = (price: number | null, stockBy: 'area' | 'sheet' = 'sheet') => {
      const stock = [{ id: 'a', width: 360, height: 420, count: 4, price }];
      const stocked = { ...shop, materials: [{ ...ply, stock }, ...shop.materials.slice(1)] };
      const prepared = prepareJob(job, stocked);
      return priceOf(planJob(prepared), prepared, stocked, { ...list, stockBy }).parts[1];
    };
    expect(priceWith(7.2)).toEqual({ kind: 'stock', what: `${ply.name}, a sheet 360 × 420 mm`, amount: 7.2 });
    expect(priceWith(null).what).toContain('cm²');
    expect(priceWith(7.2, 'area').what).toContain('cm²');
  });

  test('of nothing is nothing, and of a shop that charges nothing too', () => {
    expect(priced(jobWith([]), { ...list, minimum: 9 }).price).toEqual({ parts: [], total: 0, unpriced: [] });
    expect(priced(undefined, freeOfCharge).price).toEqual({ parts: [], total: 0, unpriced: [] });
  });
});

test.each<[string, unknown, string]>([
  ['nothing', null, 'is missing'],
  ['a price below 0', { ...list, setUp: -1 }, 'setUp must be a number from 0'],
  ['a machine’s price that is text', { ...list, machines: { m: 'much' } }, 'machines: “m” must be a number'],
  ['no currency', { ...list, currency: 3 }, 'currency must be text'],
  ['no materials', { ...list, materials: null }, 'materials is missing'],
])('%s is no price list', (_, json, sentence) => {
  expect(() => pricingFromJson(json)).toThrow(NotAPriceList);
  expect(() => pricingFromJson(json)).toThrow(sentence);
});

test('a price list from JSON is the one it was', () => {
  expect(pricingFromJson(JSON.parse(JSON.stringify(list)))).toEqual(list);
});
