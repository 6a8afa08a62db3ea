import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, expect, test } from '@jest/globals';
import { boundsOf, type Item, pathOf } from '@lambent/core/document';
import { readSvg } from '@lambent/core/formats/svg';
import { flatten, polylineLength } from '@lambent/core/geometry';

const folder = mkdtempSync(join(tmpdir(), 'lambent-build-'));
afterAll(() => rmSync(folder, { recursive: true }));
const bin = fileURLToPath(new URL('../bin/lambent.js', import.meta.url));
const inFolder = (name: string) => join(folder, name);
const run = (...words: string[]) => spawnSync(process.execPath, [bin, 'build', ...words], { encoding: 'utf8' });
const itemsIn = (name: string) => readSvg(readFileSync(inFolder(name), 'utf8'), (place) => place).drawing.items;
const lengthOf = (items: readonly Item[]) =>
  items.flatMap((item) => flatten(pathOf(item))).reduce((sum, line) => sum + polylineLength(line), 0);

test('a box comes out as named parts in rows, with a report of how it goes together', () => {
  const words = ['--inside', '154x104x64', '--stock', '3.06', '--fit', 'snug', '--lid', 'slides', '--letters', 'no'];
  const files = ['--out', inFolder('box.svg'), '--report', inFolder('box.json'), '--row', '400mm'];
  const { status, stdout, stderr } = run('box', ...words, '--dividers-across', '2', ...files);
  expect([status, stderr]).toEqual([0, '']);
  expect(stdout).toContain('Joined box: 12 parts, inside 154 × 104 × 64 mm, outside 166.24 × 110.12 × 76.64 mm');
  expect(stdout).toContain('Goes together: nothing overlaps, nothing gapes.');
  const report = JSON.parse(readFileSync(inFolder('box.json'), 'utf8'));
  expect(report).toMatchObject({ insideMm: [154, 104, 64], playMm: 0.05, holdsMm3: 154 * 104 * 64 });
  expect(report.assembly).toEqual({ goesTogether: true, overlaps: [], wrongJoints: [], intruders: [], gapMm3: 0 });
  const items = itemsIn('box.svg');
  expect(items.map(({ name }) => name)).toEqual(report.parts.map(({ name }: { name: string }) => name));
  expect(lengthOf(items)).toBeCloseTo(report.cutMm, 1);
  for (const [i, { widthMm, heightMm }] of report.parts.entries()) {
    const { minX, minY, maxX, maxY } = boundsOf(items[i]);
    expect([maxX - minX, maxY - minY]).toEqual([expect.closeTo(widthMm, 3), expect.closeTo(heightMm, 3)]);
    expect(maxX).toBeLessThan(405);
  }
});

test('letters are scored; parts have their names in DXF too', () => {
  expect(run('box', '--stock', '3mm', '--out', inFolder('open.svg')).status).toBe(0);
  const colours = itemsIn('open.svg').map(({ paint }) => paint.stroke);
  expect(colours.filter((colour) => colour === '#00806A')).toHaveLength(5);
  expect(run('box', '--stock', '3mm', '--out', inFolder('open.dxf'), '--letters', 'no').status).toBe(0);
  const text = readFileSync(inFolder('open.dxf'), 'utf8');
  for (const name of ['Bottom', 'Front', 'Back', 'Left', 'Right'])
    expect(text).toMatch(new RegExp(`^\\s*8\\r?\\n.*${name}\\r?$`, 'm'));
});

test('parts without play share their edges', () => {
  expect(run('box', '--stock', '3', '--play', '0', '--lid', 'lifts', '--report', inFolder('nominal.json')).status).toBe(
    0,
  );
  const { parts, outsideMm, assembly, playMm } = JSON.parse(readFileSync(inFolder('nominal.json'), 'utf8'));
  expect([playMm, assembly.goesTogether]).toEqual([0, true]);
  const solid = parts.reduce((sum: number, { areaMm2 }: { areaMm2: number }) => sum + 3 * areaMm2, 0);
  expect(solid).toBeCloseTo(outsideMm[0] * outsideMm[1] * outsideMm[2] - 154 * 104 * 64, 6);
});

test('a grid comes out as strips', () => {
  const words = ['--stock', '3.1', '--cells-across', '3', '--cells-deep', '2', '--out', inFolder('grid.svg')];
  expect(run('grid', ...words).stdout).toContain('Slotted grid: 3 parts, outside 279.5 × 179.5 × 40 mm');
  expect(itemsIn('grid.svg').map(({ name }) => name)).toEqual(['Strip across 1', 'Strip along 1', 'Strip along 2']);
});

test.each<[string, readonly string[], string]>([
  [
    'grid',
    ['--width', '120', '--depth', '9cm', '--cells', 'sizes', '--cell-widths', '30; 40', '--cell-depths', '40'],
    'Slotted grid: 3 parts, outside 119.5 × 89.5 × 40 mm',
  ],
  ['folded', ['--inside', '90x60x30', '--shape', 'tuck'], 'Folded box: 1 part, inside 90 × 60 × 30 mm'],
  ['base', ['--width', '100', '--channel', 'left', '--plate', 'yes'], 'Layered base: 4 parts, outside 100 × 80 × 9 mm'],
  ['bend', ['--angle', '90', '--radius', '25'], 'length when flat 121.63 mm'],
  ['bend', ['--shape', 'box', '--inside', '120x80x50'], 'Bending panel: 2 parts, inside 120 × 80 × 50 mm'],
])('%s is built from the words of its description', (word, words, said) => {
  const { status, stdout, stderr } = run(word, '--stock', '3', ...words);
  expect([status, stderr]).toEqual([0, '']);
  expect(stdout).toContain(said);
  expect(stdout).toContain('Goes together');
});

