import type { Joint } from '../assembly/assembly.ts';
import type { Box3, Vec3 } from '../assembly/space.ts';
import { onPlace, type Plate, placeOf } from '../plate.ts';

/** What dividers stand between: the walls that their ends go into. */
export interface DividerWalls {
  /** Left and right. */
  readonly across: readonly [Plate, Plate];
  /** Front and back. */
  readonly along: readonly [Plate, Plate];
}

/** Dividers that stand in a box, and what they need of its walls. */
export interface Dividers {
  readonly plates: readonly DividerPlate[];
  /** Openings for their tabs, by the wall. */
  readonly openings: readonly { readonly wallId: string; readonly box: Box3 }[];
  /** What stays free above and below tabs. */
  readonly voids: readonly Box3[];
  readonly joints: readonly Joint[];
}

/** A divider with its outline, in the frame of its place. */
interface DividerPlate {
  readonly plate: Plate;
  readonly outline: readonly number[];
}

/** One divider, by the axis that it goes along and its middle on the other. */
interface Stand {
  readonly id: string;
  readonly name: string;
  readonly axis: 0 | 1;
  readonly middle: number;
  readonly walls: readonly [Plate, Plate];
}

/** What all dividers of a box have in common, in mm. */
interface Common {
  readonly thickness: number;
  readonly playMm: number;
  /** From where to where up they go, and their tabs. */
  readonly upright: readonly [low: number, high: number];
  readonly tab: readonly [low: number, high: number];
}

/** So far a joint's box goes into what it is in, to find its edge, in mm. */
const margin = 0.1;

/**
 * Dividers at even distances: across from side to side, along from front to back. Where they cross, each is cut halfway;
 * tabs of half their height go through the walls.
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
): Dividers {
  const low = inside.min[2];
  const common: Common = {
    thickness,
    playMm,
    upright: [low, low + heightMm],
    tab: [low + heightMm / 4, low + (3 * heightMm) / 4],
  };
  const stands = (way: 'across' | 'along'): Stand[] => {
    const axis = way === 'across' ? 0 : 1;
    const other = axis === 0 ? 1 : 0;
    const [from, count] = [inside.min[other], counts[way]];
    const cell = (inside.max[other] - from - count * thickness) / (count + 1);
    return Array.from({ length: count }, (_, i) => ({
      id: `${way}-${i + 1}`,
      name: `Divider ${way} ${i + 1}`,
      axis,
      middle: from + (i + 1) * cell + (i + 0.5) * thickness,
      walls: walls[way],
    }));
  };
  const [across, along] = [stands('across'), stands('along')];
  const all = [...across, ...along];
  const inWalls = all.map((stand) => tabsOf(stand, common));
  return {
    plates: all.map((stand) => plateOf(stand, stand.axis === 0 ? along : across, common)),
    openings: inWalls.flatMap(({ openings }) => openings),
    voids: inWalls.flatMap(({ voids }) => voids),
    joints: [
      ...inWalls.flatMap(({ joints }) => joints),
      ...across.flatMap((a) => along.flatMap((b) => [crossing(a, b, common), crossing(b, a, common)])),
    ],
  };
}

/** A box whose middle a divider's plane goes through: so far along it, so wide across it, and so far up. */
function boxAt(
  { axis, middle }: Stand,
  along: readonly [number, number],
  wide: number,
  up: readonly [number, number],
): Box3 {
  const corner = (place: number, off: number, z: number): Vec3 =>
    axis === 0 ? [place, middle + off, z] : [middle + off, place, z];
  return { min: corner(along[0], -wide / 2, up[0]), max: corner(along[1], wide / 2, up[1]) };
}

