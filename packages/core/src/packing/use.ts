import { areaOf, sizeOfArea } from '../geometry/areas/area.ts';
import type { Path } from '../geometry/paths/path.ts';
import type { Packing, PackWish } from './wish.ts';

/** How much of each sheet of a packing is used, from 0 to 1: what its pieces cover of it, margins counted. */
export function sheetUses({ pieces, sheets }: PackWish, packing: Pick<Packing, 'sheets'>): number[] {
  const sizes = pieces.map(({ outline }) => pieceArea(outline));
  return packing.sheets.map(
    ({ sheet, pieces: there }) =>
      there.reduce((sum, { piece }) => sum + sizes[piece], 0) / pieceArea(sheets[sheet].outline),
  );
}

/** How many sheets it takes at least, by the areas alone, where all are as the first. */
export function leastSheets({ pieces, sheets }: PackWish): number {
  const wanted = pieces.reduce((sum, { outline, count }) => sum + pieceArea(outline) * (count ?? 0), 0);
  return Math.ceil(wanted / pieceArea(sheets[0].outline) - 1e-9);
}

/** What an outline with its holes covers, in mm². */
export function pieceArea(outline: Path): number {
  return sizeOfArea(areaOf(outline, 'evenodd'));
}
