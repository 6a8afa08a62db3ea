import { anchorPoint, boundsOfAll, type Item } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import type { Landing, Run } from '../document/run.ts';
import { ownSheet, sheetsInRun } from '../document/run-sheets.ts';
import { type Sheet, sheetFrame, sheetUnder } from '../document/sheet.ts';
import { type Box, isEmpty } from '../geometry/paths/box.ts';
import {
  applyTo,
  identity,
  invert,
  isIdentity,
  type Matrix,
  multiply,
  type Point,
  scaling,
  translation,
} from '../geometry/paths/matrix.ts';
import type { Machine } from '../machine/machine.ts';

/** What a landing needs and does not have. */
export type LandingNeed = 'mark' | 'head' | 'sheet' | 'marks';

/** The same in words, a sentence each. */
export const landingNeeds: Readonly<Record<LandingNeed, string>> = {
  mark: 'No point is marked.',
  head: 'It is not known where the head stands.',
  sheet: 'No sheet lies on the bed.',
  marks: 'Its two points were not both touched, or lie in one place.',
};

/** A point in the drawing, and where on the bed it was touched; both in bed mm. */
export interface TouchedMark {
  readonly from: Point;
  readonly to: Point;
}

/** How far a run is moved, turned and scaled from where it is drawn, and how well that fits. */
export interface Landed {
  /** From where items are drawn (and mirrored) to where they burn. */
  readonly matrix: Matrix;
  /** What is missing, so that the run stays as drawn; null where nothing is. */
  readonly needs: LandingNeed | null;
  /** Of two marks: how far each stays from where it was touched, in mm. */
  readonly errorMm: number;
  /** The marks as they come to lie, beside where they were touched, in bed mm. */
  readonly marks: readonly { readonly lands: Point; readonly touched: Point }[];
}

/** Marks that are nearer to each other than this, in mm, do not say how a run is turned. */
const leastApartMm = 1;

/**
 * Takes two marks onto where they were touched: turned so that they lie along the same line, with their middles on each
 * other. It stays as large as it is drawn, unless it is scaled. (The least sum of squares for two points; Horn, 1987.)
 *
 * @returns null where two of the points are no more than 1 mm apart
 */
export function throughMarks(
  [first, second]: readonly [TouchedMark, TouchedMark],
  isScaled: boolean,
): { readonly matrix: Matrix; readonly errorMm: number } | null {
  const drawn = { x: second.from.x - first.from.x, y: second.from.y - first.from.y };
  const touched = { x: second.to.x - first.to.x, y: second.to.y - first.to.y };
  const [long, short] = [Math.hypot(touched.x, touched.y), Math.hypot(drawn.x, drawn.y)];
  if (long < leastApartMm || short < leastApartMm) return null;
  const scale = isScaled ? long / short : 1;
  const cos = ((drawn.x * touched.x + drawn.y * touched.y) / (long * short)) * scale;
  const sin = ((drawn.x * touched.y - drawn.y * touched.x) / (long * short)) * scale;
  const from = { x: (first.from.x + second.from.x) / 2, y: (first.from.y + second.from.y) / 2 };
  const to = { x: (first.to.x + second.to.x) / 2, y: (first.to.y + second.to.y) / 2 };
  const turned: Matrix = [cos, sin, -sin, cos, 0, 0];
  const middle = applyTo(turned, from.x, from.y);
  const matrix: Matrix = [cos, sin, -sin, cos, to.x - middle.x, to.y - middle.y];
  return { matrix, errorMm: isScaled ? 0 : Math.abs(long - short) / 2 };
}

interface Placing {
  readonly job: JobDocument;
  readonly machine: Machine;
  readonly run: Run;
  /** Where the head stands, in bed mm. */
  readonly head: Point | null;
  /** What burns, as it is drawn. */
  readonly burnt: () => readonly Item[];
}

/** Where a run burns: what it does to each item, and how the run as a whole landed. */
export function placeRun(placing: Placing): { burntAt: (item: Item) => Item; landed: Landed } {
  const { job, machine, run } = placing;
  const turned = run.mirrored ? (item: Item) => moved(item, mirrorFor(job, machine, item)) : asDrawn;
  const landed = land(placing, turned);
  const burntAt = isIdentity(landed.matrix) ? turned : (item: Item) => moved(turned(item), landed.matrix);
  return { burntAt, landed };
}

