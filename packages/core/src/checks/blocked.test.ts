import { expect, test } from '@jest/globals';
import type { Item } from '../document/item.ts';
import { box, item, jobWith, line, shop } from '../fixtures/shop.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import { checkJob } from './check.ts';

/** The sheet lies at 50, 0; a place of 40 × 40 mm on it is blocked, from 150, 100 on the bed. */
const sheet = { ...jobWith([]).sheets[0], x: 50, blocked: [[100, 100, 140, 100, 140, 140, 100, 140]] };
const found = (...items: Item[]) => {
  const prepared = prepareJob(jobWith(items, { sheets: [sheet] }), shop);
  return checkJob(prepared, planJob(prepared)).filter(({ code }) => code === 'on-blocked');
};

test('what lies on a blocked place is found: over its edge, within it, or around it', () => {
  for (const [x, y, side] of [
    [140, 90, 20],
    [160, 110, 5],
    [140, 90, 80],
  ]) {
    const piece = item(box(x, y, side), 'cut');
    const [finding] = found(piece, item(box(300, 10, 20), 'cut'));
    expect([x, finding?.itemIds]).toEqual([x, [piece.id]]);
    expect(finding.message).toMatch(/^1 item lies on a blocked place of the sheet/);
  }
  expect(found(item(box(100, 100, 50), 'cut'))).toEqual([]);
  expect(found(item(box(300, 10, 20), 'cut'))).toEqual([]);
});

test('a piece with a hole may lie around it; with what is in it, it is one piece', () => {
  const frame = item(box(140, 90, 80), 'cut');
  const hole = item(box(148, 98, 44), 'cut');
  expect(found(frame, hole)).toEqual([]);
  const [finding] = found(frame, item(box(148, 98, 30), 'cut'), item(line(200, 95, 210, 95), 'score'));
  expect(finding.itemIds).toHaveLength(3);
});

test('what is only marked is found as far as its lines or its areas lie there', () => {
  expect(found(item(line(100, 120, 200, 120), 'score'))).toHaveLength(1);
  expect(found(item(line(100, 50, 200, 50), 'score'))).toEqual([]);
  expect(found(item(box(140, 90, 80), 'score'))).toEqual([]);
  expect(found(item(box(140, 90, 80), 'engrave'))).toHaveLength(1);
});

test('a hole of the sheet’s outline is no other', () => {
  const outline = [
    [0, 0, 500, 0, 500, 300, 0, 300],
    [100, 100, 140, 100, 140, 140, 100, 140],
  ];
  const { blocked: _, ...plain } = sheet;
  const prepared = prepareJob(jobWith([item(box(140, 90, 80), 'cut')], { sheets: [{ ...plain, outline }] }), shop);
  expect(checkJob(prepared, planJob(prepared)).map(({ code }) => code)).toContain('on-blocked');
});
