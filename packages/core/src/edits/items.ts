import type { DimensionEnd, DimensionMark } from '../document/dimension.ts';
import { type Group, type Item, type Keep, topGroupOf } from '../document/item.ts';
import type { Assignment, GuideLine, JobDocument, PaintPart } from '../document/job.ts';
import type { Run } from '../document/run.ts';
import type { Sheet } from '../document/sheet.ts';
import {
  identity,
  type Matrix,
  multiplierBy,
  type Point,
  rotation,
  scaling,
  translation,
} from '../geometry/paths/matrix.ts';
import type { LayerSettings } from '../settings/settings.ts';
import type { LengthUnit } from '../units/length.ts';
import { foldScale, isOnlyMove } from './fold.ts';

/*
 * Every change to a job is one of these functions, (job, arguments) → job. They never touch what they
 * are given; what does not change is shared, and a call that changes nothing gives back the same job.
 */

function withItems(job: JobDocument, items: readonly Item[]): JobDocument {
  return { ...job, drawing: { ...job.drawing, items } };
}

/** Puts other items in the place of some. */
export function changeItems(job: JobDocument, ids: ReadonlySet<string>, change: (item: Item) => Item): JobDocument {
  if (!job.drawing.items.some((item) => ids.has(item.id))) return job;
  return withItems(
    job,
    job.drawing.items.map((item) => (ids.has(item.id) ? change(item) : item)),
  );
}

/** Adds items in front of what is there, with the groups they are in. Ids must be new to the job. */
export function addItems(job: JobDocument, items: readonly Item[], groups: readonly Group[] = []): JobDocument {
  if (items.length === 0) return job;
  const { drawing } = job;
  return { ...job, drawing: { items: [...drawing.items, ...items], groups: [...drawing.groups, ...groups] } };
}

/** Takes items away, and groups that are left empty. */
export function removeItems(job: JobDocument, ids: ReadonlySet<string>): JobDocument {
  const items = job.drawing.items.filter((item) => !ids.has(item.id));
  if (items.length === job.drawing.items.length) return job;
  // Marks that measure what goes, go with it.
  const holdsOn = (end: DimensionEnd) => end.kind !== 'point' && ids.has(end.itemId);
  const dimensions = job.dimensions.filter(({ from, to }) => !holdsOn(from) && !holdsOn(to));
  return { ...job, dimensions, drawing: { items, groups: withoutEmptyGroups(job.drawing.groups, items) } };
}

/** The groups that items are in, and those that these are in. */
export function withoutEmptyGroups(groups: readonly Group[], items: readonly Item[]): Group[] {
  const parents = new Map(groups.map((group) => [group.id, group.parentId]));
  const used = new Set<string>();
  for (const item of items) {
    for (let id = item.groupId; id && !used.has(id); id = parents.get(id) ?? null) used.add(id);
  }
  return groups.filter((group) => used.has(group.id));
}

/** Of each item, by its id, the map that it is to have; undefined where it stays. */
type MapOf = (id: string) => Matrix | undefined;

/** Maps by item, and of the hidden parts that belong to the items, which go where those go: of their groups, and wholes that were cut. */
function withHidden({ drawing }: JobDocument, mapOf: MapOf): MapOf {
  const hidden = drawing.items.filter((item) => item.hidden && !mapOf(item.id));
  if (hidden.length === 0) return mapOf;
  const homes = new Map<string, Matrix>();
  for (const item of drawing.items) {
    const [map, home] = [mapOf(item.id), topGroupOf(drawing, item)];
    if (map && home) homes.set(home.id, map);
  }
  const parts = new Map<string, Matrix>();
  for (const item of hidden) {
    const map = homes.get(topGroupOf(drawing, item)?.id ?? '') ?? mapOf(item.id.replace(/\.whole$/, ''));
    if (map) parts.set(item.id, map);
  }
  return (id) => mapOf(id) ?? parts.get(id);
}

/** Applies to each item its own map, in bed mm; shapes that can bear it take a scaling into their numbers. */
export function transformEach(job: JobDocument, maps: ReadonlyMap<string, Matrix>): JobDocument {
  return transformBy(job, (id) => maps.get(id));
}

/** Applies a map, in bed mm, to items where they are. */
export function transformItems(job: JobDocument, ids: ReadonlySet<string>, matrix: Matrix): JobDocument {
  return transformBy(job, (id) => (ids.has(id) ? matrix : undefined));
}

