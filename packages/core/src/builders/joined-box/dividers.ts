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

/** The opening in a wall that a divider's tab goes through. Only its width presses where play is below 0: lengthwise stock would bend. */
function tabIn(strip: Strip, wall: Plate, cut: StripCut) {
  const { thickness, playMm, tab } = cut;
  const loose = Math.max(0, playMm);
  const up = [tab[0] - loose / 2, tab[1] + loose / 2] as const;
  const wide = thickness + playMm;
  const through = [wall.box.min[strip.axis], wall.box.max[strip.axis]] as const;
  const name = `${strip.name} in ${wall.name}`;
  const joints: Joint[] = [
    besideTab(strip, wall, cut),
    {
      name: `${name}, up and down`,
      region: boxAlong(strip, through, Math.min(thickness, wide), [up[0] - jointMargin, up[1] + jointMargin]),
      axis: 2,
      faces: 'all',
      gapMm: loose / 2,
      isFree: true,
    },
  ];
  const voids = [boxAlong(strip, through, wide, [up[0], tab[0]]), boxAlong(strip, through, wide, [tab[1], up[1]])];
  const opening = { wallId: wall.id, dividerId: strip.id, box: boxAlong(strip, through, wide, up), isOpen: false };
  return { opening, voids: loose > 0 ? voids : [], joints };
}

/** A tab between the two sides of its opening or slot, each with half of the play. */
function besideTab(strip: Strip, wall: Plate, { thickness, playMm, tab }: StripCut): Joint {
  const through = [wall.box.min[strip.axis], wall.box.max[strip.axis]] as const;
  return {
    name: `${strip.name} in ${wall.name}`,
    region: boxAlong(strip, through, thickness + playMm + 2 * jointMargin, tab),
    axis: strip.axis === 0 ? 1 : 0,
    faces: 'all',
    gapMm: playMm / 2,
  };
}

/** The slot in a wall that the upper half of a divider's end hangs in: it rests on its ground, and is free above. */
function hungIn(strip: Strip, wall: Plate, cut: StripCut) {
  const { thickness, playMm, tab } = cut;
  const wide = thickness + playMm;
  const through = [wall.box.min[strip.axis], wall.box.max[strip.axis]] as const;
  const top = wall.box.max[2];
  const name = `${strip.name} in ${wall.name}`;
  const joints: Joint[] = [
    besideTab(strip, wall, cut),
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
