import { describe, expect, test } from '@jest/globals';
import { boundsOf, boundsOfAll } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { nameOfRow, type RowList } from '../document/row-list.ts';
import { firstRun, type Run } from '../document/run.ts';
import type { Sheet } from '../document/sheet.ts';
import { chooseDesign, removeList } from '../edits/lists.ts';
import { box, item, jobWith, machine, shop } from '../fixtures/shop.ts';
import { bedBox } from '../machine/machine.ts';
import { isBurnt } from '../operations/operations.ts';
import { packOfDesign } from '../packing/of-job.ts';
import { prepareJob } from '../plan/prepare.ts';
import { burnRowAgain, burnsLayersOf } from './again.ts';
import { filesBroughtIn, missingArt } from './chosen-art.ts';
import { gridOf } from './grid.ts';
import { layRows } from './lay-rows.ts';
import { designOf, groupsOfList, itemsOfGroups, laidRows, otherFillings } from './pieces.ts';

const edge = item(box(300, 200, 60, 30), 'cut', { id: 'edge' });
const mark = item(box(310, 205, 10), 'engrave', { id: 'mark' });
const bed = bedBox(machine);
const listOf = (count: number): RowList => ({
  id: 'names',
  name: 'Names',
  columns: ['name'],
  rows: Array.from({ length: count }, (_, i) => ({ id: `${i + 1}`, cells: [`N${i + 1}`] })),
  designId: null,
});

let next = 0;
const newId = () => `new-${++next}`;
interface How {
  readonly cells?: readonly (readonly string[])[];
  readonly further?: readonly Sheet[];
  readonly materialId?: string;
  readonly again?: boolean;
}

/** Lays a list of so many rows of a job's design in a grid, 2 mm apart. */
function lay(job: JobDocument, count: number, { further = [], materialId = 'ply', again = false, cells }: How = {}) {
  const plain = { ...listOf(count), designId: job.lists[0].designId };
  const list = cells
    ? { ...plain, columns: ['name', 'bird'], rows: cells.map((row, i) => ({ id: `${i + 1}`, cells: row })) }
    : plain;
  const prepared = prepareJob(job, shop);
  const design = new Set(designOf(job, list).map(({ id }) => id));
  const pack = packOfDesign(prepared, {
    design,
    earlier: itemsOfGroups(job, groupsOfList(job, list.id)),
    materialId,
    count: again ? null : count,
    gapMm: 2,
    marginMm: 3,
    turning: 'none',
    further: { before: [], after: further.map((sheet) => ({ sheet, count: null })) },
  });
  const places = gridOf(pack);
  const rows = { list, pack, places, burnsDesign: burnsLayersOf(prepared, design) };
  const filled = list.rows.map((row, i) => ({ rowId: row.id, name: nameOfRow(row, i + 1), shapes: new Map() }));
  const nameFilling = (filling: number, { name }: Run) => `${name} ${filling}`;
  const nameRun = (sheet: number, { name }: Run) => `${name}, sheet ${sheet}`;
  return layRows(job, { ...rows, filled, nameFilling }, { bed, newId, nameRun });
}

const designed = (more: Partial<JobDocument> = {}, ...others: ReturnType<typeof item>[]) =>
  chooseDesign(jobWith([edge, mark, ...others], more), listOf(0), new Set(['edge', 'mark']), 'design');
const piecesOf = (job: JobDocument, row: string) => {
  const ids = itemsOfGroups(job, groupsOfList(job, 'names', row));
  return job.drawing.items.filter(({ id }) => ids.has(id));
};
const placeOf = (job: JobDocument, row: string) => {
  const { minX, minY } = boundsOfAll(piecesOf(job, row));
  return [minX, minY];
};
const burntBy = (job: JobDocument, run: Run) =>
  new Set(
    prepareJob(job, shop, { runId: run.id }).layers.flatMap(({ on, layer, placed }) =>
      on && isBurnt(layer.operation) ? placed.map(({ item: burnt }) => burnt.id) : [],
    ),
  );

