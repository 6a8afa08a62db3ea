import { existsSync, mkdtempSync, openSync, readFileSync, rmSync, statSync, writeFileSync, writeSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import Database from 'better-sqlite3';
import { DataFolderRefused, takeDataFolder } from './data-folder.ts';
import { migrations } from './migrations/index.ts';

let home: string;
let folder: string;
beforeEach(() => {
  home = mkdtempSync(join(tmpdir(), 'lambent-folder-'));
  folder = join(home, 'deep', 'data');
});
afterEach(() => rmSync(home, { recursive: true, force: true }));
const file = () => join(folder, 'lambent.sqlite');

/** Makes the folder, and a database in it by statements. */
function made(...statements: string[]): void {
  takeDataFolder(folder)();
  rmSync(file());
  const database = new Database(file());
  for (const statement of statements) database.exec(statement);
  database.close();
}

function refusal(): string {
  try {
    takeDataFolder(folder)();
  } catch (error) {
    expect(error).toBeInstanceOf(DataFolderRefused);
    return (error as Error).message;
  }
  throw new Error('It was taken.');
}

const ours = [
  'CREATE TABLE migrations (id integer, timestamp bigint, name text)',
  'CREATE TABLE jobs (id text)',
  'CREATE TABLE versions (id text)',
];

test('a folder that is not there yet is made, with an empty database that is marked as ours', () => {
  takeDataFolder(folder)();
  const database = new Database(file(), { readonly: true });
  expect(database.pragma('application_id', { simple: true })).toBe(0x4c616d62);
  database.close();
  expect(readFileSync(file()).subarray(68, 72).toString('latin1')).toBe('Lamb');
  expect(existsSync(`${file()}.new`)).toBe(false);
});

test('what was left of one that was being made is no hindrance', () => {
  takeDataFolder(folder)();
  rmSync(file());
  writeFileSync(`${file()}.new`, 'half');
  takeDataFolder(folder)();
  expect(statSync(file()).size).toBeGreaterThan(100);
});

test('a folder is one server’s until it is let go', () => {
  const release = takeDataFolder(folder);
  expect(refusal()).toMatch(/^Another Lambent is already running on the data folder /);
  release();
  takeDataFolder(folder)();
});

test('a folder that is refused is not held', () => {
  made('CREATE TABLE poems (title text)');
  expect(refusal()).toMatch(/is not Lambent’s\. Move it away/);
  rmSync(file());
  takeDataFolder(folder)();
});

describe('a database', () => {
  test('from before databases were marked is known by its tables, and marked', () => {
    made(...ours);
    takeDataFolder(folder)();
    const database = new Database(file(), { readonly: true });
    expect(database.pragma('application_id', { simple: true })).toBe(0x4c616d62);
    database.close();
  });

  test.each([0, 1, 2])('that lacks one of those tables is another’s, and stays as it is (%i)', (i) => {
    made(...ours.toSpliced(i, 1));
    const before = readFileSync(file());
    expect(refusal()).toMatch(/is not Lambent’s\. Move it away/);
    expect(readFileSync(file()).equals(before)).toBe(true);
  });

  test('that has had every migration of ours is taken; one more is a newer Lambent’s', () => {
    const done = migrations.map(({ name }, i) => `INSERT INTO migrations VALUES (${i}, ${i}, '${name}')`);
    made(...ours, ...done);
    takeDataFolder(folder)();
    made(...ours, ...done, "INSERT INTO migrations VALUES (99, 99, 'Later')");
    expect(refusal()).toMatch(/was written by a newer Lambent than this one/);
  });

  test('whose pages are damaged is said to be', () => {
    made(...ours, ...Array.from({ length: 300 }, (_, i) => `INSERT INTO jobs VALUES ('${'x'.repeat(200)}${i}')`));
    writeSync(openSync(file(), 'r+'), Buffer.alloc(4096, 7), 0, 4096, 4096 * 4);
    expect(refusal()).toMatch(/ is damaged\. Restore it from a backup; it was left as it is/);
  });

  test('whose list of tables is damaged is said to be', () => {
    made(...ours);
    writeSync(openSync(file(), 'r+'), Buffer.alloc(200, 9), 0, 200, 100);
    expect(refusal()).toMatch(/ is damaged\. Restore it from a backup/);
  });

  test('that is none is said to be none', () => {
    made(...ours);
    writeFileSync(file(), 'Dear Ines, the drawing follows. '.repeat(200));
    expect(refusal()).toMatch(/^The file .* is no database\. Restore it/);
  });

  test('that another program holds is said to be held', () => {
    made(...ours);
    const other = new Database(file());
    other.exec('BEGIN EXCLUSIVE');
    expect(refusal()).toMatch(/^Another program holds the database .* locked\. End it, and start again\.$/);
    other.close();
  });

  test('of no bytes is lost, not new', () => {
    made(...ours);
    writeFileSync(file(), '');
    expect(refusal()).toMatch(/is empty: what it held is lost/);
    expect(statSync(file()).size).toBe(0);
  });

  test('that is a folder cannot be used, and why is said', () => {
    made(...ours);
    rmSync(file());
    takeDataFolder(join(folder, 'lambent.sqlite'))();
    expect(refusal()).toMatch(/^Lambent cannot use .*lambent\.sqlite: .*\. [A-Z].*\.$/);
  });
});
