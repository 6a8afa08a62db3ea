import { describe, expect, test } from '@jest/globals';
import { boundsOf, type Item, pathOf } from '../../document/item.ts';
import { codesOf, idFor, testFonts } from '../../fixtures/files.ts';
import { areaOf, sizeOfArea } from '../../geometry/areas/area.ts';
import { readSvg } from './read.ts';

const page = 'xmlns="http://www.w3.org/2000/svg" width="100mm" height="100mm" viewBox="0 0 100 100"';
const read = (body: string) => readSvg(`<svg ${page}>${body}</svg>`, idFor, testFonts);
const shown = (body: string) => read(body).drawing.items.filter((item) => !item.hidden);
const sizeOf = (item: Item) => sizeOfArea(areaOf(pathOf(item), item.fillRule));
const boxOf = (item: Item) => Object.values(boundsOf(item)).map((mm) => Math.round(mm * 1000) / 1000 || 0);
const square = (more: string) => `<rect x="10" y="10" width="40" height="40" fill="red" ${more}/>`;

describe('masks of plain shapes', () => {
  const masked = (mask: string, attributes = '') =>
    `<mask id="m" ${attributes}>${mask}</mask>${square('mask="url(#m)"')}`;
  const white = '<rect x="10" y="10" width="40" height="20" fill="#fff"/>';
  test('white shows, black over it hides, and the whole is kept hidden', () => {
    const items = read(masked(`${white}<rect x="10" y="10" width="10" height="10" fill="black"/>`)).drawing.items;
    expect(items.map(({ hidden }) => hidden)).toEqual([true, false]);
    expect(sizeOf(items[1])).toBeCloseTo(700, 6);
  });
  test('strokes, boxes, clips and nested use within a mask', () => {
    const [line] = shown(masked('<path d="M10 20h40" stroke="white" stroke-width="4"/>'));
    expect(sizeOf(line)).toBeCloseTo(160, 6);
    const boxed = '<rect width=".5" height="1" fill="white"/>';
    expect(boxOf(shown(masked(boxed, 'maskContentUnits="objectBoundingBox"'))[0])).toEqual([10, 10, 30, 50]);
    const used = `<defs><g id="u">${white}</g></defs>${masked('<use href="#u" y="10"/>')}`;
    expect(boxOf(shown(used)[0])).toEqual([10, 20, 50, 40]);
    const both = `<mask id="n">${white}</mask><g mask="url(#n)">${masked('<rect width="30" height="99" fill="white"/>')}</g>`;
    expect(boxOf(shown(both)[0])).toEqual([10, 10, 30, 30]);
  });
  test('its own frame, usually a tenth beyond what is masked', () => {
    expect(boxOf(shown(masked(white, 'maskUnits="userSpaceOnUse" x="10" y="10" width="5" height="99"'))[0])).toEqual([
      10, 10, 15, 30,
    ]);
    const wide = `<mask id="m"><rect width="99" height="99" fill="white"/></mask><g mask="url(#m)">${square('')}</g>`;
    expect(codesOf(read(wide))).not.toContain('clipped');
  });
  test('by alpha, any colour shows', () => {
    expect(sizeOf(shown(masked('<rect x="10" y="10" width="9" height="9"/>', 'mask-type="alpha"'))[0])).toBeCloseTo(
      81,
      6,
    );
  });
  test.each([
    ['grey', '<rect width="99" height="99" fill="#888"/>'],
    ['half see-through', '<rect width="99" height="99" fill="white" fill-opacity=".5"/>'],
    [
      'a gradient',
      '<linearGradient id="g"><stop stop-color="white"/><stop offset="1"/></linearGradient><rect width="99" height="99" fill="url(#g)"/>',
    ],
    ['a mask within that is grey', '<rect width="99" height="99" fill="white" mask="url(#k)"/>'],
  ])('%s: the part is taken whole, with a note of its own alone', (_, mask) => {
    const grey = '<mask id="k"><rect width="99" height="99" fill="#888"/></mask>';
    const reading = read(`${grey}${masked(mask)}`);
    expect(reading.drawing.items.map(boxOf)).toEqual([[10, 10, 50, 50]]);
    expect(codesOf(reading)).toEqual(['mask-not-applied']);
  });
  test('one that masks itself is no plain shape, one that is not there masks nothing', () => {
    expect(codesOf(read(masked('<rect width="9" height="9" fill="white" mask="url(#m)"/>')))).toEqual([
      'mask-not-applied',
    ]);
    expect(codesOf(read(square('mask="url(#no)"')))).toEqual([]);
  });
});

