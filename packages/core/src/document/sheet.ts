import { lineWithin } from '../geometry/areas/area.ts';
import { type Box, boxCentre, boxContains, boxOf, growBox, isEmpty } from '../geometry/paths/box.ts';
import { polylineContains } from '../geometry/paths/flatten.ts';
import { applyTo, invert, type Matrix, multiply, type Point, rotation, translation } from '../geometry/paths/matrix.ts';
import { pathBounds, transformPath } from '../geometry/paths/path.ts';
import { Mismatch, optional, such, type ValueOf } from '../schema/schema.ts';
import { record } from '../schema/structures.ts';
import { number, text } from '../schema/values.ts';
import { boundsOf, type Item, pathOf } from './item.ts';
import { areaWithin, ringsSchema } from './sheet-outline.ts';

/** A segment of the bed beyond which no sheet makes sense, in mm. */
const largestSheet = 10_000;

/**
 * A piece of stock on the bed. Place and size in mm, from the bed's top left, y down, as it lies before it is
 * turned about its own middle.
 */
export const sheetSchema = such(
  record({
    id: text,
    materialId: text,
    x: number(),
    y: number(),
    width: number(),
    height: number(),
    /** How far from the sheet's edge artwork should stay, in mm. */
    margin: number(),
    /** How far it is turned, in degrees clockwise on the screen; straight where nothing is said. */
    angle: optional(number()),
    /** How thick it is as it was measured, in mm; as its material is said to be where it was not. */
    thicknessMm: optional(number()),
    /** From which of the material's sheets in stock it was taken; by its size where nothing is said. */
    stockId: optional(text),
    /** Its outline with its holes, in its own frame; a rectangle where nothing is said. */
    outline: optional(ringsSchema),
    /** Where nothing may burn, in its own frame: holes of earlier burns, knots, clamps. */
    blocked: optional(ringsSchema),
  }),
  ({ width, height }) =>
    width > 0 && height > 0 && width <= largestSheet && height <= largestSheet
      ? null
      : new Mismatch(`width and height must lie between 0 and ${largestSheet} mm`, '', true),
);
export type Sheet = ValueOf<typeof sheetSchema>;

/** From a sheet's own frame, mm from its own top left, to the bed. */
export function sheetFrame({ x, y, width, height, angle = 0 }: Sheet): Matrix {
  return multiply(rotation(angle, { x: x + width / 2, y: y + height / 2 }), translation(x, y));
}

/** The corners of a sheet, or of the part of it that is `inset` mm inside its edges, on the bed. */
export function sheetCorners(sheet: Sheet, inset = 0): Point[] {
  const frame = sheetFrame(sheet);
  const [left, top, right, bottom] = [inset, inset, sheet.width - inset, sheet.height - inset];
  return [
    [left, top],
    [right, top],
    [right, bottom],
    [left, bottom],
  ].map(([x, y]) => applyTo(frame, x, y));
}

/** The bounds of a sheet on the bed. */
export function sheetBox(sheet: Sheet): Box {
  return boundsOfPoints(sheetCorners(sheet));
}

/** The bounds of the part of a sheet inside its margin. */
export function sheetSafeBox(sheet: Sheet): Box {
  return boundsOfPoints(sheetCorners(sheet, sheet.margin));
}

function boundsOfPoints(points: readonly Point[]): Box {
  const [xs, ys] = [points.map(({ x }) => x), points.map(({ y }) => y)];
  return { minX: Math.min(...xs), minY: Math.min(...ys), maxX: Math.max(...xs), maxY: Math.max(...ys) };
}

/** An item's exact bounds in a sheet's own frame. */
function boundsOn(sheet: Sheet, item: Item): Box {
  if (!sheet.angle) {
    const { minX, minY, maxX, maxY } = boundsOf(item);
    return { minX: minX - sheet.x, minY: minY - sheet.y, maxX: maxX - sheet.x, maxY: maxY - sheet.y };
  }
  const toSheet = invert(sheetFrame(sheet));
  return toSheet ? pathBounds(transformPath(pathOf(item), toSheet)) : boundsOf(item);
}

/** Whether an item lies on a sheet whole, at least `inset` mm from its edges, give or take `slack` mm. */
export function sheetHolds(sheet: Sheet, item: Item, inset = 0, slack = 0): boolean {
  if (!boxContains(growBox(boxOf(0, 0, sheet.width, sheet.height), -inset), boundsOn(sheet, item), slack)) return false;
  const toSheet = sheet.outline && invert(sheetFrame(sheet));
  if (!sheet.outline || !toSheet) return true;
  const path = transformPath(pathOf(item), toSheet);
  return lineWithin(path, pathBounds(path), areaWithin(sheet.outline, inset)).left === 'all';
}

/**
 * The sheet an item lies on: the one on top that holds it whole, else the one on top that holds its middle;
 * null when it is beside them all.
 */
export function sheetUnder(sheets: readonly Sheet[], item: Item): Sheet | null {
  if (sheets.length === 0 || isEmpty(boundsOf(item))) return null;
  const whole = sheets.findLast((sheet) => sheetHolds(sheet, item, 0, 0.005));
  if (whole) return whole;
  const middle = boxCentre(boundsOf(item));
  return sheets.findLast((sheet) => isOnSheet(sheet, middle)) ?? null;
}

/** Whether a point of the bed lies on a sheet. */
export function isOnSheet(sheet: Sheet, { x, y }: Point): boolean {
  const toSheet = invert(sheetFrame(sheet));
  if (!toSheet) return false;
  const p = applyTo(toSheet, x, y);
  if (p.x < 0 || p.x > sheet.width || p.y < 0 || p.y > sheet.height) return false;
  // In an odd number of its outlines: in it, and in none of its holes.
  return sheet.outline ? sheet.outline.filter((ring) => isIn(ring, p)).length % 2 === 1 : true;
}

function isIn(ring: readonly number[], { x, y }: Point): boolean {
  return polylineContains({ points: Float64Array.from(ring), closed: true }, x, y);
}
