import { boundsOf, type Item } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { outlineOf, rectangleOf } from '../document/shapes.ts';
import { type Sheet, sheetFrame } from '../document/sheet.ts';
import { parkItems, transformEach } from '../edits/items.ts';
import { copyItems } from '../edits/repeat.ts';
import { type Box, boxHeight, boxOf, uniteBoxes } from '../geometry/paths/box.ts';
import { invert, type Matrix, multiply, translation } from '../geometry/paths/matrix.ts';
import { type Path, transformPath } from '../geometry/paths/path.ts';
import { isBurnt, separates } from '../operations/operations.ts';
import type { PreparedJob } from '../plan/prepare.ts';
import { packedMatrix } from './check.ts';
import { type DrawnPiece, drawnPieces } from './pieces.ts';
import type { Packing, PackWish } from './wish.ts';

/** What of a job is to be packed, and how. */
export interface JobPackChoices extends Pick<PackWish, 'gapMm' | 'marginMm' | 'turning' | 'mirror' | 'fillsHoles'> {
  /** The items that may be moved; locked ones stay. */
  readonly ids: ReadonlySet<string>;
  readonly keepsGroups: boolean;
  /** How many of each piece; null for as many as fit. */
  readonly count: number | null;
}

/** What is to be packed of a job: a wish whose pieces are drawn ones, and whose sheets lie on the bed. */
export interface JobPack {
  readonly wish: PackWish;
  readonly pieces: readonly DrawnPiece[];
  readonly sheets: readonly Sheet[];
  /** What was to be packed, and lies in no outline that is cut: it stays. */
  readonly loose: readonly Item[];
}

/** How far pieces that found no place lie from the bed and from each other, in mm. */
const besideMm = 10;

/**
 * What is packed of a job: pieces are what its cuts part, each with all that burns in it. What is not to be moved and lies
 * on a sheet stays in the way.
 */
export function packOfJob({ job, meaning }: Pick<PreparedJob, 'job' | 'meaning'>, choices: JobPackChoices): JobPack {
  const { ids, keepsGroups, count, ...how } = choices;
  const edges = new Set<Item>();
  const burnt: Item[] = [];
  for (const { id, operation } of meaning.layers) {
    if (!isBurnt(operation)) continue;
    for (const { item } of meaning.placed.get(id) ?? []) {
      burnt.push(item);
      if (separates(operation)) edges.add(item);
    }
  }
  const all = [...new Set(burnt)];
  const isMoved = ({ id, locked }: Item) => ids.has(id) && !locked;
  const { pieces, loose } = drawnPieces(all.filter(isMoved), edges, ({ groupId }) => (keepsGroups ? groupId : null));
  const rest = drawnPieces(all.filter((item) => !isMoved(item)));
  const inTheWay = [
    ...rest.pieces.map(({ outline }) => outline),
    ...[...rest.loose, ...loose].map((item) => rectangle(boundsOf(item))),
  ];
  const sheets = job.sheets.map((sheet) => {
    const back = invert(sheetFrame(sheet));
    return {
      id: sheet.id,
      outline: rectangle(boxOf(0, 0, sheet.width, sheet.height)),
      obstacles: back ? inTheWay.map((outline) => transformPath(outline, back)) : [],
      count: 1,
    };
  });
  const wanted = pieces.map(({ outline }, i) => ({ id: `${i}`, outline, count }));
  return { wish: { pieces: wanted, sheets, ...how }, pieces, sheets: job.sheets, loose };
}

/**
 * A job in which pieces lie as they were packed: the first of each is the drawn one, the others are copies. One that found no
 * place is laid beside the bed, where it does not burn.
 *
 * @param bed the machine's bed, in mm
 * @param newId gives ids that are new to the job
 */
export function layPacked(
  job: JobDocument,
  { pieces, sheets }: Pick<JobPack, 'pieces' | 'sheets'>,
  packing: Packing,
  bed: Box,
  newId: () => string,
): JobDocument {
  const maps = new Map<number, Matrix[]>();
  for (const { sheet, pieces: there } of packing.sheets) {
    for (const place of there) {
      const map = multiply(sheetFrame(sheets[sheet]), packedMatrix(place));
      maps.set(place.piece, [...(maps.get(place.piece) ?? []), map]);
    }
  }
  let laid = job;
  const moved = new Map<string, Matrix>();
  const parked = new Set<string>();
  let y = bed.minY;
  pieces.forEach(({ items }, i) => {
    const [first, ...others] = maps.get(i) ?? [];
    const own = new Set(items.map(({ id }) => id));
    if (others.length > 0) laid = copyItems(laid, own, others, newId).job;
    const bounds = items.map(boundsOf).reduce(uniteBoxes);
    const map = first ?? translation(bed.maxX + besideMm - bounds.minX, y - bounds.minY);
    if (!first) y += boxHeight(bounds) + besideMm;
    for (const id of own) {
      moved.set(id, map);
      if (!first) parked.add(id);
    }
  });
  const lying = transformEach(laid, moved);
  return parked.size > 0 ? parkItems(lying, parked, true) : lying;
}

function rectangle(bounds: Box): Path {
  return outlineOf(rectangleOf(bounds));
}
