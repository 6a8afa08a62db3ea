import { type Item, pathOf } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { type Sheet, sheetFrame } from '../document/sheet.ts';
import { type Rings, ringsOf } from '../document/sheet-outline.ts';
import { applyTo, invert, type Matrix, translation } from '../geometry/paths/matrix.ts';
import { type Path, transformPath } from '../geometry/paths/path.ts';
import { pathOfSubpaths, subpathsOf } from '../geometry/paths/segments.ts';
import { removeItems, setSheet } from './items.ts';

/*
 * Outlines that are drawn become the outline of a sheet, or places of it where nothing may burn. They leave the drawing.
 */

/** Of these items, those that have closed outlines: they can say how a sheet is shaped. */
export function outlinesAmong({ drawing }: Pick<JobDocument, 'drawing'>, ids: ReadonlySet<string>): Item[] {
  return drawing.items.filter((item) => ids.has(item.id) && closedPartsOf(item).verbs.length > 0);
}

/** A sheet that has the outline of what is drawn, and lies there; what is in an even number of outlines is a hole. */
export function outlineSheet(job: JobDocument, sheetId: string, ids: ReadonlySet<string>): JobDocument {
  return withSheet(job, sheetId, ids, (sheet, rings) => {
    const { minX, minY, maxX, maxY } = boundsOfRings(rings);
    const [width, height] = [maxX - minX, maxY - minY];
    if (width <= 0 || height <= 0) return sheet;
    // Turned about another middle, it still has to lie where it was drawn.
    const middle = applyTo(sheetFrame(sheet), (minX + maxX) / 2, (minY + maxY) / 2);
    const moved = translation(-minX, -minY);
    return {
      ...sheet,
      x: middle.x - width / 2,
      y: middle.y - height / 2,
      width,
      height,
      outline: movedRings(rings, moved),
      ...(sheet.blocked ? { blocked: movedRings(sheet.blocked, moved) } : {}),
    };
  });
}

/** A sheet on which nothing may burn within what is drawn, besides where nothing may already. */
export function blockPlaces(job: JobDocument, sheetId: string, ids: ReadonlySet<string>): JobDocument {
  return withSheet(job, sheetId, ids, (sheet, rings) => ({ ...sheet, blocked: [...(sheet.blocked ?? []), ...rings] }));
}

/** A sheet that is a rectangle again, as wide and as high as its outline was. */
export function straightenSheet(job: JobDocument, sheetId: string): JobDocument {
  return withoutRings(job, sheetId, 'outline');
}

/** A sheet on which no place is blocked any more. */
export function unblockPlaces(job: JobDocument, sheetId: string): JobDocument {
  return withoutRings(job, sheetId, 'blocked');
}

function withoutRings(job: JobDocument, sheetId: string, field: 'outline' | 'blocked'): JobDocument {
  const sheet = job.sheets.find(({ id }) => id === sheetId);
  if (!sheet?.[field]) return job;
  const { [field]: _, ...plain } = sheet;
  return setSheet(job, plain);
}

function withSheet(
  job: JobDocument,
  sheetId: string,
  ids: ReadonlySet<string>,
  change: (sheet: Sheet, rings: Rings) => Sheet,
): JobDocument {
  const sheet = job.sheets.find(({ id }) => id === sheetId);
  const toSheet = sheet && invert(sheetFrame(sheet));
  const items = outlinesAmong(job, ids);
  if (!sheet || !toSheet || items.length === 0) return job;
  const rings = ringsOf(
    transformPath(pathOfSubpaths(items.flatMap((item) => [...subpathsOf(closedPartsOf(item))])), toSheet),
  );
  if (rings.length === 0) return job;
  return removeItems(setSheet(job, change(sheet, rings)), new Set(items.map(({ id }) => id)));
}

/** The closed outlines of an item. */
function closedPartsOf(item: Item): Path {
  return pathOfSubpaths([...subpathsOf(pathOf(item))].filter(({ closed }) => closed));
}

function movedRings(rings: Rings, matrix: Matrix): Rings {
  return rings.map((ring) => {
    const points: number[] = [];
    for (let i = 0; i < ring.length; i += 2) {
      const { x, y } = applyTo(matrix, ring[i], ring[i + 1]);
      points.push(x, y);
    }
    return points;
  });
}

function boundsOfRings(rings: Rings) {
  const [xs, ys] = [0, 1].map((axis) => rings.flatMap((ring) => ring.filter((_, i) => i % 2 === axis)));
  return { minX: Math.min(...xs), minY: Math.min(...ys), maxX: Math.max(...xs), maxY: Math.max(...ys) };
}
