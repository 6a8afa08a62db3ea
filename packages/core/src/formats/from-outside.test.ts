import { readFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import { describe, expect, test } from '@jest/globals';
import { boundsOf, type Item, pathOf } from '../document/item.ts';
import { codesOf, idFor, testTools } from '../fixtures/files.ts';
import { areaOf, sizeOfArea } from '../geometry/areas/area.ts';
import { pathData } from '../geometry/paths/path.ts';
import { decodePicture } from './picture/decode.ts';
import { readDrawingFile } from './read.ts';

/*
 * Small files as other programs write them, with what each of them means.
 */

const bytesOf = (name: string) => new Uint8Array(readFileSync(new URL(`../fixtures/files/${name}`, import.meta.url)));
const read = (name: string, choices = {}) => readDrawingFile(bytesOf(name), idFor, testTools, choices);
const shown = async (name: string) => (await read(name)).drawing.items.filter((item) => !item.hidden);
const boxOf = (item: Item) =>
  Object.values(boundsOf(item))
    .map((mm) => Math.round(mm * 1000) / 1000 || 0)
    .join(' ');
const sizeOf = (item: Item) => sizeOfArea(areaOf(pathOf(item), item.fillRule));

describe('SVG', () => {
  test('clips by basic shapes', async () => {
    const [disc, triangle, inner] = await shown('clip_css.svg');
    expect(sizeOf(disc)).toBeCloseTo(400 * Math.PI, 0);
    expect(boxOf(triangle)).toBe('0 0 40 40');
    expect(sizeOf(triangle)).toBeCloseTo(800, 1);
    expect(boxOf(inner)).toBe('65 4 95 36');
  });
  test('places and sizes by CSS', async () => {
    expect((await shown('css_geometry.svg')).map(boxOf)).toEqual(['18 18 42 42', '50 10 90 30', '10 60 30 80']);
    expect((await shown('css_calc.svg')).map(boxOf)).toEqual(['15 10 60 30']);
  });
  test('custom properties, with what stands in for one that is not there', async () => {
    const [{ paint }] = await shown('css_var.svg');
    expect(paint).toMatchObject({ fill: '#FF8800', stroke: '#0000FF', strokeWidthMm: 3 });
  });
  test('words for what is taken over', async () => {
    const strokes = (await shown('line_style_inherit.svg')).map(({ paint }) => [paint.stroke, paint.fill]);
    expect(strokes).toEqual([
      ['#0000FF', null],
      ['#FF0000', null],
      ['#FF0000', '#000000'],
    ]);
  });
  test('rem, a size in the style of the root, and its transform', async () => {
    expect((await shown('rem.svg')).map(boxOf)).toEqual(['5 5 25 15']);
    const sized = await read('size_style.svg');
    expect(sized.size).toMatchObject({ pageWidthMm: 50, pageHeightMm: 25, sure: true });
    expect(sized.drawing.items.map(boxOf)).toEqual(['2.5 2.5 7.5 7.5']);
    // A browser turns the whole page about its middle.
    const [turned] = await shown('svg_transform_root.svg');
    const [cos, sin] = [Math.cos(Math.PI / 18), Math.sin(Math.PI / 18)];
    const [a, b, c, d, e, f] = turned.matrix;
    for (const [found, wanted] of [
      [a, cos],
      [b, sin],
      [c, -sin],
      [d, cos],
      [e, 50 - 50 * cos + 50 * sin],
      [f, 50 - 50 * sin - 50 * cos],
    ]) {
      expect(found).toBeCloseTo(wanted, 9);
    }
  });
  test('entities that the file declares, its own namespace among them', async () => {
    const reading = await read('entity.svg');
    const [path, text] = reading.drawing.items;
    expect(pathData(pathOf(path), 1)).toBe('M10 10L40 10L40 40Z');
    expect(path.paint).toMatchObject({ fill: null, stroke: '#FF0000' });
    expect(text.name).toBe('&A');
    expect(codesOf(reading)).not.toContain('entity-not-followed');
  });
  test('what is not in the namespace is left out, and said', async () => {
    const reading = await read('prefix.svg');
    expect(reading.drawing.items.map(boxOf)).toEqual(['10 10 30 30']);
    expect(reading.drawing.items[0].paint.fill).toBe('#0000FF');
    expect(codesOf(reading)).toContain('not-of-svg');
  });
});

describe('compressed files', () => {
  const packed = (text: string) => new Uint8Array(gzipSync(text));
  const taken = (bytes: Uint8Array) => readDrawingFile(bytes, idFor, testTools);
  test('SVG is unpacked', async () => {
    const plain = await read('css_geometry.svg');
    const unpacked = await taken(new Uint8Array(gzipSync(bytesOf('css_geometry.svg'))));
    expect(unpacked).toEqual(plain);
  });
  test.each([
    ['anything else', packed('0\nSECTION\n'), 'what is in it is no SVG'],
    ['packed twice', new Uint8Array(gzipSync(packed('<svg/>'))), 'what is in it is no SVG'],
    ['damaged', packed('<svg xmlns="http://www.w3.org/2000/svg"/>').slice(0, 30), 'cannot be unpacked'],
    ['too large once unpacked', new Uint8Array(gzipSync(new Uint8Array(41 * 1024 * 1024))), 'larger than the 40 MB'],
  ])('%s is refused', async (_, bytes, sentence) => {
    await expect(taken(bytes)).rejects.toThrow(sentence);
  });
});

describe('DXF', () => {
  test('an invisible entity is hidden, and said', async () => {
    const reading = await read('invisible-60.dxf');
    expect(reading.drawing.items.map(({ hidden }) => hidden)).toEqual([false, true]);
    expect(codesOf(reading)).toContain('hidden-left-out');
  });
  test('an ellipse that is seen from below runs the other way round', async () => {
    const [part, whole] = await shown('ellipse-extrusion-down.dxf');
    const start = pathOf(part).coords;
    // As read, y points down and the drawing's corner is at zero: measured against the whole ellipse's middle.
    const { minX, maxX, minY, maxY } = boundsOf(whole);
    const centre = { x: (minX + maxX) / 2, y: (minY + maxY) / 2 };
    // The file is in metres.
    const at = (t: number) => ({
      x: 1000 * (40 * Math.cos(t) + 7 * Math.sin(t)),
      y: 1000 * (10 * Math.cos(t) - 28 * Math.sin(t)),
    });
    expect(start[0] - centre.x).toBeCloseTo(at(0.3).x, 1);
    expect(centre.y - start[1]).toBeCloseTo(at(0.3).y, 1);
    const [endX, endY] = start.slice(-2);
    expect(endX - centre.x).toBeCloseTo(at(2.2).x, 1);
    expect(centre.y - endY).toBeCloseTo(at(2.2).y, 1);
  });
  test('the edges of a hatch keep their own shape, whichever way round they are written', async () => {
    const items = await shown('hatch-edges-unordered.dxf');
    const round = Math.PI * 25 ** 2;
    const expected = [50 * 50 + round, 50 * 50 + round / 2, Math.PI * 1700 * 0.5, (Math.PI * 1600 * 0.5) / 2];
    expected.forEach((size, i) => {
      expect(Math.abs(sizeOf(items[i]) - size)).toBeLessThan(0.5);
    });
    expect(items).toHaveLength(7);
  });
  test('names in the code page of the file, and by number', async () => {
    const names = async (name: string) => (await read(name)).drawing.groups.map((group) => group.name);
    expect(await names('codepage-1250.dxf')).toEqual(['řez', 'žluť']);
    const every = ['Čára řezu', '切断', 'Gravură', 'Разрез', 'naïve – ünï', 'Émoji 😀'];
    expect(await names('codepage-1252-dash.dxf')).toEqual(every);
    expect(await names('unicode_layers.R2018.dxf')).toEqual(every);
  });
});

describe('pictures', () => {
  const rowOf = async (name: string) => {
    const { width, rgb } = await decodePicture(bytesOf(name), testTools.assets);
    return (y: number, channel = 0) => Array.from({ length: width }, (_, x) => rgb[3 * (y * width + x) + channel]);
  };
  const steps = (levels: number, start: number, step: number) =>
    Array.from({ length: 13 }, (_, x) => Math.round((((start + step * x) % levels) * 255) / (levels - 1)));
  test('grey pixels of 1, 2 and 4 bits, and interlaced ones', async () => {
    const one = await rowOf('grey1.png');
    expect([one(0), one(1)]).toEqual([steps(2, 0, 1), steps(2, 1, 1)]);
    const two = await rowOf('grey2.png');
    expect(two(0)).toEqual([0, 255, 170, 85, 0, 255, 170, 85, 0, 255, 170, 85, 0]);
    const four = await rowOf('grey4.png');
    expect([four(0), four(1)]).toEqual([steps(16, 0, 7), steps(16, 3, 7)]);
    const interlaced = await rowOf('interlaced1.png');
    expect([interlaced(0), interlaced(1)]).toEqual([steps(2, 0, 1), steps(2, 1, 1)]);
  });
  test('pixels of the key colour are see-through: over white', async () => {
    expect((await rowOf('greykey8.png'))(0).slice(0, 5)).toEqual([0, 255, 14, 21, 28]);
    const coloured = await rowOf('trnsrgb.png');
    const bare = [0, 1, 2, 3, 4, 5, 6, 7, 8].flatMap((y) => coloured(y, 2).filter((blue) => blue === 255));
    expect(bare.length).toBeGreaterThan(0);
  });
  test('5-6-5 bits', async () => {
    const row = await rowOf('rgb565.bmp');
    expect(row(0).slice(0, 8)).toEqual([0, 0, 8, 16, 25, 25, 33, 41]);
    expect([row(5, 1)[0], row(5, 2).slice(0, 6)]).toEqual([49, [0, 0, 8, 8, 16, 25]]);
  });
  test('a JPEG that is cut short is refused; in a drawing it is left out, and said to be', async () => {
    await expect(read('trunc.jpg')).rejects.toThrow('The picture is damaged and cannot be unpacked.');
    const data = Buffer.from(bytesOf('trunc.jpg')).toString('base64');
    const image = `<image width="9" height="9" href="data:image/jpeg;base64,${data}"/>`;
    const drawn = `<svg xmlns="http://www.w3.org/2000/svg">${image}<path stroke="#000" d="M0 0h9"/></svg>`;
    const reading = await readDrawingFile(new TextEncoder().encode(drawn), idFor, testTools);
    expect(reading.drawing.items.map(({ shape }) => shape.kind)).toEqual(['path']);
    expect(reading.pictures).toHaveLength(0);
    expect(reading.notes).toContainEqual(expect.objectContaining({ code: 'picture-damaged', kind: 'left-out' }));
  });
});

describe('PDF', () => {
  test('a pen that is stretched one way has its mean width, and a note', async () => {
    const reading = await read('raw_hair.pdf');
    const stretched = reading.drawing.items.find(({ paint }) => paint.strokeWidthMm > 1);
    expect(stretched?.paint.strokeWidthMm).toBeCloseTo(0.5 * 10 * (25.4 / 72), 3);
    expect(codesOf(reading)).toContain('uneven-stroke');
  });
  test('a file without its table of contents is read all the same', async () => {
    const { drawing, notes } = await read('dam_noxref.pdf');
    expect(notes.map(({ code }) => code)).toContain('table-rebuilt');
    expect(drawing.items.map(({ paint }) => paint.fill ?? paint.stroke)).toEqual(['#000000', '#000000', '#0000FF']);
  });
});

describe('STL', () => {
  test('a flat part that stands tilted is laid on its largest face', async () => {
    const reading = await read('gear_tilted.stl');
    const [gear] = reading.drawing.items;
    // As large as its faces are.
    expect(sizeOf(gear)).toBeCloseTo(1968.22, 1);
    expect(codesOf(reading)).toContain('laid-flat');
    // A side that is asked for is that of the file.
    expect(codesOf(await read('gear_tilted.stl', { up: '+z' }))).not.toContain('laid-flat');
  });
  test('solids that overlap are one', async () => {
    const reading = await read('overlap.stl');
    expect(reading.drawing.items.map(boxOf)).toEqual(['0 0 70 20']);
    expect(sizeOf(reading.drawing.items[0])).toBeCloseTo(1400, 6);
    expect(codesOf(reading)).toContain('solids-united');
  });
});
