import { type Item, pathOf } from '../document/item.ts';
import type { TabPlaces } from '../document/job.ts';
import type { Point } from '../geometry/paths/matrix.ts';
import { lengthOf, pointAt, type Segment, type Subpath, subpathsOf, velocityAt } from '../geometry/paths/segments.ts';

/** A turn sharper than this, in radians, is a corner: a tab there breaks off with it. */
const cornerTurn = 0.35;
/** As many shifts of the whole row are tried. */
const tries = 48;

/** Where tabs lie on an outline, in segments along it: as they were placed, or else so many, as usual. */
export function tabsOn(placed: readonly TabPlaces[], item: Item, subpath: number, count: number): readonly number[] {
  const told = placed.find((tab) => tab.itemId === item.id && tab.subpath === subpath);
  return told ? told.at : usualTabs(item, subpath, count);
}

/** Where on the bed such places are, in mm; those that the outline no longer has are left out. */
export function tabPoints(item: Item, subpath: number, places: readonly number[]): Point[] {
  const line = [...subpathsOf(pathOf(item))][subpath];
  if (!line) return [];
  return places.flatMap((place) => {
    const segment = line.segments[Math.floor(place)];
    return segment ? [pointAt(segment, place - Math.floor(place))] : [];
  });
}

/** Tabs evenly along a closed outline, as far from its corners as that goes. */
export function usualTabs(item: Item, subpath: number, count: number): number[] {
  const line = [...subpathsOf(pathOf(item))][subpath];
  if (!line?.closed || count < 1) return [];
  const lengths = line.segments.map(lengthOf);
  const total = lengths.reduce((sum, length) => sum + length, 0);
  const corners = cornersAlong(line, lengths);
  const step = total / count;
  const apart = (a: number, b: number) => Math.min((a - b + total) % total, (b - a + total) % total);
  let [best, clear] = [0, -1];
  for (let i = 0; i < tries; i++) {
    const shift = (i / tries) * step;
    const nearest = corners.reduce(
      (least, corner) => Math.min(least, apart(corner % step, shift), step - apart(corner % step, shift)),
      total,
    );
    if (nearest > clear + 1e-9) [best, clear] = [shift, nearest];
  }
  return Array.from({ length: count }, (_, k) => placeAlong(line.segments, lengths, best + k * step));
}

/** How far along an outline its corners are, in mm. */
function cornersAlong({ segments }: Subpath, lengths: readonly number[]): number[] {
  let along = 0;
  return segments.flatMap((segment, i) => {
    const before = segments[(i + segments.length - 1) % segments.length];
    const [v, w] = [velocityAt(before, 1), velocityAt(segment, 0)];
    const turn = Math.abs(Math.atan2(v.x * w.y - v.y * w.x, v.x * w.x + v.y * w.y));
    const here = along;
    along += lengths[i];
    return turn > cornerTurn ? [here] : [];
  });
}

/** The place so many mm along an outline, in segments. On curves to a hundredth of the segment, which is near enough. */
function placeAlong(segments: readonly Segment[], lengths: readonly number[], mm: number): number {
  let left = mm;
  let i = 0;
  while (i < segments.length - 1 && left > lengths[i]) left -= lengths[i++];
  return i + shareAlong(segments[i], Math.min(left, lengths[i]));
}

const chords = 100;

function shareAlong(segment: Segment, mm: number): number {
  let { x, y } = pointAt(segment, 0);
  let sofar = 0;
  for (let k = 1; k <= chords; k++) {
    const next = pointAt(segment, k / chords);
    const chord = Math.hypot(next.x - x, next.y - y);
    if (sofar + chord >= mm) return Math.min((k - 1 + (chord > 0 ? (mm - sofar) / chord : 0)) / chords, 1 - 1e-9);
    sofar += chord;
    ({ x, y } = next);
  }
  return 1 - 1e-9;
}
