import { boxHeight, boxWidth, growBox } from '../geometry/paths/box.ts';
import { pathBounds } from '../geometry/paths/path.ts';
import { PackingCheck } from '../packing/check.ts';
import type { LaidOut } from '../packing/lay.ts';
import type { JobPack } from '../packing/of-job.ts';
import type { PackedPiece, PackWish } from '../packing/wish.ts';

/**
 * Copies of one design in rows from the top left of each sheet, as many as are wanted, sheet by sheet; as many as fit are those
 * on sheets that are counted. Places that are off the
 * sheet, in its margin, or in the way of what stays are left free.
 *
 * @returns fewer than are wanted where the sheets are full
 */
export function gridOf({ wish }: Pick<JobPack, 'wish'>): LaidOut {
  const sheets: { sheet: number; pieces: PackedPiece[] }[] = [];
  let left = wish.pieces[0].count ?? Number.POSITIVE_INFINITY;
  for (const [sheet, { count }] of wish.sheets.entries()) {
    const places = left > 0 ? placesOn(wish, sheet) : [];
    if (places.length === 0) continue;
    for (let n = 0; left > 0 && n < (count ?? (left < Number.POSITIVE_INFINITY ? left : 0)); n++) {
      const pieces = places.slice(0, left);
      sheets.push({ sheet, pieces });
      left -= pieces.length;
    }
  }
  return { sheets };
}

function placesOn(wish: PackWish, sheet: number): PackedPiece[] {
  const { outline, obstacles } = wish.sheets[sheet];
  const piece = pathBounds(wish.pieces[0].outline);
  const room = growBox(pathBounds(outline), -wish.marginMm);
  const [stepX, stepY] = [boxWidth(piece) + wish.gapMm, boxHeight(piece) + wish.gapMm];
  const count = (space: number, step: number) => Math.floor((space + wish.gapMm) / step + 1e-9);
  const [columns, rows] = [count(boxWidth(room), stepX), count(boxHeight(room), stepY)];
  const places: PackedPiece[] = [];
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const [x, y] = [room.minX - piece.minX + column * stepX, room.minY - piece.minY + row * stepY];
      places.push({ piece: 0, x, y, angle: 0, isMirrored: false });
    }
  }
  // A whole rectangle with nothing on it holds them as they are.
  if (obstacles.length === 0 && outline.verbs.length <= 5) return places;
  const bad = new Set(
    new PackingCheck(wish).faults({ sheets: [{ sheet, pieces: places }] }).flatMap(({ pieces }) => pieces),
  );
  return places.filter((_, i) => !bad.has(i));
}
