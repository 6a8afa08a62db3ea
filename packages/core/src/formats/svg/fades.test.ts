import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Item } from '../../document/item.ts';
import { codesOf, idFor, testFonts, testTools } from '../../fixtures/files.ts';
import { FadeGreys } from '../../pictures/fade-greys.ts';
import { readPdf } from '../pdf/read.ts';
import { writePdf } from '../pdf/write.ts';
import { readSvg } from './read.ts';
import { writeSvg } from './write.ts';

const page = 'xmlns="http://www.w3.org/2000/svg" width="100mm" height="80mm" viewBox="0 0 100 80"';
const read = (body: string) => readSvg(`<svg ${page}>${body}</svg>`, idFor, testFonts, {});
const blackToWhite = '<stop offset="0" stop-color="#000"/><stop offset="1" stop-color="#fff"/>';

/** How dark an item's fill is at a place of the bed, and how solid, both in per cent. */
function fillAt(item: Item, x: number, y: number): [number, number] {
  const { fade, fill } = item.paint;
  if (!fade) throw new Error('The fill does not fade');
  const greys = new FadeGreys(fade, fill ?? '#000000', item.matrix);
  greys.lookAt(x, y);
  return [Math.round(100 * greys.darkness), Math.round(100 * greys.opacity)];
}
const darkAlong = (body: string, places: readonly (readonly [number, number])[]) => {
  const [item] = read(body).drawing.items;
  return places.map(([x, y]) => fillAt(item, x, y)[0]);
};
const rect = (fill: string, more = '') => `<rect x="20" y="10" width="40" height="20" fill="${fill}" ${more}/>`;

describe('a linear gradient', () => {
  test('goes along its shape, and stays as it is beyond', () => {
    const body = `<linearGradient id="g">${blackToWhite}</linearGradient>${rect('url(#g)')}`;
    expect(
      darkAlong(body, [
        [10, 5],
        [20, 10],
        [30, 12],
        [40, 28],
        [60, 20],
        [70, 20],
      ]),
    ).toEqual([100, 100, 75, 50, 0, 0]);
    const reading = read(body);
    expect(reading.drawing.items[0].paint.fill).toBe('#808080');
    expect([codesOf(reading).includes('fading-fill'), codesOf(reading).includes('gradient-as-mean')]).toEqual([
      true,
      false,
    ]);
  });

  test('is placed in the units of the page, turned and handed on from another', () => {
    const body = `<linearGradient id="a">${blackToWhite}</linearGradient>
      <linearGradient id="g" href="#a" gradientUnits="userSpaceOnUse" x1="0" x2="40" gradientTransform="translate(0 10) rotate(90)"/>
      <g transform="translate(5 0)">${rect('url(#g)')}</g>`;
    expect(
      darkAlong(body, [
        [30, 10],
        [50, 20],
        [30, 30],
        [30, 60],
      ]),
    ).toEqual([100, 75, 50, 0]);
  });

  test.each([
    ['repeat', [100, 50, 100, 50, 0]],
    ['reflect', [100, 50, 0, 50, 100]],
  ])('goes on by %s', (spread, darks) => {
    const body = `<linearGradient id="g" x2=".5" spreadMethod="${spread}">${blackToWhite}</linearGradient>${rect('url(#g)')}`;
    expect(
      darkAlong(body, [
        [20, 20],
        [30, 20],
        [40.001, 20],
        [50, 20],
        [59.999, 20],
      ]),
    ).toEqual(darks);
  });

  test('that repeats too often, or has no extent, is its mean, and that is said', () => {
    const often = `<linearGradient id="g" x2=".001" spreadMethod="repeat">${blackToWhite}</linearGradient>${rect('url(#g)')}`;
    expect(read(often).drawing.items[0].paint).toEqual({ stroke: null, strokeWidthMm: 0, fill: '#808080' });
    expect(codesOf(read(often))).toContain('gradient-as-mean');
    const flat = `<linearGradient id="g" gradientTransform="scale(0)">${blackToWhite}</linearGradient>${rect('url(#g)')}`;
    expect(codesOf(read(flat))).toContain('gradient-as-mean');
  });

  test('of one solid colour is that colour', () => {
    const body = `<linearGradient id="g"><stop offset="0" stop-color="red"/><stop offset="1" stop-color="#f00"/></linearGradient>`;
    const reading = read(`${body}${rect('url(#g)')}`);
    expect(reading.drawing.items[0].paint).toEqual({ stroke: null, strokeWidthMm: 0, fill: '#FF0000' });
    expect(codesOf(reading)).toEqual([]);
  });
});

