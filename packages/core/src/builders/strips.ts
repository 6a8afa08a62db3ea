import type { Joint } from './assembly/assembly.ts';
import type { Box3, Vec3 } from './assembly/space.ts';
import { onPlace, type Plate, placeOf } from './plate.ts';

/** An upright strip along x (0) or y (1), its middle on the other of these, in mm. */
export interface Strip {
  readonly id: string;
  readonly name: string;
  readonly axis: 0 | 1;
  readonly middle: number;
  /** From where to where it goes along its axis, without tabs. */
  readonly from: number;
  readonly to: number;
  /** So far tabs reach beyond that at both ends; 0 for none. */
  readonly tabMm: number;
}

/** What all strips of a thing have in common, in mm. */
export interface StripCut {
  readonly thickness: number;
  /** How much wider a slot is than what goes into it. */
  readonly playMm: number;
  /** From where to where up strips go, and their tabs. */
  readonly upright: readonly [low: number, high: number];
  readonly tab: readonly [low: number, high: number];
}

/** A plate with the outline it has, in the frame of its place. */
export interface StripPlate {
  readonly plate: Plate;
  readonly outline: readonly number[];
}

/** So far a joint's box goes into what it is in, to find its edge, in mm. */
export const jointMargin = 0.1;

/** The middles of so many strips between two places, at even distances. */
export function evenMiddles(from: number, to: number, count: number, thickness: number): number[] {
  const cell = (to - from - count * thickness) / (count + 1);
  return Array.from({ length: count }, (_, i) => from + (i + 1) * cell + (i + 0.5) * thickness);
}

/** A box whose middle a strip's plane goes through: so far along it, so wide across it, and so far up. */
export function boxAlong(
  { axis, middle }: Pick<Strip, 'axis' | 'middle'>,
  along: readonly [number, number],
  wide: number,
  up: readonly [number, number],
): Box3 {
  const corner = (place: number, off: number, z: number): Vec3 =>
    axis === 0 ? [place, middle + off, z] : [middle + off, place, z];
  return { min: corner(along[0], -wide / 2, up[0]), max: corner(along[1], wide / 2, up[1]) };
}

/** The slot of a strip that another one is in: those along x have theirs from above, those along y from below. */
function slotFor(strip: Strip, other: Strip, { thickness, playMm, upright: [low, high] }: StripCut) {
  const half = (thickness + playMm) / 2;
  const middle = (low + high) / 2;
  const up = strip.axis === 0 ? ([middle, high] as const) : ([low, middle] as const);
  return { along: [other.middle - half, other.middle + half] as const, up };
}

/** Where strips along x cross strips along y: each is cut halfway, and has the other in it. @param isFree as of a joint */
export function crossingsOf(strips: readonly Strip[], cut: StripCut, isFree: boolean): Joint[] {
  const joint = (strip: Strip, other: Strip): Joint => {
    const { along, up } = slotFor(strip, other, cut);
    const region = boxAlong(strip, [along[0] - jointMargin, along[1] + jointMargin], cut.thickness, up);
    const name = `${strip.name} and ${other.name}`;
    return { name, region, axis: strip.axis, faces: 'all', gapMm: cut.playMm / 2, isFree };
  };
  const [across, along] = [0, 1].map((axis) => strips.filter((strip) => strip.axis === axis));
  return across.flatMap((a) => along.flatMap((b) => [joint(a, b), joint(b, a)]));
}

/** A strip with the slots that the strips across it are in. Round it: along its foot, up, along its top, and down. */
export function stripPlate(strip: Strip, strips: readonly Strip[], cut: StripCut): StripPlate {
  const { id, name, axis, middle, from, to, tabMm } = strip;
  const [low, high] = cut.upright;
  const [tabLow, tabHigh] = cut.tab;
  type Turn = readonly [along: number, z: number];
  const slots = strips
    .filter((other) => other.axis !== axis)
    .sort((a, b) => a.middle - b.middle)
    .flatMap((other): Turn[] => {
      const { along, up } = slotFor(strip, other, cut);
      const [mouth, ground] = axis === 0 ? [up[1], up[0]] : up;
      return [
        [along[0], mouth],
        [along[0], ground],
        [along[1], ground],
        [along[1], mouth],
      ];
    });
  const tab = (place: number, out: number, [first, last]: readonly [number, number]): Turn[] =>
    tabMm > 0
      ? [
          [place, first],
          [place + out, first],
          [place + out, last],
          [place, last],
        ]
      : [];
  const turns: Turn[] = [
    [from, low],
    ...(axis === 1 ? slots : []),
    [to, low],
    ...tab(to, tabMm, [tabLow, tabHigh]),
    [to, high],
    ...(axis === 0 ? [...slots].reverse() : []),
    [from, high],
    ...tab(from, -tabMm, [tabHigh, tabLow]),
  ];
  const box = boxAlong(strip, [from - tabMm, to + tabMm], cut.thickness, cut.upright);
  const plate: Plate = { id, name, box, out: axis === 0 ? '-y' : '-x' };
  const place = placeOf(plate);
  const outline = turns.flatMap(([along, z]) => {
    const { x, y } = onPlace(place, axis === 0 ? [along, middle, z] : [middle, along, z]);
    return [x, y];
  });
  return { plate, outline };
}
