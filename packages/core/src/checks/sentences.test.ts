import { describe, expect, test } from '@jest/globals';
import type { Item } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { firstRun } from '../document/run.ts';
import type { Shape } from '../document/shape.ts';
import { hideItems } from '../edits/items.ts';
import { addRun, flipFill, orderSteps, setBurning, switchLayer } from '../edits/layers.ts';
import { box, item, jobWith, line, shop } from '../fixtures/shop.ts';
import { emptyPath } from '../geometry/paths/path.ts';
import { type Mend, mended } from '../mends/mend.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import type { FindingCode } from './catalogue.ts';
import { checkJob } from './check.ts';
import { finding } from './finding.ts';

/** What the checks say of a job with one code: level, sentence, items, layer. */
function said(job: JobDocument, code: FindingCode, of = shop) {
  const prepared = prepareJob(job, of);
  return checkJob(prepared, planJob(prepared))
    .filter((found) => found.code === code)
    .map(({ level, message, itemIds, layerId }) => [level, message, itemIds, layerId]);
}
const ids = (...items: Item[]) => items.map(({ id }) => id);
const cut = (x: number, y: number, size: number, more: Partial<Item> = {}) => item(box(x, y, size), 'cut', more);
const engraved = (x: number, y: number, size: number) => item(box(x, y, size), 'engrave');
const sound = cut(50, 50, 30);

test('a finding says places only where it has some', () => {
  expect(finding('off-bed', 'blocks', 'It is off.')).toEqual({
    code: 'off-bed',
    level: 'blocks',
    message: 'It is off.',
    itemIds: [],
    layerId: null,
  });
  const place = { minX: 0, minY: 0, maxX: 1, maxY: 1 };
  expect(finding('off-bed', 'blocks', 'It is off.', [sound], 'cut', [place])).toMatchObject({
    itemIds: [sound.id],
    layerId: 'cut',
    places: [place],
  });
});

