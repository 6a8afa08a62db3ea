import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { boundsOf, type Drawing, pathOf } from '../../document/item.ts';
import { pathData } from '../../geometry/paths/path.ts';
import { FileRefused } from '../refusal.ts';
import { readSvg } from './read.ts';

const newId = (place: string) => `t${place}`;
const page = 'xmlns="http://www.w3.org/2000/svg" width="100mm" height="80mm" viewBox="0 0 100 80"';
const read = (body: string, root = page) => readSvg(`<svg ${root}>${body}</svg>`, newId);
const data = ({ drawing }: { drawing: Drawing }) => drawing.items.map((item) => pathData(pathOf(item)));
const codes = ({ notes }: { notes: readonly { code: string }[] }) => notes.map(({ code }) => code);

describe('size', () => {
  const side = '<rect width="10" height="20" fill="red"/>';
  test.each([
    ['mm with a viewBox', 'width="100mm" height="80mm" viewBox="0 0 100 80"', 10, 20],
    [
      'inches with a viewBox in points',
      'width="1in" height="1in" viewBox="0 0 72 72"',
      10 * (25.4 / 72),
      20 * (25.4 / 72),
    ],
    ['no size at all', '', 10 * (25.4 / 96), 20 * (25.4 / 96)],
    ['a viewBox only', 'viewBox="0 0 500 500"', 10 * (25.4 / 96), 20 * (25.4 / 96)],
    ['per cent', 'width="100%" height="100%" viewBox="0 0 96 96"', 10 * (25.4 / 96), 20 * (25.4 / 96)],
    ['one side given', 'width="200mm" viewBox="0 0 100 100"', 20, 40],
    ['stretched', 'width="200mm" height="100mm" viewBox="0 0 100 100" preserveAspectRatio="none"', 20, 20],
  ])('%s', (_, root, width, height) => {
    const { drawing } = read(side, `xmlns="http://www.w3.org/2000/svg" ${root}`);
    const box = boundsOf(drawing.items[0]);
    expect(box.maxX - box.minX).toBeCloseTo(width, 9);
    expect(box.maxY - box.minY).toBeCloseTo(height, 9);
  });

  test('a page of other proportions centres the drawing, unless told where', () => {
    const at = (align: string) => {
      const root = `xmlns="http://www.w3.org/2000/svg" width="200mm" height="100mm" viewBox="0 0 100 100" ${align}`;
      return boundsOf(read(side, root).drawing.items[0]).minX;
    };
    expect([at(''), at('preserveAspectRatio="xMinYMin"'), at('preserveAspectRatio="xMaxYMid meet"')]).toEqual([
      50, 0, 100,
    ]);
  });

  test('what the file declares is said, and that it declares nothing too', () => {
    expect(read(side)).toMatchObject({ size: { pageWidthMm: 100, pageHeightMm: 80, sure: true }, notes: [] });
    const bare = read(side, 'xmlns="http://www.w3.org/2000/svg"');
    expect(bare.size).toMatchObject({ pageWidthMm: null, sure: false });
    expect(codes(bare)).toEqual(['no-physical-size']);
  });
});

describe('namespaces', () => {
  const svg = 'http://www.w3.org/2000/svg';
  const rect = (prefix: string) => `<${prefix}rect width="9" height="8" fill="red"/>`;

  test.each([
    ['SVG under a prefix', `<s:svg xmlns:s="${svg}">${rect('s:')}${rect('')}</s:svg>`, 1],
    ['another default inside', `<svg xmlns="${svg}"><g xmlns="urn:other">${rect('')}</g>${rect('')}</svg>`, 1],
    ['SVG again inside another', `<svg xmlns="${svg}"><x xmlns="urn:other"/><g>${rect('')}</g></svg>`, 1],
    [
      'a prefix that nothing declares',
      `<svg xmlns="${svg}"><g old:kind="layer">${rect('')}</g>${rect('old:')}</svg>`,
      1,
    ],
    [
      'a prefix bound anew',
      `<svg xmlns="${svg}" xmlns:p="${svg}"><g xmlns:p="urn:other">${rect('p:')}</g>${rect('p:')}</svg>`,
      1,
    ],
  ])('%s', (_, text, count) => {
    expect(readSvg(text, newId).drawing.items).toHaveLength(count);
  });

  test('a linked element is found under any prefix', () => {
    const body = '<defs><rect id="a" width="9" height="8"/></defs><use any:href="#a"/>';
    expect(read(body).drawing.items).toHaveLength(1);
  });
});

