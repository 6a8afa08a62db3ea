import { describe, expect, test } from '@jest/globals';
import { boundsOf, type Item, pathOf } from '../../document/item.ts';
import { codesOf, idFor, testFonts } from '../../fixtures/files.ts';
import { areaOf, sizeOfArea } from '../../geometry/areas/area.ts';
import { pathData } from '../../geometry/paths/path.ts';
import { encodePixels } from '../picture/encode.ts';
import { sniffFormat } from '../sniff.ts';
import { decodeText } from '../text-encoding.ts';
import { readSvg } from './read.ts';
import { writeSvg } from './write.ts';

const page = 'xmlns="http://www.w3.org/2000/svg" width="100mm" height="80mm" viewBox="0 0 100 80"';
const read = (body: string, choices = {}, root = page) =>
  readSvg(`<svg ${root}>${body}</svg>`, idFor, testFonts, choices);
const shown = ({ drawing }: { drawing: { items: readonly Item[] } }) => drawing.items.filter((item) => !item.hidden);
const boxes = (body: string) =>
  shown(read(body)).map((item) => Object.values(boundsOf(item)).map((mm) => Math.round(mm * 1000) / 1000 || 0));
const rect = (attributes = '') => `<rect width="4" height="2" fill="red" ${attributes}/>`;

describe('style sheets', () => {
  const strokeOf = (sheet: string, body = '<g class="outer"><path id="x" class="a b" d="M0 0h9" fill="none"/></g>') =>
    read(`<style>${sheet}</style>${body}`).drawing.items[0].paint.stroke;
  test.each([
    ['descendant', '.outer path{stroke:red}'],
    ['child', 'g>path{stroke:red}'],
    ['attribute', 'path[d^="M0"]{stroke:red}'],
    ['both classes', '.a.b{stroke:red}'],
    ['not', 'path:not(.c){stroke:red}'],
    ['is, by its heaviest', ':is(#x, .q){stroke:red} .a.b{stroke:blue}'],
    ['where, which weighs nothing', 'path{stroke:red} :where(#x){stroke:blue}'],
    ['id over classes, whatever the order', '#x{stroke:red} .a.b{stroke:blue}'],
    ['the later of equals', '.a{stroke:blue} .b{stroke:red}'],
    ['important over id', '.a{stroke:red!important} #x{stroke:blue}'],
    ['screen only', '@media print{path{stroke:blue}} @media screen{path{stroke:red}}'],
    ['comments and broken rules passed over', '/* x */ path{stroke:red;;} g:hover{stroke:blue} {'],
  ])('%s', (_, sheet) => {
    expect(strokeOf(sheet)).toBe('#FF0000');
  });
  test('siblings', () => {
    const two = '<g><rect width="1" height="1"/><path d="M0 0h9" fill="none"/></g>';
    const of = (sheet: string) => read(`<style>${sheet}</style>${two}`).drawing.items[1].paint.stroke;
    expect([of('rect+path{stroke:red}'), of('rect~path{stroke:red}'), of('path+rect{stroke:red}')]).toEqual([
      '#FF0000',
      '#FF0000',
      null,
    ]);
  });
  test('an element’s own style over sheets, unless those insist', () => {
    const own = '<path d="M0 0h9" fill="none" style="stroke:red"/>';
    expect(strokeOf('path{stroke:blue}', own)).toBe('#FF0000');
    expect(strokeOf('path{stroke:blue!important}', own)).toBe('#0000FF');
  });
});

describe('structure', () => {
  test('use, with its place and its own paint taken over', () => {
    expect(
      boxes(
        `<defs><g id="a">${rect('x="1"')}</g></defs><use href="#a" x="10" y="20"/><use href="#a" transform="scale(2)"/>`,
      ),
    ).toEqual([
      [11, 20, 15, 22],
      [2, 0, 10, 4],
    ]);
    const [item] = read('<defs><path id="p" d="M0 0h9"/></defs><use href="#p" stroke="red" fill="none"/>').drawing
      .items;
    expect(item.paint.stroke).toBe('#FF0000');
  });
  test('symbols have a viewport, which cuts what lies outside', () => {
    const symbol = `<symbol id="s" viewBox="0 0 10 10"><rect width="20" height="5" fill="red"/></symbol>`;
    expect(boxes(`${symbol}<use href="#s" x="5" width="20" height="20"/>`)).toEqual([[5, 0, 25, 10]]);
    expect(boxes(`<svg x="50%" width="10" height="10" viewBox="0 0 5 5" overflow="visible">${rect()}</svg>`)).toEqual([
      [50, 0, 58, 4],
    ]);
  });
  test('of a switch the first choice that is for us', () => {
    expect(
      boxes(
        `<switch><g requiredExtensions="x">${rect('y="9"')}</g><g systemLanguage="de">${rect('y="8"')}</g><g systemLanguage="en-GB">${rect('y="7"')}</g>${rect()}</switch>`,
      ),
    ).toEqual([[0, 7, 4, 9]]);
  });
  test('what repeats itself without end is stopped', () => {
    const doubling = Array.from(
      { length: 24 },
      (_, i) => `<g id="u${i + 1}"><use href="#u${i}"/><use href="#u${i}"/></g>`,
    ).join('');
    const reading = read(`<g id="u0">${rect()}</g>${doubling}`);
    expect(codesOf(reading)).toContain('use-without-end');
    expect(new Set(reading.drawing.items.map(({ id }) => id)).size).toBe(reading.drawing.items.length);
  });
  test('what a file does not show is there, hidden, with its note', () => {
    const reading = read(
      `<g opacity="0">${rect()}</g><g visibility="hidden">${rect()}${rect('visibility="visible"')}</g>`,
    );
    expect(reading.drawing.items.map(({ hidden }) => hidden)).toEqual([true, true, false]);
    const note = reading.notes.find(({ code }) => code === 'hidden-left-out');
    expect(note?.itemIds).toEqual(reading.drawing.items.slice(0, 2).map(({ id }) => id));
  });
});

