import { areaOf } from '../../geometry/areas/area.ts';
import { flatten } from '../../geometry/paths/flatten.ts';
import { invert, type Matrix, multiply, rotation, translation } from '../../geometry/paths/matrix.ts';
import { appendPath, emptyPath, type Path, PathBuilder, pathBounds, transformPath } from '../../geometry/paths/path.ts';
import type { Joint } from '../assembly/assembly.ts';
import type { Box3, Solid, Vec3 } from '../assembly/space.ts';
import type { Builder, Built, Part, SourceOutline } from '../builder.ts';
import { choice, length, type NumbersOf, quantity, type Trouble } from '../fields.ts';
import { playIn, pressedTrouble, slidingFields } from '../fit-fields.ts';
import { rounded } from '../rounding.ts';
import { edgeWithin, onLine, slotFrom } from './line-slots.ts';
import { outerSize } from './outer-size.ts';
import { partIds } from './part-ids.ts';
import { closedOf } from './placed.ts';
import { isAllStock } from './stock-in.ts';

const farthest = 3000;

/** What a slotted figure is asked for. */
const figureFields = {
  crossing: choice<'halves' | 'through'>('They cross', 'halves', {
    halves: 'Each cut halfway',
    through: 'The second goes through the first',
  }),
  ...slidingFields('Slots'),
  firstLine: length('First: line at', 0, [-farthest, farthest], 'To the right of its middle.'),
  firstTurn: quantity('First: turned by', 0, '°', [-90, 90], 'From upright.'),
  secondLine: length('Second: line at', 0, [-farthest, farthest], 'To the right of its middle.'),
  secondTurn: quantity('Second: turned by', 0, '°', [-90, 90], 'From upright.'),
  align: choice<'feet' | 'middles' | 'tops'>('On the line', 'feet', {
    feet: 'Feet at one height',
    middles: 'Middles at one height',
    tops: 'Tops at one height',
  }),
  raised: length('Second: raised by', 0, [-farthest, farthest]),
} as const;
type FigureNumbers = NumbersOf<typeof figureFields>;

/** Two outlines of the operator's own that cross at a right angle, each at a line. */
export const slottedFigure: Builder<typeof figureFields> = {
  id: 'slotted-figure',
  word: 'figure',
  name: 'Slotted figure',
  about: 'Puts two outlines of your own through each other at a right angle, each at a line.',
  takes: ['First part', 'Second part'],
  fields: figureFields,
  asks: ({ fit }) =>
    (Object.keys(figureFields) as (keyof typeof figureFields)[]).filter((field) => field !== 'play' || fit === 'typed'),
  marks: (numbers, outlines) =>
    outlines.map(({ path }, i) => {
      const { place, turn } = lineOf(numbers, i);
      const { minX, minY, maxX, maxY } = pathBounds(path);
      const reach = Math.hypot(maxX - minX, maxY - minY) / 2 + markBeyond;
      const line = new PathBuilder().moveTo(place, -reach).lineTo(place, reach).build();
      return transformPath(line, rotation(turn));
    }),
  build: (numbers, stock, outlines) => {
    const parts = outlines.map((outline, i) => partAt(outline, lineOf(numbers, i), i === 0 ? 'first' : 'second'));
    const playMm = playIn(numbers, stock);
    const troubles = parts.flatMap((part) => ('message' in part ? [part] : []));
    if (playMm < 0)
      troubles.push(pressedTrouble(numbers, 'Slots that press over all their length break: give them play.'));
    if (troubles.length > 0) return troubles;
    const [first, second] = parts as FigurePart[];
    const asked = { numbers, t: stock.thicknessMm, playMm, first, second };
    return numbers.crossing === 'halves' ? halved(asked) : passed(asked);
  },
};

/** So far lines are shown beyond their outlines, in mm. */
const markBeyond = 5;

/** An outline about its line: upright, and at x = 0. */
interface FigurePart {
  readonly name: string;
  /** Takes the outline's frame to that of its line. */
  readonly matrix: Matrix;
  readonly isTurned: boolean;
  readonly path: Path;
  /** Down the line: where it lies on the outline, and where its first stretch ends. */
  readonly top: number;
  readonly foot: number;
  readonly first: number;
}

/** What a figure is made from; lengths in mm. */
interface FigureAsked {
  readonly numbers: FigureNumbers;
  readonly t: number;
  readonly playMm: number;
  readonly first: FigurePart;
  readonly second: FigurePart;
}

/** Where a line goes in its outline: from the middle to the right, and turned from upright in degrees. */
const lineOf = ({ firstLine, firstTurn, secondLine, secondTurn }: FigureNumbers, i: number) =>
  i === 0 ? { place: firstLine, turn: firstTurn } : { place: secondLine, turn: secondTurn };

