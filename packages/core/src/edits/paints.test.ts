import { describe, expect, test } from '@jest/globals';
import { box, item, jobWith, line } from '../fixtures/shop.ts';
import { paintLike, setLineWidth } from './paints.ts';

describe('the thickness of lines', () => {
  test('is given to lines; what shared a paint shares it still, and nothing else is changed', () => {
    const [a, b, other] = [item(box(0, 0, 10), 'cut'), item(box(20, 0, 10), 'cut'), item(box(40, 0, 10), 'score')];
    const shared = { ...b, paint: a.paint };
    const { items } = setLineWidth(jobWith([a, shared, other]), new Set([a.id, b.id]), 1.5).drawing;
    expect(items[0]).toEqual({ ...a, paint: { ...a.paint, strokeWidthMm: 1.5 } });
    expect(items[1].paint).toBe(items[0].paint);
    expect(items[2]).toBe(other);
  });

  test('of a fill alone is a line of its colour; an open outline is a line and no area', () => {
    const area = item(box(0, 0, 10), 'engrave');
    const open = item(line(0, 0, 30, 0), 'engrave', { paint: area.paint });
    const { items } = setLineWidth(jobWith([area, open]), new Set([area.id, open.id]), 2).drawing;
    const { fill } = area.paint;
    expect(items[0].paint).toEqual({ stroke: fill, strokeWidthMm: 2, fill });
    expect(items[1].paint).toEqual({ stroke: fill, strokeWidthMm: 2, fill: null });
  });

  test.each([0, -1, Number.NaN, Number.POSITIVE_INFINITY])('of %d is none', (mm) => {
    expect(() => setLineWidth(jobWith([]), new Set(), mm)).toThrow(RangeError);
  });
});

test('what is painted like another is on its layers too, by hand or by the key', () => {
  const model = item(box(0, 0, 10), 'cut', { pinned: 'score', also: 'engrave' });
  const plain = item(box(20, 0, 10), 'score', { also: 'cut' });
  const { items } = paintLike(jobWith([model, plain]), new Set([plain.id]), model).drawing;
  expect(items[1]).toEqual({ ...plain, paint: model.paint, pinned: 'score', also: 'engrave' });
  const back = paintLike(jobWith([model, plain]), new Set([model.id]), { ...plain, pinned: null, also: undefined });
  expect(back.drawing.items[0]).toEqual({ ...plain, id: model.id, shape: model.shape, pinned: null, also: undefined });
});