describe('a piece for each row', () => {
  const job = designed();
  const laid = lay(job, 10);

  test('lies in rows from the top left of the sheet, within its margin, as far apart as was said', () => {
    // 494 mm take eight pieces of 60 mm and seven gaps of 2 mm.
    expect([1, 2, 8, 9].map((row) => placeOf(laid, `${row}`))).toEqual([
      [3, 3],
      [65, 3],
      [437, 3],
      [3, 35],
    ]);
    expect(piecesOf(laid, '9').map(boundsOf)[1]).toEqual({ minX: 13, minY: 40, maxX: 23, maxY: 50 });
  });

  test('is a group that knows its row and is called by it', () => {
    expect(laidRows(laid).map(({ number, name }) => [number, name])).toEqual(
      Array.from({ length: 10 }, (_, i) => [i + 1, `N${i + 1}`]),
    );
    expect(laid.drawing.groups.filter(({ row }) => row).map(({ name }) => name)).toEqual(
      Array.from({ length: 10 }, (_, i) => `N${i + 1}`),
    );
  });

  test('the design stays beside the bed and does not burn; laid again it stays there, and the pieces are new', () => {
    const design = laid.drawing.items.filter(({ groupId }) => groupId === 'design');
    expect(design.map(({ parked }) => parked)).toEqual([true, true]);
    expect(boundsOfAll(design)).toMatchObject({ maxX: -10, minY: 0 });
    const burnt = burntBy(laid, laid.runs[0]);
    expect([burnt.has('edge'), burnt.size]).toEqual([false, 20]);
    const again = lay(laid, 3);
    expect(again.drawing.items).toHaveLength(8);
    expect(designOf(again, again.lists[0]).map(boundsOf)).toEqual(design.map(boundsOf));
    expect(again.runs).toEqual(laid.runs);
  });

  test('what a row says is its own: shapes that are none are left out', () => {
    const list = { ...listOf(1), designId: 'design' };
    const prepared = prepareJob(job, shop);
    const design = new Set(['edge', 'mark']);
    const how = {
      earlier: new Set<string>(),
      materialId: 'ply',
      count: 1,
      gapMm: 2,
      marginMm: 3,
      turning: 'none',
    } as const;
    const pack = packOfDesign(prepared, { design, ...how, further: { before: [], after: [] } });
    const shapes = new Map([['mark', null]]);
    const filled = [{ rowId: '1', name: 'N1', shapes }];
    const rows = { list, pack, places: gridOf(pack), filled, burnsDesign: () => true, nameFilling: () => '' };
    expect(piecesOf(layRows(job, rows, { bed, newId, nameRun: () => '' }), '1')).toHaveLength(1);
  });
});

test('rows that the sheet has no room for go onto further ones, each burnt in a run of its own', () => {
  const job = designed();
  const further = [{ ...job.sheets[0], id: 'more' }];
  // Nine rows of eight on each sheet.
  const laid = lay(job, 148, { further });
  expect(laid.sheets).toHaveLength(3);
  expect(laid.runs.map(({ name }) => name)).toEqual(['Run 1', 'Run 1, sheet 2', 'Run 1, sheet 3']);
  expect(laid.runs.map((run) => burntBy(laid, run).size)).toEqual([144, 144, 8]);
  expect(burntBy(laid, laid.runs[2])).toEqual(
    new Set(['145', '146', '147', '148'].flatMap((row) => piecesOf(laid, row).map(({ id }) => id))),
  );
  // Laid again with fewer rows, the sheets that are not needed go.
  expect(lay(laid, 60, { further }).sheets).toHaveLength(1);
});

test('pieces keep away from what stays, from blocked places, and lie on a turned sheet as on a straight one', () => {
  const stays = item(box(70, 10, 10), 'score');
  const [sheet] = jobWith([]).sheets;
  const blocked = { ...sheet, blocked: [[3, 40, 30, 40, 30, 50, 3, 50]] };
  const laid = lay(designed({ sheets: [blocked] }, stays), 8);
  expect([1, 2, 7, 8].map((row) => placeOf(laid, `${row}`))).toEqual([
    [3, 3],
    [127, 3],
    [437, 3],
    [65, 35],
  ]);
  const turned = lay(designed({ sheets: [{ ...sheet, x: 100, y: -100, width: 300, height: 500, angle: 90 }] }), 2);
  // Its own left edge lies at the back then, and its top at the right.
  expect(boundsOfAll(piecesOf(turned, '1'))).toEqual({
    minX: expect.closeTo(467, 6),
    minY: expect.closeTo(3, 6),
    maxX: expect.closeTo(497, 6),
    maxY: expect.closeTo(63, 6),
  });
});

