import type { Box3, Vec3 } from '../assembly/space.ts';
import type { Plate } from '../plate.ts';

/** What is glued under the bottom: nothing, a foot at each corner, or a frame that goes into the box below. */
export type Below = 'none' | 'feet' | 'rim';

/** Plates under the bottom, and what they fill and leave free. */
interface BelowPlan {
  readonly plates: readonly Plate[];
  readonly hull: readonly Box3[];
  readonly voids: readonly Box3[];
  /** What is cut out of the rim, in space; null where nothing is. */
  readonly rimHole: Box3 | null;
}

/** How wide the frame of a rim is, in mm. */
const rimWidth = 12;

/**
 * What lies under a box.
 *
 * @param outside the box without it, from 0
 * @param t the stock's thickness
 * @param footMm how long the sides of a foot are
 * @param play how much narrower a rim is than what it goes into, in mm.
 */
export function planBelow(below: Below, outside: Vec3, t: number, footMm: number, play: number): BelowPlan {
  const [x, y] = outside;
  const plate = (id: string, name: string, box: Box3): Plate => ({ id, name, box, out: '-z' });
  if (below === 'feet') {
    const feet = [
      [0, 0],
      [x - footMm, 0],
      [0, y - footMm],
      [x - footMm, y - footMm],
    ].map(([left, front]): Box3 => ({ min: [left, front, -t], max: [left + footMm, front + footMm, 0] }));
    return {
      plates: feet.map((box, i) => plate(`foot-${i + 1}`, `Foot ${i + 1}`, box)),
      hull: feet,
      voids: [],
      rimHole: null,
    };
  }
  if (below === 'none') return { plates: [], hull: [], voids: [], rimHole: null };
  const from = t + play / 2;
  const rim: Box3 = { min: [from, from, -t], max: [x - from, y - from, 0] };
  const inner = from + rimWidth;
  const hasHole = x - 2 * inner > rimWidth && y - 2 * inner > rimWidth;
  const rimHole: Box3 | null = hasHole ? { min: [inner, inner, -t], max: [x - inner, y - inner, 0] } : null;
  return { plates: [plate('rim', 'Rim', rim)], hull: [rim], voids: rimHole ? [rimHole] : [], rimHole };
}
