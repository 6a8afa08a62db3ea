import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import type { TakenSheet } from '@lambent/contracts';
import { newJob, type Sheet } from '@lambent/core/document';
import type { StockedSheet } from '@lambent/core/recipes';
import { packJob } from '../src/jobs/pack.ts';
import { WritingBench } from './writing.ts';

const bench = new WritingBench();
beforeAll(() => bench.open());
afterAll(() => bench.close());

const whole: StockedSheet = { id: 'whole', width: 600, height: 400, count: 3, price: 9.5 };
let jobs = 0;
let job = '';
let material = '';
const sheet = (id = 's1', materialId = material): Sheet =>
  ({ id, materialId, x: 0, y: 0, width: 600, height: 400, angle: 0 }) as unknown as Sheet;

beforeEach(async () => {
  job = `job${++jobs}`;
  material = `stuff${jobs}`;
  const version = packJob(newJob('wren', 'house'));
  await bench.write('addJob', { id: job, title: `Job ${jobs}`, project: '' }, version, 'make');
  const facts = { id: material, name: material, thicknessMm: 3, tone: '#FFFFFF', sheetWidth: 600, sheetHeight: 400 };
  const made = await bench.write('addMaterial', 'Ines', { ...facts, stock: [whole] });
  expect(made).toEqual({ done: material });
});

let runs = 0;
/** Puts a run on record as begun. @returns its id */
async function begin(uses: { stock: string; sheets: Sheet[] } | null, jobRunId = 'run-1'): Promise<string> {
  const id = `r${++runs}`;
  const plain = { reason: null, endedAt: null, taken: [], programHash: 'p', lines: 10, plannedS: 1 };
  const answer = await bench.write('addRun', {
    ...plain,
    id,
    jobId: job,
    version: 1,
    jobRunId,
    jobRunName: jobRunId,
    machineId: 'wren',
    status: 'running',
    startedAt: new Date(),
    doneLine: 0,
    machineS: 0,
    uses,
  });
  expect(answer).toEqual({ done: expect.any(Number) });
  return id;
}
const progress = (status: string, doneLine: number) => ({ status, reason: null, doneLine, machineS: doneLine / 10 });
const end = (id: string, status = 'done', doneLine = 10, picture: unknown = null) =>
  bench.write('endRun', id, progress(status, doneLine), picture);
const record = (id: string) =>
  bench.rows<{ status: string; doneLine: number; endedAt: string | null; taken: string }>(
    'SELECT status, doneLine, endedAt, taken FROM runs WHERE id = ?',
    id,
  )[0];
const taken = (id: string) => JSON.parse(record(id).taken) as TakenSheet[];
const stock = (of = material) =>
  JSON.parse(bench.rows<{ stock: string }>('SELECT stock FROM materials WHERE id = ?', of)[0].stock) as StockedSheet[];
const count = () => stock()[0]?.count;
const fresh = (...sheets: Sheet[]) => ({ stock: 'fresh', sheets: sheets.length > 0 ? sheets : [sheet()] });

describe('the record', () => {
  test('counts runs, notes how far they are, and leaves those alone that have ended', async () => {
    const [a, b] = [await begin(null), await begin(null)];
    const places = bench.rows<{ sequence: number }>('SELECT sequence FROM runs WHERE id IN (?, ?) ORDER BY id', a, b);
    expect(places[1].sequence - places[0].sequence).toBe(1);
    await bench.write('noteRun', a, progress('held', 4));
    expect(record(a)).toMatchObject({ status: 'held', doneLine: 4, endedAt: null });
    expect(record(b)).toMatchObject({ status: 'running', doneLine: 0 });
    await end(a, 'stopped', 5);
    expect(record(a)).toMatchObject({ status: 'stopped', doneLine: 5, endedAt: expect.any(String) });
    await bench.write('noteRun', a, progress('running', 6));
    expect(record(a)).toMatchObject({ status: 'stopped', doneLine: 5 });
    expect(await end(a, 'done', 10)).toEqual({ done: [] });
    expect(record(a)).toMatchObject({ status: 'stopped', doneLine: 5 });
  });

  test('knows what it was never told of', async () => {
    expect(await end('nowhere')).toMatchObject({ refused: { status: 404 } });
    expect(await bench.write('putBackSheet', 'nowhere', 's1', 'Ines')).toMatchObject({ refused: { status: 404 } });
  });

  test('keeps the picture of the bed, whole', async () => {
    const id = await begin(null);
    const picture = { x: 1, y: 2, pitchMm: 0.5, width: 2, height: 3, codes: Uint8Array.of(1, 2, 250) };
    await end(id, 'done', 10, picture);
    const [row] = bench.rows<{ codes: Buffer; height: number }>('SELECT * FROM burnt_pictures WHERE runId = ?', id);
    expect([row.height, [...row.codes]]).toEqual([3, [1, 2, 250]]);
  });
});

