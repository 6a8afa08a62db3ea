import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Pixels } from '../../document/pixels.ts';
import { readProgram } from '../../fixtures/program-reader.ts';
import { box, item, jobWith, material, shop } from '../../fixtures/shop.ts';
import { multiply, rotation, scaling, translation } from '../../geometry/paths/matrix.ts';
import { addOperation, type BurntOperation } from '../../operations/operations.ts';
import { Move } from '../../plan/moves.ts';
import { planJob } from '../../plan/plan.ts';
import { prepareJob } from '../../plan/prepare.ts';
import { burntDots } from '../../plan/tones.ts';
import { grains } from '../../settings/grain.ts';
import { type LayerSettings, usualSettings } from '../../settings/settings.ts';
import { writeGcode } from './write.ts';

const operation = 'shade' as BurntOperation;
let remove = () => {};
beforeAll(() => {
  remove = addOperation(operation, {
    name: 'Shade',
    plural: 'Shades',
    colour: '#456DEF',
    dash: [],
    letter: 'H',
    burning: { traces: 'areas', followsTone: true, separates: false, phase: 1, verb: 'shades', firstEnergy: 0.2 },
  });
});
afterAll(() => remove());

/** Greys without order, with white stretches of different lengths in them. */
function picture(width: number, height: number): Pixels {
  const rgb = new Uint8Array(3 * width * height);
  for (let i = 0; i < width * height; i++) {
    const isWhite = i % width > 8 && i % width < 12 + 3 * Math.floor(i / width);
    rgb.fill(isWhite ? 255 : (Math.imul(i + 1, 2654435761) >>> 24) & 0xff, 3 * i, 3 * i + 3);
  }
  return { width, height, rgb };
}

const pixels = picture(60, 12);
const matrix = multiply(translation(80, 50), scaling(0.5, 0.5));

function planOf(more: Partial<LayerSettings>, placing = matrix, pictures: Pixels = pixels) {
  const recipe = { ...material.recipes[0], operation, powerPercent: 40, speedMmPerS: 100, lineSpacingMm: 0.5, ...more };
  const { width, height } = pictures;
  const shape = { kind: 'picture', pictureId: 'p', width, height } as const;
  const photo = { ...item(box(0, 0, 1), null), shape, matrix: placing, pinned: operation };
  const book = { ...shop, materials: [{ ...material, recipes: [recipe] }] };
  return planJob(prepareJob(jobWith([photo]), book, {}, { pixelsOf: () => pictures }));
}

const settingsOf = (more: Partial<LayerSettings>): LayerSettings => ({
  ...usualSettings(),
  powerPercent: 40,
  speedMmPerS: 100,
  lineSpacingMm: 0.5,
  ...more,
});

