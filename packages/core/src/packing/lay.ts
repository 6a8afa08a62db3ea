import { boundsOf } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import type { Run } from '../document/run.ts';
import { ownSheet } from '../document/run-sheets.ts';
import { type Sheet, sheetBox, sheetFrame } from '../document/sheet.ts';
import { sheetOutline } from '../document/sheet-outline.ts';
import { parkItems, removeSheet, transformEach } from '../edits/items.ts';
import { setBurning } from '../edits/layers.ts';
import { copyItems } from '../edits/repeat.ts';
import { type Box, boxHeight, uniteBoxes } from '../geometry/paths/box.ts';
import { type Matrix, multiply, translation } from '../geometry/paths/matrix.ts';
import { appendPath, type Path, PathBuilder, transformPath } from '../geometry/paths/path.ts';
import { packedMatrix } from './check.ts';
import type { JobPack } from './of-job.ts';
import type { Packing } from './wish.ts';

/** How far further sheets, and pieces that found no place, lie from the bed and from each other, in mm. */
export const besideMm = 10;

/** Where pieces come to lie, sheet by sheet. */
export type LaidOut = Pick<Packing, 'sheets'>;

/** A sheet of a packing as it is drawn. */
interface DrawnSheet {
  readonly sheet: Sheet;
  /** Where it lies on the bed in a run of its own; null where it lies there as it is drawn. */
  readonly laidAt: Sheet | null;
}

/**
 * Where the sheets of a packing are drawn: those on the bed where they lie, further ones beside it. Where nothing lies on those
 * on the bed any more, the first further one takes their place.
 */
function drawnSheets({ targets }: Pick<JobPack, 'targets'>, packing: LaidOut, bed: Box): DrawnSheet[] {
  const onBed = targets.filter(({ isLaid, isBeside }) => isLaid && !isBeside);
  let isBedFree = onBed.every(
    (target) => target.isFreed && packing.sheets.every(({ sheet }) => targets[sheet] !== target),
  );
  const laid = targets.flatMap(({ sheet, isLaid }) => (isLaid ? [sheetBox(sheet).maxX] : []));
  let x = Math.max(bed.maxX, ...laid) + besideMm;
  return packing.sheets.map(({ sheet: nth }, i) => {
    const { sheet, isLaid } = targets[nth];
    if (isLaid) return { sheet, laidAt: null };
    if (isBedFree) {
      isBedFree = false;
      return { sheet: { ...sheet, id: `${i}` }, laidAt: null };
    }
    const drawn = { ...sheet, id: `${i}`, x, y: bed.minY };
    x += sheet.width + besideMm;
    return { sheet: drawn, laidAt: sheet };
  });
}

/** The outlines of all pieces as they come to lie, and of the sheets that are drawn beside the bed; as one path in mm. */
export function packedOutlines(pack: JobPack, packing: LaidOut, bed: Box): Path {
  const builder = new PathBuilder();
  const drawn = drawnSheets(pack, packing, bed);
  packing.sheets.forEach(({ sheet: nth, pieces }, i) => {
    const { sheet } = drawn[i];
    if (!pack.targets[nth].isLaid) appendPath(builder, transformPath(sheetOutline(sheet), sheetFrame(sheet)), true);
    for (const place of pieces) {
      const matrix = multiply(sheetFrame(sheet), packedMatrix(place));
      appendPath(builder, transformPath(pack.wish.pieces[place.piece].outline, matrix), true);
    }
  });
  return builder.build();
}

/** What a packing is laid with. */
export interface Laying {
  /** The machine's bed, in mm. */
  readonly bed: Box;
  /** Gives ids that are new to the job. */
  readonly newId: () => string;
  /** What a run of a further sheet is called, by its number among the sheets of the job; `isOnly` where it has no other. */
  readonly nameRun: (sheet: number, run: Run, isOnly: boolean) => string;
}

/**
 * A job in which pieces lie as they were packed: the first of each is the drawn one, the others are copies. Each further sheet
 * is burnt in runs of its own, as those on the bed are. A piece that found no place is laid beside the bed, where it does not
 * burn.
 */
