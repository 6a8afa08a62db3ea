import 'reflect-metadata';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { jobToJson, newJob } from '@lambent/core/document';
import Database from 'better-sqlite3';
import { migrate, writingSource } from '../src/data/database.ts';
import { migrations } from '../src/data/migrations/index.ts';

/** The database as each earlier Lambent left it: the migrations it had had, and its tables. */
const forms: { migrations: { timestamp: number; name: string }[]; statements: string[] }[] = JSON.parse(
  readFileSync(new URL('./fixtures/database-forms.json', import.meta.url), 'utf8'),
);

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'lambent-forms-'));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const { drawing, ...settings } = jobToJson(newJob('wren', 'house'));
const picture = 'f'.repeat(64);
const drawn = { ...drawing, items: [{ shape: { kind: 'picture', pictureId: picture } }] };
/** A value for every column, in every table, that a form may have had and that must not be empty, by table. */
const rows: Record<string, Record<string, unknown>> = {
  machines: { id: 'wren', position: 0, definition: '{}' },
  colour_keys: { id: 'house', position: 0, definition: '{}' },
  materials: {
    id: 'ply',
    position: 0,
    name: 'Plywood',
    thicknessMm: 3,
    tone: '#EAD9B4',
    sheetWidth: 420,
    sheetHeight: 360,
  },
  recipes: {
    materialId: 'ply',
    machineId: 'wren',
    operation: 'cut',
    powerPercent: 62.5,
    speedMmPerS: 14,
    passes: 2,
    lineSpacingMm: 0.1,
    settings: JSON.stringify({ powerPercent: 62.5, speedMmPerS: 14, passes: 2, lineSpacingMm: 0.1 }),
    evidence: 'proven',
    note: '',
  },
  jobs: { id: 'j', title: 'Old job', project: '', version: 1, changed: 1, updatedAt: '2025-01-02 10:00:00.000' },
  drawings: { hash: 'h', itemCount: 1, json: gzipSync(JSON.stringify(drawn)) },
  drawing_pictures: { drawingHash: 'h', pictureId: picture },
  versions: {
    jobId: 'j',
    number: 1,
    edit: 'make',
    savedAt: '2025-01-02',
    settings: JSON.stringify(settings),
    drawingHash: 'h',
  },
};
const run = (id: string, sequence: number, startedAt: string) => ({
  id,
  sequence,
  jobId: 'j',
  version: 1,
  machineId: 'wren',
  status: 'done',
  startedAt,
  programHash: 'p',
  lines: 9,
  doneLine: 9,
  plannedS: 1,
  machineS: 1,
  taken: JSON.stringify([{ sheetId: 's', keptOffcut: { width: 20, height: 30 } }, { sheetId: 't' }]),
});

function columnsOf(database: Database.Database, table: string): string[] {
  return (database.pragma(`table_info(${table})`) as { name: string }[]).map(({ name }) => name);
}

function insert(database: Database.Database, table: string, row: Record<string, unknown>): void {
  const columns = columnsOf(database, table).filter((name) => name in row);
  if (columns.length === 0) return;
  const places = columns.map(() => '?').join(', ');
  database
    .prepare(`INSERT INTO ${table} (${columns.join(', ')}) VALUES (${places})`)
    .run(columns.map((name) => row[name]));
}

const schemaOf = (database: Database.Database) =>
  database
    .prepare(
      "SELECT name FROM sqlite_master WHERE name NOT LIKE 'sqlite_%' AND name NOT IN ('migrations') ORDER BY name",
    )
    .all()
    .map((row) => {
      const { name } = row as { name: string };
      return [name, columnsOf(database, name).toSorted()];
    });

test('there is a fixture of every earlier form', () => {
  expect(forms.map(({ migrations: done }) => done.map(({ name }) => name))).toEqual(
    migrations.slice(0, -1).map((_, i) => migrations.slice(0, i + 1).map(({ name }) => name)),
  );
});

