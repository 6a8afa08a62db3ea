import { expect, test } from '@jest/globals';
import { type CardWish, cardLayerId } from '../drawing/card.ts';
import { box, item, jobWith, shop } from '../fixtures/shop.ts';
import { pathBounds } from '../geometry/path.ts';
import { cardLayers, layCard } from '../recipes/test-card.ts';
import { planJob } from './plan.ts';
import { prepareJob } from './prepare.ts';

const wish: CardWish = {
  operation: 'cut',
  across: { setting: 'speedMmPerS', from: 5, to: 25, steps: 5 },
  down: { setting: 'powerPercent', from: 40, to: 90, steps: 3 },
  rest: { kerfMm: 0 },
  words: { powerPercent: 8, speedMmPerS: 150 },
  cellMm: 8,
  gapMm: 2,
};

test('a test card’s layers burn in its order with exactly its settings, the words first', () => {
  const card = layCard(wish);
  const layers = cardLayers(card, wish, 'one');
  expect(layers[0]).toMatchObject({ id: 'card one words', operation: 'score', settings: wish.words });
  expect(layers.map(({ rank }) => rank)).toEqual(layers.map((_, i) => i));
  expect(layers[1]).toMatchObject({ name: '40 %, 25 mm/s', settings: { powerPercent: 40, speedMmPerS: 25 } });
  const cells = card.cells.map(({ key, x, y }) =>
    item(box(20 + x, 20 + y, 8), 'cut', { pinned: cardLayerId('one', key) }),
  );
  const job = { ...jobWith(cells), layers };
  const steps = planJob(prepareJob(job, shop)).steps;
  expect(steps.map(({ layerId }) => layerId)).toEqual(card.cells.map(({ key }) => cardLayerId('one', key)));
  steps.forEach(({ settings, moves }, i) => {
    expect(settings).toEqual(card.cells[i].settings);
    const xs = [...moves.xs];
    const { minX, maxX } = pathBounds(box(20 + card.cells[i].x, 0, 8));
    expect([Math.min(...xs), Math.max(...xs)]).toEqual([minX, maxX]);
  });
});
