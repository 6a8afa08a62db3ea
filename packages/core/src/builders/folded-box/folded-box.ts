import { emptyPath, type Path, PathBuilder } from '../../geometry/paths/path.ts';
import type { Joint } from '../assembly/assembly.ts';
import type { Box3, Place, Vec3 } from '../assembly/space.ts';
import type { Builder, Built, Part, Stock } from '../builder.ts';
import { choice, length, type NumbersOf, quantity, type Trouble, yes } from '../fields.ts';
import { playIn, pressedTrouble, slidingFields } from '../fit-fields.ts';
import { rounded, roundedDown, roundedUp } from '../rounding.ts';
import { dashesAlong } from './dashes.ts';
import { type Tray, tabRange, trayOf } from './tray.ts';

const mostMm = 2000;

const fields = {
  measured: choice('Sizes are', 'inside', { inside: 'Inside', outside: 'Outside' }),
  width: length('Width', 90, [3, mostMm]),
  depth: length('Depth', 60, [3, mostMm]),
  height: length('Height', 30, [3, mostMm]),
  shape: choice('Shape', 'lid', { tray: 'Tray', lid: 'Tray with a lid over it', tuck: 'One piece, with a flap' }),
  lidHeight: length('Height of the lid', 20, [1, mostMm], 'How far it comes down, inside.'),
  flap: length('Depth of the flap', 15, [1, mostMm]),
  ...slidingFields('Lid'),
  tabWidth: length('Glue tab width', 12, [2, 200]),
  tabAngle: quantity('Glue tab angle', 15, '°', [0, 60], 'How much its ends slant.'),
  window: yes('A window in the top', false),
  windowRim: length('Rim of the window', 12, [1, 500]),
  bends: choice('Bends', 'score', { score: 'Scored', dashes: 'Cut as dashes' }),
  dash: length('Dash', 4, [0.5, 50]),
  bridge: length('Bridge', 2, [0.3, 50], 'Between two dashes.'),
  bendLine: quantity('Bend line', 50, '%', [0, 100], 'How far through the card, from inside, a bend keeps its length.'),
} as const;

type FoldedNumbers = NumbersOf<typeof fields>;

/** A box that is folded from card, and glued at its corners. */
export const foldedBox: Builder<typeof fields> = {
  id: 'folded-box',
  word: 'folded',
  name: 'Folded box',
  about: 'A box of card: cut, bent and glued at its corners.',
  fields,
  asks: ({ shape, fit, window, bends }) =>
    (Object.keys(fields) as (keyof typeof fields)[]).filter((field) => {
      if (field === 'lidHeight' || field === 'fit') return shape === 'lid';
      if (field === 'play') return shape === 'lid' && fit === 'typed';
      if (field === 'flap') return shape === 'tuck';
      if (field === 'window') return shape !== 'tray';
      if (field === 'windowRim') return shape !== 'tray' && window;
      return (field !== 'dash' && field !== 'bridge') || bends === 'dashes';
    }),
  build: (numbers, stock) => {
    const playMm = numbers.shape === 'lid' ? playIn(numbers, stock) : 0;
    const inside = insideOf(numbers, stock, playMm);
    const troubles = troublesWith(numbers, inside, stock, playMm);
    return troubles.length > 0 ? troubles : built(numbers, inside, stock, playMm);
  },
};

/** How much larger than its inside a box is in each direction, in mm: tabs lie within its left and its right. */
function takenByCard({ shape }: FoldedNumbers, t: number, playMm: number): Vec3 {
  if (shape === 'lid') return [8 * t + playMm, 4 * t + playMm, 2 * t];
  return shape === 'tuck' ? [4 * t, 3 * t, 2 * t] : [4 * t, 2 * t, t];
}

function insideOf(numbers: FoldedNumbers, { thicknessMm }: Stock, playMm: number): Vec3 {
  const { measured, width, depth, height } = numbers;
  const [x, y, z] = measured === 'inside' ? [0, 0, 0] : takenByCard(numbers, thicknessMm, playMm);
  return [width - x, depth - y, height - z];
}

const slopeOf = ({ tabAngle }: FoldedNumbers) => Math.tan((tabAngle * Math.PI) / 180);
const bendOf = ({ bendLine }: FoldedNumbers, t: number) => ({ thickness: t, line: (bendLine / 100) * t });

/** The end of a tab is no narrower than that, in mm. */
const narrowest = 1;

