import { flatten } from '../../geometry/paths/flatten.ts';
import { type Path, PathBuilder, transformPath } from '../../geometry/paths/path.ts';
import type { Joint } from '../assembly/assembly.ts';
import type { Box3, Solid, Vec3 } from '../assembly/space.ts';
import { formPath } from '../forms.ts';
import { onPlace, type Plate, placeOf, thicknessOf } from '../plate.ts';
import { addRelieved, type Bow } from '../relief.ts';
import { type Tab, tabThrough } from '../tab-joint.ts';

/** An upright plate of a hinge, with a round end that the pin goes through. */
export interface Ear {
  readonly plate: Plate;
  readonly outline: readonly number[];
  /** Edges of the outline that are arcs. */
  readonly bows: ReadonlyMap<number, Bow>;
  /** For the pin. */
  readonly hole: Path;
}

/** Hinges at the back of a box, and what they need of its plates. */
export interface HingePlan {
  readonly ears: readonly Ear[];
  readonly openings: readonly { readonly plateId: 'back' | 'lid'; readonly box: Box3 }[];
  /** What ears fill outside of the box. */
  readonly hull: readonly Omit<Solid, 'partId'>[];
  readonly voids: readonly Box3[];
  readonly joints: readonly Joint[];
  /** How far they reach behind the box, and above it, in mm. */
  readonly reach: number;
}

export const noHinge: HingePlan = { ears: [], openings: [], hull: [], voids: [], joints: [], reach: 0 };

/** What hinges are made by, in mm. */
export interface HingeSizes {
  readonly count: number;
  readonly pinHole: number;
  /** Between what moves and what stands. */
  readonly gap: number;
}

/** The radius of the round ends: as much stock around the pin as it is thick, and no less than 3 mm. */
const endRadius = ({ pinHole }: HingeSizes, t: number) => pinHole / 2 + Math.max(t, 3);

/** How far hinges reach behind the back, and above the lid, in mm. */
export function hingeReach(sizes: HingeSizes, t: number): number {
  return 2 * endRadius(sizes, t) + sizes.gap;
}

/** What hinges ask of the inside of a box, in mm, and how many there can be. */
export function hingeLimits(sizes: HingeSizes, widthMm: number, t: number) {
  return {
    leastDepth: 2 * t,
    leastHeight: Math.max(3 * t, endRadius(sizes, t) - t),
    most: Math.floor((widthMm + 2 * t) / (7 * t + 2 * sizes.gap) + 1e-9),
  };
}

/** A corner of an ear: to the back and up. */
type Turn = readonly [y: number, z: number];

/** An ear as it is seen from the side, the back of the box to the right. */
interface Profile {
  /** Round it, from the foot of its tab. The arc goes from turn `bow` to the next one. */
  readonly turns: readonly Turn[];
  readonly bow: number;
  /** Its tab: the last turns. */
  readonly tab: readonly Turn[];
}

/** Where the parts of a hinge lie, in mm. */
interface HingeFrame {
  readonly t: number;
  readonly back: number;
  readonly top: number;
  readonly gap: number;
  readonly radius: number;
  readonly axis: Turn;
  /** How far the ears reach down the back, and forward on the lid. */
  readonly tall: number;
  readonly long: number;
}

function profileOnBack({ t, back, top, gap, radius, axis: [y, z], tall }: HingeFrame): Profile {
  const [low, high] = [top - t - tall, top - t];
  return {
    turns: [
      [back, low],
      [y + radius, low + gap + 2 * radius],
      [y + radius, z],
      [y - radius, z],
      [y - radius, high],
      [back, high],
    ],
    bow: 2,
    tab: [
      [back, high - t],
      [back - t, high - t],
      [back - t, low + t],
      [back, low + t],
    ],
  };
}

function profileOnLid({ t, back, top, radius, axis: [y, z], long }: HingeFrame): Profile {
  const front = back - long;
  return {
    turns: [
      [back, top],
      [y, top],
      [y, z - radius],
      [y, z + radius],
      [back, z + radius],
      [front, top + t],
      [front, top],
    ],
    bow: 2,
    tab: [
      [front + t, top],
      [front + t, top - t],
      [back - t, top - t],
      [back - t, top],
    ],
  };
}

/**
 * Hinges at even distances: one ear on the lid between two on the back wall, each held by a tab. The pin lies behind the
 * back and above the lid, so far that the lid opens by more than a right angle and meets nothing.
 *
 * @param outside the box with its lid, from (0, 0, 0), without hinges
 * @param innerHeight of the box
 * @param t the stock's thickness
 */
