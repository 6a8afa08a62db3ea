import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { ErrorAnswer, JobAnswer, JobCard, MachineState, Settings } from '@lambent/contracts';
import { type ColourKey, startingKeys } from '@lambent/core/colours';
import { type Machine, usualMachine } from '@lambent/core/machine';
import { type Material, startingMaterials } from '@lambent/core/recipes';
import { readArchive } from '../src/backup/archive.ts';
import { Stack } from './stack.ts';

const stack = new Stack(undefined, '');
beforeAll(() => stack.start());
afterAll(() => stack.close());

const get = async <T>(path: string) => (await stack.ask<T>('GET', path)).body;
const isNew = async () => {
  expect(await get<Machine[]>('/api/machines')).toEqual([]);
  expect(await get<Material[]>('/api/materials')).toEqual([]);
  expect(await get<JobCard[]>('/api/jobs')).toEqual([]);
  expect(await get<ColourKey[]>('/api/colour-keys')).toEqual([startingKeys[0].key]);
  expect(await get<Settings>('/api/settings')).toMatchObject({
    shopName: '',
    people: [],
    isSetUp: false,
    isDemo: false,
  });
};

test('a new shop has a key, and nothing else', isNew);

test('one looks around in the demo shop, whose machines are stand-ins, and leaves it for a shop of one’s own', async () => {
  expect((await stack.ask('POST', '/api/demo')).status).toBe(204);
  expect(await get<Settings>('/api/settings')).toMatchObject({
    shopName: 'Tern Lane Workshop',
    isSetUp: true,
    isDemo: true,
  });
  const machines = await get<Machine[]>('/api/machines');
  expect(machines.map(({ connection }) => connection)).toEqual(machines.map(() => ({ kind: 'stand-in', factor: 20 })));
  await stack.until<MachineState[]>('/api/machines/states', (states) => states.every(({ state }) => state === 'idle'));
  const jobs = await get<JobCard[]>('/api/jobs');
  expect(jobs).toHaveLength(7);
  // It is not loaded twice, and nothing sent by hand makes a shop a demo.
  const twice = await stack.ask<ErrorAnswer>('POST', '/api/demo');
  expect([twice.status, twice.body.error.code]).toEqual([409, 'not-empty']);
  expect((await stack.ask('DELETE', '/api/demo')).status).toBe(204);
  await isNew();
  expect(await get<MachineState[]>('/api/machines/states')).toEqual([]);
  const [backup] = readdirSync(join(stack.data, 'backups'));
  expect(backup).toMatch(/^demo-shop-.*\.tar\.gz$/);
  const { files } = await readArchive(join(stack.data, 'backups', backup), null);
  expect(files.map(({ path }) => path)).toContain('lambent.sqlite');
  const again = await stack.ask<ErrorAnswer>('DELETE', '/api/demo');
  expect([again.status, again.body.error.message]).toEqual([409, 'This is no demo shop: nothing in it goes.']);
});

test('a shop of one’s own is not taken for a demo, and is not emptied', async () => {
  await stack.ask('PUT', '/api/settings', { shopName: 'Quay', isDemo: true });
  expect(await get<Settings>('/api/settings')).toMatchObject({ shopName: 'Quay', isDemo: false });
  expect((await stack.ask('DELETE', '/api/demo')).status).toBe(409);
  const [{ name, thicknessMm, tone, sheetWidth, sheetHeight }] = startingMaterials;
  const material = { name, thicknessMm, tone, sheetWidth, sheetHeight };
  expect((await stack.ask('POST', '/api/materials', { by: 'Ines', material })).status).toBe(201);
  expect((await stack.ask<ErrorAnswer>('POST', '/api/demo')).body.error.code).toBe('not-empty');
  const { body: machine } = await stack.ask<Machine>('POST', '/api/machines', { ...usualMachine('co2'), name: 'Own' });
  const job = await stack.ask<JobAnswer>('POST', '/api/jobs', { title: 'First', machineId: machine.id });
  expect([job.status, job.body.document.keyId]).toEqual([201, 'house']);
});
