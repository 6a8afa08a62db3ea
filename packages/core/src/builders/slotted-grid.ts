import { emptyPath, PathBuilder } from '../geometry/paths/path.ts';
import type { Box3 } from './assembly/space.ts';
import type { Builder, Built, Part, Stock } from './builder.ts';
import { choice, count, length, lengths, type NumbersOf, type Trouble } from './fields.ts';
import { fitFields, playIn } from './fit-fields.ts';
import { plateSolid } from './plate.ts';
import { rounded } from './rounding.ts';
import { crossingsOf, type Strip, stripPlate } from './strips.ts';

const mostMm = 3000;

const fields = {
  width: length('Width', 280, [5, mostMm], 'Of the drawer inside.'),
  depth: length('Depth', 180, [5, mostMm], 'Of the drawer inside.'),
  height: length('Height', 40, [2, mostMm], 'Of the strips.'),
  cells: choice('Cells', 'count', { count: 'Equal, by their count', sizes: 'By their sizes' }),
  cellsAcross: count('Cells across', 4, [1, 100]),
  cellsDeep: count('Cells deep', 3, [1, 100]),
  cellWidths: lengths('Cell widths', [60, 60, 80], [1, mostMm], 'From the left; what is left over is one more cell.'),
  cellDepths: lengths('Cell depths', [60, 60], [1, mostMm], 'From the front; what is left over is one more cell.'),
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
  asks: ({ fit, ends, cells }) =>
    (Object.keys(fields) as (keyof typeof fields)[]).filter((field) => {
      if (field === 'play') return fit === 'typed';
      if (field === 'cellsAcross' || field === 'cellsDeep') return cells === 'count';
      if (field === 'cellWidths' || field === 'cellDepths') return cells === 'sizes';
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

/** The two ways of a grid, and the fields that speak of each. */
const ways = [
  { size: 'width', cells: 'cellsAcross', sizes: 'cellWidths' },
  { size: 'depth', cells: 'cellsDeep', sizes: 'cellDepths' },
] as const;

/** How large each cell is along a way, in mm, or what is wrong with its numbers. */
function cellsAlong(numbers: GridNumbers, way: (typeof ways)[number], t: number): readonly number[] | Trouble {
  const [from, to] = roomFor(numbers, numbers[way.size], t);
  const cells = numbers.cells === 'count' ? numbers[way.cells] : numbers[way.sizes].length;
  const typed = numbers[way.sizes].reduce((sum, mm) => sum + mm, 0);
  // A cell is as wide as the stock is thick at least.
  const taken = (numbers.cells === 'count' ? cells * t : typed) + (cells - 1) * t;
  const least = Math.ceil((numbers[way.size] - (to - from) + taken) * 100) / 100;
  if (numbers.cells === 'count') {
    const most = Math.floor((to - from + t) / (2 * t));
    if (cells <= most) return Array.from({ length: cells }, () => (to - from - (cells - 1) * t) / cells);
    if (most >= 1) {
      const message = `${cells} cells do not fit into ${rounded(to - from)} mm: strips are ${t} mm thick, and as much must be free between them.`;
      return { field: way.cells, message, nearest: most };
    }
    const message = `${fields[way.size].label} is ${numbers[way.size]} mm: so many cells and what is around them take ${least} mm.`;
    return { field: way.size, message, nearest: least };
  }
  const left = to - from - taken;
  if (left < -roundingMm) {
    const message = `${fields[way.sizes].label} and the strips between them take ${rounded(taken)} mm, and there are ${rounded(to - from)} mm.`;
    return { field: way.sizes, message, nearest: null };
  }
  if (left < roundingMm) return numbers[way.sizes];
  if (left - t >= t) return [...numbers[way.sizes], left - t];
  const message = `${fields[way.sizes].label} leave ${rounded(left)} mm over: one more strip and a cell take ${rounded(2 * t)} mm. Make a cell larger by it.`;
  return { field: way.sizes, message, nearest: null };
}

/** What is smaller is rounding, in mm. */
const roundingMm = 1e-6;

function troublesWith(numbers: GridNumbers, { thicknessMm: t }: Stock): Trouble[] {
  const cells = ways.map((way) => cellsAlong(numbers, way, t));
  const troubles = cells.flatMap((answer) => ('field' in answer ? [answer] : []));
  if (
    troubles.length === 0 &&
    numbers.ends === 'walls' &&
    cells.every((list) => 'length' in list && list.length === 1)
  ) {
    const message = 'One cell needs no strips. Take two cells at least, or a frame.';
    const byCount = numbers.cells === 'count';
    troubles.push({ field: byCount ? 'cellsAcross' : 'cellWidths', message, nearest: byCount ? 2 : null });
  }
  return troubles;
}

function built(numbers: GridNumbers, stock: Stock): Built {
  const { width, depth, height, ends, smaller } = numbers;
  const t = stock.thicknessMm;
  const playMm = playIn(numbers, stock);
  const [xs, ys] = ways.map((way) => {
    const [from, to] = roomFor(numbers, numbers[way.size], t);
    const cells = cellsAlong(numbers, way, t) as readonly number[];
    let place = from - t / 2;
    const inner = cells.slice(0, -1).map((mm) => {
      place += mm + t;
      return place;
    });
    return ends === 'comb' ? [from - t / 2, ...inner, to + t / 2] : inner;
  });
  const outside = [width - smaller, depth - smaller, height] as const;
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