export function planHinge(
  sizes: HingeSizes,
  [width, back, top]: Vec3,
  innerHeight: number,
  t: number,
  playMm: number,
): HingePlan {
  const { count, gap, pinHole } = sizes;
  const radius = endRadius(sizes, t);
  const frame: HingeFrame = {
    ...{ t, back, top, gap, radius },
    axis: [back + gap + radius, top + gap + radius],
    tall: Math.min(innerHeight, Math.max(5 * t, radius)),
    long: Math.min(back, 5 * t),
  };
  const [onBack, onLid] = [profileOnBack(frame), profileOnLid(frame)];
  const kinds = [
    { id: 'left', words: 'box, left', off: -1.5 * t - gap, profile: onBack, plateId: 'back' },
    { id: 'lid', words: 'lid', off: -t / 2, profile: onLid, plateId: 'lid' },
    { id: 'right', words: 'box, right', off: t / 2 + gap, profile: onBack, plateId: 'back' },
  ] as const;
  const middles = Array.from({ length: count }, (_, i) => (width * (i + 0.5)) / count);
  const placed = middles.flatMap((middle, i) =>
    kinds.map(({ id, words, off, profile, plateId }) => {
      const across = [middle + off, middle + off + t] as const;
      const box = boxOf([...profile.turns, ...profile.tab], across);
      const plate: Plate = { id: `hinge-${i + 1}-${id}`, name: `Hinge ${i + 1}, ${words}`, box, out: '-x' };
      const tab: Tab = { name: plate.name, box: boxOf(profile.tab, across), thick: 0, long: plateId === 'lid' ? 1 : 2 };
      return { plateId, ...earOf(plate, profile, frame.axis, pinHole), tab: tabThrough(tab, playMm) };
    }),
  );
  // Where all three are whole: between the pin and the round end.
  const [y, z] = [frame.axis[0], frame.axis[1] + (pinHole / 2 + radius) / 2];
  const reach = 1.5 * t + gap;
  const knuckles = middles.map((middle, i): Joint => {
    const region: Box3 = { min: [middle - reach, y - 0.1, z - 0.1], max: [middle + reach, y + 0.1, z + 0.1] };
    return { name: `Hinge ${i + 1}`, region, axis: 0, faces: 'all', gapMm: gap, isFree: true };
  });
  return {
    ears: placed.map(({ ear }) => ear),
    openings: placed.map(({ plateId, tab }) => ({ plateId, box: tab.opening })),
    hull: placed.map(({ hull }) => hull),
    voids: placed.flatMap(({ tab }) => tab.voids),
    joints: [...placed.flatMap(({ tab }) => tab.joints), ...knuckles],
    reach: 2 * radius + gap,
  };
}

function boxOf(turns: readonly Turn[], [left, right]: readonly [number, number]): Box3 {
  const [ys, zs] = [turns.map(([y]) => y), turns.map(([, z]) => z)];
  return { min: [left, Math.min(...ys), Math.min(...zs)], max: [right, Math.max(...ys), Math.max(...zs)] };
}

/** A profile as an outline on its plate: its points without the same twice, and the arc about the axis. */
function onPlate(
  plate: Plate,
  turns: readonly Turn[],
  bow: number,
  [axisY, axisZ]: Turn,
): Pick<Ear, 'outline' | 'bows'> {
  const place = placeOf(plate);
  const side = plate.box.min[0];
  const outline: number[] = [];
  let start = 0;
  turns.forEach(([y, z], i) => {
    const { x, y: down } = onPlace(place, [side, y, z]);
    const isSame = i > 0 && Math.hypot(y - turns[i - 1][0], z - turns[i - 1][1]) < 1e-9;
    if (!isSame) outline.push(x, down);
    if (i === bow) start = outline.length / 2 - 1;
  });
  const centre = onPlace(place, [side, axisY, axisZ]);
  return { outline, bows: new Map([[start, { cx: centre.x, cy: centre.y, span: Math.PI }]]) };
}

/** An ear as it is cut, and what it fills outside of the box: all of it but its tab. */
function earOf(plate: Plate, { turns, tab, bow }: Profile, axis: Turn, pinHole: number) {
  const place = placeOf(plate);
  const { x, y } = onPlace(place, [plate.box.min[0], ...axis]);
  const hole = transformPath(formPath({ kind: 'round', radius: pinHole / 2 }, 0), [1, 0, 0, 1, x, y]);
  const ear: Ear = { plate, ...onPlate(plate, [...turns, ...tab], bow, axis), hole };
  const bare = onPlate(plate, turns, bow, axis);
  const outlines = [...flatten(earPath(bare)), ...flatten(hole)];
  return { ear, hull: { outlines, place, depth: thicknessOf(plate) } };
}

const earPath = ({ outline, bows }: Pick<Ear, 'outline' | 'bows'>): Path => {
  const builder = new PathBuilder();
  addRelieved(builder, outline, false, 'none', 0, bows);
  return builder.build();
};