function partAt(
  { name, path }: SourceOutline,
  { place, turn }: ReturnType<typeof lineOf>,
  which: 'first' | 'second',
): FigurePart | Trouble {
  const matrix = multiply(translation(-place, 0), rotation(-turn));
  const turned = transformPath(path, matrix);
  const lie = onLine(turned);
  if (lie) return { name, matrix, isTurned: turn !== 0, path: turned, ...lie };
  return { field: `${which}Line`, message: `The line does not meet “${name}”: move it.`, nearest: 0 };
}

/** How high the second part's foot lies above that of the first, on the line. */
function footOfSecond({ numbers: { align, raised }, first, second }: FigureAsked): number {
  const more = first.foot - first.top - (second.foot - second.top);
  return raised + (align === 'feet' ? 0 : align === 'tops' ? more : more / 2);
}

/** In space the line is upright at x = y = 0, the first part's foot at z = 0. The first lies along x, the second along y. */
function solidsOf({ t, first, second }: FigureAsked, foot: number, cuts: readonly Path[]): Solid[] {
  return [first, second].map(({ matrix, isTurned, foot: ownFoot }, i): Solid => {
    const z = ownFoot + (i === 0 ? 0 : foot);
    const place = isTurned ? 0 : matrix[4];
    const origin: Vec3 = i === 0 ? [place, -t / 2, z] : [t / 2, place, z];
    const path = isTurned ? cuts[i] : inPart(matrix, cuts[i]);
    return {
      partId: partIds[i],
      outlines: closedOf(path),
      place: { origin, u: i === 0 ? [1, 0, 0] : [0, 1, 0], v: [0, 0, -1] },
      depth: t,
      ...(isTurned ? { hasOwnFrame: true } : {}),
    };
  });
}

const inPart = (matrix: Matrix, path: Path): Path => transformPath(path, invert(matrix) as Matrix);

/** Parts with what was cut of them, about their lines, and the joints that they must have. */
function figure(asked: FigureAsked, foot: number, cuts: readonly Path[], joints: readonly Joint[]): Built {
  const solids = solidsOf(asked, foot, cuts);
  const parts = [asked.first, asked.second].map(
    ({ name, matrix }, i): Part => ({
      ...{ id: partIds[i], name, cut: inPart(matrix, cuts[i]) },
      ...{ score: emptyPath, labels: [] },
    }),
  );
  return {
    parts,
    sizes: { inside: null, outside: outerSize(solids) },
    playMm: asked.playMm,
    // What two figures fill from outside is theirs to say: nothing is closed by them.
    assembly: { solids, hull: solids, voids: [], joints },
  };
}

/** From where to where up both parts have the line, the second part's foot so high. */
const inCommon = ({ first, second }: FigureAsked, foot: number): readonly [number, number] => [
  Math.max(0, foot),
  Math.min(first.foot - first.top, foot + second.foot - second.top),
];

/** Each with a slot to the middle of what both have of the line: the first from above, the second from below. */
function halved(asked: FigureAsked): Built | Trouble[] {
  const { t, playMm, first, second } = asked;
  const foot = footOfSecond(asked);
  const [low, high] = inCommon(asked, foot);
  if (high - low < 2 * t) {
    const message = `The parts have ${rounded(Math.max(0, high - low))} mm of the line in common, and slots need ${rounded(2 * t)} mm.`;
    const [at0, end0] = inCommon(asked, foot - asked.numbers.raised);
    return [{ field: 'raised', message, nearest: end0 - at0 < 2 * t ? null : 0 }];
  }
  const middle = (low + high) / 2;
  const half = (t + playMm) / 2;
  const inFirst = slotWith(first.path, first.foot - middle, -1, half, t / 2);
  const inSecond = slotWith(second.path, second.foot + foot - middle, 1, half, t / 2);
  const troubles = [inFirst, inSecond].flatMap((slot, i): Trouble[] => {
    if (slot) return [];
    const { name } = i === 0 ? first : second;
    const message = `The line has no room for a slot ${i === 0 ? 'above' : 'below'} the middle of “${name}”: it meets an edge on its way, or leaves less than ${rounded(t / 2)} mm of stock beside it. Move it.`;
    return [{ field: i === 0 ? 'firstLine' : 'secondLine', message, nearest: null }];
  });
  if (!inFirst || !inSecond) return troubles;
  // As far from the slots' grounds as both are whole.
  const reach = (part: FigurePart, ground: number, way: -1 | 1) =>
    Math.min(
      ...edgeWithin(part.path, t / 2)
        .map(({ y }) => way * (y - ground))
        .filter((mm) => mm > 0),
    );
  const up = Math.min(inFirst.wallMm, reach(second, second.foot + foot - middle, -1));
  const down = Math.min(inSecond.wallMm, reach(first, first.foot - middle, 1));
  const joints = [
    besideJoint(asked, 0, [middle, middle + up / 2]),
    besideJoint(asked, 1, [middle - down / 2, middle]),
    groundJoint(asked, middle, Math.min(up, down) / 2),
  ];
  return figure(asked, foot, [inFirst.path, inSecond.path], joints);
}

