import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { boundsOf, pathOf } from '@lambent/core/document';
import { encodePixels } from '@lambent/core/formats';
import { readSvg } from '@lambent/core/formats/svg';
import { subpathsOf } from '@lambent/core/geometry';

const folder = mkdtempSync(join(tmpdir(), 'lambent-trace-'));
afterAll(() => rmSync(folder, { recursive: true }));
const bin = fileURLToPath(new URL('../bin/lambent.js', import.meta.url));
const inFolder = (name: string) => join(folder, name);
const from = inFolder('plate.png');
const run = (...words: string[]) => spawnSync(process.execPath, [bin, 'trace', ...words], { encoding: 'utf8' });

/** A black plate with a hole on white, and a speck. */
beforeAll(async () => {
  const [width, height] = [200, 100];
  const isBlack = (x: number, y: number) => {
    if (x >= 20 && x < 120 && y >= 20 && y < 80) return !(x >= 50 && x < 80 && y >= 40 && y < 60);
    return x === 160 && y === 50;
  };
  const rgb = Uint8Array.from({ length: 3 * width * height }, (_, i) => {
    const pixel = Math.floor(i / 3);
    return isBlack(pixel % width, Math.floor(pixel / width)) ? 0 : 255;
  });
  writeFileSync(from, await encodePixels({ width, height, rgb }));
});

const written = (name: string) => {
  const { items } = readSvg(readFileSync(inFolder(name), 'utf8'), (place) => place).drawing;
  return items.map((item) => ({
    bounds: boundsOf(item),
    outlines: [...subpathsOf(pathOf(item))].length,
    stroke: item.paint.stroke,
  }));
};

test('writes closed outlines in true size, holes among them, in the colour of cuts', () => {
  const { status, stdout } = run(from, inFolder('out.svg'), '--width', '100mm', '--specks', '0.2');
  expect([status, stdout]).toEqual([0, expect.stringMatching(/^plate\.png: 2 outlines of \d+ nodes written to /)]);
  const [plate, ...others] = written('out.svg');
  expect(others).toEqual([]);
  expect(plate).toMatchObject({ outlines: 2, stroke: '#D0481E' });
  for (const [side, mm] of Object.entries({ minX: 10, minY: 10, maxX: 60, maxY: 40 }))
    expect(Math.abs(plate.bounds[side as 'minX'] - mm)).toBeLessThan(0.1);
  expect(run(from, inFolder('again.svg'), '--width', '100mm', '--specks', '0.2').status).toBe(0);
  expect(readFileSync(inFolder('again.svg'), 'utf8')).toBe(readFileSync(inFolder('out.svg'), 'utf8'));
});

test('the outer outlines alone, specks among them where they are wanted, in another colour', () => {
  const words = ['--width', '100mm', '--outer', '--specks', '0', '--stroke', 'blue'];
  expect(run(from, inFolder('outer.svg'), ...words).status).toBe(0);
  expect(written('outer.svg')).toMatchObject([{ outlines: 2, stroke: '#0000FF' }]);
});

test('single lines along the middle of strokes, each as wide as its stroke was', () => {
  expect(run(from, inFolder('middle.svg'), '--width', '100mm', '--middle-lines').status).toBe(0);
  const { items } = readSvg(readFileSync(inFolder('middle.svg'), 'utf8'), (place) => place).drawing;
  // The plate is a frame of bars 10 to 20 mm wide: one line around, with what is left of its corners.
  expect(items.length).toBeGreaterThan(0);
  for (const { paint } of items) expect(paint.strokeWidthMm).toBeGreaterThan(5);
});

test('areas by their colours, each filled with its own', async () => {
  const [wide, high] = [60, 40];
  const rgb = new Uint8Array(3 * wide * high).fill(255);
  const paint = (left: number, top: number, side: number, colour: readonly number[]) => {
    for (let y = top; y < top + side; y++) for (let x = left; x < left + side; x++) rgb.set(colour, 3 * (y * wide + x));
  };
  paint(5, 5, 20, [200, 30, 40]);
  paint(20, 10, 20, [30, 60, 180]);
  writeFileSync(inFolder('colours.png'), await encodePixels({ width: wide, height: high, rgb }));
  const words = ['--width', '60mm', '--colours', '5', '--specks', '0.5'];
  expect(run(inFolder('colours.png'), inFolder('colours.svg'), ...words).status).toBe(0);
  const { items } = readSvg(readFileSync(inFolder('colours.svg'), 'utf8'), (place) => place).drawing;
  expect(items.map(({ paint: { fill, stroke } }) => [fill, stroke])).toEqual([
    ['#C81E28', null],
    ['#1E3CB4', null],
  ]);
  const { minX, minY, maxX, maxY } = boundsOf(items[1]);
  [minX - 20, minY - 10, maxX - 40, maxY - 30].forEach((off) => expect(Math.abs(off)).toBeLessThan(0.25));
});

test.each([
  [['--colours', '9'], 2, /--colours must be a whole number from 2 to 8, and not “9”/],
  [['--colours', '3', '--middle-lines'], 2, /Choose --colours or --middle-lines/],
  [['--threshold', '300'], 2, /--threshold must be auto, local, or a level from 0 to 255, and not “300”/],
  [['--specks', 'some'], 2, /--specks must be a number of mm² from 0/],
  [['--tolerance', '0'], 2, /--tolerance must be a length above 0/],
  [['--stroke', 'bluish'], 2, /--stroke must be a colour/],
  [['--threshold', '0'], 1, /no outline was found, and nothing was written/],
])('%p ends with %p and writes nothing', (words, wanted, said) => {
  const { status, stdout, stderr } = run(from, inFolder('none.svg'), ...words);
  expect(status).toBe(wanted);
  expect(stdout + stderr).toMatch(said);
  expect(existsSync(inFolder('none.svg'))).toBe(false);
});

test('a drawing without a picture has nothing to trace', () => {
  const drawing = inFolder('line.svg');
  writeFileSync(
    drawing,
    '<svg xmlns="http://www.w3.org/2000/svg" width="9mm" height="9mm"><path d="M0 0H9" stroke="red"/></svg>',
  );
  const { status, stderr } = run(drawing, inFolder('none.svg'));
  expect([status, stderr]).toEqual([2, expect.stringContaining('has no picture: there is nothing to trace')]);
});
