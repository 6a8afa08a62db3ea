import { describe, expect, test } from '@jest/globals';
import { type ColourKey, operationColourKey } from '../colours/key.ts';
import { startingKeys } from '../colours/starting-keys.ts';
import { boundsOf } from '../document/item.ts';
import { idFor, testFonts, testTools } from '../fixtures/files.ts';
import { readDrawingFile } from './read.ts';
import { writeSvg } from './svg/write.ts';
import { drawingRules, drawingTemplate } from './template.ts';
import { writePdf } from './write.ts';

const house = operationColourKey('house', 'House');
const [, byWidth] = startingKeys.map(({ key }) => key);
const bed = { width: 600, height: 400 };
const template = (key: ColourKey) => drawingTemplate(bed, 5, key, testFonts);

describe('what a key asks for', () => {
  test('is said of each rule in its order: what is drawn how, and what is done with it', () => {
    expect(drawingRules(byWidth)).toMatchObject([
      { part: 'stroke', colour: null, minWidthMm: null, maxWidthMm: 0.1, operation: 'cut' },
      { part: 'stroke', colour: null, minWidthMm: 0.1, maxWidthMm: 0.5, operation: 'score' },
      { part: 'stroke', colour: null, minWidthMm: 0.5, maxWidthMm: null, operation: 'engrave' },
      { part: 'fill', colour: null, operation: 'engrave' },
    ]);
    expect(drawingRules(house)[0]).toMatchObject({ part: 'stroke', colour: '#D0481E', operation: 'cut' });
  });

  test('leaves out what greys mean, and rules for layers that the key lacks', () => {
    const [rule] = house.rules;
    const odd = { ...house, rules: [{ ...rule, grey: { from: 0, to: 50 } }, { ...rule, layerId: 'gone' }, rule] };
    expect(drawingRules(odd)).toHaveLength(1);
  });
});

describe('a template', () => {
  test('is as large as the bed, shows its margin, and a swatch of each colour with its words', () => {
    const { page, layers } = template(house);
    expect(page).toEqual({ minX: 0, minY: 0, maxX: 600, maxY: 400 });
    const [{ items }] = layers;
    expect(boundsOf(items[1])).toEqual({ minX: 5, minY: 5, maxX: 595, maxY: 395 });
    const swatches = items.slice(2).filter(({ shape }) => shape.kind === 'rectangle');
    expect(swatches).toHaveLength(house.rules.length);
    expect(swatches[0]).toMatchObject({ name: 'Lines: Cut', paint: { stroke: '#D0481E', fill: null } });
    expect(template(byWidth).layers[0].items.map(({ name }) => name)).toEqual(
      expect.arrayContaining([
        'Lines up to 0.1 mm wide: Cut',
        'Lines 0.1 to 0.5 mm wide: Score',
        'Lines from 0.5 mm wide: Engrave',
        'Fills: Engrave',
      ]),
    );
  });

  test('stays within its margin', () => {
    for (const item of template(house).layers[0].items.slice(1)) {
      const { minX, minY, maxX, maxY } = boundsOf(item);
      expect([minX >= 5, minY >= 5, maxX <= 595, maxY <= 395]).toEqual([true, true, true, true]);
    }
  });

  test.each([
    ['SVG', async () => new TextEncoder().encode(writeSvg(template(house)))],
    ['PDF', () => writePdf([template(house)], 'Template')],
  ])('as %s is all guides when it is read again, whatever its colours', async (_, write) => {
    const { drawing, layers = [], size } = await readDrawingFile(await write(), idFor, testTools);
    expect([size.pageWidthMm, size.pageHeightMm].map((mm) => Math.round(mm ?? 0))).toEqual([600, 400]);
    expect(layers.map(({ operation }) => operation)).toEqual(['guide']);
    expect(drawing.items.length).toBeGreaterThan(house.rules.length);
    expect(new Set(layers[0].itemIds)).toEqual(new Set(drawing.items.map(({ id }) => id)));
  });
});
