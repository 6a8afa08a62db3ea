import { boundsOfAll, type Group, type Item } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import type { RowList } from '../document/row-list.ts';
import { firstRun, type Run } from '../document/run.ts';
import { ownSheet } from '../document/run-sheets.ts';
import { moveItems, parkItems, removeItems } from '../edits/items.ts';
import { setList } from '../edits/lists.ts';
import { boxCentre, boxHeight, boxWidth, transformBox } from '../geometry/paths/box.ts';
import { type Matrix, multiply } from '../geometry/paths/matrix.ts';
import { packedMatrix } from '../packing/check.ts';
import { besideMm, type LaidOut, type Laying, laySheets } from '../packing/lay.ts';
import type { JobPack } from '../packing/of-job.ts';
import { artSources, chosenArt, type FilesBroughtIn, filesBroughtIn } from './chosen-art.ts';
import { type FilledRow, pieceOf } from './fill.ts';
import { groupsOfList, itemsOfGroups } from './pieces.ts';

/** The rows of a list, filled, and where they go. */
export interface RowsToLay {
  readonly list: RowList;
  readonly filled: readonly FilledRow[];
  readonly pack: JobPack;
  /** As many places as there are rows; or fewer where the same ones are filled again, run by run. */
  readonly places: LaidOut;
  /** Whether a run burns a layer that the design is on. Those are repeated where places are filled again. */
  readonly burnsDesign: (run: Run) => boolean;
  /** What a run is called that fills the places again, by which filling it is, from 2 on. */
  readonly nameFilling: (filling: number, run: Run) => string;
}

/**
 * A job with a piece for each row of a list: a copy of the design with its words, in a group that knows its row. Pieces that
 * were laid for the list before go. The design stays beside the bed, where it does not burn.
 */
export function layRows(job: JobDocument, rows: RowsToLay, laying: Laying): JobDocument {
  const { list, pack, places, burnsDesign, nameFilling } = rows;
  const earlier = itemsOfGroups(job, groupsOfList(job, list.id));
  const { job: onSheets, frames } = laySheets(withoutItems(job, earlier), pack, places, laying);
  const design = pack.pieces[0].items;
  const hadRows = new Set(job.runs.flatMap(({ id, only }) => (only?.some((item) => earlier.has(item)) ? [id] : [])));
  const isFilling = (run: Run) =>
    burnsDesign(run) && (run.only === null || hadRows.has(run.id) || ownSheet(onSheets, run) !== null);
  const maps = places.sheets.flatMap(({ pieces }, i) =>
    inReadingOrder(
      pieces.map((place) => multiply(frames[i], packedMatrix(place))),
      design,
    ),
  );
  if (maps.length === 0) return job;
  const files = filesBroughtIn(job);
  const { groups, fillings } = piecesOf(rows, maps, files, laying);
  const { drawing } = onSheets;
  const others = drawing.items.map(({ id }) => id);
  const laid = {
    ...setList(onSheets, list),
    drawing: { items: [...drawing.items, ...fillings.flat()], groups: [...drawing.groups, ...groups] },
    runs: withFillings(onSheets, others, fillings.map(idsOf), isFilling, (filling, run) => ({
      ...run,
      id: laying.newId(),
      name: nameFilling(filling, run),
    })),
  };
  const sources = artSources(design, list, files);
  return besideBed(besideBed(laid, design, laying), sources, laying);
}

