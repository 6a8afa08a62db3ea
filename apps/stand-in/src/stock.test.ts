import { gunzipSync } from 'node:zlib';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { build } from './fixtures/build.ts';
import { StandInMachine } from './machine.ts';
import { type BedPicture, Code, Stock } from './stock.ts';
import { beamMm, type StockSheet } from './stock-sheet.ts';

const sheet: StockSheet = {
  rings: [[10, 10, 90, 10, 90, 90, 10, 90]],
  kind: 'Plywood',
  thickness: 3,
};
/** What the stated model takes to go through it with the focus on its surface, in J/mm: the law, summed over the depth. */
const needed = 0.47 * (3 ** 1.1 + ((1.1 / 36) * 3 ** 3.1) / 3.1);
/** And what it takes where the focus follows the floor of the cut. */
const ideal = 0.47 * 3 ** 1.1;

function laid(): Stock {
  const stock = new Stock();
  stock.lay([sheet]);
  return stock;
}

/** How a place in the picture looks. */
function codeAt(picture: BedPicture | null, x: number, y: number): number {
  if (!picture) return Code.bare;
  const codes = gunzipSync(Buffer.from(picture.codes, 'base64'));
  const [i, j] = [Math.floor((x - picture.x) / picture.pitch), Math.floor((y - picture.y) / picture.pitch)];
  return i < 0 || j < 0 || i >= picture.width || j >= picture.height ? Code.bare : codes[j * picture.width + i];
}