describe('stock', () => {
  test('goes with the end of a run that has burnt a line of it, and with no other', async () => {
    for (const [status, line, left] of [
      ['stopped', 0, 3],
      ['refused', 0, 3],
      ['stopped', 1, 2],
    ] as const) {
      const id = await begin(fresh());
      await end(id, status, line);
      expect([status, line, count()]).toEqual([status, line, left]);
    }
  });

  test('is said to be of the run, with its price; done without a line counts as burnt', async () => {
    const id = await begin(fresh());
    const { done } = await end(id, 'done', 0);
    expect(done).toEqual(taken(id));
    expect(done).toEqual([
      { sheetId: 's1', materialId: material, stockId: 'whole', width: 600, height: 400, price: 9.5, offcut: false },
    ]);
    const changes = bench.rows<{ by: string }>('SELECT by FROM book_changes WHERE materialId = ?', material);
    expect(changes.at(-1)?.by).toBe(`the run of “Job ${jobs}”`);
  });

  test('stays where the stock lies already: in place, or for the next run of the job', async () => {
    await end(await begin({ stock: 'in place', sheets: [sheet()] }));
    expect(count()).toBe(3);
    await end(await begin(fresh(), 'run-1'));
    expect(count()).toBe(2);
    await end(await begin(fresh(), 'run-2'));
    expect(count()).toBe(2);
    // Burnt once more, the first run has a sheet of its own again.
    await end(await begin(fresh(), 'run-1'));
    expect(count()).toBe(1);
    // On that, the second one burns as well.
    await end(await begin(fresh(), 'run-2'));
    expect(count()).toBe(1);
  });

  test('another sheet of the job, or another material, is taken by itself', async () => {
    await end(await begin(fresh(), 'run-1'));
    await end(await begin(fresh(sheet('s2')), 'run-2'));
    expect(count()).toBe(1);
  });

  test('that was not counted counts as one: put back, there is one more', async () => {
    const facts = { id: material, name: material, thicknessMm: 3, tone: '#FFFFFF', sheetWidth: 600, sheetHeight: 400 };
    const stock = [{ ...whole, count: 0 }];
    expect(await bench.write('changeMaterial', 'Ines', material, 1, { ...facts, stock })).toEqual({ done: undefined });
    const id = await begin(fresh());
    await end(id);
    expect([count(), taken(id).length]).toEqual([0, 1]);
    await bench.write('putBackSheet', id, 's1', 'Ines');
    expect(count()).toBe(1);
  });

  test('that such sheets are not counted in is only said: nothing is put back, and what is left can be kept', async () => {
    const odd = { ...sheet('s9'), width: 120, height: 90 };
    const id = await begin(fresh(odd));
    expect(await end(id)).toEqual({
      done: [
        { sheetId: 's9', materialId: material, stockId: null, width: 120, height: 90, price: null, offcut: false },
      ],
    });
    expect(count()).toBe(3);
    expect(await bench.write('putBackSheet', id, 's9', 'Ines')).toMatchObject({
      refused: { status: 409, code: 'not-counted' },
    });
    const kept = { sheetId: 's9', width: 100, height: 50, by: 'Ines' };
    expect(await bench.write('keepOffcut', id, kept)).toEqual({ done: undefined });
    expect(stock()).toContainEqual(expect.objectContaining({ width: 100, height: 50, count: 1, offcut: true }));
    // It lies there for the next run of the job, as one that is counted does.
    expect(await end(await begin(fresh(odd), 'run-2'))).toEqual({ done: [] });
  });

  test('of a material that the book does not have is taken from nowhere', async () => {
    expect(await end(await begin(fresh(sheet('s1', 'gone'))))).toEqual({ done: [] });
  });
});

