import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { box, item, jobWith, shop } from '../fixtures/shop.ts';
import { prepareJob } from '../plan/prepare.ts';
import { compareLines, type Difference, type DrawnLine } from './compare.ts';
import { writeDifference } from './difference-picture.ts';
import { drawnLines } from './drawn-lines.ts';

function polygon(points: readonly number[], does = 'cut'): DrawnLine {
  return { line: { points: Float64Array.from(points), closed: true }, does };
}
function rectangle(x: number, y: number, width: number, height = width, does = 'cut'): DrawnLine {
  return polygon([x, y, x + width, y, x + width, y + height, x, y + height], does);
}
/** A circle as straight lines, from where it begins. */
function circle(x: number, y: number, radius: number, pieces: number, turn = 0): DrawnLine {
  const points = Array.from({ length: pieces }, (_, i) => turn + (2 * Math.PI * i) / pieces).flatMap((angle) => [
    x + radius * Math.cos(angle),
    y + radius * Math.sin(angle),
  ]);
  return polygon(points);
}
const counts = ({ same, otherwise, gone, added }: Difference) => [
  same.length,
  otherwise.length,
  gone.length,
  added.length,
];

describe('two states of a drawing', () => {
  const plate = [rectangle(0, 0, 80, 40), circle(20, 20, 3, 64), circle(60, 20, 3, 64)];

  test('what stayed, went, came and is done otherwise is told apart', () => {
    const next = [plate[0], plate[1], rectangle(60, 10, 5), { ...plate[2], does: 'engrave' }];
    const found = compareLines([...plate, circle(40, 20, 6, 64)], next);
    expect(counts(found)).toEqual([2, 1, 1, 1]);
    expect(found.otherwise).toEqual([plate[2].line]);
    expect(found.gone).toEqual([circle(40, 20, 6, 64).line]);
    expect(found.added).toEqual([rectangle(60, 10, 5).line]);
  });

  test('a new part beside it that moves all else changes nothing of the rest, and what went lies where it would lie now', () => {
    const hole = rectangle(30, 10, 7);
    const moved = plate.map((one) => shift(one, 25, -3));
    const found = compareLines([...plate, hole], [rectangle(0, 0, 20), ...moved]);
    expect(counts(found)).toEqual([3, 0, 1, 1]);
    expect(found.gone).toEqual([shift(hole, 25, -3).line]);
  });

  test('a line that begins elsewhere, goes the other way or has other pieces is the same', () => {
    const old = circle(10, 10, 5, 400);
    const { points } = circle(10, 10, 5, 400, 1).line;
    const turned = [...points].flatMap((x, i) => (i % 2 === 0 ? [[x, points[i + 1]]] : [])).toReversed();
    expect(counts(compareLines([old], [polygon(turned.flat())]))).toEqual([1, 0, 0, 0]);
    expect(counts(compareLines([old], [circle(10, 10, 5, 397)]))).toEqual([1, 0, 0, 0]);
  });

  test('a tenth of a millimetre is a change; a hundredth is none', () => {
    expect(counts(compareLines(plate, [...plate.slice(0, 2), circle(60.1, 20, 3, 64)]))).toEqual([2, 0, 1, 1]);
    expect(counts(compareLines(plate, [...plate.slice(0, 2), circle(60.01, 20, 3, 64)]))).toEqual([3, 0, 0, 0]);
    expect(counts(compareLines(plate, [...plate.slice(0, 2), circle(60, 20, 3.1, 64)]))).toEqual([2, 0, 1, 1]);
    // As long, and in the same box, but another line.
    const [one, other] = [polygon([0, 0, 10, 0, 10, 4, 0, 10]), polygon([0, 0, 10, 0, 4, 10, 0, 10])];
    expect(counts(compareLines([one, ...plate], [other, ...plate]))).toEqual([3, 0, 1, 1]);
  });

  test('a piece of a row that goes leaves the others where they were', () => {
    const row = Array.from({ length: 12 }, (_, i) => rectangle(i * 20, 0, 15));
    const found = compareLines(row, row.slice(1));
    expect(counts(found)).toEqual([11, 0, 1, 0]);
    expect(found.gone).toEqual([row[0].line]);
    expect(counts(compareLines([], row))).toEqual([0, 0, 0, 12]);
    expect(counts(compareLines(row, []))).toEqual([0, 0, 12, 0]);
  });

  test('each line is counted once, and what both have in any order, anywhere, is the same', () => {
    const some = fc.array(
      fc.record({
        x: fc.integer({ min: 0, max: 400 }),
        y: fc.integer({ min: 0, max: 400 }),
        size: fc.integer({ min: 1, max: 50 }),
        does: fc.constantFrom('cut', 'score'),
      }),
      { minLength: 1, maxLength: 30 },
    );
    const place = fc.integer({ min: -300, max: 300 });
    fc.assert(
      fc.property(some, some, place, place, (drawn, others, dx, dy) => {
        const asLines = (all: typeof drawn) => all.map(({ x, y, size, does }) => rectangle(x, y, size, size / 2, does));
        const [before, after] = [asLines(drawn), asLines(others)];
        const [same, otherwise, gone, added] = counts(compareLines(before, after));
        expect([same + otherwise + gone, same + otherwise + added]).toEqual([before.length, after.length]);
        const elsewhere = before.map((one) => shift(one, dx, dy)).toReversed();
        expect(counts(compareLines(before, elsewhere))).toEqual([before.length, 0, 0, 0]);
      }),
    );
  });

  test('its picture shows each kind in a look of its own, with room around', () => {
    const found = compareLines(plate, [plate[0], plate[1], rectangle(60, 10, 5)]);
    const svg = writeDifference(found, 300);
    expect(svg.match(/<path/g)).toHaveLength(3);
    expect(svg).toContain('viewBox="-4 -4 88 48"');
    expect(svg).toMatch(/M60.00 10.00[^>]*stroke="#2E7D4F"/);
    expect(svg).toMatch(/stroke="#B3261E"[^>]*stroke-dasharray/);
    expect(writeDifference(compareLines([], []), 300)).not.toContain('<path');
  });
});

test('the lines of a job say what is done with them; what is hidden is not among them', () => {
  const job = jobWith([
    item(box(0, 0, 10), 'cut'),
    item(box(20, 0, 10), 'engrave'),
    { ...item(box(40, 0, 10), 'cut'), hidden: true },
  ]);
  const lines = drawnLines(prepareJob(job, shop));
  expect(lines.map(({ does }) => does)).toEqual(['cut', 'engrave']);
  expect([...lines[1].line.points.slice(0, 2)]).toEqual([20, 0]);
});

function shift({ line, does }: DrawnLine, dx: number, dy: number): DrawnLine {
  return { line: { ...line, points: line.points.map((value, i) => value + (i % 2 === 0 ? dx : dy)) }, does };
}
