import { mkdtempSync } from 'node:fs';
import { mkdir, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { newJob } from '@lambent/core/document';
import type { Program, ProgramEnd } from '@lambent/machines';
import { writeProgram } from '../work/program-file.ts';
import type { RunSender } from './run-sender.ts';

/** Programs are read from the folder of the data, which the environment names. */
const folder = mkdtempSync(join(tmpdir(), 'lambent-sender-'));
process.env.LAMBENT_DATA = folder;
const { RunSender: Sender } = await import('./run-sender.ts');

const done: ProgramEnd = { status: 'done', reason: null, line: 2, runS: 1 };
let program: { hash: string; lines: number };
beforeAll(async () => {
  await mkdir(join(folder, 'programs'));
  const lines = ['G0 X1', 'G1 X2'].map((text) => ({ text, seconds: 0.5 }));
  program = await writeProgram(join(folder, 'programs'), 'draft', lines as never);
});
afterAll(() => rm(folder, { recursive: true }));

/** Sends a run; its machine is told to stop when the run is followed, before the machine has it. */
async function sent(isStopped: boolean): Promise<{ end: ProgramEnd; begun: string[] }> {
  const begun: string[] = [];
  const stop = new AbortController();
  const driver = {
    busy: () => null,
    send: async ({ runId }: Program) => {
      begun.push(runId);
      return done;
    },
  };
  const links = { get: () => driver, stopSignal: () => stop.signal, tellHand: () => {} };
  let end: Promise<ProgramEnd> | undefined;
  const follower = {
    titleOn: () => undefined,
    guard: () => {},
    follow: (_: unknown, send: () => Promise<ProgramEnd>) => {
      end = send();
      if (isStopped) stop.abort();
    },
  };
  const record = { answered: async (id: string) => ({ id }) };
  const fakes = [record, follower, links, { end: async () => {} }, { do: async () => {} }];
  const sender: RunSender = new Sender(...(fakes as unknown as ConstructorParameters<typeof Sender>));
  const document = newJob('wren', 'house');
  const run = { id: 'r1', jobId: 'j', version: 1, title: 'Tags', document, jobRun: document.runs[0], sheetIds: [] };
  const wanted = { ...run, program: { ...program, plannedS: 1 }, basis: null, by: null, after: null };
  await sender.claim('wren', 'Tags', (stopped) => sender.send(wanted, undefined, [], stopped));
  return { end: await (end as Promise<ProgramEnd>), begun };
}

test('a run that is stopped between its record and its first line never begins on the machine', async () => {
  expect(await sent(false)).toEqual({ end: done, begun: ['r1'] });
  const { end, begun } = await sent(true);
  expect(begun).toEqual([]);
  expect(end).toEqual({ status: 'stopped', reason: 'stopped by hand before it began', line: 0, runS: 0 });
});