describe('a radial gradient', () => {
  test('goes outwards from its focus', () => {
    const round = (more: string) =>
      `<radialGradient id="g" gradientUnits="userSpaceOnUse" cx="40" cy="20" r="10" ${more}>${blackToWhite}</radialGradient>${rect('url(#g)')}`;
    expect(
      darkAlong(round(''), [
        [40, 20],
        [45, 20],
        [40, 10],
        [58, 20],
      ]),
    ).toEqual([100, 50, 0, 0]);
    expect(
      darkAlong(round('fx="45"'), [
        [45, 20],
        [47.5, 20],
        [37.5, 20],
        [30, 20],
      ]),
    ).toEqual([100, 50, 50, 0]);
    expect(
      darkAlong(round('fr="5"'), [
        [42, 20],
        [47.5, 20],
        [50, 20],
      ]),
    ).toEqual([100, 50, 0]);
    expect(
      darkAlong(round('spreadMethod="reflect"'), [
        [45, 20],
        [50, 20],
        [55, 20],
        [60, 20],
      ]),
    ).toEqual([50, 0, 50, 100]);
  });
});

describe('what can be seen through', () => {
  test('is kept so, by stops, fills, elements and groups together', () => {
    const [item] = read(`<g opacity=".5">${rect('#000', 'fill-opacity=".5" opacity=".8"')}</g>`).drawing.items;
    expect(fillAt(item, 30, 20)).toEqual([100, 20]);
    const body = `<linearGradient id="g"><stop offset="0" stop-color="#000"/><stop offset="1" stop-color="#000" stop-opacity="0"/></linearGradient>`;
    const [fading] = read(`${body}${rect('url(#g)', 'fill-opacity=".5"')}`).drawing.items;
    expect([fillAt(fading, 20, 20), fillAt(fading, 40, 20), fillAt(fading, 60, 20)]).toEqual([
      [100, 50],
      [100, 25],
      [100, 0],
    ]);
  });

  test('a line is solid, and that is said', () => {
    const line = '<path d="M0 0h9" fill="none" stroke="#000" stroke-opacity=".5"/>';
    expect(codesOf(read(line))).toEqual(['see-through']);
    expect(read(line).drawing.items[0].paint.fade).toBeUndefined();
  });
});

test('greys go evenly between stops, wherever they are', () => {
  const grey = fc.integer({ min: 0, max: 255 });
  const share = fc.double({ min: 0, max: 1, noNaN: true });
  fc.assert(
    fc.property(grey, grey, share, (from, to, t) => {
      const hex = (value: number) => `#${value.toString(16).padStart(2, '0').repeat(3).toUpperCase()}`;
      const stops = [
        { at: 0.2, colour: hex(from), opacity: 1 },
        { at: 0.8, colour: hex(to), opacity: 0.5 },
      ];
      const ends = { from: { x: 3, y: 4 }, to: { x: 13, y: 4 } };
      const greys = new FadeGreys(
        { kind: 'linear', matrix: [1, 0, 0, 1, 0, 0], ...ends, stops },
        '#000000',
        [2, 0, 0, 2, 0, 0],
      );
      greys.lookAt(2 * (3 + 10 * (0.2 + 0.6 * t)), 50);
      expect(greys.darkness).toBeCloseTo(1 - (from + (to - from) * t) / 255, 6);
      expect(greys.opacity).toBeCloseTo(1 - 0.5 * t, 6);
    }),
  );
});

describe('files that go out and come back', () => {
  const gradients = `<linearGradient id="a"><stop offset=".1" stop-color="#204060"/><stop offset=".6" stop-color="#fff" stop-opacity=".5"/></linearGradient>
    <radialGradient id="b" fx=".6">${blackToWhite}</radialGradient>`;
  const body = `${gradients}<g transform="rotate(20)">${rect('url(#a)')}</g>${rect('url(#b)')}${rect('#123456', 'fill-opacity=".25"')}`;
  const places = [
    [24, 20],
    [30, 25],
    [40, 24],
    [48, 27],
  ] as const;
  const greysOf = (items: readonly Item[]) => items.map((item) => places.map(([x, y]) => fillAt(item, x, y)));
  const { drawing } = read(body);
  const view = { minX: 0, minY: 0, maxX: 100, maxY: 80 };
  const outgoing = {
    page: view,
    layers: [{ name: 'Photo', meant: null, colour: '#000000', items: drawing.items }],
    pictures: new Map(),
  };

  test('SVG: fades stay what they are', () => {
    const back = readSvg(writeSvg(outgoing), idFor, testFonts, {});
    expect(greysOf(back.drawing.items)).toEqual(greysOf(drawing.items));
  });

  test('PDF: fades stay what they are; where they clear, their colours are as over white', async () => {
    const back = await readPdf(await writePdf([outgoing], 'Fades'), idFor, {}, testTools.assets);
    const [cleared, round, even] = greysOf(back.drawing.items);
    const [was, roundWas, evenWas] = greysOf(drawing.items);
    // A package reads the colours at a few hundred places, which is within one in a hundred.
    const isNear = (found: readonly (readonly [number, number])[], darks: readonly number[]) =>
      found.forEach(([dark, opacity], i) => {
        expect(Math.abs(dark - darks[i])).toBeLessThanOrEqual(1.5);
        expect(opacity).toBe(100);
      });
    isNear(
      cleared,
      was.map(([dark, opacity]) => (dark * opacity) / 100),
    );
    isNear(
      round,
      roundWas.map(([dark]) => dark),
    );
    expect(even).toEqual(evenWas);
  });
});