describe('shapes', () => {
  test.each(['M0 0L9 9é', 'M0 0L9 9 ☃', 'M0 0L9 9\u{1F600}'])('path data that ends in what is none: %s', (d) => {
    const { drawing, notes } = read(`<path d="${d}" stroke="red"/>`);
    expect(pathData(pathOf(drawing.items[0]))).toBe('M0 0L9 9');
    expect(notes[0].message).toContain(`stops making sense at character ${d.search(/[^ -~]/) + 1};`);
  });

  test('every path command, absolute and relative', () => {
    const d = 'M10 10h5v5H8V20l2 2q5 0 5 5t5 5c0 3 3 3 3 0s3-3 3 0zm20 0L40 12';
    expect(data(read(`<path d="${d}" stroke="red" fill="none"/>`))).toEqual([
      'M10 10L15 10L15 15L8 15L8 20L10 22C13.3333 22 15 23.6667 15 27C15 30.3333 16.6667 32 20 32C20 35 23 35 23 32C23 29 26 29 26 32ZM30 10L40 12',
    ]);
  });

  test('an arc ends where it says and bulges as it says', () => {
    const { drawing } = read('<path d="M10 40 a20 20 0 0 1 40 0" stroke="red" fill="none"/>');
    expect(boundsOf(drawing.items[0])).toMatchObject({ minX: 10, maxX: 50 });
    expect(boundsOf(drawing.items[0]).minY).toBeCloseTo(20, 3);
  });

  test('basic shapes keep their numbers', () => {
    const { drawing } = read(
      '<circle cx="5" cy="6" r="2"/><ellipse cx="5" cy="6" rx="2" ry="3"/><rect x="1" y="2" width="8" height="4" rx="1"/>' +
        '<line x1="0" y1="0" x2="4" y2="3" stroke="red"/><polyline points="0,0 4,0 4,3" stroke="red"/><polygon points="0 0 4 0 4 3"/>',
    );
    expect(drawing.items.map(({ shape }) => shape.kind)).toEqual([
      'ellipse',
      'ellipse',
      'rectangle',
      'path',
      'path',
      'path',
    ]);
    expect(drawing.items[2].shape).toMatchObject({ width: 8, height: 4, rx: 1, ry: 1 });
    expect(data({ drawing }).slice(3)).toEqual(['M0 0L4 3', 'M0 0L4 0L4 3', 'M0 0L4 0L4 3Z']);
  });

  test('transforms nest, in every notation', () => {
    const { drawing } = read(
      '<g transform="translate(10,20)"><g transform="rotate(90 5 5) scale(2)"><rect width="3" height="1" fill="red" transform="matrix(1 0 0 1 1 0) skewX(0)"/></g></g>',
    );
    // x: 1…4 doubled, turned about (5, 5): x' = 10 − y, y' = x; then moved.
    expect(boundsOf(drawing.items[0])).toEqual({ minX: 18, minY: 22, maxX: 20, maxY: 28 });
    expect(drawing.groups).toHaveLength(2);
    expect(drawing.items[0].groupId).toBe(drawing.groups[1].id);
  });
});

describe('paint', () => {
  const paintOf = (body: string) => read(body).drawing.items[0]?.paint;

  test.each([
    ['attribute', '<path d="M0 0h9" stroke="#d0481e" fill="none"/>', '#D0481E'],
    ['short hex', '<path d="M0 0h9" stroke="#f80" fill="none"/>', '#FF8800'],
    ['name', '<path d="M0 0h9" stroke="rebeccapurple" fill="none"/>', '#663399'],
    ['rgb()', '<path d="M0 0h9" stroke="rgb(208, 72, 30)" fill="none"/>', '#D0481E'],
    ['hsl()', '<path d="M0 0h9" stroke="hsl(120 100% 25%)" fill="none"/>', '#008000'],
    ['style over attribute', '<path d="M0 0h9" stroke="blue" style="stroke: red; fill:none"/>', '#FF0000'],
    [
      'class over attribute',
      '<style>.k{stroke:red;fill:none}</style><path class="a k" d="M0 0h9" stroke="blue"/>',
      '#FF0000',
    ],
    [
      'id over class',
      '<style>#x{stroke:lime}.k{stroke:red;fill:none}</style><path id="x" class="k" d="M0 0h9"/>',
      '#00FF00',
    ],
    ['inherited', '<g stroke="red" fill="none"><g><path d="M0 0h9"/></g></g>', '#FF0000'],
    ['currentColor', '<g color="red"><path d="M0 0h9" stroke="currentColor" fill="none"/></g>', '#FF0000'],
  ])('stroke by %s', (_, body, stroke) => {
    expect(paintOf(body)).toMatchObject({ stroke, fill: null });
  });

  test('stroke width is that on the bed, and fill is black where nothing is said', () => {
    expect(paintOf('<g transform="scale(3)"><path d="M0 0h9v9z" stroke="red" stroke-width="0.1"/></g>')).toEqual({
      stroke: '#FF0000',
      strokeWidthMm: 0.3,
      fill: '#000000',
    });
  });
});

