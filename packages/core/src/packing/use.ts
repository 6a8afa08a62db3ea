import { areaOf, sizeOfArea } from '../geometry/areas/area.ts';
import type { Path } from '../geometry/paths/path.ts';
import type { Packing, PackWish } from './wish.ts';

/** How much of each sheet of a packing is used, from 0 to 1: what its pieces cover of it, margins counted. */
export function sheetUses({ pieces, sheets }: PackWish, packing: Packing): number[] {
  const sizes = pieces.map(({ outline }) => sizeOf(outline));
  return packing.sheets.map(
    ({ sheet, pieces: there }) =>
      there.reduce((sum, { piece }) => sum + sizes[piece], 0) / sizeOf(sheets[sheet].outline),
  );
}

/** How many sheets it takes at least, by the areas alone, where all are as the first. */
export function leastSheets({ pieces, sheets }: PackWish): number {
  const wanted = pieces.reduce((sum, { outline, count }) => sum + sizeOf(outline) * (count ?? 0), 0);
  return Math.ceil(wanted / sizeOf(sheets[0].outline) - 1e-9);
}

/**
 * Whether one packing of a wish is better than another, as far as both can be told apart without a search: by what is left
 * over, by how many sheets it takes, and by how full the first of them are.
 */
export function isBetterPacking(wish: PackWish, mine: Packing, other: Packing): boolean {
  const leftOver = ({ left }: Packing) =>
    left.reduce((sum, count, i) => sum + (count > 0 ? count * sizeOf(wish.pieces[i].outline) : 0), 0);
  const [mineLeft, otherLeft] = [leftOver(mine), leftOver(other)];
  if (Math.abs(mineLeft - otherLeft) > 1e-3) return mineLeft < otherLeft;
  if (mine.sheets.length !== other.sheets.length) return mine.sheets.length < other.sheets.length;
  const [uses, otherUses] = [sheetUses(wish, mine), sheetUses(wish, other)];
  const differs = uses.findIndex((use, i) => Math.abs(use - otherUses[i]) > 1e-9);
  return differs >= 0 && uses[differs] > otherUses[differs];
}

function sizeOf(outline: Path): number {
  return sizeOfArea(areaOf(outline, 'evenodd'));
}