function transformBy(job: JobDocument, mapOf: MapOf): JobDocument {
  const mapOfAll = withHidden(job, mapOf);
  const { items } = job.drawing;
  let changes = false;
  let last: Matrix | null = null;
  let moved = multiplierBy(identity);
  let scales = false;
  const transformed = items.map((item) => {
    const map = mapOfAll(item.id);
    if (!map) return item;
    changes = true;
    if (map !== last) {
      moved = multiplierBy(map);
      scales = !isOnlyMove(map);
      last = map;
    }
    const now = { ...item, matrix: moved(item.matrix) };
    return scales ? foldScale(now) : now;
  });
  return changes ? withItems(job, transformed) : job;
}

/** Moves items by `dx`, `dy` mm; y points down. */
export function moveItems(job: JobDocument, ids: ReadonlySet<string>, dx: number, dy: number): JobDocument {
  return dx === 0 && dy === 0 ? job : transformItems(job, ids, translation(dx, dy));
}

/** Scales items by factors about a point that stays put. @throws RangeError on a factor of 0 or none. */
export function scaleItems(
  job: JobDocument,
  ids: ReadonlySet<string>,
  sx: number,
  sy: number,
  about: Point,
): JobDocument {
  if (!(Number.isFinite(sx) && Number.isFinite(sy) && sx !== 0 && sy !== 0)) {
    throw new RangeError(`scaleItems: factors must be finite and not 0, got ${sx}, ${sy}`);
  }
  return sx === 1 && sy === 1 ? job : transformItems(job, ids, scaling(sx, sy, about));
}

/** Turns items by `degrees`, clockwise on the screen, about a point that stays put. */
export function rotateItems(job: JobDocument, ids: ReadonlySet<string>, degrees: number, about: Point): JobDocument {
  return degrees % 360 === 0 ? job : transformItems(job, ids, rotation(degrees, about));
}

/** Hides items, which keeps them from being burnt, or brings hidden ones in. */
export function hideItems(job: JobDocument, ids: ReadonlySet<string>, hidden: boolean): JobDocument {
  const changes = job.drawing.items.some((item) => ids.has(item.id) && item.hidden !== hidden);
  return changes ? changeItems(job, ids, (item) => ({ ...item, hidden })) : job;
}

/** Parks items, so that they do not burn while they lie wholly beside the bed; or takes that back. */
export function parkItems(job: JobDocument, ids: ReadonlySet<string>, parked: boolean): JobDocument {
  return changeItems(job, ids, ({ parked: _, ...item }) => (parked ? { ...item, parked } : item));
}

/** Puts items on a layer by hand, over the key; null hands them back to the key. */
export function pinItems(job: JobDocument, ids: ReadonlySet<string>, layerId: string | null): JobDocument {
  return changeItems(job, ids, (item) => ({ ...item, pinned: layerId }));
}

/** Says which side of items' cut lines is kept; null as their layer says. */
export function keepSide(job: JobDocument, ids: ReadonlySet<string>, keep: Keep | null): JobDocument {
  return changeItems(job, ids, ({ keep: _, ...item }) => (keep === null ? item : { ...item, keep }));
}

/** Has items' outlines burn on a second layer as well; null on theirs alone. */
export function alsoOn(job: JobDocument, ids: ReadonlySet<string>, layerId: string | null): JobDocument {
  return changeItems(job, ids, ({ also: _, ...item }) => (layerId === null ? item : { ...item, also: layerId }));
}

/** Puts a paint on a layer against the key's word, or takes that back. @param layerId null takes it back */
export function assignPaint(
  job: JobDocument,
  paint: { part: PaintPart; colour: string; widthMm: number | null },
  layerId: string | null,
): JobDocument {
  const others = job.assignments.filter((known) => !sameMark(known, paint));
  if (layerId === null) return others.length === job.assignments.length ? job : { ...job, assignments: others };
  const { part, colour, widthMm } = paint;
  const assignment: Assignment = { part, colour, widthMm, layerId };
  return { ...job, assignments: [...others, assignment] };
}

/** Whether two paints are the same half, colour and (for strokes) width. */
export function sameMark(
  a: { part: PaintPart; colour: string; widthMm: number | null },
  b: { part: PaintPart; colour: string; widthMm: number | null },
): boolean {
  return a.part === b.part && a.colour === b.colour && a.widthMm === b.widthMm;
}