/** A slot, where there is so much stock around its ground and along the lower half of its sides. */
function slotWith(path: Path, ground: number, way: -1 | 1, half: number, webMm: number) {
  const slot = slotFrom(path, ground, way, half);
  if (!slot) return null;
  const ends = [ground - way * webMm, ground + (way * slot.wallMm) / 2];
  const box = { minX: -half - webMm, minY: Math.min(...ends), maxX: half + webMm, maxY: Math.max(...ends) };
  return isAllStock(areaOf(path, 'evenodd'), [box]) ? slot : null;
}

/** So far a joint's box goes into what it is in, in mm. */
const margin = 0.1;

/** A part between the two sides of the other one's slot, along x (0) or y (1). */
function besideJoint(
  { t, playMm, first, second }: FigureAsked,
  axis: 0 | 1,
  [low, high]: readonly [number, number],
): Joint {
  const [wide, deep] = [(t + playMm) / 2 + margin, t / 2];
  const corner = (sign: -1 | 1, z: number): Vec3 =>
    axis === 0 ? [sign * wide, sign * deep, z] : [sign * deep, sign * wide, z];
  const [holder, held] = axis === 0 ? [first, second] : [second, first];
  return {
    name: `“${held.name}” in “${holder.name}”`,
    region: { min: corner(-1, low), max: corner(1, high) },
    axis,
    faces: 'all',
    gapMm: playMm / 2,
    isFree: true,
  };
}

/** The grounds of two slots, which meet. */
function groundJoint({ t, first, second }: FigureAsked, middle: number, reachMm: number): Joint {
  const half = t / 2;
  const reach = Math.min(margin, reachMm);
  const region: Box3 = { min: [-half, -half, middle - reach], max: [half, half, middle + reach] };
  return { name: `“${second.name}” on “${first.name}”`, region, axis: 2, faces: 'all', gapMm: 0, isFree: true };
}

/** The first with an opening that the second goes through as it is. */
function passed(asked: FigureAsked): Built | Trouble[] {
  const { t, playMm, numbers, first, second } = asked;
  const foot = footOfSecond(asked);
  const edge = edgeWithin(second.path, t / 2).map(({ y }) => y);
  const [top, low] = [Math.min(...edge), Math.max(...edge)];
  const nodes = flatten(second.path).flatMap(({ points }) =>
    Array.from({ length: points.length / 2 }, (_, i) => [points[2 * i], points[2 * i + 1]] as const),
  );
  const passes = (side: -1 | 1) => nodes.every(([x, y]) => side * x <= t / 2 || (y >= top - 1e-6 && y <= low + 1e-6));
  if (!passes(-1) && !passes(1)) {
    const message = `“${second.name}” is wider to both sides of its line than at it, and does not go through.`;
    return [{ field: 'crossing', message, nearest: 'halves' }];
  }
  const half = (t + playMm) / 2;
  /** From the top to the foot of the opening, where the second part's foot is so high: by the feet of both lines. */
  const openingAt = (height: number) => {
    const move = first.foot - height - second.foot;
    return [top + move - playMm / 2, low + move + playMm / 2] as const;
  };
  const stock = areaOf(first.path, 'evenodd');
  const isIn = ([minY, maxY]: readonly [number, number]) => {
    const box = { minX: -half - t / 2, minY: minY - t / 2, maxX: half + t / 2, maxY: maxY + t / 2 };
    return isAllStock(stock, [box]);
  };
  const [minY, maxY] = openingAt(foot);
  if (!isIn([minY, maxY])) {
    const message = `The opening does not lie in “${first.name}”, with ${rounded(t / 2)} mm of stock around it: raise the second part, or move the line.`;
    const middles = footOfSecond({ ...asked, numbers: { ...numbers, align: 'middles' } });
    return [
      isIn(openingAt(middles))
        ? { field: 'align', message, nearest: 'middles' }
        : { field: 'raised', message, nearest: null },
    ];
  }
  const builder = new PathBuilder();
  appendPath(builder, first.path, true);
  builder.ring([-half, minY, half, minY, half, maxY, -half, maxY]);
  const middle = foot + second.foot - (second.top + second.first) / 2;
  const reach = Math.min(margin, (second.first - second.top) / 4);
  return figure(asked, foot, [builder.build(), second.path], [besideJoint(asked, 0, [middle - reach, middle + reach])]);
}