describe('clips', () => {
  const disc = '<clipPath id="c"><circle cx="20" cy="20" r="10"/></clipPath>';
  const sizeOf = (item: Item) => sizeOfArea(areaOf(pathOf(item), item.fillRule));
  test('fills keep what lies inside, lines what runs inside; the whole stays hidden', () => {
    const reading = read(
      `${disc}<rect id="r" x="20" y="0" width="40" height="40" fill="red" stroke="blue" clip-path="url(#c)"/>`,
    );
    const [whole, filled, lined] = reading.drawing.items;
    expect(whole).toMatchObject({ hidden: true, name: 'r, whole' });
    expect(sizeOf(filled)).toBeCloseTo(50 * Math.PI, 0);
    expect(filled.paint).toMatchObject({ stroke: null, fill: '#FF0000' });
    expect(pathData(pathOf(lined), 1)).toBe('M20 30L20 10');
  });
  test('clips within clips, of groups, with transforms, by bounding box', () => {
    const nested =
      '<clipPath id="d" clip-path="url(#c)"><rect x="20" y="10" width="20" height="20" transform="translate(0 10)"/></clipPath>';
    const [, item] = read(`${disc}${nested}<g clip-path="url(#d)"><rect width="50" height="50" fill="red"/></g>`)
      .drawing.items;
    expect(sizeOf(item)).toBeCloseTo(25 * Math.PI, 0);
    const boxed = '<clipPath id="b" clipPathUnits="objectBoundingBox"><rect width=".5" height="1"/></clipPath>';
    expect(
      boxes(`${boxed}<g transform="translate(5 5)" clip-path="url(#b)">${rect('x="2"')}${rect('x="6"')}</g>`),
    ).toEqual([[7, 5, 11, 7]]);
  });
  test('taken whole by choice, and what a clip does not touch stays as exact as it was', () => {
    expect(
      read(`${disc}<circle cx="20" cy="20" r="9" fill="red" clip-path="url(#c)"/>`).drawing.items.map(
        ({ shape }) => shape.kind,
      ),
    ).toEqual(['ellipse']);
    const whole = read(`${disc}<rect width="50" height="50" fill="red" clip-path="url(#c)"/>`, { clips: 'whole' });
    expect([whole.drawing.items.length, codesOf(whole)]).toEqual([1, ['clip-not-applied']]);
  });
});

describe('paint', () => {
  test.each([
    [
      'the mean of a gradient',
      '<linearGradient id="g"><stop stop-color="#000"/><stop offset="1" stop-color="#FFF"/></linearGradient>',
      '#808080',
    ],
    [
      'weighted by its segments',
      '<linearGradient id="g"><stop offset=".8" stop-color="#000"/><stop offset="1" stop-color="#FFF"/></linearGradient>',
      '#191919',
    ],
    [
      'of another that it takes over',
      '<linearGradient id="a"><stop stop-color="red"/></linearGradient><radialGradient id="g" href="#a"/>',
      '#FF0000',
    ],
    ['of a pattern', '<pattern id="g"><rect fill="#F00"/><rect fill="#00F"/></pattern>', '#800080'],
  ])('%s', (_, server, fill) => {
    expect(read(`${server}<rect width="9" height="9" fill="url(#g)"/>`).drawing.items[0].paint.fill).toBe(fill);
  });
  test('a reference that leads nowhere falls back, or is no paint', () => {
    expect(read('<rect width="9" height="9" fill="url(#no) red"/>').drawing.items[0].paint.fill).toBe('#FF0000');
    expect(read('<rect width="9" height="9" fill="url(#no)"/>').drawing.items[0].hidden).toBe(true);
  });
  test('widths under transforms, fixed ones, ends and corners', () => {
    const of = (more: string) =>
      read(`<path d="M0 0h9v9" fill="none" stroke="red" stroke-width="2" ${more}/>`).drawing.items[0].paint;
    expect(of('transform="scale(3)"').strokeWidthMm).toBe(6);
    expect(of('transform="scale(4 1)"').strokeWidthMm).toBe(4);
    expect(of('transform="scale(3)" vector-effect="non-scaling-stroke"').strokeWidthMm).toBeCloseTo((2 * 25.4) / 96, 4);
    expect(of('stroke-linecap="round" stroke-linejoin="bevel"')).toMatchObject({ cap: 'round', join: 'bevel' });
  });
  test('dashes by choice, of what is filled too', () => {
    const dashed = '<path d="M0 0h20v5z" fill="lime" stroke="red" stroke-dasharray="4 6"/>';
    const [fill, line] = read(dashed, { dashes: 'dashed' }).drawing.items;
    expect([fill.paint.fill, fill.paint.stroke, line.paint.fill]).toEqual(['#00FF00', null, null]);
    expect(pathData(pathOf(line)).startsWith('M0 0L4 0M10 0L14 0')).toBe(true);
  });
});

