import { describe, expect, test } from '@jest/globals';
import type { BuiltThing } from '../document/built.ts';
import { boundsOf, type Item, pathOf } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { jobFromJson, jobToJson } from '../document/json.ts';
import { changeItems } from '../edits/items.ts';
import { thicknessBy } from '../fit/ties.ts';
import { box, item, jobWith, shop } from '../fixtures/shop.ts';
import { boxCentre, boxesMeet, growBox } from '../geometry/paths/box.ts';
import { flatten } from '../geometry/paths/flatten.ts';
import { multiply, rotation, scaling, translation } from '../geometry/paths/matrix.ts';
import { pathBounds } from '../geometry/paths/path.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import { guessedFits } from '../recipes/book/figures.ts';
import { answerOf, followBuilt } from './follow.ts';
import { drawnAs } from './part-items.ts';
import { partsIn, putDown, settleParts } from './put-down.ts';
import { reportOfBuilt } from './report.ts';

const thicknessOf = thicknessBy(shop.materials);
let made = 0;
const newId = () => `new-${++made}`;

function thingOf(numbers: BuiltThing['numbers']): BuiltThing {
  return { id: 'box', builder: 'joined-box', numbers, thicknessMm: 3, plays: guessedFits };
}

/** A job with a box on a sheet of 600 by 400, its stock 3 mm thick as measured. */
function jobWithBox(numbers: BuiltThing['numbers'] = {}, others: readonly Item[] = []) {
  const thing = thingOf({ width: 60, depth: 50, height: 40, ...numbers });
  const answer = answerOf(thing);
  if (!answer?.ok) throw new Error('The box cannot be built');
  const [sheet] = jobWith([]).sheets;
  const empty: JobDocument = { ...jobWith([...others]), sheets: [{ ...sheet, thicknessMm: 3 }] };
  const looks = { cut: { paint: drawnAs('cut'), pinned: 'cut' }, score: { paint: drawnAs('score'), pinned: 'score' } };
  const where = { looks, x: 10, y: 10, rowMm: 300, gapMm: 4 };
  const { job, ids } = putDown(empty, thing, 'Joined box', answer.built, where, newId);
  return { job, ids, figures: reportOfBuilt(answer.built), thing };
}

const follow = (before: JobDocument, after: JobDocument) => followBuilt(before, after, thicknessOf, newId);
const measured = (job: JobDocument, thicknessMm: number) => ({
  ...job,
  sheets: job.sheets.map((sheet) => ({ ...sheet, thicknessMm })),
});
const withNumbers = (job: JobDocument, numbers: BuiltThing['numbers']) => ({
  ...job,
  built: job.built.map((thing) => ({ ...thing, numbers: { ...thing.numbers, ...numbers } })),
});
const cutOf = (job: JobDocument, partId: string) =>
  partsIn(job, 'box').find(({ part }) => part.partId === partId && part.what === 'cut') as Item;
const middleOf = (entry: Item) => boxCentre(boundsOf(entry));

describe('parts that are put down', () => {
  test('are items of a group, named, on their layers, apart from each other, and burn as long as the figures say', () => {
    const { job, ids, figures } = jobWithBox();
    const parts = partsIn(job, 'box');
    expect(parts.map(({ id }) => id)).toEqual(ids);
    expect(job.drawing.groups).toEqual([{ id: 'box', name: 'Joined box', parentId: null }]);
    const cuts = parts.filter(({ part }) => part.what === 'cut');
    expect(cuts.map(({ name }) => name)).toEqual(['Bottom', 'Front', 'Back', 'Left', 'Right']);
    expect(parts.map(({ part, pinned }) => part.what === pinned)).not.toContain(false);
    cuts.forEach((a, i) => {
      for (const b of cuts.slice(i + 1))
        expect(boxesMeet(growBox(boundsOf(a), 1.9), growBox(boundsOf(b), 1.9))).toBe(false);
    });
    const plan = planJob(prepareJob(job, shop));
    const cut = plan.steps.filter(({ operation }) => operation === 'cut').reduce((sum, { litMm }) => sum + litMm, 0);
    expect(cut).toBeCloseTo(figures.cutMm, 3);
  });

  test('are kept in the document', () => {
    const { job } = jobWithBox({ lid: 'slides', letters: true });
    expect(jobFromJson(JSON.parse(JSON.stringify(jobToJson(job))))).toEqual(job);
  });
});