describe('blanks in a holder are filled again and again', () => {
  const blanks = [0, 1, 2].map(
    (i): Sheet => ({ id: `b${i}`, materialId: 'bare', x: 20 + 80 * i, y: 20, width: 66, height: 36, margin: 3 }),
  );
  const pocket = item(box(19, 19, 68, 38), 'cut', { id: 'pocket' });
  const tag = item(box(300, 200, 60, 30), 'engrave', { id: 'edge' });
  // It shows where the blank's edge is, and burns in no run.
  const guide = item(box(300, 200, 60, 30), 'guide', { id: 'guide' });
  const runs = [
    { ...firstRun, name: 'Holder', off: ['engrave'] },
    { ...firstRun, id: 'run-2', name: 'Badges', off: ['cut', 'score'], stock: 'in place' as const },
  ];
  const [sheet] = jobWith([]).sheets;
  const job = chooseDesign(
    jobWith([pocket, guide, tag], { sheets: [sheet, ...blanks], runs }),
    listOf(0),
    new Set(['edge', 'guide']),
    'design',
  );
  const laid = lay(job, 8, { materialId: 'bare', again: true });

  test('row by row, run by run; the holder is cut once', () => {
    expect(laid.runs.map(({ name }) => name)).toEqual(['Holder', 'Badges', 'Badges 2', 'Badges 3']);
    expect(laid.runs.map((run) => burntBy(laid, run).size)).toEqual([1, 3, 3, 2]);
    expect(burntBy(laid, laid.runs[0])).toEqual(new Set(['pocket']));
    expect(['1', '2', '4', '8'].map((row) => placeOf(laid, row))).toEqual([
      [23, 23],
      [103, 23],
      [23, 23],
      [103, 23],
    ]);
    expect(laid.runs[3].stock).toBe('in place');
  });

  test('fewer rows take fewer runs, and all in one burn whatever is on the layer again', () => {
    const fewer = lay(laid, 4, { materialId: 'bare', again: true });
    expect(fewer.runs.map(({ name }) => name)).toEqual(['Holder', 'Badges', 'Badges 2']);
    const one = lay(fewer, 3, { materialId: 'bare', again: true });
    expect(one.runs.map(({ name }) => name)).toEqual(['Holder', 'Badges']);
    expect(burntBy(one, one.runs[1]).size).toBe(3);
  });

  test('what other runs fill the places with lies over what a run burns; where it burns none, over the first filling', () => {
    const items = (...rows: number[]) => rows.flatMap((row) => piecesOf(laid, `${row}`).map(({ id }) => id));
    const [holder, first, second, third] = laid.runs;
    expect(otherFillings(laid, first)).toEqual(new Set(items(4, 5, 6, 7, 8)));
    expect(otherFillings(laid, holder)).toEqual(otherFillings(laid, first));
    expect(otherFillings(laid, second)).toEqual(new Set(items(1, 2, 3, 7, 8)));
    expect(otherFillings(laid, third)).toEqual(new Set(items(1, 2, 3, 4, 5, 6)));
    // Filled once, nothing lies over anything.
    const once = lay(job, 3, { materialId: 'bare', again: true });
    expect(otherFillings(once, once.runs[1]).size).toBe(0);
  });

  test('filled again first, and laid onto further sheets then, all rows burn', () => {
    const blank = { ...blanks[0], id: 'more' };
    // Drawn since: the run of the first filling burns what was there then, and goes on doing so.
    const extra = item(box(400, 250, 10), 'score', { id: 'extra' });
    const drawn = { ...laid, drawing: { ...laid.drawing, items: [...laid.drawing.items, extra] } };
    const onMore = lay(drawn, 8, { materialId: 'bare', further: [blank] });
    const burnt = onMore.runs.flatMap((run) => [...burntBy(onMore, run)]).filter((id) => id.startsWith('new-'));
    const engraved = onMore.drawing.items.filter(({ groupId, paint }) => groupId !== 'design' && paint.fill !== null);
    expect(new Set(burnt)).toEqual(new Set(engraved.map(({ id }) => id)));
    expect(burnt).toHaveLength(8);
  });

  test('the one that broke is burnt again by itself, where it was', () => {
    const [, , , , fifth] = laidRows(laid);
    const prepared = prepareJob(laid, shop);
    const nameRun = ({ name }: Run, isOnly: boolean) => `again ${name} ${isOnly}`;
    const { job: again, runId } = burnRowAgain(prepared, fifth, nameRun, newId);
    const run = again.runs.find(({ id }) => id === runId);
    expect(run).toMatchObject({ name: 'again Badges 2 true', off: ['cut', 'score'] });
    const [, engraved] = piecesOf(laid, '5');
    expect(run && burntBy(again, run)).toEqual(new Set([engraved.id]));
    // Asked for once more, it is the same run.
    expect(burnRowAgain(prepareJob(again, shop), fifth, nameRun, newId)).toEqual({ job: again, runId });
    // Laid anew, the run of a piece that is gone goes with it.
    expect(lay(again, 8, { materialId: 'bare', again: true }).runs.map(({ name }) => name)).toEqual(
      laid.runs.map(({ name }) => name),
    );
  });
});