describe('text', () => {
  const text = (attributes: string, body = 'HH') => `<text font-size="10" y="20" ${attributes}>${body}</text>`;
  const spanOf = (svg: string) => {
    const [item] = shown(read(svg));
    const { minX, maxX } = boundsOf(item);
    return { minX, maxX, middle: (minX + maxX) / 2 };
  };
  test('is set as filled outlines, named by what it says', () => {
    const [item] = read(text('x="10"')).drawing.items;
    expect(item).toMatchObject({ name: 'HH', fillRule: 'nonzero', paint: { fill: '#000000' } });
    expect(boundsOf(item).maxY).toBeCloseTo(20, 2);
  });
  test('anchors, lists and spacing put letters where they should stand', () => {
    const start = spanOf(text('x="50"'));
    expect(spanOf(text('x="50" text-anchor="middle"')).middle).toBeCloseTo(50, 1);
    expect(spanOf(text('x="50" text-anchor="end"')).maxX).toBeCloseTo(50 - (start.minX - 50), 1);
    expect(spanOf(text('x="50" letter-spacing="3"')).maxX - start.maxX).toBeCloseTo(3, 6);
    expect(spanOf(text('x="50" dx="0 5"')).maxX - start.maxX).toBeCloseTo(5, 6);
    expect(spanOf(text('x="50 70"')).maxX).toBeCloseTo(
      start.maxX + 70 - (50 + spanOf(text('x="0"', 'H')).maxX + spanOf(text('x="0"', 'H')).minX),
      1,
    );
    expect(spanOf(text('x="10" textLength="60"')).maxX).toBeCloseTo(70 - (start.minX - 50), 1);
  });
  test('spans with paints of their own are items of their own; spaces are as SVG has them', () => {
    const items = read(text('x="0"', '  Sow <tspan fill="red">in\n  spring</tspan> ')).drawing.items;
    expect(items.map(({ name, paint }) => [name, paint.fill])).toEqual([
      ['Sow', '#000000'],
      ['in spring', '#FF0000'],
    ]);
  });
  test('along a path, each letter stands upright on it', () => {
    const [item] = read(
      `<path id="p" d="M10 70V10" fill="none" stroke="none"/>${text('', '<textPath href="#p">HHH</textPath>')}`,
    ).drawing.items.slice(1);
    const { minX, maxX, minY, maxY } = boundsOf(item);
    expect(maxX).toBeCloseTo(10, 2);
    expect(maxY - minY).toBeGreaterThan(2 * (maxX - minX));
  });
  test('a font that is missing, and characters that no font has, are said', () => {
    const reading = read(text('x="0" font-family="Wanderlust, serif"', 'H\u4e00'));
    expect(codesOf(reading)).toEqual(expect.arrayContaining(['font-substituted', 'characters-missing']));
    expect(reading.notes.find(({ code }) => code === 'font-substituted')?.message).toMatch(
      '“Wanderlust” is not here; “Bitter” is used',
    );
    expect(codesOf(read(text('x="0" font-family="sans-serif"')))).not.toContain('font-substituted');
  });
});

const png = Buffer.from(await encodePixels({ width: 4, height: 2, rgb: new Uint8Array(24) })).toString('base64');

