import { describe, expect, test } from '@jest/globals';
import { setBurning } from '../edits/layers.ts';
import { box, item, jobWith, shop } from '../fixtures/shop.ts';
import { piecesBySize } from './pieces.ts';
import { planJob } from './plan.ts';
import { prepareJob } from './prepare.ts';

const square = (x: number, y: number, size: number) => item(box(x, y, size), 'cut');

describe('when pieces come free', () => {
  const hole = square(30, 30, 10);
  const items = [square(10, 10, 100), hole, square(200, 10, 30), square(240, 10, 30)];
  const settings = { cut: { kerfMm: 0, passes: 2 } };

  test('is when all passes over their own outline are done: what lies in them first', () => {
    const prepared = prepareJob(jobWith(items, { settings }), shop);
    const plan = planJob(prepared);
    const [plate, small, waste] = piecesBySize(prepared, plan.cuts);
    expect([plate, small, waste].map(({ freeAtS }) => freeAtS.length)).toEqual([1, 2, 1]);
    const [inner, outer] = plan.steps;
    // The only inner line: when its step ends. The last of the outer ones: when that ends, but for the way back.
    expect(waste.freeAtS[0]).toBeCloseTo(inner.timeS, 6);
    const last = Math.max(...plate.freeAtS, ...small.freeAtS);
    expect(last).toBeCloseTo(inner.timeS + outer.timeS, 6);
    expect(Math.min(...plate.freeAtS, ...small.freeAtS)).toBeGreaterThan(waste.freeAtS[0]);
    expect(small.freeAtS).toEqual(small.freeAtS.toSorted((a, b) => a - b));
    expect(new Set([...plate.freeAtS, ...small.freeAtS]).size).toBe(3);
  });

  test('is the end of the step where edges are cut once for both sides', () => {
    const touching = [square(10, 10, 30), square(40, 10, 30)];
    const job = setBurning(jobWith(touching, { settings }), 'cut', { sharedEdges: 'once' });
    const prepared = prepareJob(job, shop);
    const plan = planJob(prepared);
    expect(piecesBySize(prepared, plan.cuts)[0].freeAtS).toEqual([plan.steps[0].timeS, plan.steps[0].timeS]);
  });

  test('is never where tabs hold them, and not known without a plan', () => {
    const held = jobWith(items, { settings: { cut: { ...settings.cut, tabs: 3, tabWidthMm: 1 } } });
    const prepared = prepareJob(held, shop);
    const sizes = piecesBySize(prepared, planJob(prepared).cuts);
    expect(sizes.filter(({ isHeld }) => isHeld).flatMap(({ freeAtS }) => freeAtS)).toEqual([]);
    expect(sizes.some(({ isHeld }) => isHeld)).toBe(true);
    expect(piecesBySize(prepareJob(jobWith(items), shop)).flatMap(({ freeAtS }) => freeAtS)).toEqual([]);
  });
});
