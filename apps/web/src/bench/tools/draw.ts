import { drawnPaint } from '@lambent/core/colours';
import { type Item, outlineOf, polylinesOf, type Shape } from '@lambent/core/document';
import { addItems } from '@lambent/core/edits';
import { distanceToLines, type Path, type Point } from '@lambent/core/geometry';
import type { Operation } from '@lambent/core/operations';
import { itemAt } from '@lambent/core/picking';
import { t } from '../../words/words.ts';
import { newId } from '../new-id.ts';
import type { BenchActions } from '../state/bench-state.ts';
import { jobOf } from '../state/document.ts';
import { otherFillingsIn } from '../state/fillings.ts';
import { reachOnBed } from '../state/hand.ts';

/** An item as it is drawn here, painted so that the job's key gives it the operation. */
export function drawnItem(actions: BenchActions, shape: Shape, operation: Operation, name: string | null = null): Item {
  return {
    id: newId(),
    name,
    shape,
    matrix: [1, 0, 0, 1, 0, 0],
    ...drawnPaint(actions.get().prepared.key, operation),
    fillRule: 'evenodd',
    groupId: null,
    hidden: false,
  };
}

/** Adds a shape to the drawing, and selects it. */
export function addShape(actions: BenchActions, shape: Shape, title: string, operation?: Operation): void {
  const item = drawnItem(actions, shape, operation ?? actions.get().toolOptions.operation);
  actions.edit(t('draw a {{title}}', { title }), (job) => addItems(job, [item]));
  actions.select([item.id]);
}

/** The outline of what is being drawn; null where nothing is yet. */
export function outlineOfShape(shape: Shape | null): Path | null {
  return shape && outlineOf(shape);
}

/** Whether the pointer went far enough from where it was pressed to be a drag. */
export function isDrag(a: { x: number; y: number }, b: { x: number; y: number }): boolean {
  return Math.hypot(a.x - b.x, a.y - b.y) >= 3;
}

/**
 * The item under a point of the bed, within some pixels.
 * @param part 'line' where it is to be its line that lies there, and not only its inside.
 */
export function itemUnder(
  actions: BenchActions,
  { x, y }: Point,
  reachPx: number,
  part: 'line' | 'anywhere' = 'anywhere',
): Item | null {
  const state = actions.get();
  const reach = reachOnBed(state, reachPx);
  const item = itemAt(jobOf(state).drawing, x, y, reach, otherFillingsIn(state.prepared));
  const isThere = item && (part === 'anywhere' || distanceToLines(polylinesOf(item), x, y) <= reach);
  return isThere ? item : null;
}