/** Says whose job it is. */
export function setMember(job: JobDocument, member: string): JobDocument {
  return job.member === member ? job : { ...job, member };
}

/** The job for another machine. */
export function setMachine(job: JobDocument, machineId: string): JobDocument {
  return job.machineId === machineId ? job : { ...job, machineId };
}

/** The job with another colour key. */
export function setKey(job: JobDocument, keyId: string): JobDocument {
  return job.keyId === keyId ? job : { ...job, keyId };
}

/** The job with its lengths shown in another unit. */
export function setUnit(job: JobDocument, unit: LengthUnit): JobDocument {
  return job.unit === unit ? job : { ...job, unit };
}

/** Puts a sheet on the bed, or changes the one with the same id. */
export function setSheet(job: JobDocument, sheet: Sheet): JobDocument {
  const known = job.sheets.some((other) => other.id === sheet.id);
  const sheets = known ? job.sheets.map((other) => (other.id === sheet.id ? sheet : other)) : [...job.sheets, sheet];
  return { ...job, sheets };
}

/** Puts a guide line down, or moves the one with the same id. */
export function setGuide(job: JobDocument, guide: GuideLine): JobDocument {
  return { ...job, guides: [...job.guides.filter(({ id }) => id !== guide.id), guide] };
}

/** The job without a guide line. */
export function removeGuide(job: JobDocument, id: string): JobDocument {
  return { ...job, guides: job.guides.filter((guide) => guide.id !== id) };
}

/** Puts a dimension mark down, or changes the one with the same id. */
export function setDimension(job: JobDocument, mark: DimensionMark): JobDocument {
  return { ...job, dimensions: [...job.dimensions.filter(({ id }) => id !== mark.id), mark] };
}

/** The job without some of its dimensions. */
export function removeDimensions(job: JobDocument, ids: ReadonlySet<string>): JobDocument {
  const dimensions = job.dimensions.filter(({ id }) => !ids.has(id));
  return dimensions.length === job.dimensions.length ? job : { ...job, dimensions };
}

/** Marks a place, or takes the mark away. */
export function setMark(job: JobDocument, mark: Point | null): JobDocument {
  return { ...job, mark };
}

/** The job without a sheet, and without the runs that it was laid for alone; a last one burns as it is drawn. */
export function removeSheet(job: JobDocument, id: string): JobDocument {
  const isFor = ({ landing }: Run) => landing.kind === 'sheet' && landing.sheetId === id;
  const others = job.runs.filter((run) => !isFor(run));
  const runs = others.length > 0 ? others : [{ ...job.runs[0], landing: { kind: 'as-drawn' as const } }];
  return { ...job, runs, sheets: job.sheets.filter((sheet) => sheet.id !== id) };
}

/** Changes one setting of a layer by hand; undefined hands it back to the recipe. */
export function changeSetting<K extends keyof LayerSettings>(
  job: JobDocument,
  layerId: string,
  setting: K,
  value: LayerSettings[K] | undefined,
): JobDocument {
  const { [setting]: _, ...others } = job.settings[layerId] ?? {};
  const changed = value === undefined ? others : { ...others, [setting]: value };
  return { ...job, settings: { ...job.settings, [layerId]: changed } };
}

/** Without what was changed by hand on a material: layers on the first sheet's are kept by their ids, on others by both. */
export function forgetSettings(job: JobDocument, materialId: string): JobDocument {
  const isFirst = job.sheets[0]?.materialId === materialId;
  const known = Object.entries(job.settings);
  const others = known.filter(([id]) => (id.includes('@') ? !id.endsWith(`@${materialId}`) : !isFirst));
  return others.length === known.length ? job : { ...job, settings: Object.fromEntries(others) };
}

/** Chooses which of several recipes a layer goes by; the usual one where that is empty. */
export function chooseVariant(job: JobDocument, layerId: string, variant: string): JobDocument {
  const { [layerId]: _, ...others } = job.variants;
  return { ...job, variants: variant === '' ? others : { ...others, [layerId]: variant } };
}

/** Says which lens is in the machine. */
export function chooseLens(job: JobDocument, lensId: string | null): JobDocument {
  return { ...job, lensId };
}

/** Hands every setting of every layer back to the recipes. */
export function clearSettings(job: JobDocument): JobDocument {
  return Object.keys(job.settings).length === 0 ? job : { ...job, settings: {} };
}
