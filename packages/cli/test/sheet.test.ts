import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, expect, test } from '@jest/globals';

const folder = mkdtempSync(join(tmpdir(), 'lambent-sheet-'));
afterAll(() => rmSync(folder, { recursive: true }));
const bin = fileURLToPath(new URL('../bin/lambent.js', import.meta.url));
const drawing = join(folder, 'plate.svg');
writeFileSync(
  drawing,
  `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="100mm" viewBox="0 0 200 100">
    <path d="M20 20H80V60H20Z" fill="none" stroke="#D0481E"/></svg>`,
);
const run = (...words: string[]) => spawnSync(process.execPath, [bin, 'sheet', ...words], { encoding: 'utf8' });

test('writes a job sheet as PDF, also of a job that the checks would not let through', () => {
  const to = join(folder, 'out.pdf');
  const { status, stdout } = run(drawing, to, '--machine', 'wren', '--material', 'birch-ply-3');
  expect([status, stdout]).toEqual([0, `plate.svg: job sheet of Run 1 written to ${to}\n`]);
  const bytes = readFileSync(to);
  expect(bytes.subarray(0, 5).toString()).toBe('%PDF-');
  expect(bytes.length).toBeGreaterThan(2000);
  const forbidden = join(folder, 'forbidden.pdf');
  expect(run(drawing, forbidden, '--material', 'pvc-sheet').status).toBe(0);
  expect(existsSync(forbidden)).toBe(true);
});

test.each([
  [[drawing], /missing required argument 'out'/],
  [['/nowhere.svg', join(folder, 'none.pdf')], /\/nowhere.svg cannot be read/],
  [[drawing, '/nowhere/none.pdf'], /\/nowhere\/none.pdf cannot be written/],
  [[drawing, join(folder, 'none.pdf'), '--run', 'Back'], /There is no run “Back”; there is “Run 1”/],
])('%p is refused with a sentence', (words, said) => {
  const { status, stderr } = run(...words);
  expect(status).toBe(2);
  expect(stderr).toMatch(said);
  expect(existsSync(join(folder, 'none.pdf'))).toBe(false);
});
