import type { Joint } from '../assembly/assembly.ts';
import type { Box3, Vec3 } from '../assembly/space.ts';
import type { Plate } from '../plate.ts';

export type Lid = 'none' | 'closed' | 'lifts' | 'slides' | 'hinged';

/** A box with its lid, before its plates are joined. */
export interface LidPlan {
  /** Plates that share edges. */
  readonly joined: readonly Plate[];
  /** Plates that lie at others without joints. */
  readonly loose: readonly Plate[];
  /** The walls from the inside, that dividers go into: left and right, front and back. */
  readonly walls: { readonly across: readonly [string, string]; readonly along: readonly [string, string] };
  readonly inside: Box3;
  readonly outside: Box3;
  /** What else is left free. */
  readonly voids: readonly Box3[];
  readonly joints: readonly Joint[];
}

const walls: Readonly<Record<Lid, Vec3>> = {
  none: [2, 2, 1],
  closed: [2, 2, 2],
  lifts: [2, 2, 3],
  slides: [4, 2, 4],
  hinged: [2, 2, 2],
};

/** @returns how much larger than its inside a box is in each direction, without hinges, in mm. */
export function takenByWalls(lid: Lid, t: number, play: number): Vec3 {
  const [x, y, z] = walls[lid];
  return [x * t, y * t, z * t + (lid === 'slides' ? play : 0)];
}

/**
 * Where the plates of a box lie.
 *
 * @param t the stock's thickness
 * @param play how much narrower than its room a lid is that comes off, in mm.
 */
export function planLid(lid: Lid, [w, d, h]: Vec3, t: number, play: number): LidPlan {
  if (lid === 'slides') return sliding([w, d, h], t, play);
  const [x, y] = [w + 2 * t, d + 2 * t];
  const wallTop = t + h + (lid === 'closed' || lid === 'lifts' ? t : 0);
  const top = lid === 'lifts' || lid === 'hinged' ? wallTop + t : wallTop;
  const joined: Plate[] = [
    plate('bottom', 'Bottom', '-z', [0, 0, 0], [x, y, t]),
    ...(lid === 'closed' ? [plate('top', 'Top', '+z', [0, 0, top - t], [x, y, top])] : []),
    plate('front', 'Front', '-y', [0, 0, 0], [x, t, wallTop]),
    plate('back', 'Back', '+y', [0, y - t, 0], [x, y, wallTop]),
    plate('left', 'Left', '-x', [0, 0, 0], [t, y, wallTop]),
    plate('right', 'Right', '+x', [x - t, 0, 0], [x, y, wallTop]),
  ];
  const base = {
    joined,
    walls: { across: ['left', 'right'], along: ['front', 'back'] } as const,
    inside: { min: [t, t, t], max: [t + w, t + d, t + h] } as Box3,
    outside: { min: [0, 0, 0], max: [x, y, top] } as Box3,
  };
  const cover = plate('lid', 'Lid', '+z', [0, 0, wallTop], [x, y, top]);
  if (lid === 'hinged') return { ...base, loose: [cover], voids: [], joints: [] };
  if (lid !== 'lifts') return { ...base, loose: [], voids: [], joints: [] };
  const side = play / 2;
  const [low, high] = [t + h, wallTop];
  const liner: Box3 = { min: [t + side, t + side, low], max: [x - t - side, y - t - side, high] };
  const corner = (left: number, front: number): Box3 => ({
    min: [left, front, low],
    max: [left + side, front + side, high],
  });
  return {
    ...base,
    loose: [cover, { id: 'liner', name: 'Lid, inner', box: liner, out: '+z' }],
    voids: [corner(t, t), corner(x - t - side, t), corner(t, y - t - side), corner(x - t - side, y - t - side)],
    joints: [
      {
        name: 'Lid between left and right',
        region: { min: [t - reach, liner.min[1], low], max: [x - t + reach, liner.max[1], high] },
        axis: 0,
        faces: 'all',
        gapMm: side,
      },
      {
        name: 'Lid between front and back',
        region: { min: [liner.min[0], t - reach, low], max: [liner.max[0], y - t + reach, high] },
        axis: 1,
        faces: 'all',
        gapMm: side,
      },
    ],
  };
}

/** So far into a wall that no play of its fingers is there, in mm. */
const reach = 1e-5;

const plate = (id: string, name: string, out: Plate['out'], min: Vec3, max: Vec3): Plate => ({
  id,
  name,
  out,
  box: { min, max },
});

/** The lid goes in from the front between the inner sides, on which it lies, and rails above it. */
function sliding([w, d, h]: Vec3, t: number, play: number): LidPlan {
  const [x, y] = [w + 4 * t, d + 2 * t];
  const [lidLow, lidHigh] = [t + h, 2 * t + h];
  const railLow = lidHigh + play;
  const top = railLow + 2 * t;
  const side = play / 2;
  const lid: Box3 = { min: [t + side, 0, lidLow], max: [x - t - side, y - t, lidHigh] };
  /** On the left, and the same on the right. */
  const onBoth = (from: number, to: number, [y1, y2]: readonly [number, number], [z1, z2]: readonly [number, number]) =>
    [
      { min: [from, y1, z1], max: [to, y2, z2] },
      { min: [x - to, y1, z1], max: [x - from, y2, z2] },
    ] as const satisfies readonly Box3[];
  const [innerLeft, innerRight] = onBoth(t, 2 * t, [t, y - t], [t, lidLow]);
  const [railLeft, railRight] = onBoth(t, 2 * t, [0, y - t], [railLow, top]);
  return {
    joined: [
      plate('bottom', 'Bottom', '-z', [0, 0, 0], [x, y, t]),
      plate('front', 'Front', '-y', [0, 0, 0], [x, t, lidLow]),
      plate('back', 'Back', '+y', [0, y - t, 0], [x, y, top]),
      plate('left', 'Left', '-x', [0, 0, 0], [t, y, top]),
      plate('right', 'Right', '+x', [x - t, 0, 0], [x, y, top]),
    ],
    loose: [
      { id: 'inner-left', name: 'Left, inner', box: innerLeft, out: '+x' },
      { id: 'inner-right', name: 'Right, inner', box: innerRight, out: '-x' },
      { id: 'rail-left', name: 'Rail, left', box: railLeft, out: '+x' },
      { id: 'rail-right', name: 'Rail, right', box: railRight, out: '-x' },
      { id: 'lid', name: 'Lid', box: lid, out: '+z' },
    ],
    walls: { across: ['inner-left', 'inner-right'], along: ['front', 'back'] },
    inside: { min: [2 * t, t, t], max: [2 * t + w, t + d, t + h] },
    outside: { min: [0, 0, 0], max: [x, y, top] },
    voids: [
      { min: [2 * t, 0, lidHigh], max: [x - 2 * t, y - t, top] },
      ...onBoth(t, t + side, [0, y - t], [lidHigh, railLow]),
    ],
    joints: [
      {
        name: 'Lid between left and right',
        region: { min: [t - reach, 0, lidLow], max: [x - t + reach, y - t, lidHigh] },
        axis: 0,
        faces: 'all',
        gapMm: side,
      },
      ...onBoth(t + side, 2 * t, [0, y - t], [lidHigh - reach, railLow + reach]).map(
        (region): Joint => ({ name: 'Lid under its rail', region, axis: 2, faces: 'all', gapMm: play }),
      ),
    ],
  };
}