/** The openings that a divider's tabs go through. Only their width presses where play is below 0: lengthwise stock would bend. */
function tabsOf(stand: Stand, { thickness, playMm, tab }: Common): Omit<Dividers, 'plates'> {
  const loose = Math.max(0, playMm);
  const opening = [tab[0] - loose / 2, tab[1] + loose / 2] as const;
  const wide = thickness + playMm;
  const inEach = stand.walls.map((wall) => {
    const along = [wall.box.min[stand.axis], wall.box.max[stand.axis]] as const;
    const name = `${stand.name} in ${wall.name}`;
    const joints: Joint[] = [
      {
        name,
        region: boxAt(stand, along, wide + 2 * margin, tab),
        axis: stand.axis === 0 ? 1 : 0,
        faces: 'all',
        gapMm: playMm / 2,
      },
      {
        name: `${name}, up and down`,
        region: boxAt(stand, along, Math.min(thickness, wide), [opening[0] - margin, opening[1] + margin]),
        axis: 2,
        faces: 'all',
        gapMm: loose / 2,
        isFree: true,
      },
    ];
    const free = [boxAt(stand, along, wide, [opening[0], tab[0]]), boxAt(stand, along, wide, [tab[1], opening[1]])];
    return { opening: { wallId: wall.id, box: boxAt(stand, along, wide, opening) }, free, joints };
  });
  return {
    openings: inEach.map((entry) => entry.opening),
    voids: loose > 0 ? inEach.flatMap(({ free }) => free) : [],
    joints: inEach.flatMap(({ joints }) => joints),
  };
}

/** The slot of a divider that another one is in: those across have theirs from above, those along from below. */
function slotFor(stand: Stand, other: Stand, { thickness, playMm, upright: [low, high] }: Common) {
  const half = (thickness + playMm) / 2;
  const middle = (low + high) / 2;
  const up = stand.axis === 0 ? ([middle, high] as const) : ([low, middle] as const);
  return { along: [other.middle - half, other.middle + half] as const, up };
}

function crossing(stand: Stand, other: Stand, common: Common): Joint {
  const { along, up } = slotFor(stand, other, common);
  return {
    name: `${stand.name} and ${other.name}`,
    region: boxAt(stand, [along[0] - margin, along[1] + margin], common.thickness, up),
    axis: stand.axis,
    faces: 'all',
    gapMm: common.playMm / 2,
    isFree: true,
  };
}

/** Round a divider: along its foot, up with a tab, along its top, and down with a tab. */
function plateOf(stand: Stand, others: readonly Stand[], common: Common): DividerPlate {
  const { id, name, axis, middle, walls } = stand;
  const [low, high] = common.upright;
  const [tabLow, tabHigh] = common.tab;
  const [first, second] = walls;
  const [start, from] = [first.box.min[axis], first.box.max[axis]];
  const [to, end] = [second.box.min[axis], second.box.max[axis]];
  type Turn = readonly [along: number, z: number];
  const slots = others.flatMap((other): Turn[] => {
    const { along, up } = slotFor(stand, other, common);
    const [mouth, ground] = axis === 0 ? [up[1], up[0]] : up;
    return [
      [along[0], mouth],
      [along[0], ground],
      [along[1], ground],
      [along[1], mouth],
    ];
  });
  const turns: Turn[] = [
    [from, low],
    ...(axis === 1 ? slots : []),
    [to, low],
    [to, tabLow],
    [end, tabLow],
    [end, tabHigh],
    [to, tabHigh],
    [to, high],
    ...(axis === 0 ? [...slots].reverse() : []),
    [from, high],
    [from, tabHigh],
    [start, tabHigh],
    [start, tabLow],
    [from, tabLow],
  ];
  const box = boxAt(stand, [start, end], common.thickness, common.upright);
  const plate: Plate = { id, name, box, out: axis === 0 ? '-y' : '-x' };
  const place = placeOf(plate);
  const outline = turns.flatMap(([along, z]) => {
    const { x, y } = onPlace(place, axis === 0 ? [along, middle, z] : [middle, along, z]);
    return [x, y];
  });
  return { plate, outline };
}
