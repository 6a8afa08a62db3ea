import { boundsOf, type Item } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import type { Shape } from '../document/shape.ts';
import { type Sheet, sheetUnder } from '../document/sheet.ts';
import type { FitTie, PartTie, ThicknessTie } from '../document/ties.ts';
import { plainOffset } from '../geometry/offsets/offset.ts';
import { boxCentre } from '../geometry/paths/box.ts';
import { type Matrix, multiply, translation } from '../geometry/paths/matrix.ts';
import { pathBounds } from '../geometry/paths/path.ts';
import { centredOffset } from './follow.ts';

type SlotShape = Extract<Shape, { kind: 'rectangle' | 'slot' }>;

/** A material, as far as its thickness goes: as it is sold, and as the shop measured it. */
interface Thick {
  readonly id: string;
  readonly thicknessMm: number;
  readonly measuredMm?: number | null;
}

/** How thick a sheet is, in mm: as it was measured, else as its material is said to be; null where nobody knows. */
export type ThicknessOf = (sheet: Sheet) => number | null;

/** How thick a sheet is, in mm: as measured on it, else as its material says; null where nothing does. */
export function thicknessBy(materials: readonly Thick[]): ThicknessOf {
  return (sheet) => {
    const material = materials.find(({ id }) => id === sheet.materialId);
    return sheet.thicknessMm ?? material?.measuredMm ?? material?.thicknessMm ?? null;
  };
}

/** The thickness an item's slots go by: that of the sheet it lies on, else of the first. */
export function thicknessUnder({ sheets }: JobDocument, item: Item, thicknessOf: ThicknessOf): number | null {
  const sheet = sheetUnder(sheets, item) ?? sheets[0];
  return sheet ? thicknessOf(sheet) : null;
}

/** How far from its source an outline is that meets it so, in mm. */
export function partDistance({ role, clearanceMm }: PartTie, thicknessMm: number): number {
  if (role === 'pocket') return clearanceMm / 2;
  return role === 'insert' ? -clearanceMm / 2 : thicknessMm + clearanceMm / 2;
}

/** Whether items can be slots: rectangles, and slots with round ends. */
export function isSlot({ shape }: Item): boolean {
  return shape.kind === 'rectangle' || shape.kind === 'slot';
}

/**
 * The slots among items: of several, those whose narrower side is 0.4 to 2.5 times as wide as the stock is thick. So a
 * plate that is selected with its slots stays a plate. An item by itself is what it is told to be.
 */
export function slotsAmong(items: readonly Item[], thicknessMm: number): Item[] {
  const slots = items.filter(isSlot);
  if (slots.length < 2) return slots;
  return slots.filter(({ shape }) => {
    const narrow = shape.kind === 'rectangle' ? Math.min(shape.width, shape.height) : (shape as SlotShape).width;
    return narrow >= 0.4 * thicknessMm && narrow <= 2.5 * thicknessMm;
  });
}

/**
 * Makes items slots for stock, about the middle where they are. The narrower side of rectangles, and the width of slots
 * with round ends, become the stock's thickness with the fit's clearance.
 */
export function tieToThickness(
  job: JobDocument,
  ids: ReadonlySet<string>,
  { fit, clearanceMm }: FitTie,
  thicknessOf: ThicknessOf,
): JobDocument {
  const items = job.drawing.items.map((item): Item => {
    if (!ids.has(item.id) || !isSlot(item)) return item;
    const shape = item.shape as SlotShape;
    const upright = shape.kind === 'rectangle' && shape.height < shape.width;
    return { ...item, shape: { ...shape, tied: { fit, clearanceMm, side: upright ? 'height' : 'width' } } };
  });
  return followThickness({ ...job, drawing: { ...job.drawing, items } }, thicknessOf);
}

/** Leaves slots as wide as they are, whatever becomes of the stock. */
export function untie(job: JobDocument, ids: ReadonlySet<string>): JobDocument {
  const items = job.drawing.items.map((item) => {
    if (!ids.has(item.id) || !isSlot(item)) return item;
    const { tied: _, ...shape } = item.shape as SlotShape;
    return { ...item, shape };
  });
  return { ...job, drawing: { ...job.drawing, items } };
}

/** A job with everything that goes by the thickness of stock as that now is; the same one where nothing changes. */
export function followThickness(job: JobDocument, thicknessOf: ThicknessOf): JobDocument {
  const items = job.drawing.items.map((item) => {
    if (!goesByThickness(item.shape)) return item;
    const thicknessMm = thicknessUnder(job, item, thicknessOf);
    if (thicknessMm === null) return item;
    const shape = withThickness(item.shape, item.matrix, thicknessMm);
    return shape === item.shape ? item : { ...item, shape };
  });
  return items.every((item, i) => item === job.drawing.items[i]) ? job : { ...job, drawing: { ...job.drawing, items } };
}

function goesByThickness(shape: Shape): boolean {
  if (shape.kind === 'combined') return shape.parts.some((part) => goesByThickness(part.shape));
  if (shape.kind === 'offset') return shape.meets?.role === 'lid';
  return (shape.kind === 'rectangle' || shape.kind === 'slot') && shape.tied !== undefined;
}