export function layPacked(job: JobDocument, pack: JobPack, packing: Packing, laying: Laying): JobDocument {
  const { bed, newId } = laying;
  const onSheets = laySheets(job, pack, packing, laying);
  let laid = onSheets.job;
  const maps = new Map<number, Matrix[]>();
  packing.sheets.forEach(({ pieces: there }, i) => {
    for (const place of there) {
      const map = multiply(onSheets.frames[i], packedMatrix(place));
      maps.set(place.piece, [...(maps.get(place.piece) ?? []), map]);
    }
  });
  const copied = new Map<string, string[]>();
  const moved = new Map<string, Matrix>();
  const parked = new Set<string>();
  const beside = Math.max(bed.maxX, ...laid.sheets.map((sheet) => sheetBox(sheet).maxX)) + besideMm;
  let y = bed.minY;
  pack.pieces.forEach(({ items }, i) => {
    const [first, ...others] = maps.get(i) ?? [];
    const own = new Set(items.map(({ id }) => id));
    if (others.length > 0) {
      const sources = laid.drawing.items.flatMap(({ id }) => (own.has(id) ? [id] : []));
      const { job: withCopies, copies } = copyItems(laid, own, others, newId);
      laid = withCopies;
      sources.forEach((id, k) =>
        copied.set(
          id,
          copies.flatMap((ids) => ids[k]),
        ),
      );
    }
    const bounds = items.map(boundsOf).reduce(uniteBoxes);
    const map = first ?? translation(beside - bounds.minX, y - bounds.minY);
    if (!first) y += boxHeight(bounds) + besideMm;
    for (const id of own) {
      moved.set(id, map);
      if (!first) parked.add(id);
    }
  });
  const lying = cutOnce(withCopiesInRuns(transformEach(laid, moved), copied), pack.cutOnce);
  // What was parked before and has a place now burns there.
  const placed = new Set([...moved.keys()].filter((id) => !parked.has(id)).concat(...copied.values()));
  return parkItems(parkItems(lying, placed, false), parked, true);
}

/**
 * A job with the sheets of a packing, without those that it empties, and with the runs that burn the further ones.
 *
 * @returns with it, for each sheet of the packing, the map from it to where it is drawn
 */
export function laySheets(
  job: JobDocument,
  pack: JobPack,
  packing: LaidOut,
  { bed, newId, nameRun }: Laying,
): { job: JobDocument; frames: Matrix[] } {
  const drawn = drawnSheets(pack, packing, bed).map((entry, i) =>
    pack.targets[packing.sheets[i].sheet].isLaid ? entry : { ...entry, sheet: { ...entry.sheet, id: newId() } },
  );
  const packsOnto = new Set(pack.targets.flatMap(({ sheet, isLaid }) => (isLaid ? [sheet.id] : [])));
  const laid = withSheets(withoutEmptied(job, pack, packing), drawn, packsOnto, { newId, nameRun });
  return { job: laid, frames: drawn.map(({ sheet }) => sheetFrame(sheet)) };
}

function cutOnce(job: JobDocument, layerIds: readonly string[]): JobDocument {
  return layerIds.reduce((now, id) => setBurning(now, id, { sharedEdges: 'once' }), job);
}

/** Where only some items burn in a run, their copies do so too. */
function withCopiesInRuns(job: JobDocument, copied: ReadonlyMap<string, readonly string[]>): JobDocument {
  if (copied.size === 0 || job.runs.every(({ only }) => only === null)) return job;
  const runs = job.runs.map((run) =>
    run.only ? { ...run, only: run.only.flatMap((id) => [id, ...(copied.get(id) ?? [])]) } : run,
  );
  return { ...job, runs };
}

/**
 * With the sheets of a packing that the job does not have yet, and the runs that burn them.
 *
 * @param packsOnto the sheets of the job, by id, that pieces may be packed onto
 */
function withSheets(
  job: JobDocument,
  drawn: readonly DrawnSheet[],
  packsOnto: ReadonlySet<string>,
  { newId, nameRun }: Pick<Laying, 'newId' | 'nameRun'>,
): JobDocument {
  const fresh = drawn.filter(({ sheet: { id } }) => job.sheets.every((known) => known.id !== id));
  if (fresh.length === 0) return job;
  const [placed, beside] = [true, false].map((isOnBed) => fresh.filter(({ laidAt }) => (laidAt === null) === isOnBed));
  const isReplaced = (sheet: Sheet) => packsOnto.has(sheet.id) && !hasOwnRun(job, sheet);
  const stays = placed.length === 0 ? job.sheets : job.sheets.filter((sheet) => !isReplaced(sheet));
  const before = [...placed.map(({ sheet }) => sheet), ...stays];
  const onBed = job.runs.filter((run) => !ownSheet(job, run));
  const runs = beside.flatMap(({ sheet: { id: sheetId }, laidAt }, i) => {
    if (!laidAt) return [];
    const landing = { kind: 'sheet', sheetId, x: laidAt.x, y: laidAt.y } as const;
    const name = (run: Run) => nameRun(before.length + i + 1, run, onBed.length === 1);
    return onBed.map((run): Run => ({ ...run, id: newId(), name: name(run), landing }));
  });
  return { ...job, sheets: [...before, ...beside.map(({ sheet }) => sheet)], runs: [...job.runs, ...runs] };
}

/** Without the sheets that were laid for runs of their own, and on which nothing lies any more. */
function withoutEmptied(job: JobDocument, pack: JobPack, packing: LaidOut): JobDocument {
  const used = new Set(packing.sheets.map(({ sheet }) => pack.targets[sheet].sheet.id));
  const emptied = pack.targets.filter(
    ({ sheet, isLaid, isFreed }) => isLaid && isFreed && !used.has(sheet.id) && hasOwnRun(job, sheet),
  );
  return emptied.reduce((left, { sheet }) => removeSheet(left, sheet.id), job);
}

function hasOwnRun(job: JobDocument, sheet: Sheet): boolean {
  return job.runs.some((run) => ownSheet(job, run)?.id === sheet.id);
}
