import { boxAt, boxHeight, boxWidth } from '../geometry/paths/box.ts';
import { polylineLength } from '../geometry/paths/flatten.ts';
import { widestAcross } from '../geometry/questions/widest-across.ts';
import type { Mend } from '../mends/mend.ts';
import { tabsOnLine } from '../plan/held.ts';
import { cutLayers, type NestedLines, nestedLines, outlinePlaces } from '../plan/nested-lines.ts';
import type { PreparedLayer } from '../plan/prepare.ts';
import { type Check, countOf, finding, idsOf, ifAny, itemsOfLines, withMends } from './finding.ts';

/** More places than these are not named. */
const mostPlaces = 200;

/** How far the box of a line is across from corner to corner, in mm. */
function acrossOf(boxes: Float64Array, i: number): number {
  const box = boxAt(boxes, i);
  return Math.sqrt(boxWidth(box) ** 2 + boxHeight(box) ** 2);
}

/** Whether a part is less than so many mm across where it is widest. What its box says is enough for most. */
function isWithin({ lines, boxes }: NestedLines, i: number, mm: number): boolean {
  const box = boxAt(boxes, i);
  if (boxWidth(box) >= mm || boxHeight(box) >= mm) return false;
  return acrossOf(boxes, i) < mm || widestAcross(lines[i].line) < mm;
}

/** Pieces so small that they drop between what the stock lies on, or tip there into the way of the head. */
export const checkLoose: Check = (prepared) => {
  const gap = prepared.machine.bedGapMm;
  if (!gap) return [];
  const cuts = cutLayers(prepared);
  const nested = nestedLines(prepared, cuts);
  const drops: number[] = [];
  const tips: number[] = [];
  for (const i of outlinePlaces(nested)) {
    const list =
      nested.depths[i] % 2 === 1 ? null : isWithin(nested, i, gap) ? drops : isWithin(nested, i, 2 * gap) ? tips : null;
    const { settings } = cuts[nested.layerIndices[i]].applied;
    if (list && settings && tabsOnLine(prepared.job, settings, nested.lines[i]).length === 0) list.push(i);
  }
  const lies = `the ${gap} mm gaps of ${prepared.machine.name}’s bed`;
  const said = (code: 'drops' | 'tips', pieces: readonly number[], sentence: string) => {
    const items = itemsOfLines(pieces.map((i) => nested.items[i]));
    const places = pieces.slice(0, mostPlaces).map((i) => boxAt(nested.boxes, i));
    const mend = () => heldBy(nested, cuts, pieces, 2);
    return ifAny(items, () => withMends(finding(code, 'notes', sentence, items, null, places), mend()));
  };
  return [
    ...said(
      'drops',
      drops,
      `${countOf(drops.length, 'piece is', 'pieces are')} smaller than ${lies}, and would drop through.`,
    ),
    ...said(
      'tips',
      tips,
      `${countOf(tips.length, 'piece is', 'pieces are')} less than twice as large as ${lies}, and may tip up.`,
    ),
  ];
};

/** Holds pieces by tabs; null where all are too small for them. */
function heldBy(
  { lines, items, subpaths, boxes, layerIndices }: NestedLines,
  cuts: readonly PreparedLayer[],
  pieces: readonly number[],
  count: number,
): Mend | null {
  const outlines: { itemId: string; subpath: number }[] = [];
  const itemIds = idsOf(items);
  for (const i of pieces) {
    const { settings } = cuts[layerIndices[i]].applied;
    const least = settings ? 2 * count * (settings.tabWidthMm + settings.kerfMm) : 0;
    // What closes and touches all sides of its box is at least twice as long as the box is across: most are not measured.
    const isLong = 2 * acrossOf(boxes, i) >= least || polylineLength(lines[i].line) >= least;
    if (isLong) outlines.push({ itemId: itemIds[i], subpath: subpaths[i] });
  }
  if (outlines.length === 0) return null;
  const words = `Hold ${outlines.length === 1 ? 'it' : 'each'} by ${count} tabs`;
  return {
    words,
    name: words.toLowerCase(),
    isSafe: false,
    step: { kind: 'hold', outlines, count },
  };
}
