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

  test('is each sheet’s outline in its own frame, what it is and how thick it is as it was measured', () => {
    expect(told([slab])).toEqual([
      {
        rings: [[10, 20, 110, 20, 110, 70, 10, 70]],
        kind: 'Plywood',
        thickness: 3.1,
      },
    ]);
    expect(told([{ ...slab, thicknessMm: 3.4 }], 'bottom-left')[0]).toMatchObject({
      thickness: 3.4,
      rings: [[10, 380, 110, 380, 110, 330, 10, 330]],
    });
  });

  test('a turned sheet is told turned; of a material that is gone, and of too many sheets, nothing', () => {
    expect(told([{ ...slab, angle: 90 }])[0].rings).toEqual([[85, -5, 85, 95, 35, 95, 35, -5]]);
    expect(told([{ ...slab, materialId: 'gone' }])).toEqual([]);
    const many = sheetsOn(
      Array.from({ length: 2000 }, () => slab),
      machineWith('centre'),
      [ply],
    );
    expect(many.length).toBeLessThan(65_536);
  });

  test('of an offcut its outline with its holes; of more points than fit on a line as many as do', () => {
    const corner = [0, 0, 100, 0, 100, 20, 30, 20, 30, 50, 0, 50];
    const hole = [5, 5, 15, 5, 15, 15, 5, 15];
    const [{ rings }] = told([{ ...slab, outline: [corner, hole] }]);
    expect(rings).toEqual([corner, hole].map((ring) => ring.map((mm, i) => mm + (i % 2 === 0 ? 10 : 20))));
    // Round, of far more points than it takes.
    const round = Array.from({ length: 20_000 }, (_, i) => {
      const [angle, wave] = [(Math.PI * Math.floor(i / 2)) / 5000, (i >> 1) % 2 === 0 ? 0.2 : -0.2];
      return i % 2 === 0 ? 50 + (25 + wave) * Math.cos(angle) : 25 + (25 + wave) * Math.sin(angle);
    });
    const [disc] = told([{ ...slab, outline: [round] }]);
    expect(JSON.stringify(disc).length).toBeLessThan(65_000);
    expect(disc.rings[0].length).toBeGreaterThan(20);
    for (let i = 0; i < disc.rings[0].length; i += 2) {
      const far = Math.hypot(disc.rings[0][i] - 60, disc.rings[0][i + 1] - 45);
      expect(Math.abs(far - 25)).toBeLessThan(0.3);
    }
    // Of more holes than fit, the sheet is whole.
    const holes = Array.from({ length: 4000 }, (_, i) => [i / 50, 1, i / 50 + 0.01, 1, i / 50 + 0.01, 1.01]);
    expect(told([{ ...slab, outline: [corner, ...holes] }])[0].rings).toEqual([[10, 20, 110, 20, 110, 70, 10, 70]]);
  });
});
