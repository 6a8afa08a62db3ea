import { gunzipSync, gzipSync } from 'node:zlib';
import { describe, expect, test } from '@jest/globals';
import type { Sheet } from '@lambent/core/document';
import { type Machine, type Origin, toMachine } from '@lambent/core/machine';
import type { Material } from '@lambent/core/recipes';
import fc from 'fast-check';
import { pictureFrom, sheetsOn } from '../src/runs/stand-in-camera.ts';

const machineWith = (origin: Origin) => ({ origin, bedWidth: 600, bedHeight: 400 }) as Machine;
const origins: readonly Origin[] = ['top-left', 'bottom-left', 'centre'];

/** A picture as a stand-in answers it, with one point that is burnt. */
function answerWith(width: number, height: number, i: number, j: number): string {
  const codes = Buffer.alloc(width * height);
  codes[j * width + i] = 254;
  return JSON.stringify({ x: -3.2, y: 7.4, pitch: 0.2, width, height, codes: gzipSync(codes).toString('base64') });
}

describe('what a stand-in shows', () => {
  test.each(origins)('lies on the bed where it was burnt, from a %s zero', async (origin) => {
    const machine = machineWith(origin);
    const sizes = fc.integer({ min: 1, max: 40 });
    await fc.assert(
      fc.asyncProperty(sizes, sizes, fc.nat(), fc.nat(), async (width, height, a, b) => {
        const [i, j] = [a % width, b % height];
        const picture = await pictureFrom(answerWith(width, height, i, j), machine);
        if (!picture) throw new Error('There is a picture.');
        const at = gunzipSync(picture.codes).indexOf(254);
        // The middle of the burnt point, on the bed and back in the machine's frame.
        const x = picture.x + ((at % width) + 0.5) * picture.pitchMm;
        const y = picture.y + (Math.floor(at / width) + 0.5) * picture.pitchMm;
        const back = toMachine(machine, x, y);
        expect(back.x).toBeCloseTo(-3.2 + (i + 0.5) * 0.2, 9);
        expect(back.y).toBeCloseTo(7.4 + (j + 0.5) * 0.2, 9);
      }),
      { numRuns: 40 },
    );
  });

  test('is nothing where nothing is burnt, or where the machine has no such word', async () => {
    expect(await pictureFrom('null', machineWith('centre'))).toBeNull();
    expect(await pictureFrom('error:the machine went away', machineWith('centre'))).toBeNull();
  });
});

describe('what a stand-in is told', () => {
  const ply = { id: 'ply', name: 'Birch', family: 'Plywood', thicknessMm: 3, measuredMm: 3.1 } as Material;
  const slab: Sheet = { id: 'a', materialId: 'ply', x: 10, y: 20, width: 100, height: 50, margin: 3 };
  const told = (sheets: readonly Sheet[], origin: Origin = 'top-left') =>
    JSON.parse(sheetsOn(sheets, machineWith(origin), [ply]));

  test('is each sheet’s corners in its own frame, what it is and how thick it is as it was measured', () => {
    expect(told([slab])).toEqual([
      {
        corners: [
          [10, 20],
          [110, 20],
          [110, 70],
          [10, 70],
        ],
        kind: 'Plywood',
        thickness: 3.1,
      },
    ]);
    expect(told([{ ...slab, thicknessMm: 3.4 }], 'bottom-left')[0]).toMatchObject({
      thickness: 3.4,
      corners: [
        [10, 380],
        [110, 380],
        [110, 330],
        [10, 330],
      ],
    });
  });

  test('of a turned sheet the corners turn; of a material that is gone, and of too many sheets, nothing', () => {
    const [{ corners }] = told([{ ...slab, angle: 90 }]);
    expect(corners.map(([x, y]: number[]) => [Math.round(x), Math.round(y)])).toEqual([
      [85, -5],
      [85, 95],
      [35, 95],
      [35, -5],
    ]);
    expect(told([{ ...slab, materialId: 'gone' }])).toEqual([]);
    const many = sheetsOn(
      Array.from({ length: 2000 }, () => slab),
      machineWith('centre'),
      [ply],
    );
    expect(many.length).toBeLessThan(65_536);
  });
});
