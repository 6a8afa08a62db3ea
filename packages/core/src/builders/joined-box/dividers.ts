import type { Joint } from '../assembly/assembly.ts';
import type { Box3 } from '../assembly/space.ts';
import { type Plate, thicknessOf } from '../plate.ts';
import {
  boxAlong,
  crossingsOf,
  evenMiddles,
  jointMargin,
  type Strip,
  type StripCut,
  type StripPlate,
  stripPlate,
} from '../strips.ts';
import { besideTab, type Tab, tabThrough } from '../tab-joint.ts';

/** How dividers are held: by tabs through the walls, or in slots that are open above. */
export type DividerEnds = 'tabs' | 'slots';

/** What dividers stand between: the walls that their ends go into. */
export interface DividerWalls {
  /** Left and right. */
  readonly across: readonly [Plate, Plate];
  /** Front and back. */
  readonly along: readonly [Plate, Plate];
}

/** Where a divider's end goes into a wall. */
export interface Opening {
  readonly wallId: string;
  readonly dividerId: string;
  readonly box: Box3;
  /** Whether it goes on to the wall's top, and is open there. */
  readonly isOpen: boolean;
}

/** Dividers that stand in a box, and what they need of its walls. */
export interface Dividers {
  readonly plates: readonly StripPlate[];
  readonly openings: readonly Opening[];
  /** What stays free above and below tabs. */
  readonly voids: readonly Box3[];
  readonly joints: readonly Joint[];
}

/**
 * Dividers at even distances: across from side to side, along from front to back. Where they cross, each is cut halfway;
 * tabs of half their height go through the walls, or the upper half hangs in slots.
 *
 * @param heightMm of the dividers
 * @param playMm how much wider an opening is than what goes into it
 */
export function dividersIn(
  inside: Box3,
  walls: DividerWalls,
  counts: { readonly across: number; readonly along: number },
  heightMm: number,
  thickness: number,
  playMm: number,
  ends: DividerEnds,
): Dividers {
  const low = inside.min[2];
  const cut: StripCut = {
    thickness,
    playMm,
    upright: [low, low + heightMm],
    tab: ends === 'slots' ? [low + heightMm / 2, low + heightMm] : [low + heightMm / 4, low + (3 * heightMm) / 4],
  };
  const stripsOf = (way: 'across' | 'along'): Strip[] => {
    const [axis, other] = way === 'across' ? ([0, 1] as const) : ([1, 0] as const);
    return evenMiddles(inside.min[other], inside.max[other], counts[way], thickness).map((middle, i) => ({
      id: `${way}-${i + 1}`,
      name: `Divider ${way} ${i + 1}`,
      axis,
      middle,
      from: inside.min[axis],
      to: inside.max[axis],
      tabMm: thicknessOf(walls[way][0]),
    }));
  };
  const strips = [...stripsOf('across'), ...stripsOf('along')];
  const inWalls = strips.flatMap((strip) =>
    walls[strip.axis === 0 ? 'across' : 'along'].map((wall) =>
      ends === 'slots' ? hungIn(strip, wall, cut) : tabIn(strip, wall, cut),
    ),
  );
  return {
    plates: strips.map((strip) => stripPlate(strip, strips, cut)),
    openings: inWalls.map(({ opening }) => opening),
    voids: inWalls.flatMap(({ voids }) => voids),
    joints: [...inWalls.flatMap(({ joints }) => joints), ...crossingsOf(strips, cut, true)],
  };
}

/** Where a divider's end goes through a wall. */
function tabOf(strip: Strip, wall: Plate, { thickness, tab }: StripCut): Tab {
  const through = [wall.box.min[strip.axis], wall.box.max[strip.axis]] as const;
  const box = boxAlong(strip, through, thickness, tab);
  return { name: `${strip.name} in ${wall.name}`, box, thick: strip.axis === 0 ? 1 : 0, long: 2 };
}

/** The opening in a wall that a divider's tab goes through. */
function tabIn(strip: Strip, wall: Plate, cut: StripCut) {
  const { opening, voids, joints } = tabThrough(tabOf(strip, wall, cut), cut.playMm);
  return { opening: { wallId: wall.id, dividerId: strip.id, box: opening, isOpen: false }, voids, joints };
}

/** The slot in a wall that the upper half of a divider's end hangs in: it rests on its ground, and is free above. */
function hungIn(strip: Strip, wall: Plate, cut: StripCut) {
  const { thickness, playMm, tab } = cut;
  const wide = thickness + playMm;
  const through = [wall.box.min[strip.axis], wall.box.max[strip.axis]] as const;
  const top = wall.box.max[2];
  const name = `${strip.name} in ${wall.name}`;
  const joints: Joint[] = [
    besideTab(tabOf(strip, wall, cut), playMm),
    {
      name: `${name}, on its ground`,
      region: boxAlong(strip, through, Math.min(thickness, wide), [tab[0] - jointMargin, tab[1]]),
      axis: 2,
      faces: 'all',
      gapMm: 0,
    },
  ];
  const voids = top > tab[1] ? [boxAlong(strip, through, wide, [tab[1], top])] : [];
  return {
    opening: { wallId: wall.id, dividerId: strip.id, box: boxAlong(strip, through, wide, [tab[0], top]), isOpen: true },
    voids,
    joints,
  };
}