/** A group for each row, and its items by which filling of the places they belong to. */
function piecesOf(
  { list: { id: listId, columns, rows }, filled, pack }: RowsToLay,
  maps: readonly Matrix[],
  files: FilesBroughtIn,
  { newId }: Laying,
): { groups: Group[]; fillings: Item[][] } {
  const rowsById = new Map(rows.map((row) => [row.id, row]));
  const groups: Group[] = [];
  const fillings: Item[][] = [];
  filled.forEach((filledRow, i) => {
    const row = rowsById.get(filledRow.rowId);
    if (!row) return;
    const groupId = newId();
    groups.push({ id: groupId, name: filledRow.name, parentId: null, row: { listId, rowId: row.id } });
    const artOf = (place: Item) => chosenArt(place, { columns, row, files });
    const map = maps[i % maps.length];
    const nth = Math.floor(i / maps.length);
    fillings[nth] ??= [];
    for (const item of pieceOf(pack.pieces[0].items, filledRow, artOf)) {
      fillings[nth].push({ ...asCopy(item), id: newId(), groupId, matrix: multiply(map, item.matrix) });
    }
  });
  return { groups, fillings };
}

const idsOf = (items: readonly Item[]) => items.map(({ id }) => id);

function asCopy({ link: _, locked: __, parked: ___, ...plain }: Item): Item {
  return plain;
}

/** By rows from the top, and from the left in each; rows are half a piece apart at least. */
function inReadingOrder(maps: readonly Matrix[], design: readonly Item[]): Matrix[] {
  const bounds = boundsOfAll(design);
  const placed = maps.map((map) => ({ map, box: transformBox(bounds, map) }));
  placed.sort((a, b) => a.box.minY - b.box.minY);
  const lines: (typeof placed)[] = [];
  for (const entry of placed) {
    const line = lines.at(-1);
    const isSame = line && entry.box.minY < line[0].box.minY + boxHeight(line[0].box) / 2;
    if (isSame) line.push(entry);
    else lines.push([entry]);
  }
  return lines.flatMap((line) => line.sort((a, b) => boxCentre(a.box).x - boxCentre(b.box).x).map(({ map }) => map));
}

/**
 * The runs of a job in which the same places are filled again and again. What else burns, burns in the first filling.
 *
 * @param isFilling whether a run is one that burns rows
 */
function withFillings(
  job: JobDocument,
  others: readonly string[],
  fillings: readonly (readonly string[])[],
  isFilling: (run: Run) => boolean,
  repeated: (filling: number, run: Run) => Run,
): readonly Run[] {
  const [first = [], ...more] = fillings;
  return job.runs.flatMap((run) => {
    if (!isFilling(run)) return [run];
    const isOnBed = ownSheet(job, run) === null;
    const isAll = run.only === null && (more.length === 0 || !isOnBed);
    const only = isAll ? null : [...(run.only ?? others), ...first];
    const again = isOnBed ? more.map((ids, i): Run => ({ ...repeated(i + 2, run), only: ids })) : [];
    return [{ ...run, only }, ...again];
  });
}

/** Without some items, and without the runs that burnt nothing else. */
function withoutItems(job: JobDocument, ids: ReadonlySet<string>): JobDocument {
  if (ids.size === 0) return job;
  const left = removeItems(job, ids);
  const all = new Set(left.drawing.items.map(({ id }) => id));
  const runs = job.runs.flatMap((run): Run[] => {
    if (!run.only?.some((id) => ids.has(id))) return [run];
    const only = run.only.filter((id) => !ids.has(id));
    if (only.length === 0) return [];
    return [{ ...run, only: only.length === all.size ? null : only }];
  });
  return { ...left, runs: runs.length > 0 ? runs : [{ ...firstRun, ...job.runs[0], only: null }] };
}

/** Moves items beside the bed, to its left, where they are kept and do not burn; those that lie beside it stay there. */
function besideBed(job: JobDocument, items: readonly Item[], { bed }: Laying): JobDocument {
  if (items.length === 0) return job;
  const ids = new Set(idsOf(items));
  const bounds = boundsOfAll(items);
  const isBeside = bounds.maxX < bed.minX || bounds.minX > bed.maxX || bounds.maxY < bed.minY || bounds.minY > bed.maxY;
  const [dx, dy] = isBeside ? [0, 0] : [bed.minX - besideMm - boxWidth(bounds) - bounds.minX, bed.minY - bounds.minY];
  return parkItems(moveItems(job, ids, dx, dy), ids, true);
}