describe('what the beam does to stock', () => {
  test.each([
    [0.99, 0, Code.darkest],
    [1.01, Code.through, Code.through],
    [2, Code.through, Code.through],
    [3.5, Code.scorched, Code.scorched],
  ])('%p of the energy it takes', (share, least, most) => {
    const stock = laid();
    stock.burn(20, 50, 80, 50, needed * share, 0);
    const code = codeAt(stock.look(), 50, 50);
    expect(code).toBeGreaterThanOrEqual(least);
    expect(code).toBeLessThanOrEqual(most);
  });

  test('a line at any angle, in however many stretches, gets the same energy all along', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 2 * Math.PI, noNaN: true }),
        fc.integer({ min: 1, max: 400 }),
        fc.boolean(),
        (angle, pieces, enough) => {
          const stock = laid();
          const at = (t: number) => [50 + 30 * Math.cos(angle) * t, 50 + 30 * Math.sin(angle) * t] as const;
          for (let i = 0; i < pieces; i++) {
            const [[x0, y0], [x1, y1]] = [at(i / pieces), at((i + 1) / pieces)];
            stock.burn(x0, y0, x1, y1, needed * (enough ? 1.01 : 0.99), 0);
          }
          const picture = stock.look();
          for (let t = 0.05; t < 0.95; t += 0.01) {
            // The line runs through this point of the picture or through one beside it.
            const near = [-beamMm, 0, beamMm].flatMap((dx) =>
              [-beamMm, 0, beamMm].map((dy) => codeAt(picture, at(t)[0] + dx, at(t)[1] + dy)),
            );
            expect(Math.max(...near) >= Code.through).toBe(enough);
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  test('passes add up, better where the focus follows the floor of the cut', () => {
    const passes = (focus: readonly number[], share: number) => {
      const stock = laid();
      for (const z of focus) stock.burn(20, 50, 80, 50, (ideal * share) / focus.length, z);
      return codeAt(stock.look(), 50, 50);
    };
    expect(passes([0, 0, 0], (1.01 * needed) / ideal)).toBe(Code.through);
    expect(passes([0, 0, 0], 1.03)).toBeLessThan(Code.through);
    expect(passes([-0.5, -1.5, -2.5], 1.03)).toBe(Code.through);
    expect(passes([-0.5, -1.5, -2.5], 0.99)).toBeLessThan(Code.through);
    expect(passes([4, 4, 4], (1.1 * needed) / ideal)).toBeLessThan(Code.through);
  });

  test.each([0.05, 0.1, 0.13])('lines %p mm apart are as dark as their energy for each mm² says', (spacing) => {
    const stock = laid();
    const perMm = 0.02;
    for (let y = 30; y < 50; y += spacing) stock.burn(30, y, 50, y, perMm, 0);
    const picture = stock.look();
    let sum = 0;
    for (let y = 32; y < 48; y += beamMm) sum += codeAt(picture, 40, y);
    const dark = 1 - Math.exp(-perMm / spacing / 0.25);
    expect(sum / 80 / Code.darkest).toBeGreaterThan(dark * 0.95);
    expect(sum / 80 / Code.darkest).toBeLessThan(dark * 1.05);
  });

  test('in a hole of a sheet and beside its slanted edge nothing burns; of two sheets the upper one does', () => {
    const stock = new Stock();
    const [triangle, hole] = [
      [10, 10, 90, 10, 10, 90],
      [20, 20, 40, 20, 40, 40, 20, 40],
    ];
    stock.lay([{ ...sheet, rings: [triangle, hole] }]);
    stock.burn(0, 30, 100, 30, 100, 0);
    const along = (picture: BedPicture | null) => [15, 30, 45, 69, 71].map((x) => codeAt(picture, x, 30));
    expect(along(stock.look())).toEqual([Code.scorched, Code.bare, Code.scorched, Code.scorched, Code.bare]);
    stock.lay([sheet, { ...sheet, kind: 'Stone', rings: [hole] }]);
    stock.burn(0, 30, 100, 30, 100, 0);
    expect(along(stock.look())).toEqual([Code.scorched, Code.darkest, ...Array(3).fill(Code.scorched)]);
  });

  test('beside the sheet nothing burns; stone is never cut; fresh sheets are bare', () => {
    const stock = laid();
    stock.burn(0, 50, 100, 50, 100, 0);
    expect([5, 50, 95].map((x) => codeAt(stock.look(), x, 50))).toEqual([Code.bare, Code.scorched, Code.bare]);
    stock.lay([{ ...sheet, kind: 'Stone' }]);
    expect(stock.look()).toBeNull();
    stock.burn(20, 50, 80, 50, 1000, 0);
    expect(codeAt(stock.look(), 50, 50)).toBe(Code.darkest);
  });
});

describe('a stand-in that is told of sheets', () => {
  const word = `sheets ${JSON.stringify([sheet])}`;
  const ready = (...lines: string[]) => {
    const machine = new StandInMachine(build);
    machine.advance(5);
    for (const line of lines) expect(machine.takeWord(line) ?? machine.take(line)).toBe('ok');
    return machine;
  };

  test('shows what its program burnt, with the power that follows the speed', () => {
    // 60 W × 50 % at 16 mm/s: 1.88 J/mm, a little more than 3 mm of it take; 45 % are a little less.
    const machine = ready(word, 'M4 S500', 'G0 X20 Y20', 'G1 X70 F960', 'G1 Y70', 'G0 X20 Y70', 'G1 Y40 S450');
    machine.advance(100);
    const picture = JSON.parse(machine.takeWord('look') as string) as BedPicture;
    expect([codeAt(picture, 45, 20), codeAt(picture, 70, 45)]).toEqual([Code.through, Code.through]);
    expect(codeAt(picture, 20, 55)).toBeGreaterThan(150);
    expect(codeAt(picture, 20, 55)).toBeLessThanOrEqual(Code.darkest);
    expect([codeAt(picture, 20, 30), codeAt(picture, 45, 70)]).toEqual([Code.bare, Code.bare]);
  });

  test('stopped halfway, it shows what it came to', () => {
    const machine = ready(word, 'M4 S500', 'G0 X20 Y20', 'G1 X80 F840');
    machine.advance(0.2 + 30 / 14);
    machine.stop();
    const stopped = machine.status().x;
    expect([codeAt(machine.look(), stopped - 1, 20), codeAt(machine.look(), stopped + 1, 20)]).toEqual([
      Code.through,
      Code.bare,
    ]);
  });

  test('a beam that stands pierces where it stands', () => {
    const machine = ready(word, 'G0 X50 Y50', 'M3 S500', 'G4 P0.1', 'M4');
    machine.advance(10);
    expect(codeAt(machine.look(), 50, 50)).toBe(Code.scorched);
    expect(codeAt(machine.look(), 51, 50)).toBe(Code.bare);
  });

  test.each([
    ['sheets no', 'the sheets are no JSON'],
    ['sheets {}', 'the sheets are no list'],
    ['sheets [{"rings":[[0,0,1,1]]}]', 'sheet 1 has no rings of three points'],
    ['sheets [{"rings":[[0,0,1,1,2,0,3]]}]', 'sheet 1 has no rings of three points'],
    ['sheets [{"rings":[]}]', 'sheet 1 has no rings of three points'],
    [`sheets ${JSON.stringify([{ ...sheet, thickness: 0 }])}`, 'no kind or no thickness'],
  ])('%s is refused', (line, why) => {
    expect(ready().takeWord(line)).toMatch(new RegExp(`^error:.*${why}`));
  });

  test('nobody changes the sheets while it burns', () => {
    const machine = ready(word, 'M4 S500', 'G1 X80 F840');
    machine.advance(1);
    expect(machine.takeWord(word)).toBe('error:a program is running');
  });
});
