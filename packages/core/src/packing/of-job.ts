import { boundsOf, boundsOfAll, type Item } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { ownSheet } from '../document/run-sheets.ts';
import { outlineOf, rectangleOf } from '../document/shapes.ts';
import { type Sheet, sheetFrame, sheetUnder } from '../document/sheet.ts';
import { sheetOutline } from '../document/sheet-outline.ts';
import { pathOfRings } from '../geometry/areas/rings.ts';
import type { Box } from '../geometry/paths/box.ts';
import { invert } from '../geometry/paths/matrix.ts';
import { type Path, transformPath } from '../geometry/paths/path.ts';
import { isBurnt, separates } from '../operations/operations.ts';
import type { PreparedJob } from '../plan/prepare.ts';
import { thicknessOf } from '../recipes/book/material.ts';
import type { FurtherSheet } from './further.ts';
import { type DrawnPiece, type DrawnPieces, drawnPieces } from './pieces.ts';
import type { PackSheet, PackWish } from './wish.ts';

/** What of a job is to be packed, and how. */
export interface JobPackChoices extends Pick<PackWish, 'gapMm' | 'marginMm' | 'turning' | 'mirror' | 'fillsHoles'> {
  /** Whether edges of pieces are laid onto each other, a kerf apart, and cut once. The gap is the kerf then. */
  readonly isOneCut: boolean;
  /** The items that may be moved; locked ones stay. */
  readonly ids: ReadonlySet<string>;
  readonly keepsGroups: boolean;
  /** How many of each piece; null for as many as fit. */
  readonly count: number | null;
  /** Sheets besides the job's own, that are used before them and after them. */
  readonly further: { readonly before: readonly FurtherSheet[]; readonly after: readonly FurtherSheet[] };
}

/** A sheet that pieces can be packed onto. */
export interface PackTarget {
  /** As it is drawn; for one that the job does not have yet, as it would lie on the bed. */
  readonly sheet: Sheet;
  /** Whether the job has it already. */
  readonly isLaid: boolean;
  /** Whether it is laid for a run of its own, and drawn beside the bed. */
  readonly isBeside: boolean;
  /** Whether nothing lies on it but what is packed. */
  readonly isFreed: boolean;
}

/** What is to be packed of a job: a wish whose pieces are drawn ones. */
export interface JobPack {
  readonly wish: PackWish;
  readonly pieces: readonly DrawnPiece[];
  /** What the sheets of the wish are. */
  readonly targets: readonly PackTarget[];
  /** What was to be packed, and lies in no outline that is cut: it stays. */
  readonly loose: readonly Item[];
  /** The layers, by id, whose shared edges are to be cut once. */
  readonly cutOnce: readonly string[];
}

/**
 * What is packed of a job: pieces are what its cuts part, each with all that burns in it. They go onto sheets of the stock that
 * the first of them lies on. What is not to be moved and lies on a sheet stays in the way.
 */
export function packOfJob(prepared: PreparedJob, choices: JobPackChoices): JobPack {
  const { job, meaning } = prepared;
  const { ids, keepsGroups, count, further, isOneCut, ...how } = choices;
  const { all, edges } = burntOf(prepared);
  const materialId = packedMaterial(job, ids);
  const isOnOther = isOnOtherStock(job, materialId);
  const isMoved = (item: Item) => ids.has(item.id) && !item.locked && !isOnOther(item);
  const { pieces, loose } = drawnPieces(all.filter(isMoved), edges, ({ groupId }) => (keepsGroups ? groupId : null));
  const rest = drawnPieces(all.filter((item) => !isMoved(item)));
  const staying = { pieces: rest.pieces, loose: [...rest.loose, ...loose] };
  const { targets, sheets } = ontoSheets(job, materialId, staying, further);
  const wanted = pieces.map(({ outline }, i) => ({ id: `${i}`, outline, count }));
  const gapMm = isOneCut ? kerfOfCuts(prepared) : how.gapMm;
  const cuts = new Set(pieces.flatMap(({ items }) => items.filter((item) => edges.has(item))));
  const isCut = (layerId: string) => meaning.placed.get(layerId)?.some(({ item }) => cuts.has(item)) ?? false;
  return {
    wish: { pieces: wanted, sheets, ...how, gapMm, sharesEdges: isOneCut },
    pieces,
    targets,
    loose,
    cutOnce: isOneCut
      ? meaning.layers.filter(({ id, operation }) => separates(operation) && isCut(id)).map(({ id }) => id)
      : [],
  };
}

/** Whether an item lies on a sheet of another material. */
function isOnOtherStock({ sheets }: Pick<JobDocument, 'sheets'>, materialId: string | null): (item: Item) => boolean {
  if (sheets.every((sheet) => sheet.materialId === materialId)) return () => false;
  return (item) => {
    const sheet = sheetUnder(sheets, item);
    return sheet !== null && sheet.materialId !== materialId;
  };
}

/** Everything that burns in one run or another, and of it what parts the stock. */
export function burntOf({ meaning }: Pick<PreparedJob, 'meaning'>): { all: readonly Item[]; edges: ReadonlySet<Item> } {
  const edges = new Set<Item>();
  const burnt = new Set<Item>();
  for (const { id, operation } of meaning.layers) {
    if (!isBurnt(operation)) continue;
    for (const { item } of meaning.placed.get(id) ?? []) {
      burnt.add(item);
      if (separates(operation)) edges.add(item);
    }
  }
  return { all: [...burnt], edges };
}