test('a row that two runs burn is burnt again by two; one on a sheet of its own, on that', () => {
  const runs = [
    { ...firstRun, name: 'First', off: ['engrave'] },
    { ...firstRun, id: 'run-2', name: 'Second', off: ['cut'] },
  ];
  const job = designed({ runs });
  const laid = lay(job, 75, { further: [{ ...job.sheets[0], id: 'more' }] });
  const name = ({ name: known }: Run, isOnly: boolean) => `${known} ${isOnly}`;
  const { job: again } = burnRowAgain(prepareJob(laid, shop), laidRows(laid)[74], name, newId);
  const added = again.runs.slice(laid.runs.length);
  expect(added.map(({ name: called, landing }) => [called, landing.kind])).toEqual([
    ['First, sheet 2 false', 'sheet'],
    ['Second, sheet 2 false', 'sheet'],
  ]);
  expect(added.map((run) => burntBy(again, run).size)).toEqual([1, 1]);
});

test('without its list, what was laid for it is plain drawing', () => {
  const left = removeList(lay(designed(), 3), 'names');
  expect([left.lists, left.drawing.groups.some(({ row }) => row), left.drawing.items.length]).toEqual([[], false, 8]);
  expect(laidRows(left)).toEqual([]);
});

describe('a part of the design that a column chooses', () => {
  const arrival = (id: string, file: string) => ({
    id,
    file,
    originalId: null,
    choices: {},
    place: [1, 0, 0, 1, 0, 0] as const,
    notes: [],
  });
  // 40 × 20 mm of two things, and 10 × 40 mm; the place on the badge is 10 × 10 mm.
  const heron = [
    item(box(100, 100, 20), 'engrave', { id: 'a1-0' }),
    item(box(120, 100, 20), 'score', { id: 'a1-1', parked: true }),
  ];
  const wren = item(box(200, 250, 10, 40), 'engrave', { id: 'a2-0' });
  const place = { ...mark, choice: 'bird' };
  const base = jobWith([edge, place, ...heron, wren], {
    arrivals: [arrival('a1', 'Heron.svg'), arrival('a2', 'wren.svg')],
  });
  const job = chooseDesign(base, listOf(0), new Set(['edge', 'mark']), 'design');
  const cells = [
    ['Ines', 'heron.SVG'],
    ['Noor', 'wren'],
    ['Pavel', ' Heron '],
    ['Tobiah', 'robin.svg'],
    ['Guest', ''],
  ];
  const laid = lay(job, 5, { cells });

  test('is what came with the file, as large as it fits, in the middle of its place', () => {
    expect(piecesOf(laid, '1').slice(1).map(boundsOf)).toEqual([
      { minX: 13, minY: 10.5, maxX: 18, maxY: 15.5 },
      { minX: 18, minY: 10.5, maxX: 23, maxY: 15.5 },
    ]);
    expect(boundsOf(piecesOf(laid, '2')[1])).toEqual({ minX: 78.75, minY: 8, maxX: 81.25, maxY: 18 });
    expect(piecesOf(laid, '3')).toHaveLength(3);
    expect(piecesOf(laid, '3').some(({ parked }) => parked)).toBe(false);
  });

  test('stays empty where there is none, and that is said with its row', () => {
    expect(['4', '5'].map((row) => piecesOf(laid, row).length)).toEqual([1, 1]);
    const list = { columns: ['name', 'bird'], rows: cells.map((row, i) => ({ id: `${i + 1}`, cells: row })) };
    expect(missingArt(designOf(job, job.lists[0]), list, filesBroughtIn(job))).toEqual([
      { rowId: '4', message: 'Row 4, “Tobiah”: no file “robin.svg” was brought in. Its place stays empty.' },
      { rowId: '5', message: 'Row 5, “Guest”: no file is named under bird. Its place stays empty.' },
    ]);
  });

  test('what is chosen from lies beside the bed, and does not burn', () => {
    const sources = laid.drawing.items.filter(({ id }) => /^a\d-/.test(id));
    expect(sources.map(({ parked }) => parked)).toEqual([true, true, true]);
    expect(boundsOfAll(sources).maxX).toBe(-10);
    expect([...burntBy(laid, laid.runs[0])].some((id) => /^a\d-/.test(id))).toBe(false);
  });
});
