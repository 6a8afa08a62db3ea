import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, expect, test } from '@jest/globals';
import { boundsOf } from '@lambent/core/document';
import { readSvg } from '@lambent/core/formats/svg';

const folder = mkdtempSync(join(tmpdir(), 'lambent-pack-'));
afterAll(() => rmSync(folder, { recursive: true }));
const bin = fileURLToPath(new URL('../bin/lambent.js', import.meta.url));
const inFolder = (name: string) => join(folder, name);
const run = (...words: string[]) => spawnSync(process.execPath, [bin, 'pack', ...words], { encoding: 'utf8' });
const itemsIn = (name: string) => readSvg(readFileSync(inFolder(name), 'utf8'), (place) => place).drawing.items;

function drawing(name: string, content: string): string {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="400mm" height="300mm" viewBox="0 0 400 300">${content}</svg>`;
  writeFileSync(inFolder(name), svg);
  return inFolder(name);
}

const style = 'fill="none" stroke="#D0481E"';
const tag = `<path d="M300 200h60v40h-60z" ${style}/><path d="M305 210h10v10h-10z" ${style}/><path d="M320 220h30" ${style}/>`;

test('as many as fit on one sheet, each with all that lies in it, and a report of where', () => {
  const files = ['--out', inFolder('tags.svg'), '--report', inFolder('tags.json')];
  const { status, stdout, stderr } = run(
    ...[drawing('tag.svg', tag), '--sheet', '200x100', '--count', 'fit', '--seconds', '0'],
    ...['--turn', 'none', '--gap', '2mm', '--margin', '5', ...files],
  );
  expect([status, stderr]).toEqual([0, '']);
  expect(stdout).toBe(`${inFolder('tags.svg')}: 6 pieces, 69 % used\n`);
  const items = itemsIn('tags.svg');
  expect(items).toHaveLength(18);
  const tags = items.map(boundsOf).filter(({ minX, maxX }) => Math.abs(maxX - minX - 60) < 0.01);
  expect(
    tags.map(({ minX, minY }) => [Math.round(minX), Math.round(minY)]).sort((a, b) => a[0] - b[0] || a[1] - b[1]),
  ).toEqual(
    // Three beside each other take 184 of the 190 that the margin leaves, two below each other 82 of 90.
    expect.arrayContaining([[5, 5]]),
  );
  const report = JSON.parse(readFileSync(inFolder('tags.json'), 'utf8'));
  expect(report).toMatchObject({ left: [], leastSheets: 0, seed: 1 });
  expect(report.sheets[0].pieces).toHaveLength(6);
  for (const { name, angleDegrees, mirrored } of report.sheets[0].pieces)
    expect([name, angleDegrees, mirrored]).toEqual(['tag.svg 1', 0, false]);
});

test('more than a sheet holds goes to several files; what fits none is said, and the exit status with it', () => {
  const large = drawing('large.svg', `<path d="M0 0h390v20h-390z" ${style}/>`);
  const { status, stdout } = run(
    ...[
      inFolder('tag.svg'),
      large,
      '--sheet',
      '200x100',
      '--count',
      '8',
      '--seconds',
      '0',
      '--out',
      inFolder('more.svg'),
    ],
  );
  expect(status).toBe(1);
  expect(stdout).toContain(`${inFolder('more-1.svg')}: 6 pieces`);
  expect(stdout).toContain(`${inFolder('more-2.svg')}: 2 pieces`);
  expect(stdout).toContain('large.svg 1: 8 did not fit\n');
  expect(existsSync(inFolder('more.svg'))).toBe(false);
  expect(itemsIn('more-2.svg')).toHaveLength(6);
});

test.each([
  [['--sheet', '200'], '--sheet must be a width and a height, such as 600x400, and not “200”.'],
  [['--sheet', '200x100', '--turn', '45'], '--turn must be free, 90, 180 or none, and not “45”.'],
  [['--sheet', '200x100', '--gap', '-1'], '--gap must be 0 or a length such as 2mm, and not “-1”.'],
  [['--sheet', '200x100', '--count', '1.5'], '--count must be a whole number from 1 to 1000, or fit, and not “1.5”.'],
])('%s cannot be used, and a sentence says so', (words, sentence) => {
  const { status, stderr } = run(inFolder('tag.svg'), ...words, '--out', inFolder('none.svg'));
  expect([status, stderr]).toEqual([2, `lambent: ${sentence}\n`]);
});

test('a drawing without an outline is refused; what lies in none is said', () => {
  const lines = drawing('lines.svg', `<path d="M0 0h50" ${style}/>`);
  const none = run(lines, '--sheet', '200x100', '--out', inFolder('none.svg'));
  expect([none.status, none.stderr]).toEqual([
    2,
    `lambent: ${lines} has no closed outline: there is no piece to lay.\n`,
  ]);
  const beside = drawing('beside.svg', `${tag}<path d="M0 0h50" ${style}/>`);
  const { status, stderr } = run(beside, '--sheet', '200x100', '--seconds', '0', '--out', inFolder('beside-out.svg'));
  expect([status, stderr]).toEqual([0, 'beside.svg: 1 item lies in no outline, and goes with no piece.\n']);
});