describe('what is said, of one and of several', () => {
  test('of layers that are switched off', () => {
    const fold = item(line(55, 60, 75, 60), 'score');
    const off = switchLayer(jobWith([sound, fold]), 'score', false);
    expect(said(off, 'layer-off')).toEqual([
      ['notes', 'Score is switched off and is left out of this run.', [], 'score'],
    ]);
    const second = { ...firstRun, id: 'run-2', name: 'Second' };
    expect(said(addRun(off, second), 'layer-off')).toEqual([
      ['notes', 'Score burns in Second, not in Run 1.', [], 'score'],
    ]);
    const nowhere = addRun(off, { ...second, off: ['score'] });
    expect(said(nowhere, 'layer-off')).toEqual([
      ['notes', 'Score is switched off and is left out of every run.', [], 'score'],
    ]);
    expect(said(nowhere, 'layer-in-no-run')).toEqual([
      [
        'warns',
        '1 item on Score burns in none of the 2 runs. Put it in one, or on a Note or Guide layer.',
        ids(fold),
        'score',
      ],
    ]);
    const other = item(line(55, 70, 75, 70), 'score');
    const both = { ...nowhere, drawing: { ...nowhere.drawing, items: [sound, fold, other] } };
    expect(said(both, 'layer-in-no-run')).toEqual([
      [
        'warns',
        '2 items on Score burn in none of the 2 runs. Put them in one, or on a Note or Guide layer.',
        ids(fold, other),
        'score',
      ],
    ]);
  });

  test('of what burns after the cut around it', () => {
    const [outer, fold, more] = [
      cut(100, 100, 100),
      item(line(110, 150, 190, 150), 'score'),
      item(line(110, 160, 190, 160), 'score'),
    ];
    const turned = (items: Item[]) => orderSteps(jobWith(items), ['cut outer', 'score all']);
    expect(said(turned([outer, fold]), 'order-broken')).toEqual([
      [
        'warns',
        '1 item burns after the outline around it is cut: the piece may have shifted or dropped by then, and the burn lands beside its place. Put it before that cut in the burn strip.',
        ids(fold),
        null,
      ],
    ]);
    const [[, message, itemIds]] = said(turned([outer, fold, more]), 'order-broken') as [string, string, string[]][];
    expect(message).toMatch(/^2 items burn after the outline around them is cut: .* Put them before that cut/);
    expect(itemIds.toSorted()).toEqual(ids(fold, more).toSorted());
  });

  test('of engravings that cancel each other: those that enclose something, on layers that burn and do not unite', () => {
    const [one, two, three] = [engraved(60, 60, 10), engraved(60, 60, 10), engraved(60, 60, 10)];
    const job = jobWith([one, two, three, engraved(80, 60, 10)]);
    expect(said(job, 'fills-cancel')).toEqual([
      [
        'warns',
        '3 items on Engrave lie on each other exactly, and where two overlap neither burns. Remove one of each, or have overlaps on Engrave unite.',
        ids(one, two, three),
        'engrave',
      ],
    ]);
    expect(said(setBurning(job, 'engrave', { overlaps: 'unite' }), 'fills-cancel')).toEqual([]);
    expect(said(switchLayer(job, 'engrave', false), 'fills-cancel')).toEqual([]);
    // Another size, another place, and lines that enclose nothing are no twins.
    expect(said(jobWith([one, engraved(60, 60, 10.1), engraved(60.1, 60, 10)]), 'fills-cancel')).toEqual([]);
    const open = () => item(line(60, 60, 90, 60), 'engrave');
    expect(said(jobWith([one, open(), open()]), 'fills-cancel')).toEqual([]);
    expect(said(jobWith([sound, cut(50, 50, 30)]), 'fills-cancel')).toEqual([]);
  });

  test('of a border that is gone', () => {
    const [figure, border] = [engraved(60, 60, 10), cut(50, 50, 30)];
    const flipped = flipFill(jobWith([figure, border]), 'flip', ids(figure), border.id, 0);
    expect(said(flipped, 'border-gone')).toEqual([]);
    const gone = { ...flipped, drawing: { ...flipped.drawing, items: [figure] } };
    expect(said(gone, 'border-gone')).toEqual([
      [
        'warns',
        'Figure and ground are swapped within a border that is no longer there: the figures burn as they are. Choose another border, or let them be.',
        ids(figure),
        null,
      ],
    ]);
  });

  test('of what is hidden, and of pictures', () => {
    const [a, b] = [cut(100, 50, 10), cut(120, 50, 10)];
    const hidden = (...items: Item[]) => hideItems(jobWith([sound, a, b]), new Set(ids(...items)), true);
    const where = 'The Art drawer lists what is hidden and brings it in.';
    expect(said(hidden(a), 'hidden-parts')).toEqual([
      ['notes', `1 part is hidden and does not burn. ${where}`, ids(a), null],
    ]);
    expect(said(hidden(a, b), 'hidden-parts')).toEqual([
      ['notes', `2 parts are hidden and do not burn. ${where}`, ids(a, b), null],
    ]);
    const shape: Shape = { kind: 'picture', pictureId: 'p', width: 10, height: 10 };
    const picture = { ...item(box(0, 0, 1), null), shape, matrix: [1, 0, 0, 1, 60, 60] as const };
    expect(said(jobWith([sound, picture]), 'picture-not-burnt')).toEqual([
      ['warns', '1 picture is shown and does not burn: no layer burns its greys.', ids(picture), null],
    ]);
    expect(said(hideItems(jobWith([sound, picture]), new Set([picture.id]), true), 'picture-not-burnt')).toEqual([]);
    const job = jobWith([sound, picture]);
    const prepared = prepareJob(job, shop);
    const found = checkJob(prepared, planJob(prepared)).find(({ code }) => code === 'picture-not-burnt');
    expect(found?.mends?.map(({ words }) => words)).toEqual(['Burn its greys']);
    const burnt = mended(job, found?.mends?.[0] as Mend);
    expect(prepareJob(burnt, shop).meaning.placed.get('photo')).toMatchObject([{ item: { id: picture.id } }]);
  });

  test('of what lies off the sheet or near an edge', () => {
    const [off, far, over] = [cut(520, 50, 20), cut(550, 50, 20), cut(490, 50, 30)];
    const move = (many: boolean) => `Move ${many ? 'them' : 'it'}, or give the sheet its true size and place.`;
    expect(said(jobWith([sound, off]), 'off-sheet')).toEqual([
      ['warns', `1 item lies off the sheet and would burn the bed below. ${move(false)}`, ids(off), null],
    ]);
    expect(said(jobWith([off, far]), 'off-sheet')).toEqual([
      ['warns', `2 items lie off the sheet and would burn the bed below. ${move(true)}`, ids(off, far), null],
    ]);
    expect(said(jobWith([over, off]), 'off-sheet')).toEqual([
      ['warns', `2 items lie off the sheet and would burn the bed below. ${move(true)}`, ids(over, off), null],
    ]);
    expect(said(jobWith([over]), 'off-sheet')).toEqual([
      ['warns', `1 item lies over the edge of the sheet and would burn the bed below. ${move(false)}`, ids(over), null],
    ]);
    const [near, beside] = [cut(2, 50, 10), cut(2, 70, 10)];
    const sheet = { ...jobWith([]).sheets[0], x: -100, y: -100, width: 900, height: 900 };
    expect(said({ ...jobWith([near]), sheets: [sheet] }, 'into-margin')).toEqual([
      ['warns', '1 item comes within 5 mm of the edge of the 600 × 400 mm bed of Test machine.', ids(near), null],
    ]);
    const close = 'within 3 mm of the sheet’s edge, where stock is often bent or short.';
    const inside = (...items: Item[]) => ({
      ...jobWith(items),
      sheets: [{ ...sheet, x: 20, y: 20, width: 400, height: 300 }],
    });
    const [rim, rimToo] = [cut(21, 50, 10), cut(21, 70, 10)];
    expect(said(inside(rim), 'into-margin')).toEqual([['warns', `1 item comes ${close}`, ids(rim), null]]);
    expect(said(inside(rim, rimToo), 'into-margin')).toEqual([
      ['warns', `2 items come ${close}`, ids(rim, rimToo), null],
    ]);
    expect(said({ ...jobWith([near, beside]), sheets: [sheet] }, 'into-margin')).toMatchObject([
      ['warns', expect.stringMatching(/^2 items come within 5 mm/), ids(near, beside), null],
    ]);
  });

  test('of outlines that wait for what they follow', () => {
    const waiting = (stale: boolean) => {
      const shape: Shape = {
        kind: 'offset',
        sources: [sound.id],
        settings: {} as never,
        path: emptyPath,
        ...(stale ? { stale } : {}),
      };
      return { ...cut(100, 50, 10), shape };
    };
    const [one, two] = [waiting(true), waiting(true)];
    const wait = 'still being worked out after what they follow has changed. Wait a moment.';
    expect(said(jobWith([sound, one]), 'outline-waits')).toEqual([['blocks', `1 outline is ${wait}`, ids(one), null]]);
    expect(said(jobWith([sound, one, two, waiting(false)]), 'outline-waits')).toEqual([
      ['blocks', `2 outlines are ${wait}`, ids(one, two), null],
    ]);
  });

  test('of corners that the beam leaves round, where a hole’s corner keeps more than 0.1 mm of its stuff', () => {
    // A round beam stays (1/sin 45° − 1) · k/2 from a square corner: 0.124 mm of a kerf of 0.6, 0.083 mm of 0.4.
    const [outer, hole] = [cut(100, 100, 60), cut(120, 120, 20)];
    const job = (kerfMm: number) => ({ ...jobWith([outer, hole]), settings: { cut: { kerfMm } } });
    const prepared = prepareJob(job(0.6), shop);
    const found = checkJob(prepared, planJob(prepared)).find(({ code }) => code === 'sharp-corner');
    expect(found?.message).toMatch(/^In 4 inner corners the beam, being round, leaves up to 0\.12 mm\. /);
    expect([found?.level, found?.itemIds]).toEqual(['notes', ids(hole)]);
    expect(found?.places?.map(({ minX, maxX, minY, maxY }) => [(minX + maxX) / 2, (minY + maxY) / 2])).toEqual(
      expect.arrayContaining([
        [120, 120],
        [140, 120],
        [140, 140],
        [120, 140],
      ]),
    );
    expect(said(job(0.4), 'sharp-corner')).toEqual([]);
    // An open line has no inside, and no side that the beam goes on.
    const open = item(line(120, 120, 140, 120, 120, 140), 'cut');
    const withOpen = { ...jobWith([outer, open]), settings: { cut: { kerfMm: 0.6 } } };
    expect(said(withOpen, 'sharp-corner')).toEqual([]);
    expect(said(withOpen, 'kerf-swallows')).toEqual([]);
  });

  test('of a layer without a recipe, and of a run-up that does not fit', () => {
    expect(
      said({ ...jobWith([sound]), sheets: [{ ...jobWith([]).sheets[0], materialId: 'bare' }] }, 'no-recipe'),
    ).toEqual([
      [
        'blocks',
        'Cut has no recipe (cut, Bare stock on Test machine) and would not be burnt. Burn a test card, choose another material, or type power and speed.',
        ids(sound),
        'cut',
      ],
    ]);
    expect(said({ ...jobWith([sound]), sheets: [] }, 'no-recipe')).toMatchObject([
      ['blocks', expect.stringContaining('(cut, no material)'), ids(sound), 'cut'],
    ]);
    expect(said(jobWith([engraved(6, 60, 9)]), 'run-up-short')).toEqual([
      [
        'notes',
        'Engrave starts so near the edge of the bed that the head is still speeding up there; the ends of its lines may burn darker.',
        [],
        'engrave',
      ],
    ]);
  });
});
