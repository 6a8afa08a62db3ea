import { describe, expect, test } from '@jest/globals';
import type { Item } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { outlineOf } from '../document/shapes.ts';
import { placeTabs } from '../edits/layers.ts';
import { box, item, jobWith, shop } from '../fixtures/shop.ts';
import { appendPath, type Path, PathBuilder } from '../geometry/paths/path.ts';
import { type Mend, mended } from '../mends/mend.ts';
import { piecesBySize } from '../plan/pieces.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import { checkJob } from './check.ts';

const ring = (x: number, y: number, r: number): Path => outlineOf({ kind: 'ellipse', cx: x, cy: y, rx: r, ry: r });
const together = (...paths: Path[]): Path => {
  const builder = new PathBuilder();
  for (const path of paths) appendPath(builder, path, true);
  return builder.build();
};
const plate = item(box(20, 20, 200, 100), 'cut');

function looseIn(job: JobDocument) {
  const prepared = prepareJob(job, shop);
  return checkJob(prepared, planJob(prepared)).filter(({ code }) => code === 'loose-middle');
}
const pieces = (job: JobDocument) =>
  piecesBySize(prepareJob(job, shop)).map(({ count, isWaste }) => `${count} ${isWaste ? 'waste' : 'piece'}`);

describe('the middle of an O in a stencil', () => {
  test.each([
    ['one item', [item(together(ring(80, 70, 20), ring(80, 70, 12)), 'cut')]],
    ['two items', [item(ring(80, 70, 20), 'cut'), item(ring(80, 70, 12), 'cut')]],
  ] as [string, Item[]][])('is held by bridges: %s', (_, letter) => {
    const job = jobWith([plate, ...letter]);
    expect(pieces(job)).toEqual(['1 piece', '1 piece', '1 waste']);
    const [loose] = looseIn(job);
    expect(loose).toMatchObject({ level: 'notes', mends: [{ words: 'Bridge it, 1 mm wide', isSafe: false }] });
    const after = mended(job, loose.mends?.[0] as Mend);
    expect(looseIn(after)).toEqual([]);
    // Two halves of the ring fall out, the middle stays with the plate.
    expect(pieces(after)).toEqual(['1 piece', '2 waste']);
    const [half] = piecesBySize(prepareJob(after, shop)).filter(({ isWaste }) => isWaste);
    expect([half.widthMm, half.heightMm]).toEqual([19.5, expect.closeTo(39.99, 1)]);
  });
});

test('both middles of a B are bridged at once', () => {
  const letter = item(together(box(60, 40, 30, 60), box(66, 46, 16, 18), box(66, 74, 16, 20)), 'cut');
  const job = jobWith([plate, letter]);
  const [loose] = looseIn(job);
  expect(loose.message).toContain('2 pieces lie within a hole');
  const after = mended(job, loose.mends?.[0] as Mend);
  expect(looseIn(after)).toEqual([]);
  expect(pieces(after).at(0)).toBe('1 piece');
});

test('a hole, a plate within nothing, and a middle that is held are none', () => {
  const [hole, middle] = [item(ring(80, 70, 20), 'cut'), item(ring(80, 70, 12), 'cut')];
  expect(looseIn(jobWith([plate, hole]))).toEqual([]);
  expect(looseIn(jobWith([hole, middle]))).toEqual([]);
  const held = placeTabs(jobWith([plate, hole, middle]), [{ itemId: middle.id, subpath: 0, at: [0.5] }]);
  expect(looseIn(held)).toEqual([]);
});