describe('pictures', () => {
  test('in the file come at their size; linked ones are never fetched', () => {
    const [item] = read(`<image x="10" y="5" width="40" height="40" href="data:image/png;base64,${png}"/>`).drawing
      .items;
    expect(item.shape).toMatchObject({ kind: 'picture', width: 4, height: 2 });
    // Fitted whole into its frame, in the middle.
    expect(boundsOf(item)).toEqual({ minX: 10, minY: 15, maxX: 50, maxY: 35 });
    expect(codesOf(read('<image width="9" height="9" href="https://example.org/a.png"/>'))).toContain('linked-picture');
    expect(codesOf(read('<image width="9" height="9" href="data:image/png;base64,AAAA"/>'))).toContain(
      'picture-not-read',
    );
  });

  test('are cropped by what clips or masks them, go out so, and come back', () => {
    const image = `<image x="10" y="5" width="40" height="20" href="data:image/png;base64,${png}"`;
    const clip = '<clipPath id="c"><circle cx="30" cy="15" r="8"/></clipPath>';
    const mask = '<mask id="m"><rect x="20" y="5" width="10" height="40" fill="#fff"/></mask>';
    const reading = read(
      `${clip}${mask}<g clip-path="url(#c)">${image} mask="url(#m)"/></g>${image} clip-path="url(#c)"/>`,
    );
    const rounded = (items: readonly Item[]) =>
      items.map((item) => Object.values(boundsOf(item)).map((value) => Math.round(value * 100) / 100));
    const places = [
      [22, 7, 30, 23],
      [22, 7, 38, 23],
    ];
    expect(rounded(reading.drawing.items)).toEqual(places);
    expect(codesOf(reading)).toContain('cropped-picture');
    const pictures = new Map(reading.pictures.map((file) => [file.id, file]));
    const page = { minX: 0, minY: 0, maxX: 100, maxY: 80 };
    const out = writeSvg({
      page,
      layers: [{ name: 'Pictures', meant: null, colour: '#000000', items: reading.drawing.items }],
      pictures,
    });
    const back = readSvg(out, idFor, testFonts, {});
    expect(rounded(back.drawing.items)).toEqual(places);
    expect(back.drawing.items.map(({ shape }) => shape.kind)).toEqual(['picture', 'picture']);
  });

  test('are taken whole where that is asked for, and kept hidden where nothing of them shows', () => {
    const image = `<image width="40" height="20" href="data:image/png;base64,${png}"`;
    const body = (x: number) =>
      `<clipPath id="c"><rect x="${x}" width="9" height="9"/></clipPath>${image} clip-path="url(#c)"/>`;
    const whole = read(body(4), { clips: 'whole' });
    expect(boundsOf(whole.drawing.items[0]).maxX).toBe(40);
    expect(codesOf(whole)).toContain('clip-not-applied');
    expect(read(body(60)).drawing.items.map(({ hidden }) => hidden)).toEqual([true]);
  });
});

describe('units and encodings', () => {
  const widthOf = (root: string, before = '') =>
    boundsOf(
      readSvg(`<svg xmlns="http://www.w3.org/2000/svg" ${root}>${before}<rect width="10" height="5"/></svg>`, idFor)
        .drawing.items[0],
    ).maxX;
  test('what a remark says of the unit is believed, where the page does not say', () => {
    expect(widthOf('', '<!-- drawn at 72 dpi -->')).toBeCloseTo((10 * 25.4) / 72, 9);
    expect(widthOf('', '<desc>1 unit = 1 mm</desc>')).toBeCloseTo(10, 9);
    expect(widthOf('width="50mm" viewBox="0 0 100 100"', '<!-- 72 dpi -->')).toBeCloseTo(5, 9);
  });
  test('text in other encodings', () => {
    const latin = Uint8Array.from('<?xml version="1.0" encoding="ISO-8859-1"?><svg>\u00e9</svg>', (letter) =>
      letter.charCodeAt(0),
    );
    expect(decodeText(latin)).toContain('é');
    const wide = new Uint8Array(
      new Uint16Array([0xfeff, ...[...'<svg>é</svg>'].map((letter) => letter.charCodeAt(0))]).buffer,
    );
    expect(decodeText(wide)).toContain('<svg>é');
    expect(sniffFormat(wide)).toBe('svg');
  });
  test.each<[string, string]>([
    ['%!PS-Adobe-3.0 EPSF', 'PostScript'],
    ['AC1027\u0000', 'DWG'],
    ['PK\u0003\u0004', 'ZIP'],
    ['   ', 'empty'],
    ['Dear Ines', 'none of the formats'],
  ])('%j is refused with what to do', (start, words) => {
    expect(sniffFormat(Uint8Array.from(start, (letter) => letter.charCodeAt(0)))).toMatchObject({
      refusal: expect.stringContaining(words),
    });
  });
  test.each([
    ['%PDF-1.4', 'pdf'],
    ['0\r\nSECTION\r\n', 'dxf'],
    ['999\nremark\n0\nSECTION', 'dxf'],
    ['solid part\nfacet', 'stl'],
  ])('%j is told', (start, format) => {
    expect(sniffFormat(new TextEncoder().encode(start))).toBe(format);
  });
});