/** An item of a run that burns as it is drawn. */
export const asDrawn = (item: Item) => item;

function land(placing: Placing, turned: (item: Item) => Item): Landed {
  const { job, machine, run, head, burnt } = placing;
  const { landing } = run;
  if (landing.kind === 'as-drawn') return unmoved(null);
  if (landing.kind === 'marks')
    return landOnMarks(landing, run.mirrored ? mirrorFor(job, machine, burnt()[0]) : identity);
  if (landing.kind === 'sheet') {
    const sheet = ownSheet(job, run);
    if (!sheet) return unmoved('sheet');
    return { ...unmoved(null), matrix: translation(landing.x - sheet.x, landing.y - sheet.y) };
  }
  const bounds = boundsOfAll(burnt().map(turned));
  if (landing.kind === 'stock') return landOnSheet(landing, sheetsInRun(job, run)[0], bounds);
  const target = landing.kind === 'mark' ? job.mark : head;
  if (!target) return unmoved(landing.kind);
  if (isEmpty(bounds)) return unmoved(null);
  const from = anchorPoint(bounds, landing);
  return { ...unmoved(null), matrix: translation(target.x - from.x, target.y - from.y) };
}

function landOnMarks({ marks, isScaled }: Extract<Landing, { kind: 'marks' }>, mirror: Matrix): Landed {
  const touched = marks.flatMap(({ x, y, onBed }) => (onBed ? [{ from: applyTo(mirror, x, y), to: onBed }] : []));
  const found = touched.length === 2 ? throughMarks([touched[0], touched[1]], isScaled) : null;
  if (!found) return unmoved('marks');
  const { matrix, errorMm } = found;
  const lies = touched.map(({ from, to }) => ({ lands: applyTo(matrix, from.x, from.y), touched: to }));
  return { matrix, needs: null, errorMm, marks: lies };
}

/** The run's point at the same point of the sheet, so far from its edges as was asked for; nothing is turned. */
function landOnSheet(
  { u, v, inset }: Extract<Landing, { kind: 'stock' }>,
  sheet: Sheet | undefined,
  bounds: Box,
): Landed {
  if (!sheet) return unmoved('sheet');
  if (isEmpty(bounds)) return unmoved(null);
  const from = anchorPoint(bounds, { u, v });
  const [width, height] = [sheet.width - 2 * inset, sheet.height - 2 * inset];
  const to = applyTo(sheetFrame(sheet), inset + u * width, inset + v * height);
  return { ...unmoved(null), matrix: translation(to.x - from.x, to.y - from.y) };
}

function unmoved(needs: LandingNeed | null): Landed {
  return { matrix: identity, needs, errorMm: 0, marks: [] };
}

/** Left for right about the middle of the sheet under an item, along the sheet's own edges; about the bed's where there is none. */
function mirrorFor({ sheets }: JobDocument, { bedWidth }: Machine, item: Item | undefined): Matrix {
  const sheet = item && sheetUnder(sheets, item);
  if (!sheet) return scaling(-1, 1, { x: bedWidth / 2, y: 0 });
  const frame = sheetFrame(sheet);
  const across = scaling(-1, 1, { x: sheet.width / 2, y: 0 });
  return multiply(multiply(frame, across), invert(frame) ?? identity);
}

/** As many moves of one item are kept: those of the runs that one looks at, not of every place the mark was dragged to. */
const mostMoves = 8;
const movedItems = new WeakMap<Item, Map<string, Item>>();

/** An item moved; the same move gives the same item, so that what is kept of it is kept. */
function moved(item: Item, matrix: Matrix): Item {
  let known = movedItems.get(item);
  if (!known) {
    known = new Map();
    movedItems.set(item, known);
  }
  const name = matrix.join(' ');
  const copy = known.get(name) ?? { ...item, matrix: multiply(matrix, item.matrix) };
  // The one that was wanted last goes last.
  known.delete(name);
  known.set(name, copy);
  if (known.size > mostMoves) known.delete(known.keys().next().value as string);
  return copy;
}