function troublesWith(numbers: FoldedNumbers, inside: Vec3, { thicknessMm: t }: Stock, playMm: number): Trouble[] {
  const { shape, lidHeight, flap, tabWidth, window, windowRim } = numbers;
  const troubles: Trouble[] = [];
  const taken = takenByCard(numbers, t, playMm);
  (['width', 'depth', 'height'] as const).forEach((field, i) => {
    const least = Math.max(3, 4 * t);
    if (inside[i] >= least) return;
    const outside = numbers.measured === 'outside' ? ` The card takes ${rounded(taken[i])} mm of it.` : '';
    const message = `${fields[field].label} is ${numbers[field]} mm: too little to bend card of ${t} mm.${outside}`;
    troubles.push({ field, message, nearest: roundedUp(least + numbers[field] - inside[i]) });
  });
  if (playMm < 0) {
    troubles.push(pressedTrouble(numbers, `The lid would be ${rounded(-playMm)} mm too narrow to go over the tray.`));
  }
  if (troubles.length > 0) return troubles;
  const [w, d, h] = inside;
  if (shape === 'lid' && lidHeight > h + t + 1e-9) {
    const message = `The lid is ${lidHeight} mm high inside; the tray is ${rounded(h + t)} mm, and the lid would not lie on it.`;
    troubles.push({ field: 'lidHeight', message, nearest: roundedDown(h + t) });
  }
  if (shape === 'lid' && lidHeight < 4 * t) {
    const message = `The lid is ${lidHeight} mm high inside: too little to bend card of ${t} mm.`;
    troubles.push({ field: 'lidHeight', message, nearest: roundedUp(4 * t) });
  }
  const deepest = Math.min(h - t, 2 * (w - 2 * t));
  if (shape === 'tuck' && flap > deepest) {
    const message = `The flap is ${flap} mm deep, and there is room for ${roundedDown(deepest)} mm.`;
    troubles.push({ field: 'flap', message, nearest: deepest >= 1 ? roundedDown(deepest) : null });
  }
  if (tabWidth > d / 2) {
    const message = `Glue tabs of ${tabWidth} mm meet: they have ${rounded(d / 2)} mm each.`;
    troubles.push({ field: 'tabWidth', message, nearest: roundedDown(d / 2) });
  }
  const bend = bendOf(numbers, t);
  const lowest = shape === 'lid' ? Math.min(h, Math.max(lidHeight, 4 * t)) : h;
  const [low, high] = tabRange(lowest, bend);
  const steepest = (high - low - narrowest) / 2 / (tabWidth + bend.line);
  if (slopeOf(numbers) > steepest) {
    const nearest = Math.floor((Math.atan(Math.max(0, steepest)) * 180) / Math.PI);
    const message = `Glue tabs of ${tabWidth} mm come to a point at ${numbers.tabAngle}° on a wall of ${rounded(lowest)} mm.`;
    troubles.push(
      steepest < 0 ? { field: 'tabWidth', message, nearest: null } : { field: 'tabAngle', message, nearest },
    );
  }
  const widest = Math.min(w, d) / 2 - narrowest;
  if (shape !== 'tray' && window && windowRim > widest) {
    const message = `A rim of ${windowRim} mm leaves no window in ${rounded(w)} × ${rounded(d)} mm.`;
    troubles.push({ field: 'windowRim', message, nearest: widest >= 1 ? roundedDown(widest) : null });
  }
  return troubles;
}

