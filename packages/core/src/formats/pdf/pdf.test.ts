import { readFileSync } from 'node:fs';
import {
  clip,
  cmyk,
  degrees,
  endPath,
  PDFDocument,
  PDFName,
  type PDFPage,
  popGraphicsState,
  pushGraphicsState,
  rectangle,
  rgb,
  StandardFonts,
} from '@cantoo/pdf-lib';
import { describe, expect, test } from '@jest/globals';
import { boundsOf, pathOf } from '../../document/item.ts';
import { codesOf, idFor, testTools } from '../../fixtures/files.ts';
import { nodeCount, pathData } from '../../geometry/paths/path.ts';
import { encodePixels } from '../picture/encode.ts';
import { FileRefused } from '../refusal.ts';
import { operatorKinds } from './operators.ts';
import { readPdf } from './read.ts';
import { writePdf } from './write.ts';

const mm = (points: number) => (points * 25.4) / 72;

async function pdf(draw: (page: PDFPage, file: PDFDocument) => void | Promise<void>, pages = 1): Promise<Uint8Array> {
  const file = await PDFDocument.create();
  for (let i = 0; i < pages; i++) await draw(file.addPage([200, 100]), file);
  return file.save();
}
const read = (bytes: Uint8Array, choices = {}) => readPdf(bytes, idFor, choices, testTools.assets);

test('a space in a font that the file only names draws nothing', async () => {
  const bytes = await pdf(async (page, file) => {
    page.drawText('l l', { x: 20, y: 20, size: 20, font: await file.embedFont(StandardFonts.Helvetica) });
  });
  const [item] = (await read(bytes)).drawing.items;
  expect(pathData(pathOf(item)).match(/M/g)).toHaveLength(2);
});

describe('true size and place', () => {
  const box = (page: PDFPage) =>
    page.drawRectangle({
      x: 10,
      y: 20,
      width: 72,
      height: 36,
      borderColor: rgb(1, 0, 0),
      borderWidth: 0.72,
      borderOpacity: 1,
    });

  test('an inch is an inch, from the top left of the page', async () => {
    const { drawing, size } = await read(await pdf((page) => box(page)));
    const { minX, minY, maxX, maxY } = boundsOf(drawing.items[0]);
    expect([minX, minY, maxX - minX, maxY - minY].map((value) => value.toFixed(3))).toEqual(
      [mm(10), mm(44), 25.4, 12.7].map((value) => value.toFixed(3)),
    );
    expect(drawing.items[0].paint).toMatchObject({ stroke: '#FF0000', strokeWidthMm: 0.254, fill: null });
    expect(size.pageWidthMm).toBeCloseTo(mm(200), 6);
  });

  test('a turned, cropped page with units of its own', async () => {
    const bytes = await pdf((page, file) => {
      box(page);
      page.setRotation(degrees(90));
      page.setCropBox(5, 5, 150, 90);
      page.node.set(file.context.obj('UserUnit') as never, file.context.obj(2));
    });
    const { drawing, size } = await read(bytes);
    expect(size.pageWidthMm).toBeCloseTo(mm(180), 3);
    const { minX, maxX, minY, maxY } = boundsOf(drawing.items[0]);
    expect(maxX - minX).toBeCloseTo(25.4, 3);
    expect(maxY - minY).toBeCloseTo(50.8, 3);
    expect([minX, minY]).toEqual([expect.closeTo(mm(30), 2), expect.closeTo(mm(10), 2)]);
  });

  test('what the crop box hides comes hidden', async () => {
    const reading = await read(
      await pdf((page) => {
        box(page);
        page.setCropBox(100, 0, 100, 100);
      }),
    );
    expect(reading.drawing.items.map(({ hidden }) => hidden)).toEqual([true]);
    expect(codesOf(reading)).toContain('clipped-away');
  });
});

test('text comes as outlines, filled', async () => {
  const reading = await read(
    await pdf(async (page, file) => {
      const font = await file.embedFont(StandardFonts.Helvetica);
      page.drawText('HI', { x: 10, y: 20, size: 72, font, color: rgb(0, 0, 1) });
    }),
  );
  const [item] = reading.drawing.items;
  expect(item).toMatchObject({ name: 'HI', paint: { stroke: null, fill: '#0000FF' } });
  // Capitals of that face are a little over seven tenths of its size.
  const { minY, maxY } = boundsOf(item);
  expect((maxY - minY) / 25.4).toBeGreaterThan(0.68);
  expect((maxY - minY) / 25.4).toBeLessThan(0.75);
  expect(nodeCount(pathOf(item))).toBeGreaterThan(12);
});

