import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { addRun } from '../drawing/layer-edits.ts';
import { firstRun } from '../drawing/run.ts';
import { box, item, jobWith, line, shop } from '../fixtures/shop.ts';
import { freeOfCharge, NotAPriceList, type Pricing, pricingFromJson } from '../recipes/pricing.ts';
import { planJob } from './plan.ts';
import { prepareJob } from './prepare.ts';
import { priceOf } from './price.ts';

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
      [minutes, 0.02 * 20, 2, 0.5].map((x) => expect.closeTo(x, 9)),
    );
    expect(price.total).toBeCloseTo(minutes + 0.4 + 2.5, 2);
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

  test('charges stock, setting up and the minimum once a job', () => {
    const job = addRun(jobWith([plate, mark]), { ...firstRun, id: 'b', name: 'B', off: ['cut'] });
    const { plan, price } = priced(job, { ...list, minimum: 100 }, 'b');
    expect(price.total).toBeCloseTo((plan.timeS / 60) * 0.6 + 0.5, 2);
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
    expect(priceWith(7.2)).toEqual({ what: `${ply.name}, a sheet 360 × 420 mm`, amount: 7.2 });
    expect(priceWith(null).what).toContain('cm²');
    expect(priceWith(7.2, 'area').what).toContain('cm²');
  });

  test('of nothing is nothing, and of a shop that charges nothing too', () => {
    expect(priced(jobWith([]), { ...list, minimum: 9 }).price).toEqual({ parts: [], total: 0 });
    expect(priced(undefined, freeOfCharge).price).toEqual({ parts: [], total: 0 });
  });
});

test.each<[string, unknown, string]>([
  ['nothing', null, 'is missing'],
  ['a price below 0', { ...list, setUp: -1 }, 'setting up must be a number'],
  ['a machine’s price that is text', { ...list, machines: { m: 'much' } }, 'machines “m” must be a number'],
  ['no currency', { ...list, currency: 3 }, 'the currency must be text'],
  ['no materials', { ...list, materials: null }, 'materials are missing'],
])('%s is no price list', (_, json, sentence) => {
  expect(() => pricingFromJson(json)).toThrow(NotAPriceList);
  expect(() => pricingFromJson(json)).toThrow(sentence);
});

test('a price list from JSON is the one it was', () => {
  expect(pricingFromJson(JSON.parse(JSON.stringify(list)))).toEqual(list);
});
