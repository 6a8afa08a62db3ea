import { boundsOf, type Item } from '../document/item.ts';
import { type Box, boxContains, boxOf, growBox, isEmpty } from '../geometry/paths/box.ts';
import { indexBoxes } from '../geometry/paths/box-index.ts';
import type { Point } from '../geometry/paths/matrix.ts';
import { toldPlace } from '../machine/axes.ts';
import { fromMachine, toMachine } from '../machine/frame.ts';
import { bedBox, type Machine } from '../machine/machine.ts';
import type { BurnPlan } from '../plan/plan.ts';
import type { PreparedJob } from '../plan/prepare.ts';
import { type Check, countOf, type Finding, finding, withMends } from './finding.ts';
import { movedInto } from './offers.ts';
import { itemsOffBed } from './placement.ts';

/** Programs are written on a raster of 0.001 mm: what is less over the edge is on it. */
const slack = 0.0005;
/** More places than these are not named. */
const mostPlaces = 50;

/** Moves that leave the bed, of what is drawn on it: a machine stops at them in mid-job. */
export const checkBeamPath: Check = (prepared, plan) => {
  const bed = bedBox(prepared.machine);
  const outside = pointsOutside(plan, bed, prepared.machine);
  if (outside.length === 0) return [];
  // What is drawn off the bed is said of its own.
  const off = new Set(itemsOffBed(prepared));
  const nearEdge = itemsNearEdge(prepared, off, bed);
  const items = new Set<Item>();
  const points: Point[] = [];
  for (const { x, y, preparedId } of outside) {
    const near = nearEdge.get(preparedId)?.itemsAt(x, y) ?? [];
    if (near.length === 0 && off.size > 0) continue;
    points.push({ x, y });
    for (const item of near) items.add(item);
  }
  if (points.length === 0) return [];
  return [findingOf(prepared, [...items], points)];
};

/**
 * The ends of moves at which the machine would be told a place off its bed, and of which prepared layer they are; null for
 * the way back.
 */
function pointsOutside(plan: BurnPlan, bed: Box, machine: Machine) {
  const reach = growBox(bed, slack);
  const { minX, minY, maxX, maxY } = reach;
  const points: (Point & { preparedId: string | null })[] = [];
  const parts = [
    ...plan.steps.map(({ moves, preparedId }) => ({ moves, preparedId })),
    { moves: plan.back, preparedId: null },
  ];
  for (const { moves, preparedId } of parts) {
    const { xs, ys, bounds } = moves;
    if (isEmpty(bounds) || (!machine.axes && boxContains(reach, bounds))) continue;
    for (let i = 0; i < xs.length; i++) {
      const { x, y } = toldOnBed(machine, xs[i], ys[i]);
      const isOn = x >= minX && x <= maxX && y >= minY && y <= maxY;
      if (!isOn) points.push({ x: xs[i], y: ys[i], preparedId });
    }
  }
  return points;
}

/** By layer: the items that lie on the bed so near to its edge that their beam may leave it. */
function itemsNearEdge({ layers }: PreparedJob, off: ReadonlySet<Item>, bed: Box) {
  return new Map<string | null, { itemsAt: (x: number, y: number) => Item[] }>(
    layers.map(({ id, placed, applied }) => {
      const reach = (applied.settings?.kerfMm ?? 0) / 2 + 0.01;
      const near = placed.flatMap(({ item }) => {
        const box = growBox(boundsOf(item), reach);
        return off.has(item) || boxContains(bed, box) ? [] : [{ item, box }];
      });
      const index = indexBoxes(near.map(({ box }) => box));
      return [id, { itemsAt: (x, y) => (index?.search(x, y, x, y) ?? []).map((i) => near[i].item) }];
    }),
  );
}

function findingOf(prepared: PreparedJob, items: readonly Item[], points: readonly Point[]): Finding {
  const { machine } = prepared;
  const bed = bedBox(machine);
  const told = (point: Point) => toldOnBed(machine, point.x, point.y);
  const beyondX = (point: Point) => Math.max(bed.minX - told(point).x, told(point).x - bed.maxX);
  const beyondY = (point: Point) => Math.max(bed.minY - told(point).y, told(point).y - bed.maxY);
  const beyond = (point: Point) => Math.max(beyondX(point), beyondY(point));
  const furthest = points.reduce((worst, point) => (beyond(point) > beyond(worst) ? point : worst));
  const { x, y } = toMachine(machine, told(furthest).x, told(furthest).y);
  const reached = beyondX(furthest) >= beyondY(furthest) ? `X ${said(x)} mm` : `Y ${said(y)} mm`;
  const what = items.length > 0 ? ` on ${countOf(items.length, 'outline', 'outlines')}` : '';
  const isOnBed = boxContains(bed, boxOf(furthest.x, furthest.y, 0, 0));
  const why = isOnBed
    ? ' Its axes run short there: they are taken back as they were measured.'
    : items.length > 0
      ? ' Half the kerf lies outside of what is drawn.'
      : '';
  const message = `The beam would go to ${reached}${what}, off the bed: ${machine.name} would stop with an alarm in mid-job.${why}`;
  const places = points.slice(0, mostPlaces).map((point) => growBox(boxOf(point.x, point.y, 0, 0), 1));
  const room = growBox(bed, -beyond(furthest));
  const mend = movedInto(prepared, items, room, (mm) => `Move in by ${mm.toFixed(2)} mm`);
  return withMends(finding('beam-off-bed', 'blocks', message, items, null, places), mend);
}

/** A number with a minus sign as it is set in print. */
function said(mm: number): string {
  return mm.toFixed(2).replace('-', '−');
}

/** Where on its bed a machine believes to be that is told to go to a place, in bed mm. */
function toldOnBed(machine: Machine, x: number, y: number): Point {
  if (!machine.axes) return { x, y };
  const told = toldPlace(machine, toMachine(machine, x, y));
  return fromMachine(machine, told.x, told.y);
}
