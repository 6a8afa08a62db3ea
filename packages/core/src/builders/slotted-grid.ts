import { emptyPath, PathBuilder } from '../geometry/paths/path.ts';
import type { Box3 } from './assembly/space.ts';
import type { Builder, Built, Part, Stock } from './builder.ts';
import { choice, count, length, type NumbersOf, type Trouble } from './fields.ts';
import { fitFields, playIn } from './fit-fields.ts';
import { plateSolid } from './plate.ts';
import { crossingsOf, evenMiddles, type Strip, stripPlate } from './strips.ts';

const mostMm = 3000;

const fields = {
  width: length('Width', 280, [5, mostMm], 'Of the drawer inside.'),
  depth: length('Depth', 180, [5, mostMm], 'Of the drawer inside.'),
  height: length('Height', 40, [2, mostMm], 'Of the strips.'),
  cellsAcross: count('Cells across', 4, [1, 100]),
  cellsDeep: count('Cells deep', 3, [1, 100]),
  ends: choice('Ends', 'walls', { walls: 'At the walls', comb: 'Past a frame, as a comb' }),
  overhang: length('Overhang', 8, [0.5, 200], 'How far strips go on beyond the frame.'),
  smaller: length('Smaller by', 0.5, [0, 20], 'How much smaller than the drawer all of it is.'),
  ...fitFields,
} as const;

type GridNumbers = NumbersOf<typeof fields>;

/** Strips for a drawer, each cut halfway where another one crosses it. */
export const slottedGrid: Builder<typeof fields> = {
  id: 'slotted-grid',
  word: 'grid',
  name: 'Slotted grid',
  about: 'Strips that part a drawer into cells, each slotted into the others.',
  fields,
  asks: ({ fit, ends }) =>
    (Object.keys(fields) as (keyof typeof fields)[]).filter((field) => {
      if (field === 'play') return fit === 'typed';
      return field !== 'overhang' || ends === 'comb';
    }),
  build: (numbers, stock) => {
    const troubles = troublesWith(numbers, stock);
    return troubles.length > 0 ? troubles : built(numbers, stock);
  },
};

/** From where to where cells go along an axis, in mm; with a comb, between the strips of its frame. */
function roomFor({ ends, overhang, smaller }: GridNumbers, sizeMm: number, thickness: number) {
  const inset = ends === 'comb' ? overhang + thickness : 0;
  return [inset, sizeMm - smaller - inset] as const;
}

function troublesWith(numbers: GridNumbers, { thicknessMm: t }: Stock): Trouble[] {
  const troubles: Trouble[] = [];
  for (const [size, cells] of [
    ['width', 'cellsAcross'],
    ['depth', 'cellsDeep'],
  ] as const) {
    const [from, to] = roomFor(numbers, numbers[size], t);
    // A cell is as wide as the stock is thick at least.
    const most = Math.floor((to - from + t) / (2 * t));
    if (numbers[cells] <= most) continue;
    if (most < 1) {
      const least = rounded(numbers[size] - (to - from) + (2 * numbers[cells] - 1) * t);
      const message = `${fields[size].label} is ${numbers[size]} mm: so many cells and what is around them take ${least} mm.`;
      troubles.push({ field: size, message, nearest: least });
    } else {
      const message = `${numbers[cells]} cells do not fit into ${rounded(to - from)} mm: strips are ${t} mm thick, and as much must be free between them.`;
      troubles.push({ field: cells, message, nearest: most });
    }
  }
  if (numbers.cellsAcross * numbers.cellsDeep === 1 && numbers.ends === 'walls') {
    const message = 'One cell needs no strips. Take two cells at least, or a frame.';
    troubles.push({ field: 'cellsAcross', message, nearest: 2 });
  }
  return troubles;
}

const rounded = (mm: number) => Math.ceil(mm * 100) / 100;

function built(numbers: GridNumbers, stock: Stock): Built {
  const { width, depth, height, cellsAcross, cellsDeep, ends, smaller } = numbers;
  const t = stock.thicknessMm;
  const playMm = playIn(numbers, stock);
  const middlesAlong = (sizeMm: number, cells: number) => {
    const [from, to] = roomFor(numbers, sizeMm, t);
    const inner = evenMiddles(from, to, cells - 1, t);
    return ends === 'comb' ? [from - t / 2, ...inner, to + t / 2] : inner;
  };
  const outside = [width - smaller, depth - smaller, height] as const;
  const [xs, ys] = [middlesAlong(width, cellsAcross), middlesAlong(depth, cellsDeep)];
  const strips = [
    ...ys.map((middle, i) => stripAt('across', i, middle, outside[0])),
    ...xs.map((middle, i) => stripAt('along', i, middle, outside[1])),
  ];
  const cut = { thickness: t, playMm, upright: [0, height], tab: [0, 0] } as const;
  const plates = strips.map((strip) => stripPlate(strip, strips, cut));
  const box: Box3 = { min: [0, 0, 0], max: outside };
  return {
    parts: plates.map(({ plate: { id, name }, outline }): Part => {
      return { id, name, cut: new PathBuilder().ring(outline).build(), score: emptyPath, labels: [] };
    }),
    sizes: { inside: null, outside },
    playMm,
    assembly: {
      solids: plates.map(({ plate, outline }) => plateSolid(plate, [outline])),
      hull: [box],
      voids: between(xs, outside[0], t).flatMap(([x1, x2]) =>
        between(ys, outside[1], t).map(([y1, y2]): Box3 => ({ min: [x1, y1, 0], max: [x2, y2, height] })),
      ),
      innerIds: [],
      joints: crossingsOf(strips, cut, false),
    },
  };
}

function stripAt(way: 'across' | 'along', i: number, middle: number, lengthMm: number): Strip {
  const axis = way === 'across' ? 0 : 1;
  return { id: `${way}-${i + 1}`, name: `Strip ${way} ${i + 1}`, axis, middle, from: 0, to: lengthMm, tabMm: 0 };
}

/** What is free between strips, and beyond them. */
function between(middles: readonly number[], sizeMm: number, thickness: number): (readonly [number, number])[] {
  const faces = [0, ...middles.flatMap((middle) => [middle - thickness / 2, middle + thickness / 2]), sizeMm];
  return Array.from({ length: faces.length / 2 }, (_, i) => [faces[2 * i], faces[2 * i + 1]] as const);
}