test('colours that are not RGB are converted, and that is said', async () => {
  const reading = await read(await pdf((page) => page.drawCircle({ x: 50, y: 50, size: 20, color: cmyk(0, 1, 1, 0) })));
  const fill = reading.drawing.items[0].paint.fill ?? '';
  expect(fill).toMatch(/^#F[0-9A-F]/);
  expect(fill).not.toBe('#FF0000');
  expect(reading.notes.find(({ code }) => code === 'colours-converted')?.message).toMatch('CMYK');
  expect(
    codesOf(await read(await pdf((page) => page.drawCircle({ x: 50, y: 50, size: 20, color: rgb(1, 0, 0) })))),
  ).not.toContain('colours-converted');
});

describe('gradients and patterns', () => {
  /** A page whose content is `content`, with a gradient from red to blue as /G and as the pattern /P. */
  const page = (content: string) =>
    pdf((page, file) => {
      const { context } = file;
      const gradient = context.obj({
        ShadingType: 2,
        ColorSpace: 'DeviceRGB',
        Coords: [0, 0, 200, 0],
        Extend: [true, true],
        Function: { FunctionType: 2, Domain: [0, 1], C0: [1, 0, 0], C1: [0, 0, 1], N: 1 },
      });
      const tile = context.stream('1 0 0 rg 0 0 4 8 re f 0 1 0 rg 4 0 4 8 re f', {
        Type: 'Pattern',
        PatternType: 1,
        PaintType: 1,
        TilingType: 1,
        BBox: [0, 0, 8, 8],
        XStep: 8,
        YStep: 8,
        Resources: {},
      });
      page.node.set(
        PDFName.of('Resources'),
        context.obj({
          Shading: { G: gradient },
          Pattern: { P: { PatternType: 2, Shading: gradient }, T: context.register(tile) },
        }),
      );
      page.node.set(PDFName.of('Contents'), context.register(context.stream(content)));
    });
  const channels = (colour: string | null | undefined) =>
    [1, 3, 5].map((at) => Number.parseInt((colour ?? '').slice(at, at + 2), 16));

  test('a fill with a gradient has the mean of its stops', async () => {
    const reading = await read(await page('/Pattern cs /P scn 10 10 50 50 re f'));
    const [r, g, b] = channels(reading.drawing.items[0].paint.fill);
    expect([r, b].every((value) => Math.abs(value - 127.5) < 3) && g < 3).toBe(true);
    expect(codesOf(reading)).toEqual(['fading-fill']);
  });

  test('a gradient over all that a clip leaves fills just that', async () => {
    const reading = await read(await page('q 20 20 72 36 re W n /G sh Q'));
    const shown = reading.drawing.items.filter(({ hidden }) => !hidden);
    expect(shown).toHaveLength(1);
    const { minX, maxX, minY, maxY } = boundsOf(shown[0]);
    expect([minX, maxX - minX, maxY - minY].map((value) => value.toFixed(2))).toEqual([
      mm(20).toFixed(2),
      '25.40',
      '12.70',
    ]);
    expect(channels(shown[0].paint.fill)[1]).toBeLessThan(3);
  });

  test('a tile has the mean of the colours it paints with', async () => {
    const reading = await read(await page('/Pattern cs /T scn 10 10 50 50 re f'));
    expect(channels(reading.drawing.items[0].paint.fill)).toEqual([128, 128, 0]);
  });
});

test('remarks made on a page are left out, and that is said; links are no drawing', async () => {
  const annotated = (subtype: string) =>
    pdf((page, file) => {
      page.drawCircle({ x: 50, y: 50, size: 20, color: rgb(1, 0, 0) });
      const mark = file.context.obj({ Type: 'Annot', Subtype: subtype, Rect: [10, 10, 60, 60], C: [1, 0, 0] });
      page.node.set(PDFName.of('Annots'), file.context.obj([file.context.register(mark)]));
    });
  const reading = await read(await annotated('Square'));
  expect(reading.drawing.items).toHaveLength(1);
  expect(reading.notes.find(({ code }) => code === 'annotation')?.message).toMatch(/remark .* left out/);
  expect(codesOf(await read(await annotated('Link')))).toEqual([]);
});

test('pictures come at their place and size', async () => {
  const png = await encodePixels({ width: 4, height: 2, rgb: new Uint8Array(24).fill(90) });
  const reading = await read(
    await pdf(async (page, file) => {
      page.drawImage(await file.embedPng(png), { x: 0, y: 0, width: 72, height: 36 });
    }),
  );
  expect(reading.drawing.items[0].shape).toMatchObject({ kind: 'picture', width: 4, height: 2 });
  expect(boundsOf(reading.drawing.items[0]).maxX).toBeCloseTo(25.4, 3);
  expect(reading.pictures).toHaveLength(1);
});

test('a cropped picture goes out and comes back so', async () => {
  const png = await encodePixels({ width: 4, height: 2, rgb: new Uint8Array(24).fill(90) });
  const reading = await read(
    await pdf(async (page, file) => {
      page.pushOperators(pushGraphicsState(), rectangle(18, 9, 36, 72), clip(), endPath());
      page.drawImage(await file.embedPng(png), { x: 0, y: 0, width: 72, height: 36 });
      page.pushOperators(popGraphicsState());
    }),
  );
  const numbers = (from: typeof reading) => {
    const { minX, minY, maxX, maxY } = boundsOf(from.drawing.items[0]);
    return [minX, minY, maxX, maxY].map((value) => Math.round(value * 100) / 100);
  };
  expect(numbers(reading)).toEqual([mm(18), mm(64), mm(54), mm(91)].map((value) => Math.round(value * 100) / 100));
  const page = { minX: 0, minY: 0, maxX: 80, maxY: 40 };
  const layers = [{ name: 'Pictures', meant: null, colour: '#000000', items: reading.drawing.items }];
  const out = await writePdf(
    [{ page, layers, pictures: new Map(reading.pictures.map((file) => [file.id, file])) }],
    'A crop',
  );
  const back = await read(out);
  expect(numbers(back)).toEqual(numbers(reading));
  expect(back.drawing.items[0].shape).toMatchObject({ kind: 'picture', width: 4, height: 2 });
});

test('clips cut what they cross; the whole stays, hidden', async () => {
  const reading = await read(
    await pdf((page) => {
      page.pushOperators();
      page.drawSvgPath('M0 0L100 0', { x: 0, y: 50, borderColor: rgb(0, 0, 0) });
      page.setCropBox(0, 0, 50, 100);
    }),
  );
  expect(reading.drawing.items.map(({ hidden }) => hidden)).toEqual([true, false]);
  expect(boundsOf(reading.drawing.items[1]).maxX).toBeCloseTo(mm(50), 1);
  expect(pathData(pathOf(reading.drawing.items[0]), 1)).toBe(
    `M0 ${mm(50).toFixed(1)}L${mm(100).toFixed(1)} ${mm(50).toFixed(1)}`,
  );
});

describe('pages and damage', () => {
  test('a page that is chosen, and one that is not there', async () => {
    const bytes = await pdf((page, file) => {
      page.drawCircle({ x: 50, y: 50, size: 5 * file.getPageCount(), color: rgb(1, 0, 0) });
    }, 3);
    const { drawing, pageCount } = await read(bytes, { page: 3 });
    expect(pageCount).toBe(3);
    expect(boundsOf(drawing.items[0]).maxX - boundsOf(drawing.items[0]).minX).toBeCloseTo(mm(30), 2);
    await expect(read(bytes, { page: 4 })).rejects.toThrow('The PDF has 3 pages; there is no page 4.');
  });

  test('damage is said in a sentence, or what is left is read', async () => {
    const bytes = await pdf((page) => page.drawCircle({ x: 50, y: 50, size: 20 }));
    for (let cut = 0; cut < 12; cut++) {
      const piece = bytes.slice(0, Math.floor((bytes.length * cut) / 12));
      await read(piece).catch((error) => {
        expect(error).toBeInstanceOf(FileRefused);
      });
    }
    await expect(read(new TextEncoder().encode('%PDF-1.7\nnot more than this'))).rejects.toThrow(/damaged/);
  });
});

describe('nothing is passed over', () => {
  const sources = ['page-reader.ts', 'page-text.ts', 'packed.ts'].map((name) =>
    readFileSync(new URL(`./${name}`, import.meta.url), 'utf8'),
  );
  test('every operator of the package has a line that says what becomes of it, and those that are followed a case', async () => {
    const { OPS } = await import('pdfjs-dist/legacy/build/pdf.mjs');
    expect(Object.keys(operatorKinds).sort()).toEqual(Object.keys(OPS).sort());
    const withCase = Object.keys(OPS).filter((name) =>
      sources.some((source) => new RegExp(`OPS\\.${name}\\b`).test(source)),
    );
    const followed = Object.keys(operatorKinds).filter((name) => operatorKinds[name] === 'followed');
    // A path that is only ended draws nothing.
    expect(withCase.sort()).toEqual(followed.filter((name) => name !== 'endPath').sort());
  });
  const drawn = async (operators: string) =>
    read(
      await pdf((page, file) => {
        const states = { Gs1: { BM: 'Multiply' }, Gs2: { ML: 2 }, Gs3: { BM: 'Normal', ML: 10 } };
        page.node.normalizedEntries().Resources.set(PDFName.of('ExtGState'), file.context.obj(states));
        const stream = file.context.register(file.context.stream(`${operators} 1 0 0 RG 10 10 m 90 10 l S`));
        page.node.set(PDFName.of('Contents'), stream);
      }),
    );
  test.each([
    ['a limit of mitres', '2 M', 'operator-not-read'],
    ['the same in a state', '/Gs2 gs', 'state-not-read'],
    ['blending', '/Gs1 gs', 'state-not-read'],
    ['a text that clips', 'BT 7 Tr ET', 'clip-not-read'],
  ])('%s is noted', async (_, operators, code) => {
    const reading = await drawn(operators);
    expect(codesOf(reading)).toContain(code);
    expect(reading.drawing.items).toHaveLength(1);
  });
  test('what is as usual, or bears on nothing, is not', async () => {
    expect(codesOf(await drawn('10 M 4 M /Gs3 gs 1 i /Perceptual ri /Tag MP'))).toEqual([]);
  });
});
