import type { Joint } from './assembly/assembly.ts';
import type { Axis, Box3, Vec3 } from './assembly/space.ts';
import { jointMargin } from './strips.ts';

/** A tab where it goes through another plate, without any play. */
export interface Tab {
  readonly name: string;
  readonly box: Box3;
  /** Its own plate is so thick along this axis. */
  readonly thick: Axis;
  /** It is so long along this one; along the third it goes through. */
  readonly long: Axis;
}

/** The opening for a tab, what stays free at its ends, and its joints. */
interface TabOpening {
  readonly opening: Box3;
  readonly voids: readonly Box3[];
  readonly joints: readonly Joint[];
}

/** A box that reaches further to both sides of an axis, in mm. */
function widened({ min, max }: Box3, axis: Axis, mm: number): Box3 {
  const moved = (corner: Vec3, off: number) => corner.map((value, i) => (i === axis ? value + off : value));
  return { min: moved(min, -mm) as unknown as Vec3, max: moved(max, mm) as unknown as Vec3 };
}

/** The part of a box between two places along an axis. */
function cutAlong({ min, max }: Box3, axis: Axis, from: number, to: number): Box3 {
  const put = (corner: Vec3, value: number) => corner.map((entry, i) => (i === axis ? value : entry));
  return { min: put(min, from) as unknown as Vec3, max: put(max, to) as unknown as Vec3 };
}

/** The opening that a tab goes through. Only its width presses where play is below 0: lengthwise stock would bend. */
export function tabThrough(tab: Tab, playMm: number): TabOpening {
  const { name, box, thick, long } = tab;
  const loose = Math.max(0, playMm);
  const wide = widened(box, thick, playMm / 2);
  const opening = widened(wide, long, loose / 2);
  const narrower = playMm < 0 ? wide : box;
  const joints: Joint[] = [
    besideTab(tab, playMm),
    {
      name: `${name}, lengthwise`,
      region: widened(narrower, long, loose / 2 + jointMargin),
      axis: long,
      faces: 'all',
      gapMm: loose / 2,
      isFree: true,
    },
  ];
  const [from, to] = [box.min[long], box.max[long]];
  const voids = [cutAlong(wide, long, opening.min[long], from), cutAlong(wide, long, to, opening.max[long])];
  return { opening, voids: loose > 0 ? voids : [], joints };
}

/** A tab between the two sides of its opening or slot, each with half of the play. */
export function besideTab({ name, box, thick }: Tab, playMm: number): Joint {
  // Where it presses, the region goes on beyond the tab as well.
  const region = widened(box, thick, Math.max(0, playMm / 2) + jointMargin);
  return { name, region, axis: thick, faces: 'all', gapMm: playMm / 2 };
}