test('kept numbers are taken from their file, and changed by other options', () => {
  const family = {
    kind: 'lambent numbers',
    name: 'Small',
    builder: 'joined-box',
    numbers: { width: 66, lid: 'closed' },
  };
  writeFileSync(inFolder('small.json'), JSON.stringify(family));
  const { stdout } = run('box', '--stock', '3', '--numbers', inFolder('small.json'), '--lid', 'none');
  expect(stdout).toContain('Joined box: 5 parts, inside 66 × 104 × 64 mm');
  const other = run('grid', '--stock', '3', '--numbers', inFolder('small.json'));
  expect([other.status, other.stderr]).toEqual([2, expect.stringContaining('holds numbers for “joined-box”')]);
  writeFileSync(inFolder('wide.json'), JSON.stringify({ ...family, numbers: { width: -1 } }));
  expect(run('box', '--stock', '3', '--numbers', inFolder('wide.json')).stderr).toContain('Width is -1 mm');
});

test('says what can be built, and what a builder takes', () => {
  expect(run('--list').stdout).toMatch(/^box +A box whose sides interlock with fingers\.$/m);
  const { status, stdout } = run('box', '--help');
  expect(status).toBe(0);
  for (const flag of ['--stock', '--inside', '--fit', '--play', '--lid', '--dividers-across', '--letters'])
    expect(stdout).toContain(flag);
});

test.each<[string, readonly string[], string]>([
  ['nothing to build', [], 'Say what to build: box, folded, grid, base, bend, joint, figure.'],
  ['an unknown thing', ['bix'], 'There is no “bix” to build: box, folded, grid, base, bend, joint, figure.'],
  ['no stock', ['box'], 'Required option'],
  ['an unknown number', ['box', '--stock', '3', '--wheels', '4'], 'Unknown option'],
  ['two sizes', ['box', '--stock', '3', '--inside', '154x104'], '--inside must be three lengths'],
  ['both sizes', ['box', '--stock', '3', '--inside', '9x9x9', '--outside', '9x9x9'], 'and not both'],
  ['a fit and a play', ['box', '--stock', '3', '--fit', 'snug', '--play', '0'], 'and not both'],
  ['a word for a length', ['box', '--stock', '3', '--finger-width', 'wide'], '--finger-width must be a length'],
  ['lengths that are none', ['grid', '--stock', '3', '--cell-widths', '30; wide'], 'Length 2: “wide” is not a unit'],
  ['an angle beyond a turn', ['bend', '--stock', '3', '--angle', '400'], 'it can be from 1 to 350°'],
  ['neither yes nor no', ['box', '--stock', '3', '--letters', 'some'], '--letters must be yes or no'],
  ['a lid that there is not', ['box', '--stock', '3', '--lid', 'wide'], 'none, closed, lifts, slides'],
  ['thin fingers', ['box', '--stock', '3', '--finger-width', '2'], 'The nearest that can be: 3.'],
  ['stock too thick', ['box', '--stock', '70'], 'it can be from more than 0 to 60 mm'],
])('%s is refused with what to do', (_, words, said) => {
  const { status, stderr } = run(...words);
  expect(status).toBe(2);
  expect(stderr).toContain(said);
});

test('two outlines of a drawing are joined, by their names', () => {
  const parts = `<svg xmlns="http://www.w3.org/2000/svg" width="300mm" height="200mm" viewBox="0 0 300 200">
    <rect id="shelf" x="5" y="5" width="100" height="60" fill="none" stroke="#D0481E"/>
    <rect id="side" x="120" y="5" width="80" height="180" fill="none" stroke="#D0481E"/>
  </svg>`;
  writeFileSync(inFolder('parts.svg'), parts);
  const files = ['--parts', inFolder('parts.svg'), '--out', inFolder('joint.svg'), '--report', inFolder('joint.json')];
  const joint = run('joint', '--stock', '3.1', '--play', '0', '--first', '3', '--second', '4', '--tabs', '3', ...files);
  expect([joint.status, joint.stderr]).toEqual([0, '']);
  expect(joint.stdout).toContain('Joint: 2 parts');
  expect(itemsIn('joint.svg').map(({ name }) => name)).toEqual(['shelf', 'side']);
  const report = JSON.parse(readFileSync(inFolder('joint.json'), 'utf8'));
  expect(report.parts[0]).toMatchObject({ widthMm: 100, heightMm: expect.closeTo(63.1, 9), meets: ['side'] });
  const figure = run('figure', '--stock', '3', '--parts', inFolder('parts.svg'));
  expect([figure.status, figure.stderr]).toEqual([0, '']);
  expect(run('joint', '--stock', '3').stderr).toContain('--parts');
  writeFileSync(inFolder('one.svg'), parts.replace(/<rect id="side".*/, ''));
  expect(run('joint', '--stock', '3', '--parts', inFolder('one.svg')).stderr).toContain(
    'It takes 2 closed outlines, each a part. Now there is 1.',
  );
});