/** The sheets of a material that pieces go onto, in the order they are used, with what stays there. */
function ontoSheets(
  job: JobDocument,
  materialId: string | null,
  { pieces, loose }: DrawnPieces,
  further: JobPackChoices['further'],
): { targets: PackTarget[]; sheets: PackSheet[] } {
  const inTheWay = [...pieces.map(({ outline }) => outline), ...loose.map((item) => rectangle(boundsOf(item)))];
  const staying = [...pieces.flatMap(({ items }) => items), ...loose];
  const taken = new Set(staying.map((item) => sheetUnder(job.sheets, item)));
  const laidAlone = new Set(job.runs.map((run) => ownSheet(job, run)));
  const own = job.sheets
    .filter((sheet) => sheet.materialId === materialId)
    .map((sheet): Onto => {
      const back = invert(sheetFrame(sheet));
      const stays = back ? inTheWay.map((outline) => transformPath(outline, back)) : [];
      const target = { sheet, isLaid: true, isBeside: laidAlone.has(sheet), isFreed: !taken.has(sheet) };
      return { target, count: 1, obstacles: [...blockedPlaces(sheet), ...stays] };
    });
  const fresh = ({ sheet, count }: FurtherSheet): Onto => ({
    target: { sheet, isLaid: false, isBeside: false, isFreed: true },
    count,
    obstacles: blockedPlaces(sheet),
  });
  const onto = [...further.before.map(fresh), ...own, ...further.after.map(fresh)];
  return {
    targets: onto.map(({ target }) => target),
    sheets: onto.map(({ target: { sheet }, count, obstacles }, i) => ({
      id: `${i}`,
      outline: sheetOutline(sheet),
      obstacles,
      count,
    })),
  };
}

/** What copies of a design are laid onto, and how. */
export interface DesignPackChoices extends Pick<PackWish, 'gapMm' | 'marginMm' | 'turning'> {
  /** The items of the design, which goes where its copies do not. */
  readonly design: ReadonlySet<string>;
  /** What of earlier copies is taken away: it is not in the way. */
  readonly earlier: ReadonlySet<string>;
  /** What the copies burn on. */
  readonly materialId: string;
  /** How many; null for as many as fit on the sheets. */
  readonly count: number | null;
  readonly further: JobPackChoices['further'];
}

/**
 * A design of which so many copies are to be laid: one piece, whether it is cut out or not. What lies on other stock is not in
 * the way: a holder of board around blanks that are laid into it.
 */
export function packOfDesign(prepared: PreparedJob, choices: DesignPackChoices): JobPack {
  const { job } = prepared;
  const { design, earlier, materialId, count, further, ...how } = choices;
  const { all, edges } = burntOf(prepared);
  const items = job.drawing.items.filter(({ id, hidden }) => design.has(id) && !hidden);
  const drawn = drawnPieces(items, edges, () => 'design').pieces[0];
  const outline = drawn?.outline ?? rectangle(boundsOfAll(items));
  const isOnOther = isOnOtherStock(job, materialId);
  const stays = all.filter((item) => !design.has(item.id) && !earlier.has(item.id) && !isOnOther(item));
  const { targets, sheets } = ontoSheets(job, materialId, drawnPieces(stays), further);
  return {
    wish: { pieces: [{ id: '0', outline, count }], sheets, ...how, mirror: false, fillsHoles: false },
    pieces: [{ items, outline }],
    targets,
    loose: [],
    cutOnce: [],
  };
}

/**
 * What the pieces are of that are packed: what the first of them lies on, of those that lie on a sheet. Those on other stock
 * stay. Null where there is no sheet.
 */
export function packedMaterial(
  { drawing, sheets }: Pick<JobDocument, 'drawing' | 'sheets'>,
  ids: ReadonlySet<string>,
): string | null {
  const isOneMaterial = sheets.every(({ materialId }) => materialId === sheets[0].materialId);
  const first = isOneMaterial ? undefined : drawing.items.find((item) => ids.has(item.id) && sheetUnder(sheets, item));
  return ((first && sheetUnder(sheets, first)) ?? sheets[0])?.materialId ?? null;
}

/** How wide the beam of what is cut is at most, in mm; 0 where nobody knows. */
function kerfOfCuts({ layers }: PreparedJob): number {
  return Math.max(
    0,
    ...layers.map(({ layer, placed, applied }) =>
      separates(layer.operation) && placed.length > 0 ? (applied.settings?.kerfMm ?? 0) : 0,
    ),
  );
}

/**
 * How far apart pieces may well lie where nobody says so, in mm: the kerf, and half of what the stock is thick, so that what
 * stays between them holds, and does not burn. In halves of a mm, 1.5 at least.
 */
export function usualGap(prepared: PreparedJob): number {
  const { sheets, material } = prepared;
  const thick = sheets[0]?.thicknessMm ?? (material ? thicknessOf(material) : 0);
  return Math.ceil(2 * (kerfOfCuts(prepared) + Math.max(1, thick / 2)) - 1e-9) / 2;
}

interface Onto {
  readonly target: PackTarget;
  readonly count: number | null;
  readonly obstacles: readonly Path[];
}

function blockedPlaces({ blocked = [] }: Sheet): Path[] {
  return blocked.map((ring) => pathOfRings([ring]));
}

function rectangle(bounds: Box): Path {
  return outlineOf(rectangleOf(bounds));
}
