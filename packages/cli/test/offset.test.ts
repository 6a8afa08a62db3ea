import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, expect, test } from '@jest/globals';
import { boundsOf, pathOf } from '@lambent/core/document';
import { readSvg } from '@lambent/core/formats/svg';
import { subpathsOf } from '@lambent/core/geometry';

const folder = mkdtempSync(join(tmpdir(), 'lambent-offset-'));
afterAll(() => rmSync(folder, { recursive: true }));
const bin = fileURLToPath(new URL('../bin/lambent.js', import.meta.url));
const inFolder = (name: string) => join(folder, name);
const from = inFolder('plate.svg');
writeFileSync(
  from,
  `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="100mm" viewBox="0 0 200 100">
    <path d="M20 20H80V60H20ZM30 30V50H50V30Z" fill="none" stroke="#D0481E"/>
    <circle cx="120" cy="40" r="10" fill="none" stroke="#00806A"/></svg>`,
);
const run = (...words: string[]) => spawnSync(process.execPath, [bin, 'offset', ...words], { encoding: 'utf8' });
const written = (name: string) =>
  readSvg(readFileSync(inFolder(name), 'utf8'), (place) => place).drawing.items.map((item) => ({
    bounds: boundsOf(item),
    outlines: [...subpathsOf(pathOf(item))].length,
  }));

test('writes the outlines at a distance, holes the other way', () => {
  const { status, stdout } = run(from, inFolder('out.svg'), '--by', '2', '--join', 'miter');
  expect([status, stdout]).toEqual([0, `plate.svg: 3 outlines written to ${inFolder('out.svg')}\n`]);
  const [all] = written('out.svg');
  expect(all.outlines).toBe(3);
  for (const [side, mm] of Object.entries({ minX: 18, minY: 18, maxX: 132, maxY: 62 }))
    expect(all.bounds[side as 'minX']).toBeCloseTo(mm, 3);
});

test('of the strokes of one colour, inward, without holes', () => {
  expect(run(from, inFolder('in.svg'), '--by', '-3mm', '--select', '#d0481e', '--ignore-holes').status).toBe(0);
  const [plate, ...others] = written('in.svg');
  expect(others).toEqual([]);
  expect(plate.outlines).toBe(1);
  expect(plate.bounds).toEqual({ minX: 23, minY: 23, maxX: 77, maxY: 57 });
});

test.each([
  [['--by', '-30'], 1, /nothing is left 30 mm inward; nothing was written/],
  [['--by', 'far'], 2, /--by must be a length other than 0/],
  [['--by', '2', '--join', 'pointed'], 2, /--join must be round, miter, bevel/],
  [['--by', '2', '--select', 'blue'], 2, /has no outlines with a stroke of blue/],
  [['--by', '2', '--select', 'bluish'], 2, /--select must be a colour/],
  [[], 2, /--by/],
])('%p ends with %p and writes nothing', (words, wanted, said) => {
  const to = inFolder('none.svg');
  const { status, stdout, stderr } = run(from, to, ...words);
  expect(status).toBe(wanted);
  expect(stdout + stderr).toMatch(said);
  expect(existsSync(to)).toBe(false);
});
