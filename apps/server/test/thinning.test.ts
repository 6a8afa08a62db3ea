import 'reflect-metadata';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { jobToJson, newJob } from '@lambent/core/document';
import type { DataSource } from 'typeorm';
import { migrate, writingSource } from '../src/data/database.ts';
import { keepPicture } from '../src/files/files.writes.ts';
import { addJob, deleteJob, saveVersion, takeJobBack } from '../src/jobs/jobs.writes.ts';
import { type PackedVersion, packDocument } from '../src/jobs/pack.ts';
import { addRun } from '../src/runs/runs.writes.ts';
import { dropDrawings, dropPictures, endDeletedJob, thinVersions } from '../src/thinning/thinning.writes.ts';

const folder = mkdtempSync(join(tmpdir(), 'lambent-thin-'));
let source: DataSource;
beforeAll(async () => {
  await migrate(folder);
  source = await writingSource(folder).initialize();
});
afterAll(async () => {
  await source.destroy();
  rmSync(folder, { recursive: true, force: true });
});

const day = 86_400_000;
const now = new Date();
const later = (days: number) => new Date(now.getTime() + days * day);
const pictureId = (nth: number) => String(nth).padStart(64, '0');

/** A job whose one item is a picture. */
function showing(nth: number): PackedVersion {
  const job = jobToJson(newJob('wren', 'house'));
  const picture = {
    id: 'p',
    name: null,
    shape: { kind: 'picture', pictureId: pictureId(nth), width: 10, height: 10 },
    matrix: [1, 0, 0, 1, 0, 0],
    paint: { stroke: null, strokeWidthMm: 0, fill: null },
    fillRule: 'nonzero',
    groupId: null,
    pinned: null,
    hidden: false,
  };
  const text = JSON.stringify({ ...job, drawing: { items: [picture], groups: [] } });
  const result = packDocument(Buffer.from(text));
  if (!('packed' in result)) throw new Error(result.trouble);
  return result.packed;
}

const count = async (what: string) => (await source.query(`SELECT count(*) AS n FROM ${what}`))[0].n as number;
const numbers = async (job: string) =>
  (await source.query('SELECT number FROM versions WHERE jobId = ? ORDER BY number', [job])).map(
    ({ number }: { number: number }) => number,
  );

test('versions go by the rule, but for those that runs burnt; then drawings and pictures that nothing holds', async () => {
  const { manager } = source;
  for (let nth = 1; nth <= 4; nth++)
    await keepPicture(manager, { id: pictureId(nth), mediaType: 'image/png', bytes: Buffer.from([nth]) });
  await addJob(manager, { id: 'a', title: 'A', project: '' }, showing(1), 'one');
  await saveVersion(manager, 'a', 1, 'two', showing(2));
  await saveVersion(manager, 'a', 2, 'three', showing(3));
  await addRun(manager, {
    id: 'run',
    jobId: 'a',
    version: 1,
    jobRunId: 'run-1',
    jobRunName: 'Run 1',
    machineId: 'wren',
    status: 'done',
    reason: null,
    startedAt: now,
    endedAt: now,
    programHash: 'h',
    lines: 1,
    doneLine: 1,
    plannedS: 1,
    machineS: 1,
    uses: null,
    by: null,
    basis: null,
    afterRunId: null,
    fromLine: null,
    taken: [],
  });
  expect(await thinVersions(manager, 'a', now)).toBe(0);
  // All three were saved within an hour: two days later one of them is enough, and the burnt one.
  expect(await thinVersions(manager, 'a', later(2))).toBe(1);
  expect(await numbers('a')).toEqual([1, 3]);
  expect((await dropDrawings(manager)).count).toBe(1);
  expect((await dropPictures(manager, now)).count).toBe(0);
  expect((await dropPictures(manager, later(2))).count).toBe(2);
  const left = await source.query('SELECT id FROM pictures ORDER BY id');
  expect(left).toEqual([{ id: pictureId(1) }, { id: pictureId(3) }]);
});

test('a deleted job can be taken back for 30 days; then it goes, and what its runs burnt stays', async () => {
  const { manager } = source;
  await addJob(manager, { id: 'b', title: 'B', project: '' }, showing(5), 'one');
  await deleteJob(manager, 'b');
  await expect(deleteJob(manager, 'b')).rejects.toThrow('no such job');
  expect(await endDeletedJob(manager, 'b', later(29))).toBe(0);
  await takeJobBack(manager, 'b');
  await expect(takeJobBack(manager, 'b')).rejects.toThrow('no such deleted job');
  expect(await endDeletedJob(manager, 'b', later(31))).toBe(0);
  await deleteJob(manager, 'b');
  await deleteJob(manager, 'a');
  expect(await endDeletedJob(manager, 'b', later(31))).toBe(1);
  expect(await count("jobs WHERE id = 'b'")).toBe(0);
  expect(await endDeletedJob(manager, 'a', later(31))).toBe(1);
  expect(await numbers('a')).toEqual([1]);
  expect(await count("runs WHERE jobId = 'a'")).toBe(1);
  await expect(takeJobBack(manager, 'a')).rejects.toThrow('no such deleted job');
});
