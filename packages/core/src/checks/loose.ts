import { boxHeight, boxWidth } from '../geometry/paths/box.ts';
import { polylineLength } from '../geometry/paths/flatten.ts';
import { polylineBounds } from '../geometry/questions/nesting.ts';
import { widthsOf } from '../geometry/questions/widths.ts';
import type { Mend } from '../mends/mend.ts';
import { type CutPart, cutParts } from '../plan/pieces.ts';
import type { PreparedJob } from '../plan/prepare.ts';
import { type Check, countOf, finding, ifAny, withMends } from './finding.ts';

/** More places than these are not named. */
const mostPlaces = 200;

/** A piece that nothing holds once it is cut, and how far it is across where it is widest, in mm. */
type LoosePiece = CutPart & { readonly across: number };

/** @param widest pieces that are wider are left out, before they are measured; in mm. */
function loosePieces(prepared: PreparedJob, widest: number): LoosePiece[] {
  return cutParts(prepared).flatMap((part) => {
    const bounds = polylineBounds(part.line);
    const [wide, high] = [boxWidth(bounds), boxHeight(bounds)];
    if (wide >= widest || high >= widest || part.depth % 2 === 1 || part.isHeld) return [];
    // What its box says is enough, where that is small.
    const diagonal = Math.hypot(wide, high);
    return [{ ...part, across: diagonal < widest / 2 ? diagonal : widthsOf(part.line).most }];
  });
}

/** Pieces so small that they drop between what the stock lies on, or tip there into the way of the head. */
export const checkLoose: Check = (prepared) => {
  const gap = prepared.machine.bedGapMm;
  if (!gap) return [];
  const small = loosePieces(prepared, 2 * gap).filter(({ across }) => across < 2 * gap);
  const [drops, tips] = [small.filter(({ across }) => across < gap), small.filter(({ across }) => across >= gap)];
  const lies = `the ${gap} mm gaps of ${prepared.machine.name}’s bed`;
  const said = (code: 'drops' | 'tips', pieces: readonly LoosePiece[], sentence: string) =>
    ifAny([...new Set(pieces.map(({ item }) => item))], () =>
      withMends(
        finding(
          code,
          'notes',
          sentence,
          [...new Set(pieces.map(({ item }) => item))],
          null,
          pieces.slice(0, mostPlaces).map(({ line }) => polylineBounds(line)),
        ),
        heldBy(pieces, 2),
      ),
    );
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
function heldBy(pieces: readonly LoosePiece[], count: number): Mend | null {
  const held = pieces.filter(({ line, layer: { applied } }) => {
    const { tabWidthMm, kerfMm } = applied.settings ?? { tabWidthMm: 0, kerfMm: 0 };
    return polylineLength(line) >= 2 * count * (tabWidthMm + kerfMm);
  });
  if (held.length === 0) return null;
  const words = `Hold ${held.length === 1 ? 'it' : 'each'} by ${count} tabs`;
  return {
    words,
    name: words.toLowerCase(),
    isSafe: false,
    step: { kind: 'hold', outlines: held.map(({ item: { id }, subpath }) => ({ itemId: id, subpath })), count },
  };
}