describe('markers', () => {
  const marker = (attributes: string, body = '<rect width="2" height="1" fill="red"/>') =>
    `<marker id="k" markerWidth="4" markerHeight="4" ${attributes}>${body}</marker>`;
  const line = (more: string, d = 'M10 10H30V50') =>
    `<path d="${d}" fill="none" stroke="blue" stroke-width="2" ${more}/>`;
  const marks = (attributes: string, more: string, d?: string) =>
    shown(`${marker(attributes)}${line(more, d)}`)
      .slice(1)
      .map(boxOf);
  test('at the first, the middle and the last vertices, as wide as the stroke says', () => {
    expect(marks('', 'marker-start="url(#k)"')).toEqual([[10, 10, 14, 12]]);
    expect(marks('', 'marker-mid="url(#k)"')).toEqual([[30, 10, 34, 12]]);
    expect(marks('', 'marker-end="url(#k)"')).toEqual([[30, 50, 34, 52]]);
    expect(marks('markerUnits="userSpaceOnUse"', 'marker-end="url(#k)"')).toEqual([[30, 50, 32, 51]]);
    expect(marks('', 'style="marker:url(#k)"')).toHaveLength(3);
  });
  test('turned with the line, its reference point on the vertex', () => {
    expect(marks('orient="auto"', 'marker-end="url(#k)"')).toEqual([[28, 50, 30, 54]]);
    expect(marks('orient="auto-start-reverse" refY=".5"', 'marker-start="url(#k)"')).toEqual([[6, 9, 10, 11]]);
    expect(marks('orient="90" refX="1"', 'marker-start="url(#k)"')).toEqual([[8, 8, 10, 12]]);
    expect(marks('refX="right" refY="center"', 'marker-start="url(#k)"')).toEqual([[2, 6, 6, 8]]);
    // At a corner, half way between what comes and what goes.
    const [corner] = shown(`${marker('orient="auto"')}${line('marker-mid="url(#k)"')}`).slice(1);
    expect((Math.atan2(corner.matrix[1], corner.matrix[0]) * 180) / Math.PI).toBeCloseTo(45, 9);
  });
  test('its viewBox fits its size, and what lies outside is cut away', () => {
    expect(marks('viewBox="0 0 2 2"', 'marker-start="url(#k)"')).toEqual([[10, 10, 18, 14]]);
    const wide = `<marker id="k" markerWidth="1" markerHeight="1"><rect width="9" height="9" fill="red"/></marker>`;
    expect(
      shown(`${wide}${line('marker-start="url(#k)"')}`)
        .slice(1)
        .map(boxOf),
    ).toEqual([[10, 10, 12, 12]]);
  });
  test('closed lines end where they start; each mark has an id of its own', () => {
    const reading = read(`${marker('')}${line('style="marker:url(#k)"', 'M10 10H30V50Z')}`);
    expect(reading.drawing.items).toHaveLength(5);
    expect(new Set(reading.drawing.items.map(({ id }) => id)).size).toBe(5);
  });
  test('painted by themselves, or as the line is', () => {
    const body = '<path d="M0 0h1v1z" fill="context-stroke"/>';
    const items = shown(`<g fill="lime">${marker('', body)}</g>${line('marker-end="url(#k)"')}`);
    expect(items[1].paint.fill).toBe('#0000FF');
  });
  test('what shows itself is not followed; rectangles have none', () => {
    const inItself = marker('', `<path d="M0 0h1" stroke="red" marker-end="url(#k)"/>`);
    expect(shown(`${inItself}${line('marker-end="url(#k)"')}`)).toHaveLength(2);
    expect(shown(`${marker('')}<rect width="9" height="9" marker-start="url(#k)"/>`)).toHaveLength(1);
  });
});

