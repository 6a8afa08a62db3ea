import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { areaOf, growArea, sizeOfArea, subtractAreas } from '../geometry/areas/area.ts';
import { pathOfRings } from '../geometry/areas/rings.ts';
import { flatten, type Polyline } from '../geometry/paths/flatten.ts';
import { type Path, PathBuilder } from '../geometry/paths/path.ts';
import { ringsOutside } from './around.ts';

const disc = (radius: number, x = 0, y = 0) => {
  const k = radius * 0.5522847498;
  return new PathBuilder()
    .moveTo(x + radius, y)
    .cubicTo(x + radius, y + k, x + k, y + radius, x, y + radius)
    .cubicTo(x - k, y + radius, x - radius, y + k, x - radius, y)
    .cubicTo(x - radius, y - k, x - k, y - radius, x, y - radius)
    .cubicTo(x + k, y - radius, x + radius, y - k, x + radius, y)
    .close()
    .build();
};
const linesOf = (path: Path): Polyline[] => flatten(path, 0.002);
const area = (lines: readonly Polyline[]) => areaOf(pathOfRings(lines.map(({ points }) => points)), 'evenodd');
const around = (lines: readonly Polyline[], strays: number) =>
  areaOf(pathOfRings(ringsOutside(lines, strays, 0.002)), 'evenodd');

describe('lines around outlines', () => {
  test('hold a disc whole in fewer lines, and are larger by less than half of what they may stray', () => {
    const lines = linesOf(disc(20));
    const [ring] = ringsOutside(lines, 0.2, 0.002);
    expect(ring.length).toBeLessThan(lines[0].points.length / 3);
    const more = sizeOfArea(around(lines, 0.2)) - sizeOfArea(area(lines));
    expect(more).toBeGreaterThan(0);
    expect(more).toBeLessThan(2 * Math.PI * 20 * 0.1);
    expect(sizeOfArea(subtractAreas(area(lines), around(lines, 0.2)))).toBe(0);
  });

  test('leave less of a hole', () => {
    const lines = [...linesOf(disc(30)), ...linesOf(disc(12))];
    expect(sizeOfArea(subtractAreas(area(lines), around(lines, 0.2)))).toBe(0);
    expect(sizeOfArea(around(lines, 0.2))).toBeLessThan(sizeOfArea(area(lines)) + 2 * Math.PI * 42 * 0.11);
  });

  test('of straight lines, are those lines, moved out by the least', () => {
    const square = linesOf(pathOfRings([[0, 0, 10, 0, 10, 10, 0, 10]]));
    expect(sizeOfArea(around(square, 0.2))).toBeCloseTo(10.004 ** 2, 4);
  });

  test('hold whatever they are around, however it bends, whichever way round it goes', () => {
    const mm = fc.double({ min: 2, max: 40, noNaN: true });
    fc.assert(
      fc.property(fc.array(fc.tuple(mm, mm), { minLength: 3, maxLength: 9 }), fc.boolean(), (radii, isReversed) => {
        // A star of curves: from one point to the next by way of another radius.
        const at = (i: number, radius: number) => {
          const angle = ((isReversed ? -i : i) * 2 * Math.PI) / radii.length;
          return [radius * Math.cos(angle), radius * Math.sin(angle)] as const;
        };
        const builder = new PathBuilder().moveTo(...at(0, radii[0][0]));
        radii.forEach(([, bend], i) => {
          const next = radii[(i + 1) % radii.length][0];
          builder.cubicTo(...at(i + 1 / 3, bend), ...at(i + 2 / 3, bend), ...at(i + 1, next));
        });
        const lines = linesOf(builder.close().build());
        const strays = 0.25;
        const outside = around(lines, strays);
        const whole = area(lines);
        // Give or take the raster of the arithmetic.
        expect(sizeOfArea(subtractAreas(growArea(whole, -0.001), outside))).toBeLessThan(1e-6);
        expect(sizeOfArea(subtractAreas(outside, growArea(whole, 5 * strays)))).toBeLessThan(1e-6);
      }),
    );
  });
});
