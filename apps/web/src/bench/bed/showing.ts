import { sheetBox } from '@lambent/core/document';
import { type Box, growBox, isEmpty, uniteBoxes } from '@lambent/core/geometry';
import { bedBox } from '@lambent/core/machine';
import type { BenchActions } from '../state/bench-state.ts';
import { jobOf, machineOf } from '../state/document.ts';
import { selectionBox } from '../state/hand.ts';
import { viewOf } from './view.ts';

/** Shows the whole bed. */
export function showBed(actions: BenchActions): void {
  const state = actions.get();
  const { width, height } = state.viewSize;
  actions.showView(viewOf(bedBox(machineOf(state)), width, height));
}

/** Shows the whole bed, and the sheets that are drawn beside it. */
export function showSheets(actions: BenchActions): void {
  const state = actions.get();
  const { width, height } = state.viewSize;
  const boxes = jobOf(state).sheets.map(sheetBox);
  actions.showView(viewOf([bedBox(machineOf(state)), ...boxes].reduce(uniteBoxes), width, height));
}

/** Shows the selection as large as it fits; the whole bed when nothing is selected. */
export function showSelection(actions: BenchActions): void {
  const state = actions.get();
  const bounds = selectionBox(state);
  const { width, height } = state.viewSize;
  if (isEmpty(bounds)) showBed(actions);
  else actions.showView(viewOf(bounds, width, height, 80));
}

/** Selects items, and shows them as large as they fit. */
export function showItems(actions: BenchActions, ids: readonly string[]): void {
  actions.select(ids);
  showSelection(actions);
}

/** Shows a place of the bed with some of what is around it. */
export function showPlace(actions: BenchActions, place: Box): void {
  const { width, height } = actions.get().viewSize;
  actions.showView(viewOf(growBox(place, 2), width, height, 80));
}