describe('CSS that few files have', () => {
  const strokeOf = (body: string) => read(body).drawing.items[0].paint.stroke;
  test('custom properties: case, inheritance, references to each other, and what leads nowhere', () => {
    const line = (style: string) => `<path d="M0 0h9" fill="none" style="${style}"/>`;
    expect(strokeOf(`<g style="--Ink:red">${line('stroke:var(--Ink)')}</g>`)).toBe('#FF0000');
    expect(strokeOf(`<g style="--Ink:red">${line('stroke:var(--ink, blue)')}</g>`)).toBe('#0000FF');
    expect(strokeOf(`<style>svg{--a:var(--b);--b:lime}</style>${line('stroke:var(--a)')}`)).toBe('#00FF00');
    expect(strokeOf(`<g stroke="red">${line('--a:var(--a);stroke:var(--a)')}</g>`)).toBe('#FF0000');
    const doubling = Array.from({ length: 40 }, (_, i) => `--a${i}:var(--a${i + 1}) var(--a${i + 1})`).join(';');
    expect(strokeOf(`<g stroke="red">${line(`${doubling};stroke:var(--a0)`)}</g>`)).toBe('#FF0000');
    // Where a part is used, it takes over from there.
    expect(strokeOf(`<defs><path id="p" d="M0 0h9" stroke="var(--c)"/></defs><use href="#p" style="--c:red"/>`)).toBe(
      '#FF0000',
    );
  });
  test('sums of lengths', () => {
    const width = (text: string) => boxOf(shown(`<rect height="9" style="width:${text}"/>`)[0])[2];
    expect(width('calc(2 * (10px + 5%))')).toBe(30);
    expect(width('min(30px, 20%)')).toBe(20);
    expect(width('clamp(1px, 99px, 1rem)')).toBe(16);
    // No length, and no effect.
    expect(shown('<rect height="9" width="7" style="width:calc(5px * 2px)"/>')).toHaveLength(0);
  });
  test('a shorthand for fonts', () => {
    const text = (style: string) => shown(`<text y="20" style="${style}">H</text>`)[0];
    expect(text('font:italic bold 10px/1.2 Bitter, serif').shape).toEqual(
      text('font-size:10px;font-family:Bitter,serif;font-weight:bold;font-style:italic').shape,
    );
  });
  test('basic shapes: boxes, corners, rules; what makes no sense is said', () => {
    const clipped = (clip: string, more = '') => shown(square(`style="clip-path:${clip}" ${more}`)).map(boxOf);
    expect(clipped('ellipse(25% 10px)')).toEqual([[20, 20, 40, 40]]);
    expect(clipped('circle(farthest-side at left top)')).toEqual([[10, 10, 50, 50]]);
    expect(clipped('rect(5px 30px auto 10%)')).toEqual([[14, 15, 40, 50]]);
    expect(clipped('xywh(1px 2px 50% 5px round 1px)')).toEqual([[11, 12, 31, 17]]);
    expect(clipped("path('M0 0h5v5h-5z') view-box")).toEqual([]);
    expect(clipped("path('M0 0h15v15h-15z') view-box")).toEqual([[10, 10, 15, 15]]);
    const stroked = 'stroke="blue" stroke-width="4"';
    expect(clipped('inset(3px) fill-box', stroked)).toEqual([[13, 13, 47, 47]]);
    expect(clipped('inset(3px)', stroked)).toEqual([[11, 11, 49, 49]]);
    const [ring] = shown(
      square('style="clip-path:polygon(evenodd, 0 0, 20px 0, 20px 20px, 0 20px, 0 0, 20px 0, 20px 10px, 0 10px)"'),
    );
    expect(sizeOf(ring)).toBeCloseTo(200, 6);
    expect(codesOf(read(square('style="clip-path:inset(1px 2px 3px 4px 5px)"')))).toEqual(['clip-not-read']);
  });
});