/** @param frame takes the shape to the bed */
function withThickness(shape: Shape, frame: Matrix, thicknessMm: number): Shape {
  if (shape.kind === 'combined') {
    const parts = shape.parts.map((part) => {
      const inside = withThickness(part.shape, multiply(frame, part.matrix), thicknessMm);
      return inside === part.shape ? part : { ...part, shape: inside };
    });
    return parts.every((part, i) => part === shape.parts[i]) ? shape : { ...shape, parts };
  }
  if (shape.kind === 'offset' && shape.meets) {
    const distance = partDistance(shape.meets, thicknessMm);
    return distance === shape.settings.by ? shape : { ...shape, settings: { ...shape.settings, by: distance } };
  }
  if ((shape.kind !== 'rectangle' && shape.kind !== 'slot') || !shape.tied) return shape;
  const width = thicknessMm + shape.tied.clearanceMm;
  return width > 0 ? withSlotWidth(shape, shape.tied, width / scaleAlong(frame, shape.tied)) : shape;
}

function scaleAlong([a, b, c, d]: Matrix, { side }: ThicknessTie): number {
  return (side === 'width' ? Math.hypot(a, b) : Math.hypot(c, d)) || 1;
}

function withSlotWidth(shape: SlotShape, { side }: ThicknessTie, width: number): Shape {
  if (shape.kind === 'slot') return same(shape.width, width) ? shape : { ...shape, width };
  if (same(shape[side], width)) return shape;
  const place = side === 'width' ? 'x' : 'y';
  return { ...shape, [side]: width, [place]: shape[place] + (shape[side] - width) / 2 };
}

function same(a: number, b: number): boolean {
  return Math.abs(a - b) < 1e-9;
}

/** One thing that came out otherwise when the stock's thickness changed: how wide it was and is, in mm. */
export interface TieChange {
  readonly itemId: string;
  readonly what: 'slot' | 'lid';
  readonly fromMm: number;
  readonly toMm: number;
}

/** What goes by the stock's thickness and is another width after an edit than before. */
export function tieChanges(before: JobDocument, after: JobDocument): TieChange[] {
  const known = new Map(before.drawing.items.map((item) => [item.id, item]));
  return after.drawing.items.flatMap((item) => {
    const was = known.get(item.id);
    if (!was || was === item) return [];
    const [old, now] = [tiedWidths(was.shape), tiedWidths(item.shape)];
    return now.flatMap(({ what, width }, i): TieChange[] =>
      old[i] === undefined || same(old[i].width, width)
        ? []
        : [{ itemId: item.id, what, fromMm: old[i].width, toMm: width }],
    );
  });
}

function tiedWidths(shape: Shape): { what: TieChange['what']; width: number }[] {
  if (shape.kind === 'combined') return shape.parts.flatMap((part) => tiedWidths(part.shape));
  if (shape.kind === 'offset' && shape.meets?.role === 'lid') {
    const { minX, maxX } = pathBounds(shape.path);
    return [{ what: 'lid', width: maxX - minX }];
  }
  if (shape.kind === 'slot' && shape.tied) return [{ what: 'slot', width: shape.width }];
  return shape.kind === 'rectangle' && shape.tied ? [{ what: 'slot', width: shape[shape.tied.side] }] : [];
}

/** An outline that meets a part so, centred about (0, 0). */
function meetingShape(thing: Item, meets: PartTie, thicknessMm: number): Shape {
  const settings = {
    ...plainOffset,
    join: meets.role === 'lid' ? 'miter' : 'round',
    by: partDistance(meets, thicknessMm),
  } as const;
  const ignoring = { ...settings, ignoreHoles: true };
  return { kind: 'offset', sources: [thing.id], settings: ignoring, meets, path: centredOffset([thing], ignoring) };
}

/** Adds an outline that meets a part, right of it; it can be moved anywhere, and its size follows. */
export function addMeeting(
  job: JobDocument,
  thingId: string,
  meets: PartTie,
  thicknessMm: number,
  newId: () => string,
): { job: JobDocument; id: string | null } {
  const thing = job.drawing.items.find(({ id }) => id === thingId);
  if (!thing) return { job, id: null };
  const shape = meetingShape(thing, meets, thicknessMm);
  if (shape.kind !== 'offset' || shape.path.verbs.length === 0) return { job, id: null };
  const { link: _, locked: __, name: ___, ...plain } = thing;
  const box = boundsOf(thing);
  const { maxX } = pathBounds(shape.path);
  const centre = boxCentre(box);
  const id = newId();
  const item: Item = {
    ...plain,
    id,
    name: null,
    shape,
    matrix: translation(box.maxX + 5 + maxX, centre.y),
    fillRule: 'nonzero',
  };
  return { job: { ...job, drawing: { ...job.drawing, items: [...job.drawing.items, item] } }, id };
}

/** Makes an outline that is there one that meets a part, about the middle where it is. */
export function makeMeeting(
  job: JobDocument,
  id: string,
  thingId: string,
  meets: PartTie,
  thicknessMm: number,
): JobDocument {
  const { items } = job.drawing;
  const [outline, thing] = [id, thingId].map((entry) => items.find((item) => item.id === entry));
  if (!outline || !thing || outline === thing) return job;
  const shape = meetingShape(thing, meets, thicknessMm);
  if (shape.kind !== 'offset' || shape.path.verbs.length === 0) return job;
  const { x, y } = boxCentre(boundsOf(outline));
  const met: Item = { ...outline, shape, matrix: translation(x, y), fillRule: 'nonzero' };
  return { ...job, drawing: { ...job.drawing, items: items.map((item) => (item === outline ? met : item)) } };
}
