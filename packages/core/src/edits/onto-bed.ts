import { boundsOf, boundsOfAll, type Item } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { isLaidOnBed } from '../document/run-sheets.ts';
import {
  type Box,
  boxCentre,
  boxContains,
  boxHeight,
  boxWidth,
  growBox,
  isEmpty,
  shiftInto,
} from '../geometry/paths/box.ts';
import { moveItems, rotateItems, scaleItems } from './items.ts';

/** The ways in which a drawing is brought onto a bed that it lies beside, or is too large for. */
export const waysOntoBed = ['move', 'centre', 'turn', 'scale'] as const;
export type WayOntoBed = (typeof waysOntoBed)[number];

/** What lies within this of the edge, in mm, lies on it: less than any machine can tell. */
const slack = 0.005;

/**
 * The items that burn or could, and lie off a bed. What is hidden or parked does not burn; what lies on a sheet that is laid
 * for a run alone burns elsewhere than it is drawn.
 */
export function itemsOffBed(job: JobDocument, bed: Box): Item[] {
  return drawnOnBed(job).filter((item) => !boxContains(bed, boundsOf(item), slack));
}

/**
 * Brings all that is drawn onto a bed, as one. It is moved as little as it takes, or set in the middle: as it is, turned by
 * a quarter, or made smaller to fit. Sizes stay true but for the last.
 *
 * @param bed the bed, in mm
 * @param margin how far from the edge it is to stay, in mm
 * @returns null where it does not fit so, or nothing is drawn
 */
export function ontoBed(job: JobDocument, bed: Box, margin: number, way: WayOntoBed): JobDocument | null {
  const items = drawnOnBed(job);
  const bounds = boundsOfAll(items);
  const room = growBox(bed, -margin);
  if (isEmpty(bounds) || isEmpty(room)) return null;
  const ids = new Set(items.map(({ id }) => id));
  const middle = boxCentre(bounds);
  switch (way) {
    case 'move': {
      const shift = shiftInto(bounds, room);
      return shift && moveItems(job, ids, shift.dx, shift.dy);
    }
    case 'centre':
      return fits(bounds, room) ? centred(job, ids, middle, room) : null;
    case 'turn': {
      const turned = { ...bounds, minX: 0, minY: 0, maxX: boxHeight(bounds), maxY: boxWidth(bounds) };
      return fits(turned, room) ? centred(rotateItems(job, ids, 90, middle), ids, middle, room) : null;
    }
    case 'scale': {
      const factor = Math.min(boxWidth(room) / boxWidth(bounds), boxHeight(room) / boxHeight(bounds));
      if (!Number.isFinite(factor) || factor >= 1) return null;
      return centred(scaleItems(job, ids, factor, factor, middle), ids, middle, room);
    }
  }
}

function drawnOnBed(job: JobDocument): Item[] {
  const isOnBed = isLaidOnBed(job);
  return job.drawing.items.filter((item) => !item.hidden && !item.parked && (isOnBed?.(item) ?? true));
}

function fits(bounds: Box, room: Box): boolean {
  return boxWidth(bounds) <= boxWidth(room) + slack && boxHeight(bounds) <= boxHeight(room) + slack;
}

function centred(job: JobDocument, ids: ReadonlySet<string>, middle: { x: number; y: number }, room: Box): JobDocument {
  const to = boxCentre(room);
  return moveItems(job, ids, to.x - middle.x, to.y - middle.y);
}
