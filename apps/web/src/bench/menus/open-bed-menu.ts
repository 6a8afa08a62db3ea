import { isEmpty, type Point } from '@lambent/core/geometry';
import { companionsOf } from '@lambent/core/picking';
import type { PlanStep, PreparedLayer } from '@lambent/core/plan';
import type { MouseEvent } from 'react';
import { toast } from 'sonner';
import { sentenceOf } from '../../api.ts';
import { menuPlace, openContextMenu } from '../../ui/context-menu-place.ts';
import { ruler, toBed, toScreen } from '../bed/view.ts';
import type { BenchActions } from '../state/bench-state.ts';
import { jobOf } from '../state/document.ts';
import { selectionBox } from '../state/hand.ts';
import { itemUnder } from '../tools/draw.ts';
import type { Menu } from './bed-menu.ts';

const reachPx = 6;

/**
 * Opens the menu of the bed. What lies there is selected, as a click would, unless it is already.
 * @param screen where, in pixels of the view; null for the selection, or the middle of what is seen
 */
export function openBedMenu(actions: BenchActions, screen: Point | null): void {
  const { view } = actions.get();
  const point = screen && toBed(view, screen.x, screen.y);
  if (point) selectUnder(actions, point);
  const { x, y } = screen ?? middleOfSelection(actions);
  const bed = document.getElementById('bed')?.getBoundingClientRect();
  const [left, top] = [(bed?.left ?? 0) + ruler, (bed?.top ?? 0) + ruler];
  open({ x: left + x, y: top + y }, async () => (await import('./bed-menu.ts')).bedMenu(actions, point));
}

function selectUnder(actions: BenchActions, point: Point): void {
  const hit = itemUnder(actions, point, reachPx);
  const { selection, openGroup } = actions.get();
  if (!hit) actions.select([]);
  else if (!selection.has(hit.id)) {
    actions.select(companionsOf(jobOf(actions.get()).drawing, hit, openGroup).map(({ id }) => id));
  }
}

function middleOfSelection(actions: BenchActions): Point {
  const state = actions.get();
  const box = selectionBox(state);
  if (isEmpty(box)) return { x: state.viewSize.width / 2, y: state.viewSize.height / 2 };
  return toScreen(state.view, (box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2);
}

/** Opens the menu of a row of a list, which selects what the row is of unless it is already. */
export function openRowMenu(actions: BenchActions, event: MouseEvent, ids: readonly string[]): void {
  event.preventDefault();
  const { selection } = actions.get();
  if (!ids.every((id) => selection.has(id))) actions.select(ids);
  open(menuPlace(event), async () => (await import('./bed-menu.ts')).bedMenu(actions, null));
}

/** Opens the menu of a block of the burn strip. */
export function openStepMenu(actions: BenchActions, event: MouseEvent, step: PlanStep): void {
  event.preventDefault();
  open(menuPlace(event), async () => (await import('./step-menu.ts')).stepMenu(actions, step));
}

/** Opens the menu of a layer that does not burn in this run. */
export function openIdleMenu(actions: BenchActions, event: MouseEvent, layer: PreparedLayer): void {
  event.preventDefault();
  open(menuPlace(event), async () => (await import('./step-menu.ts')).idleMenu(actions, layer));
}

/** Opens a menu whose lines are fetched when one is opened first. */
function open({ x, y }: Point, load: () => Promise<Menu>): void {
  load()
    .then(({ title, parts }) => openContextMenu(x, y, title, parts))
    .catch((error) => toast.error(sentenceOf(error)));
}