describe('nothing is dropped silently', () => {
  test.each([
    ['<text x="1" y="2">Kale</text>', 'text-not-read'],
    ['<image href="a.png"/>', 'linked-picture'],
    ['<use href="#a"/>', 'use-of-nothing'],
    ['<use href="other.svg#a"/>', 'outside-not-followed'],
    ['<g id="a"><use href="#a"/></g>', 'use-in-itself'],
    ['<g display="none"><path d="M0 0h9" stroke="red"/></g>', 'hidden-left-out'],
    ['<path d="M0 0h9" stroke="red" visibility="hidden"/>', 'hidden-left-out'],
    ['<path d="M0 0h9" fill="none"/>', 'unpainted-left-out'],
    ['<path d="M0 0h9" fill="none" stroke="red" stroke-width="0"/>', 'zero-width-stroke'],
    ['<rect width="0" height="4"/>', 'nothing-to-draw'],
    ['<path d="M3 3" stroke="red"/>', 'stray-point'],
    [
      '<clipPath id="c"><path d="M0 0h4v4z"/></clipPath><path d="M0 0h9" stroke="red" fill="none" clip-path="url(#c)"/>',
      'clipped',
    ],
    [
      '<mask id="c"><rect width="5" height="5" fill="#888"/></mask><path d="M0 0h9" stroke="red" mask="url(#c)"/>',
      'mask-not-applied',
    ],
    ['<path d="M0 0h9" stroke="red" clip-path="hexagon(3px)"/>', 'clip-not-read'],
    ['<path d="M200 0h9" stroke="red"/>', 'outside-page'],
    ['<path d="M0 0h9" stroke="red" stroke-dasharray="2 1"/>', 'dashes-as-solid'],
    [
      '<linearGradient id="g"><stop stop-color="red"/><stop offset="1"/></linearGradient><path d="M0 0h9v9z" fill="url(#g)"/>',
      'fading-fill',
    ],
    ['<path d="M0 0h9v9z" fill="chequered"/>', 'colour-not-read'],
    ['<path d="M0 0h9v9z" transform="wobble(3)"/>', 'transform-not-read'],
    ['<style>g:hover{fill:red}</style><path d="M0 0h9v9z"/>', 'style-not-read'],
    ['<path d="M0 0h9 L NaN 4" stroke="red"/>', 'damaged-shape'],
    ['<path d="M0 0 L 1e400 4" stroke="red"/>', 'damaged-shape'],
    ['<path d="M0 0h9&mine;" stroke="red"/>', 'entity-not-followed'],
    ['', 'nothing-drawn'],
  ])('%s', (body, code) => {
    expect(codes(read(body))).toContain(code);
  });

  test('damaged path data is read up to where it breaks, with the line it stands on', () => {
    const reading = read('\n\n<path d="M0 0h9v9 NaN 3" stroke="red" fill="none"/>');
    expect(data(reading)).toEqual(['M0 0L9 0L9 9']);
    expect(reading.notes[0].message).toMatch(/^The <path> at line 3 has path data .* character 10/);
  });
});

describe('files that cannot be used', () => {
  const bomb = `<!DOCTYPE svg [<!ENTITY a "ha">${[...'bcdefghi'].map((name, i) => `<!ENTITY ${name} "${`&${'abcdefgh'[i]};`.repeat(10)}">`).join('')}]>`;
  test.each([
    ['an empty file', '  \n', 'is empty'],
    ['a picture named .svg', '\u0089PNG\r\n\u001a\n\0\0\0\rIHDR', 'is not an SVG drawing'],
    ['another kind of XML', '<html><body/></html>', 'XML but not SVG: it starts with <html>'],
    ['a truncated file', `<svg ${page}><path d="M0 0h9" stro`, 'not well-formed XML'],
    ['tags that do not match', `<svg ${page}><g></svg>`, 'line 1'],
    ['a viewBox of no size', '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 0 100"/>', 'viewBox has no size'],
    ['a page of no size', '<svg xmlns="http://www.w3.org/2000/svg" width="0mm"/>', 'width is 0'],
    ['a million deep', `<svg ${page}>${'<g>'.repeat(1e6)}`, 'more than 400 deep'],
  ])('%s', (_, text, sentence) => {
    expect(() => readSvg(text, newId)).toThrow(FileRefused);
    expect(() => readSvg(text, newId)).toThrow(sentence);
  });

  test('an entity bomb is not followed, and said', () => {
    const reading = readSvg(`${bomb}<svg ${page}><path d="M0 0h9" stroke="red" aria-label="&i;"/></svg>`, newId);
    expect(reading.drawing.items).toHaveLength(1);
    expect(codes(reading)).toContain('entity-not-followed');
  });

  test('whatever a drawing is cut down or changed to, it is read or refused with a sentence', () => {
    const whole = `<svg ${page}><style>.a{fill:red}</style><g transform="rotate(3)"><path class="a" d="M0 0h9v9z"/><circle r="3"/></g></svg>`;
    fc.assert(
      fc.property(fc.nat(whole.length), fc.nat(whole.length), fc.string({ maxLength: 4 }), (from, length, put) => {
        try {
          readSvg(whole.slice(0, from) + put + whole.slice(from + (length % 9)), newId);
        } catch (error) {
          expect(error).toBeInstanceOf(FileRefused);
          expect((error as Error).message).toMatch(/^The .*\.$/s);
        }
      }),
      { numRuns: 400 },
    );
  });
});
