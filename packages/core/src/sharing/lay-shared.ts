import { boundsOfAll, type Item } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { outlineOf, rectangleOf } from '../document/shapes.ts';
import { transformEach } from '../edits/items.ts';
import { type Matrix, multiply } from '../geometry/paths/matrix.ts';
import { type Path, transformPath } from '../geometry/paths/path.ts';
import { gather } from '../lists/gather.ts';
import { packedMatrix } from '../packing/check.ts';
import type { FurtherSheet } from '../packing/further.ts';
import { type Laying, laySheets } from '../packing/lay.ts';
import { burntOf, type JobPack, packOfJob } from '../packing/of-job.ts';
import { type DrawnPiece, drawnPieces } from '../packing/pieces.ts';
import { pieceArea } from '../packing/use.ts';
import type { Packing, PackWish } from '../packing/wish.ts';
import type { PreparedJob } from '../plan/prepare.ts';
import { idInPart } from './part-ids.ts';

/** What several jobs come to on sheets that they share. */
export interface SharedPack {
  readonly pack: JobPack;
  /** Of which job each piece is, counted from 0. */
  readonly owners: readonly number[];
  /** What all copies of each job cover, in mm². */
  readonly areasMm2: readonly number[];
}

/**
 * What is packed of jobs that were merged: what the cuts of each part, as often as it has copies. A job that burns anything beside
 * its cut pieces stays together as it was drawn, within the rectangle around it: what lies beside what is part of the work.
 *
 * @param copies of each job
 * @param sheets that they may go onto, in their order
 */
export function packShared(
  prepared: PreparedJob,
  copies: readonly number[],
  sheets: readonly FurtherSheet[],
  how: Pick<PackWish, 'gapMm' | 'marginMm' | 'turning'>,
): SharedPack {
  const asAsked = { ...how, mirror: false, fillsHoles: true };
  const further = { before: sheets, after: [] };
  const none = { ids: new Set<string>(), keepsGroups: false, count: 1, isOneCut: false, further };
  const onto = packOfJob(prepared, { ...none, ...asAsked });
  const { edges } = burntOf(prepared);
  const pieces = copies.map((_, part) => piecesOf(prepared.job, edges, part));
  const owners = pieces.flatMap((own, part) => own.map(() => part));
  const all = pieces.flat();
  const wanted = all.map(({ outline }, i) => ({ id: `${i}`, outline, count: copies[owners[i]] }));
  return {
    pack: { ...onto, wish: { ...onto.wish, pieces: wanted }, pieces: all },
    owners,
    areasMm2: pieces.map((own, part) => copies[part] * own.reduce((sum, { outline }) => sum + pieceArea(outline), 0)),
  };
}

/** The pieces of the first copy of a job that was merged. @param edges what parts the stock */
function piecesOf(job: JobDocument, edges: ReadonlySet<Item>, part: number): readonly DrawnPiece[] {
  const items = job.drawing.items.filter(({ id }) => id.startsWith(idInPart(part, 0, '')));
  const flipped = new Map(
    job.flips.flatMap(({ id, itemIds, borderId }) => [...itemIds, borderId].map((item) => [item, id])),
  );
  const { pieces, loose } = drawnPieces(items, edges, ({ id }) => flipped.get(id) ?? null);
  if (loose.length === 0) return pieces;
  return [{ items, outline: outlineOf(rectangleOf(boundsOfAll(items))) }];
}

/**
 * A merged job with its sheets, on which all copies of its pieces lie as they were packed.
 *
 * @throws RangeError where one of them found no place
 */
export function layShared(
  job: JobDocument,
  { pack, owners }: SharedPack,
  packing: Packing,
  laying: Laying,
): JobDocument {
  if (packing.left.some((count) => count > 0)) throw new RangeError('layShared: not all pieces found a place');
  const { job: laid, frames } = laySheets(job, pack, packing, laying);
  const places = new Map<number, Matrix[]>();
  packing.sheets.forEach(({ pieces }, i) => {
    for (const place of pieces) gather(places, place.piece, multiply(frames[i], packedMatrix(place)));
  });
  const maps = new Map<string, Matrix>();
  pack.pieces.forEach(({ items }, i) => {
    const prefix = idInPart(owners[i], 0, '');
    places.get(i)?.forEach((map, copy) => {
      for (const { id } of items) maps.set(idInPart(owners[i], copy, id.slice(prefix.length)), map);
    });
  });
  return transformEach(laid, maps);
}

/** The outlines of pieces where they lie on their sheets, for each sheet in mm of its own frame, with whose each is. */
export function sharedOutlines({ pack, owners }: SharedPack, packing: Pick<Packing, 'sheets'>): SharedSheet[] {
  return packing.sheets.map(({ sheet, pieces }) => ({
    outline: pack.wish.sheets[sheet].outline,
    pieces: pieces.map((place) => ({
      part: owners[place.piece],
      outline: transformPath(pack.wish.pieces[place.piece].outline, packedMatrix(place)),
    })),
  }));
}

/** A shared sheet as it is shown. */
export interface SharedSheet {
  readonly outline: Path;
  readonly pieces: readonly { readonly part: number; readonly outline: Path }[];
}
