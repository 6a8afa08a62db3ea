import { describe, expect, test } from '@jest/globals';
import { type CardWish, cardLayerId } from '../../document/card.ts';
import { addCard } from '../../edits/cards.ts';
import { readProgram } from '../../fixtures/program-reader.ts';
import { box, item, jobWith, shop } from '../../fixtures/shop.ts';
import { pathBounds } from '../../geometry/paths/path.ts';
import type { Machine } from '../../machine/machine.ts';
import { burntOperations, fillsAreas } from '../../operations/operations.ts';
import { planJob, stepTitle } from '../../plan/plan.ts';
import { prepareJob } from '../../plan/prepare.ts';
import { cardKinds, cardWish } from '../../recipes/cards/card-wish.ts';
import { cardLayers, cellName, layCard } from '../../recipes/cards/test-card.ts';
import { writeGcode } from './write.ts';

const able: Machine = { ...shop.machines[0], leastPower: 4, focus: { lowest: -10, highest: 20, speed: 8 } };
const book = { ...shop, machines: [able] };
const [material] = shop.materials;

/** A job in which a card lies, and nothing else but a square that no card knows of. */
function jobWithCard(wish: CardWish) {
  const card = layCard(wish);
  const items = card.cells.map(({ key, x, y, fill }) =>
    item(box(20 + x, 20 + y, wish.cellMm), wish.operation, {
      pinned: cardLayerId('one', key),
      groupId: 'card',
      ...(fill ? { paint: { stroke: null, strokeWidthMm: 0, fill } } : {}),
    }),
  );
  const laid = { id: 'one', runId: 'card-run', wish, materialId: material.id, thicknessMm: 3, marks: {}, best: null };
  const group = { id: 'card', name: 'Card', parentId: null };
  const before = jobWith([item(box(400, 200, 30), 'cut')]);
  return { card, job: addCard(before, laid, cardLayers(card, wish, 'one'), items, group) };
}

describe('a test card burns', () => {
  test.each(
    burntOperations.flatMap((operation) => cardKinds(operation).map(({ name, id }) => [name, operation, id] as const)),
  )('%s, %s: alone, in its order, each cell with its very settings in every pass', (_, operation, kind) => {
    const { wish } = cardWish(book, { material }, able, operation, kind);
    const { card, job } = jobWithCard(wish);
    const plan = planJob(prepareJob(job, book, { runId: 'card-run' }));
    expect(plan.steps.map(({ layerId }) => layerId)).toEqual(card.cells.map(({ key }) => cardLayerId('one', key)));
    const burns = readProgram([...writeGcode(plan, 'card')]);
    const ascii = (title: string) => title.replaceAll('·', '-');
    card.cells.forEach((cell, i) => {
      const { settings } = cell;
      const title = ascii(stepTitle(plan.steps[i]));
      expect(title).toContain(ascii(cellName(wish, card, cell)));
      const own = burns.filter((burn) => burn.title === title);
      expect([...new Set(own.map(({ s }) => s))]).toEqual([Number((settings.powerPercent * 10).toFixed(1))]);
      expect([...new Set(own.map(({ f }) => f))]).toEqual([Number((settings.speedMmPerS * 60).toFixed(2))]);
      expect([...new Set(own.map(({ z }) => z))]).toEqual([settings.focusMm]);
      const lit = own.reduce((sum, burn) => sum + burn.lit, 0);
      if (fillsAreas(operation)) {
        const rows = wish.cellMm / settings.lineSpacingMm;
        const share = cell.fill ? 1 - Number.parseInt(cell.fill.slice(1, 3), 16) / 255 : 1;
        expect(Math.abs(lit / wish.cellMm / settings.passes - share * rows)).toBeLessThan(1.01);
      } else {
        expect(lit).toBeCloseTo(4 * wish.cellMm * settings.passes, 6);
      }
      const { minX, maxX } = pathBounds(box(20 + cell.x, 0, wish.cellMm));
      const xs = own.map(({ x }) => x);
      // Dots of greys stand over by less than half of one.
      const over = cell.fill ? settings.lineSpacingMm / 2 : 1e-9;
      expect(Math.min(...xs)).toBeGreaterThanOrEqual(minX - over);
      expect(Math.max(...xs)).toBeLessThanOrEqual(maxX + over);
    });
  });

  test('and no other run burns any of it', () => {
    const { wish } = cardWish(book, { material }, able, 'cut', 'power-speed');
    const { job } = jobWithCard(wish);
    const plan = planJob(prepareJob(job, book));
    expect(plan.steps).toHaveLength(1);
    expect(Math.min(...plan.steps[0].moves.xs)).toBe(400);
  });
});