describe('the program of a picture', () => {
  test.each<[string, Partial<LayerSettings>]>([
    ...grains.map((grain): [string, Partial<LayerSettings>] => [grain, { grain }]),
    ['true greys from 10 % on, in 5 levels', { grain: 'true-greys', leastPowerPercent: 10, greyLevels: 5 }],
    ['dots shorter than lines are apart', { grain: 'blue-noise', dotMm: 0.2 }],
    ['one way', { bothWays: false }],
  ])('holds the very dots, and nothing else: %s', (_, more) => {
    const settings = settingsOf(more);
    const dots = burntDots([{ pixels, matrix, tone: {} }], settings);
    if (!dots) throw new Error('no dots');
    const { columns, rows, left, top, dotMm, rowMm, levels, topLevel } = dots;
    const found = new Float64Array(columns * rows);
    for (const { x, y, dx, dy, s, lit } of readProgram([...writeGcode(planOf(more), 'p')])) {
      expect(dy).toBe(0);
      const row = (y - top) / rowMm - 0.5;
      expect(row).toBeCloseTo(Math.round(row), 6);
      const [from, to] = [Math.min(x, x - dx), Math.max(x, x - dx)].map((place) => (place - left) / dotMm);
      expect([from, to]).toEqual([expect.closeTo(Math.round(from), 6), expect.closeTo(Math.round(to), 6)]);
      for (let k = Math.round(from); k < Math.round(to); k++) found[Math.round(row) * columns + k] += s;
      expect(lit).toBeGreaterThan(0);
    }
    const { leastPowerPercent: least, powerPercent: most } = settings;
    const powers = Array.from(levels, (level) => {
      if (level === 0) return 0;
      return topLevel === 1 ? 10 * most : Number((10 * (least + ((most - least) * level) / topLevel)).toFixed(1));
    });
    expect([...found]).toEqual(powers.map((power) => expect.closeTo(power, 3)));
    expect(new Set(powers).size).toBeGreaterThan(1);
  });

  test('follows the layer’s angle on a picture that is turned', () => {
    const turned = multiply(matrix, rotation(25));
    const burns = readProgram([...writeGcode(planOf({ scanAngle: 40 }, turned), 'p')]);
    const angles = burns.map(({ dx, dy }) => (Math.atan2(dy, dx) * 180) / Math.PI);
    for (const angle of angles) expect(Math.abs(((angle + 360) % 180) - 40)).toBeLessThan(0.5);
    expect(burns.length).toBeGreaterThan(50);
  });

  test('crosses what does not burn at travel speed where that is quicker, and no less evenly', () => {
    const wide: Pixels = {
      width: 3,
      height: 2,
      rgb: Uint8Array.of(
        ...Array(3).fill(0),
        ...Array(3).fill(255),
        ...Array(3).fill(0),
        ...Array(3).fill(0),
        ...Array(3).fill(255),
        ...Array(3).fill(0),
      ),
    };
    const lines = (mm: number) => {
      const placing = multiply(translation(100, 60), scaling(mm, 0.5));
      const [step] = planOf({ dotMm: 0.25 }, placing, wide).steps;
      return { kinds: [...step.moves.kinds], step };
    };
    // A row: to the run-up, up to speed, burn, across, burn, run out.
    const across = ({ kinds }: { kinds: number[] }) => kinds[3];
    expect(across(lines(40))).toBe(Move.travel);
    expect(across(lines(0.5))).toBe(Move.dark);
    const { kinds, step } = lines(40);
    kinds.forEach((kind, i) => {
      if (kind === Move.lit) expect(step.durations[i]).toBeCloseTo(40 / 100, 5);
    });
    expect(step.durations[3]).toBeLessThan(40 / 100 - 1e-3);
  });

  test.each<[string, Partial<LayerSettings>]>([
    ['dots', { grain: 'diffused' }],
    ['256 levels', { grain: 'true-greys', leastPowerPercent: 10 }],
    ['lines at an angle', { grain: 'diffused', scanAngle: 30 }],
  ])('is no longer than its moves can be said, each by what is new of it: %s', (_, more) => {
    const plan = planOf(more);
    const program = [...writeGcode(plan, 'p')];
    const first = program.findIndex((text) => text.startsWith('(Shade')) + 1;
    const moves = program.slice(first, program.indexOf('M5'));
    const [{ moves: planned }] = plan.steps;
    const known = new Map<string, string>();
    const said = (letter: string, value: number) => {
      const word = letter + value;
      const isNew = known.get(letter) !== word;
      known.set(letter, word);
      return isNew ? word.length : 0;
    };
    let shortest = 'F6000'.length;
    planned.kinds.forEach((kind, i) => {
      const power = kind === Move.dark ? 0 : Number((400 * (planned.powers?.[i] ?? 1)).toFixed(1));
      shortest += 1 + said('G', kind === Move.travel ? 0 : 1) + said('X', planned.xs[i]) + said('Y', planned.ys[i]);
      if (kind !== Move.travel) shortest += said('S', power);
    });
    expect(moves.length).toBeGreaterThan(300);
    expect(moves.join('\n').length + 1).toBe(shortest);
  });
});