describe.each(forms.map((form) => [form.migrations.at(-1)?.name ?? '', form] as const))('from %s', (_, form) => {
  test('everything is kept, and the tables are those of a new shop', async () => {
    const file = join(folder, 'lambent.sqlite');
    const old = new Database(file);
    for (const statement of form.statements) old.exec(statement);
    for (const { timestamp, name } of form.migrations)
      old.prepare('INSERT INTO migrations (timestamp, name) VALUES (?, ?)').run(timestamp, name);
    for (const [table, row] of Object.entries(rows)) insert(old, table, row);
    for (const later of [run('second', 2, '2025-01-03 12:00:00.000'), run('first', 1, '2025-01-03 11:00:00.000')])
      insert(old, 'runs', later);
    old.close();
    await migrate(folder);

    const fresh = mkdtempSync(join(tmpdir(), 'lambent-forms-new-'));
    await migrate(fresh);
    const [after, now] = [new Database(file), new Database(join(fresh, 'lambent.sqlite'))];
    expect(schemaOf(after)).toEqual(schemaOf(now));
    expect(after.pragma('foreign_key_check')).toEqual([]);
    expect(after.prepare('SELECT id, sequence FROM runs ORDER BY sequence').all()).toEqual([
      { id: 'first', sequence: 1 },
      { id: 'second', sequence: 2 },
    ]);
    expect(after.prepare('SELECT id, changed, deletedAt FROM jobs').all()).toEqual([
      { id: 'j', changed: 1, deletedAt: null },
    ]);
    expect(after.prepare('SELECT * FROM drawing_pictures').all()).toEqual([{ drawingHash: 'h', pictureId: picture }]);
    const isBefore = !form.migrations.some(({ name }) => name.startsWith('KeptOffcuts'));
    if (isBefore && form.statements.some((statement) => /\btaken\b/.test(statement))) {
      const { taken } = after.prepare('SELECT taken FROM runs').get() as { taken: string };
      expect(JSON.parse(taken)).toEqual([{ sheetId: 's', keptOffcuts: [{ width: 20, height: 30 }] }, { sheetId: 't' }]);
    }
    const recipe = after.prepare('SELECT settings FROM recipes').get() as { settings: string };
    expect(JSON.parse(recipe.settings)).toMatchObject({
      powerPercent: 62.5,
      speedMmPerS: 14,
      passes: 2,
      lineSpacingMm: 0.1,
    });
    const version = after.prepare('SELECT settings FROM versions').get() as { settings: string };
    expect(JSON.parse(version.settings)).toEqual(JSON.parse(JSON.stringify(settings)));
    for (const database of [after, now]) database.close();
    rmSync(fresh, { recursive: true, force: true });
  });
});

test('entities say of the tables what the migrations made of them', async () => {
  await migrate(folder);
  const source = await writingSource(folder).initialize();
  const ask = <Row>(pragma: string) => source.query(`PRAGMA ${pragma}`) as Promise<Row[]>;
  const [made, said]: unknown[][] = [[], []];
  for (const { tableName: table, columns, indices, foreignKeys } of source.entityMetadatas) {
    const names = (of: { databaseName: string }[]) => of.map(({ databaseName }) => databaseName);
    said.push({
      table,
      columns: columns
        .map((column) => [
          column.databaseName,
          source.driver.normalizeType(column),
          column.isNullable,
          column.isPrimary,
        ])
        .toSorted(),
      indices: indices.map((index) => [names(index.columns).join(), index.isUnique]).toSorted(),
      foreignKeys: foreignKeys
        .map(({ columns, referencedEntityMetadata, onDelete }) => [
          names(columns).join(),
          referencedEntityMetadata.tableName,
          onDelete ?? 'NO ACTION',
        ])
        .toSorted(),
    });
    const infos = await ask<{ name: string; type: string; notnull: 0 | 1; pk: number }>(`table_info(${table})`);
    const lists = await ask<{ name: string; unique: 0 | 1; origin: string }>(`index_list(${table})`);
    const keys = await ask<{ from: string; table: string; on_delete: string }>(`foreign_key_list(${table})`);
    const indexed: [string, boolean][] = [];
    for (const { name, unique } of lists.filter(({ origin }) => origin === 'c')) {
      const parts = await ask<{ name: string }>(`index_info(${name})`);
      indexed.push([parts.map((part) => part.name).join(), unique === 1]);
    }
    made.push({
      table,
      columns: infos.map(({ name, type, notnull, pk }) => [name, type.toLowerCase(), notnull === 0, pk > 0]).toSorted(),
      indices: indexed.toSorted(),
      foreignKeys: keys.map(({ from, table: to, on_delete }) => [from, to, on_delete]).toSorted(),
    });
  }
  const tables = await source.query("SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'");
  await source.destroy();
  expect(said).toEqual(made);
  expect(tables.map(({ name }: { name: string }) => name).toSorted()).toEqual(
    [...source.entityMetadatas.map(({ tableName }) => tableName), 'migrations'].toSorted(),
  );
});
