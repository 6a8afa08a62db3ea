import { boundsOf, boundsOfAll, type Item } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import type { RowList } from '../document/row-list.ts';
import { firstRun, type Run } from '../document/run.ts';
import { ownSheet } from '../document/run-sheets.ts';
import { moveItems, parkItems, removeItems } from '../edits/items.ts';
import { boxCentre, boxHeight, boxWidth, transformBox } from '../geometry/paths/box.ts';
import { type Matrix, multiply } from '../geometry/paths/matrix.ts';
import { packedMatrix } from '../packing/check.ts';
import { besideMm, type LaidOut, type Laying, laySheets } from '../packing/lay.ts';
import type { JobPack } from '../packing/of-job.ts';
import type { FilledRow } from './fill.ts';
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
  const { list, filled, pack, places, burnsDesign, nameFilling } = rows;
  const earlier = itemsOfGroups(job, groupsOfList(job, list.id));
  const { job: onSheets, frames } = laySheets(withoutItems(job, earlier), pack, places, laying);
  const design = pack.pieces[0].items;
  const hadRows = new Set(job.runs.flatMap(({ id, only }) => (only?.some((item) => earlier.has(item)) ? [id] : [])));
  const isFilling = (run: Run) =>
    burnsDesign(run) && (run.only === null || hadRows.has(run.id) || ownSheet(job, run) !== null);
  const maps = places.sheets.flatMap(({ pieces }, i) =>
    inReadingOrder(
      pieces.map((place) => multiply(frames[i], packedMatrix(place))),
      design,
    ),
  );
  if (maps.length === 0) return job;
  const groups: JobDocument['drawing']['groups'][number][] = [];
  const items: Item[] = [];
  const fillings: string[][] = [];
  filled.forEach((row, i) => {
    const group = { id: laying.newId(), name: row.name, parentId: null, row: { listId: list.id, rowId: row.rowId } };
    groups.push(group);
    const filling = Math.floor(i / maps.length);
    fillings[filling] ??= [];
    for (const item of design) {
      const shape = row.shapes.get(item.id);
      if (shape === null) continue;
      const { link: _, locked: __, parked: ___, ...plain } = item;
      const matrix = multiply(maps[i % maps.length], item.matrix);
      const piece = { ...plain, shape: shape ?? item.shape, id: laying.newId(), groupId: group.id, matrix };
      items.push(piece);
      fillings[filling].push(piece.id);
    }
  });
  const { drawing } = onSheets;
  const others = drawing.items.map(({ id }) => id);
  const laid = {
    ...onSheets,
    lists: onSheets.lists.some(({ id }) => id === list.id)
      ? onSheets.lists.map((known) => (known.id === list.id ? list : known))
      : [...onSheets.lists, list],
    drawing: { items: [...drawing.items, ...items], groups: [...drawing.groups, ...groups] },
    runs: withFillings(onSheets, others, fillings, isFilling, (filling, run) => ({
      ...run,
      id: laying.newId(),
      name: nameFilling(filling, run),
    })),
  };
  return besideBed(laid, design, laying);
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

/** Moves the design beside the bed, to its left, where it is kept and does not burn. */
function besideBed(job: JobDocument, design: readonly Item[], { bed }: Laying): JobDocument {
  const ids = new Set(design.map(({ id }) => id));
  const bounds = design.map(boundsOf).length > 0 ? boundsOfAll(design) : bed;
  const isBeside = bounds.maxX < bed.minX || bounds.minX > bed.maxX || bounds.maxY < bed.minY || bounds.minY > bed.maxY;
  const [dx, dy] = isBeside ? [0, 0] : [bed.minX - besideMm - boxWidth(bounds) - bounds.minX, bed.minY - bounds.minY];
  return parkItems(moveItems(job, ids, dx, dy), ids, true);
}