describe('a sheet that was taken', () => {
  const wish = (width: number, height: number, sheetId = 's1') => ({ sheetId, width, height, by: 'Noor' });

  test('is put back once, and taken afresh by what burns next', async () => {
    const id = await begin(fresh());
    await end(id);
    expect(count()).toBe(2);
    expect(await bench.write('putBackSheet', id, 's2', 'Noor')).toMatchObject({ refused: { status: 404 } });
    expect(await bench.write('putBackSheet', id, 's1', 'Noor')).toEqual({ done: undefined });
    expect([count(), taken(id)[0].putBack]).toEqual([3, true]);
    expect(await bench.write('putBackSheet', id, 's1', 'Noor')).toMatchObject({
      refused: { status: 409, code: 'put-back' },
    });
    expect(count()).toBe(3);
    await end(await begin(fresh(), 'run-2'));
    expect(count()).toBe(2);
  });

  test('gives an offcut that is no larger than it is, whichever way round', async () => {
    const id = await begin(fresh());
    await end(id);
    for (const [width, height] of [
      [601, 100],
      [500, 401],
      [401, 500],
      [100, 601],
    ]) {
      const answer = await bench.write('keepOffcut', id, wish(width, height));
      expect([width, height, answer]).toMatchObject([
        width,
        height,
        { refused: { status: 400, code: 'offcut-too-large' } },
      ]);
    }
    expect(stock()).toHaveLength(1);
    expect(await bench.write('keepOffcut', id, wish(400, 600))).toEqual({ done: undefined });
    expect(stock()).toContainEqual(expect.objectContaining({ width: 400, height: 600, count: 1, offcut: true }));
    expect(taken(id)[0].keptOffcuts).toEqual([{ width: 400, height: 600 }]);
    expect(taken(id)).toHaveLength(1);
  });

  test('gives several offcuts, which are together no larger than it is', async () => {
    const id = await begin(fresh());
    await end(id);
    const parts = [wish(600, 200), { ...wish(300, 200), outline: [[0, 0, 300, 0, 0, 200]] }, wish(100, 200)];
    for (const part of parts) expect(await bench.write('keepOffcut', id, part)).toEqual({ done: undefined });
    expect(taken(id)[0].keptOffcuts).toEqual(parts.map(({ sheetId, by, ...kept }) => kept));
    expect(stock().filter(({ offcut }) => offcut)).toHaveLength(3);
    // 600 × 400 less what was kept are 70,000 mm².
    expect(await bench.write('keepOffcut', id, wish(354, 198))).toMatchObject({
      refused: { code: 'offcut-too-large', message: 'The offcuts of a sheet are together no larger than it is.' },
    });
    expect(await bench.write('keepOffcut', id, wish(350, 200))).toEqual({ done: undefined });
  });

  test('gives an offcut of any outline; one that is used up and put back has it still', async () => {
    const id = await begin(fresh());
    await end(id);
    const outline = [
      [0, 0, 300, 0, 300, 200, 0, 200],
      [50, 50, 100, 50, 50, 100],
    ];
    const bad = { ...wish(300, 200), outline: [[0, 0, 301, 0, 0, 200]] };
    expect(await bench.write('keepOffcut', id, bad)).toMatchObject({
      refused: {
        status: 400,
        code: 'offcut-outline',
        message: 'The outline of an offcut lies within its width and height, from its own top left.',
      },
    });
    expect(stock()).toHaveLength(1);
    expect(await bench.write('keepOffcut', id, { ...wish(300, 200), outline })).toEqual({ done: undefined });
    expect(taken(id)[0].keptOffcuts).toEqual([{ width: 300, height: 200, outline }]);
    const offcut = stock().find((entry) => entry.offcut);
    expect(offcut).toMatchObject({ width: 300, height: 200, count: 1, outline });

    const next = await begin(fresh({ ...sheet('s3'), width: 300, height: 200, stockId: offcut?.id }), 'run-2');
    await end(next);
    expect(stock().some((entry) => entry.offcut)).toBe(false);
    expect(taken(next)[0].outline).toEqual(outline);
    await bench.write('putBackSheet', next, 's3', 'Noor');
    expect(stock()).toContainEqual(offcut);
  });

  test('is changed alone, of several of a run', async () => {
    const id = await begin(fresh(sheet('s1'), sheet('s2')));
    await end(id);
    expect(count()).toBe(1);
    await bench.write('putBackSheet', id, 's2', 'Noor');
    expect(taken(id).map(({ sheetId, putBack }) => [sheetId, putBack ?? false])).toEqual([
      ['s1', false],
      ['s2', true],
    ]);
  });
});
