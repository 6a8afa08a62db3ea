import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { JobAnswer } from '@lambent/contracts';
import { jobFromJson, jobToJson, newJob } from '@lambent/core/document';
import { type Machine, machineFromJson } from '@lambent/core/machine';
import { findRecipe, type Material } from '@lambent/core/recipes';
import Database from 'better-sqlite3';
import { FirstTables1764000000000 } from '../src/data/migrations/first-tables.migration.ts';
import { Stack } from './stack.ts';

const stack = new Stack();
beforeAll(async () => {
  // The database of the first Lambent, as it stood on a disk.
  const database = new Database(join(stack.data, 'lambent.sqlite'));
  const first = new FirstTables1764000000000();
  await first.up({ query: async (text: string) => database.exec(text) } as never);
  database.exec(
    `CREATE TABLE migrations (id integer PRIMARY KEY AUTOINCREMENT NOT NULL, timestamp bigint NOT NULL, name varchar NOT NULL)`,
  );
  database
    .prepare('INSERT INTO migrations (timestamp, name) VALUES (?, ?)')
    .run(1764000000000, 'FirstTables1764000000000');
  const machine = {
    id: 'wren',
    name: 'Wren',
    source: 'CO₂ 60 W',
    bedWidth: 600,
    bedHeight: 400,
    origin: 'top-left',
    margin: 5,
    topSpeed: 500,
    travelSpeed: 600,
    acceleration: 4000,
    cornerDeviation: 0.01,
    powerScale: 1000,
    minLineSpacing: 0.05,
    address: { host: '127.0.0.1', port: 1 },
  };
  const insertMachine = database.prepare('INSERT INTO machines VALUES (?, ?, ?)');
  insertMachine.run('wren', 0, JSON.stringify(machine));
  const others = [
    { id: 'dunlin', source: 'diode 7.5 W', measuredW: 6 },
    { id: 'knot', source: 'Fiber beam', ratedW: 20 },
    { id: 'oddity', source: 'a beam', address: undefined },
  ];
  for (const [i, other] of others.entries())
    insertMachine.run(other.id, i + 1, JSON.stringify({ ...machine, name: other.id, ...other }));
  const key = { id: 'house', name: 'House key', layers: [{ id: 'cut', name: 'Cut', operation: 'cut' }], rules: [] };
  database.prepare('INSERT INTO colour_keys VALUES (?, ?, ?)').run('house', 0, JSON.stringify(key));
  database
    .prepare('INSERT INTO materials VALUES (?, ?, ?, ?, ?, ?, ?, ?)')
    .run('ply', 0, 'Plywood', 3, '#EAD9B4', 420, 360, null);
  database
    .prepare('INSERT INTO materials VALUES (?, ?, ?, ?, ?, ?, ?, ?)')
    .run('pvc', 1, 'PVC', 1, '#C9C9D6', 300, 200, 'it gives off poison.');
  const recipe = database.prepare(
    `INSERT INTO recipes (materialId, machineId, operation, powerPercent, speedMmPerS, passes, lineSpacingMm, evidence, note)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)`,
  );
  recipe.run('ply', 'wren', 'cut', 62.5, 14, 2, 0.1, 'proven', 'Burnt here.');
  recipe.run('ply', 'wren', 'engrave', 22, 400, 1, 0.08, 'copied', '');
  const { drawing, ...settings } = jobToJson(newJob('wren', 'house')) as { drawing: unknown };
  database.prepare('INSERT INTO jobs VALUES (?, ?, ?, ?, ?, ?)').run('j', 'Old job', '', 1, '2025-01-02', '2025-01-02');
  const { gzipSync } = await import('node:zlib');
  database.prepare('INSERT INTO drawings VALUES (?, ?, ?)').run('h', 0, gzipSync(JSON.stringify(drawing)));
  const { lensId: _, variants: __, ...before } = settings as Record<string, unknown>;
  database
    .prepare(
      `INSERT INTO versions (jobId, number, edit, savedAt, settings, drawingHash) VALUES ('j', 1, 'make', '2025-01-02', ?, 'h')`,
    )
    .run(JSON.stringify(before));
  database.close();
  await stack.start();
});
afterAll(() => stack.close());

test('the first Lambent’s materials and recipes are in the book, with every number they had', async () => {
  const { status, body } = await stack.ask<Material[]>('GET', '/api/materials');
  expect(status).toBe(200);
  expect(body.map(({ id, forbidden, version }) => [id, forbidden, version])).toEqual([
    ['ply', null, 1],
    ['pvc', 'it gives off poison.', 1],
  ]);
  const [ply] = body;
  expect(findRecipe(ply, 'wren', 'cut')).toEqual({
    id: 1,
    version: 1,
    machineId: 'wren',
    operation: 'cut',
    powerPercent: 62.5,
    speedMmPerS: 14,
    passes: 2,
    lineSpacingMm: 0.1,
    evidence: 'proven',
    note: 'Burnt here.',
  });
  expect(findRecipe(ply, 'wren', 'engrave')).toMatchObject({
    powerPercent: 22,
    lineSpacingMm: 0.08,
    evidence: 'copied',
  });
  const recipe = { ...findRecipe(ply, 'wren', 'cut'), speedMmPerS: 13, air: 'low' };
  const changed = await stack.ask<Material>('PUT', '/api/recipes/1', { by: 'Ines Varga', version: 1, recipe });
  expect(changed.body.recipes[0]).toMatchObject({ speedMmPerS: 13, air: 'low', version: 2 });
});

test('its machines say what makes their beams, how strong they are, and how they are reached', async () => {
  const { status, body } = await stack.ask<Machine[]>('GET', '/api/machines');
  expect(status).toBe(200);
  const network = { kind: 'network', host: '127.0.0.1', port: expect.any(Number) };
  expect(body).toMatchObject([
    { id: 'wren', kind: 'co2', ratedW: 60, connection: network },
    { id: 'dunlin', kind: 'diode', ratedW: 7.5, measuredW: 6, connection: network },
    { id: 'knot', kind: 'fibre', ratedW: 20, connection: network },
    { id: 'oddity', kind: 'co2', ratedW: 60, connection: null },
  ]);
  for (const machine of body) expect(machineFromJson(machine)).toEqual(machine);
});

test('its jobs open, with the usual lens and recipes', async () => {
  const { status, body } = await stack.ask<JobAnswer>('GET', '/api/jobs/j');
  expect(status).toBe(200);
  expect(jobFromJson(body.document)).toMatchObject({ lensId: null, variants: {}, machineId: 'wren' });
});