describe('a built thing follows', () => {
  test('the thickness of its sheet: every slot, and what is engraved on a part stays on it', () => {
    const engraving = item(box(0, 0, 8), 'engrave');
    const { job } = jobWithBox({ dividersAcross: 2, lid: 'closed' });
    const { x, y } = middleOf(cutOf(job, 'front'));
    const art = { ...engraving, id: 'art', matrix: translation(x + 5, y) };
    const withArt = { ...job, drawing: { ...job.drawing, items: [...job.drawing.items, art] } };
    const now = follow(withArt, measured(withArt, 3.4));
    const widths = (of4: string) =>
      flatten(pathOf(cutOf(now, of4)))
        .slice(1)
        .map(
          ({ points }) =>
            Math.max(...points.filter((_, i) => i % 2 === 0)) - Math.min(...points.filter((_, i) => i % 2 === 0)),
        );
    expect(widths('left')).toEqual([3.45, 3.45].map((mm) => expect.closeTo(mm, 9)));
    const { minX, maxX } = pathBounds(pathOf(cutOf(now, 'front')));
    expect(maxX - minX).toBeCloseTo(60 + 2 * 3.4, 9);
    const off = (entry: JobDocument) => {
      const [a, b] = [entry.drawing.items.find(({ id }) => id === 'art') as Item, cutOf(entry, 'front')].map(middleOf);
      return [a.x - b.x, a.y - b.y];
    };
    expect(off(now)).toEqual(off(withArt).map((mm) => expect.closeTo(mm, 9)));
    expect(now.built[0].thicknessMm).toBe(3.4);
    // Nothing else is touched where nothing changed.
    expect(follow(now, now)).toBe(now);
  });

  test('its numbers: dividers come and go, and nothing lies on another part', () => {
    const { job } = jobWithBox({ dividersAcross: 1 });
    const more = follow(job, withNumbers(job, { dividersAcross: 3, width: 140 }));
    const ids = (entry: JobDocument) =>
      partsIn(entry, 'box').flatMap(({ part }) => (part.what === 'cut' ? [part.partId] : []));
    expect(ids(more).filter((id) => id.startsWith('across'))).toEqual(['across-1', 'across-2', 'across-3']);
    const boxes = partsIn(more, 'box')
      .filter(({ part }) => part.what === 'cut')
      .map((entry) => growBox(boundsOf(entry), -1e-6));
    boxes.forEach((a, i) => {
      for (const b of boxes.slice(i + 1)) expect(boxesMeet(a, b)).toBe(false);
    });
    expect(
      pathBounds(pathOf(cutOf(more, 'across-1'))).maxX - pathBounds(pathOf(cutOf(more, 'across-1'))).minX,
    ).toBeCloseTo(146, 9);
    const fewer = follow(more, withNumbers(more, { dividersAcross: 0 }));
    expect(ids(fewer)).toEqual(['bottom', 'front', 'back', 'left', 'right']);
    // Letters lie where their parts do.
    for (const { part, matrix } of partsIn(more, 'box')) expect(matrix).toEqual(cutOf(more, part.partId).matrix);
  });

  test('a part stays where it was put, and turned as it was', () => {
    const { job } = jobWithBox();
    const { id } = cutOf(job, 'left');
    const turned = changeItems(job, new Set([id]), (entry) => ({
      ...entry,
      matrix: multiply(translation(300, 200), rotation(90)),
    }));
    const now = follow(job, turned);
    expect(now.built).toEqual(job.built);
    const thicker = follow(now, measured(now, 3.2));
    expect(cutOf(thicker, 'left').matrix).toEqual(cutOf(turned, 'left').matrix);
    const { minX, maxX, minY, maxY } = boundsOf(cutOf(thicker, 'left'));
    expect([maxX - minX, maxY - minY]).toEqual([expect.closeTo(43.2, 9), expect.closeTo(56.4, 9)]);
  });

  test('but not what cannot be made of the stock: it stays as it was last', () => {
    const { job } = jobWithBox({ measured: 'outside', height: 20 });
    const now = follow(job, measured(job, 30));
    expect(now.built).toEqual(job.built);
    expect(partsIn(now, 'box')).toEqual(partsIn(job, 'box'));
  });

  test('but not a part that was drawn otherwise or stretched by hand: that is its own', () => {
    const { job } = jobWithBox();
    const [bottom, front] = [cutOf(job, 'bottom'), cutOf(job, 'front')];
    const drawn = changeItems(job, new Set([bottom.id]), (entry) => ({
      ...entry,
      shape: { kind: 'path', path: box(0, 0, 20) },
    }));
    const stretched = changeItems(drawn, new Set([front.id]), (entry) => ({
      ...entry,
      matrix: multiply(entry.matrix, scaling(2, 1)),
    }));
    const now = follow(job, stretched);
    const left = partsIn(now, 'box').map(({ part }) => `${part.partId} ${part.what}`);
    expect(left).not.toContain('bottom cut');
    expect(left).not.toContain('front cut');
    expect(left).toContain('back cut');
    expect(now.drawing.items).toHaveLength(job.drawing.items.length);
    const thicker = follow(now, measured(now, 3.2));
    expect(thicker.drawing.items.find(({ id }) => id === bottom.id)).toEqual(
      now.drawing.items.find(({ id }) => id === bottom.id),
    );
  });
});

test('settled, parts are plain outlines; with the last of them the numbers go', () => {
  const { job, ids } = jobWithBox();
  const some = settleParts(job, new Set(ids.slice(0, 3)));
  expect(some.built).toHaveLength(1);
  const all = settleParts(some, new Set(ids));
  expect(all.built).toEqual([]);
  expect(all.drawing.items.map(pathOf)).toEqual(job.drawing.items.map(pathOf));
  expect(follow(job, measured(all, 3.3)).drawing).toEqual(all.drawing);
});
