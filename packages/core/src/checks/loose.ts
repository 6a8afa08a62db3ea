import { boxHeight, boxWidth } from '../geometry/paths/box.ts';
import { polylineLength } from '../geometry/paths/flatten.ts';
import { widestAcross } from '../geometry/questions/widest-across.ts';
import type { Mend } from '../mends/mend.ts';
import { type CutPart, cutParts } from '../plan/pieces.ts';
import { type Check, countOf, finding, ifAny, itemsOfLines, withMends } from './finding.ts';

/** More places than these are not named. */
const mostPlaces = 200;

/** Whether a part is less than so many mm across where it is widest. What its box says is enough for most. */
function isWithin({ line, bounds }: CutPart, mm: number): boolean {
  const [wide, high] = [boxWidth(bounds), boxHeight(bounds)];
  if (wide >= mm || high >= mm) return false;
  return wide * wide + high * high < mm * mm || widestAcross(line) < mm;
}

/** Pieces so small that they drop between what the stock lies on, or tip there into the way of the head. */
export const checkLoose: Check = (prepared) => {
  const gap = prepared.machine.bedGapMm;
  if (!gap) return [];
  const drops: CutPart[] = [];
  const tips: CutPart[] = [];
  for (const part of cutParts(prepared)) {
    if (part.depth % 2 === 1 || part.isHeld) continue;
    if (isWithin(part, gap)) drops.push(part);
    else if (isWithin(part, 2 * gap)) tips.push(part);
  }
  const lies = `the ${gap} mm gaps of ${prepared.machine.name}’s bed`;
  const said = (code: 'drops' | 'tips', pieces: readonly CutPart[], sentence: string) => {
    const items = itemsOfLines(pieces);
    const places = pieces.slice(0, mostPlaces).map(({ bounds }) => bounds);
    return ifAny(items, () => withMends(finding(code, 'notes', sentence, items, null, places), heldBy(pieces, 2)));
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
function heldBy(pieces: readonly CutPart[], count: number): Mend | null {
  const outlines: { itemId: string; subpath: number }[] = [];
  for (const { item, subpath, line, bounds, layer } of pieces) {
    const { settings } = layer.applied;
    const least = settings ? 2 * count * (settings.tabWidthMm + settings.kerfMm) : 0;
    // What closes goes there and back: where its box says enough, nothing is measured.
    const isLong = 2 * Math.max(boxWidth(bounds), boxHeight(bounds)) >= least || polylineLength(line) >= least;
    if (isLong) outlines.push({ itemId: item.id, subpath });
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