function built(numbers: FoldedNumbers, inside: Vec3, { thicknessMm: t }: Stock, playMm: number): Built {
  const { shape, lidHeight, flap, tabWidth, window, windowRim } = numbers;
  const [w, d, h] = inside;
  const common = { bend: bendOf(numbers, t), tab: { widthMm: tabWidth, slope: slopeOf(numbers) } };
  const flapMm = shape === 'tuck' ? flap : null;
  const rimMm = window ? windowRim : null;
  const base = trayOf({
    ...common,
    partId: 'base',
    name: shape === 'lid' ? 'Base' : 'Box',
    inside,
    place: { origin: [0, 0, 0], u: [1, 0, 0], v: [0, 1, 0] },
    flapMm,
    rimMm: shape === 'tuck' ? rimMm : null,
  });
  const room = flapMm === null ? 0 : t;
  const [x, front, back, z] = [w / 2 + 2 * t, d / 2 + room + t, d / 2 + t, t + h];
  const free: Box3 = { min: [-w / 2 - t, -d / 2 - room, t], max: [w / 2 + t, d / 2, z] };
  const named = (id: string, name: string, tray: Tray) => partOf(id, name, tray, numbers);
  if (shape !== 'lid') {
    const top = flapMm === null ? z : z + t;
    const beside = [-1, 1].map((side): Box3 => {
      const [from, to] = side < 0 ? [-x, -w / 2 - t] : [w / 2 + t, x];
      return { min: [from, d / 2, z], max: [to, back, top] };
    });
    const above: Box3 = { min: [-x, -front, z], max: [x, -front + t, top] };
    return {
      parts: [named('base', 'Box', base)],
      sizes: { inside, outside: [2 * x, front + back, top] },
      playMm,
      assembly: {
        solids: base.solids,
        hull: [{ min: [-x, -front, 0], max: [x, back, top] }],
        voids: [free, ...(flapMm === null ? [] : [above, ...beside, ...windowIn(numbers, inside, z, t)])],
        joints: base.joints,
      },
    };
  }
  const lidInside: Vec3 = [2 * x + playMm, front + back + playMm, lidHeight];
  const lidPlace: Place = { origin: [0, 0, z + t], u: [1, 0, 0], v: [0, -1, 0] };
  const lid = trayOf({
    ...common,
    partId: 'lid',
    name: 'Lid',
    inside: lidInside,
    place: lidPlace,
    flapMm: null,
    rimMm,
  });
  const low = z - lidHeight;
  const [lidX, lidY] = [lidInside[0] / 2 + 2 * t, lidInside[1] / 2 + t];
  return {
    parts: [named('base', 'Base', base), named('lid', 'Lid', lid)],
    sizes: { inside, outside: [2 * lidX, 2 * lidY, z + t] },
    playMm,
    assembly: {
      solids: [...base.solids, ...lid.solids],
      hull: [
        { min: [-lidX, -lidY, low], max: [lidX, lidY, z + t] },
        ...(low > 0 ? [{ min: [-x, -front, 0], max: [x, back, low] } as Box3] : []),
      ],
      voids: [free, ...ring(lidX - t, lidY - t, x, front, low, z), ...windowIn(numbers, lidInside, z, t)],
      joints: [...base.joints, ...lid.joints, ...lidJoints(lidInside, [x, front], [low, z], t, playMm)],
    },
  };
}

/** What a window leaves free. */
function windowIn({ window, windowRim }: FoldedNumbers, [w, d]: Vec3, z: number, t: number): Box3[] {
  if (!window) return [];
  const [x, y] = [w / 2 - windowRim, d / 2 - windowRim];
  return [{ min: [-x, -y, z], max: [x, y, z + t] }];
}

/** What is between a lid and what it goes over: four boxes around. */
function ring(x: number, y: number, innerX: number, innerY: number, low: number, high: number): Box3[] {
  return [
    { min: [-x, -y, low], max: [-innerX, y, high] },
    { min: [innerX, -y, low], max: [x, y, high] },
    { min: [-innerX, -y, low], max: [innerX, -innerY, high] },
    { min: [-innerX, innerY, low], max: [innerX, y, high] },
  ];
}

/** The lid around its base: at its tabs, and at its front and back. */
function lidJoints(
  [w, d]: Vec3,
  [x, y]: readonly [number, number],
  [low, high]: readonly [number, number],
  t: number,
  playMm: number,
): Joint[] {
  const middle = (low + high) / 2;
  const both = [-1, 1].flatMap((side): Joint[] => {
    const between = (a: number, b: number) => (side < 0 ? ([-b, -a] as const) : ([a, b] as const));
    const [fromX, toX] = between(x - t, w / 2 + t);
    const [fromY, toY] = between(y - t, d / 2 + t);
    const along = { faces: 'all', gapMm: playMm / 2, isFree: true } as const;
    return [
      {
        ...along,
        name: 'Lid over the sides of the base',
        region: { min: [fromX, -y, middle - sliver], max: [toX, -y + sliver, middle + sliver] },
        axis: 0,
      },
      {
        ...along,
        name: 'Lid over front and back of the base',
        region: { min: [-x + 2 * t, fromY, low], max: [x - 2 * t, toY, high] },
        axis: 1,
      },
    ];
  });
  return both;
}

/** So far from their bends and their middle tabs are looked at, which slant, in mm. */
const sliver = 0.1;

function partOf(id: string, name: string, { rings, bends }: Tray, { bends: how, dash, bridge }: FoldedNumbers): Part {
  const cut = new PathBuilder();
  const score = new PathBuilder();
  for (const ringOf of rings) cut.ring(ringOf);
  for (const [from, to] of bends) {
    const dashes = how === 'score' ? [[from, to] as const] : dashesAlong(from, to, dash, bridge);
    for (const [a, b] of dashes) (how === 'score' ? score : cut).moveTo(...a).lineTo(...b);
  }
  const scored: Path = how === 'score' ? score.build() : emptyPath;
  return { id, name, cut: cut.build(), score: scored, labels: [] };
}
