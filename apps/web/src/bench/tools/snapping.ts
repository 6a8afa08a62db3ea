import { sheetBox, sheetSafeBox } from '@lambent/core/document';
import { boxOf, type Point } from '@lambent/core/geometry';
import { type Snap, type SnapField, type SnapKind, snapPoint } from '@lambent/core/picking';
import type { BenchActions, BenchState } from '../state/bench-state.ts';
import { jobOf, machineOf } from '../state/document.ts';
import type { Tool } from './tool.ts';

const reachPx = 9;
const none: ReadonlySet<string> = new Set();
const gridAlone: ReadonlySet<SnapKind> = new Set(['grid']);

/** What there is to be caught by, but for some items. */
export function snapField(state: BenchState, skip: ReadonlySet<string> = none): SnapField {
  const { bedWidth, bedHeight } = machineOf(state);
  const { drawing, sheets, guides, mark } = jobOf(state);
  const { mode, kinds, gridMm } = state.snapping;
  const boxes = [boxOf(0, 0, bedWidth, bedHeight)];
  for (const sheet of sheets) boxes.push(sheetBox(sheet), sheetSafeBox(sheet));
  if (mark) boxes.push(boxOf(mark.x, mark.y, 0, 0));
  return { drawing, skip, boxes, guides, gridMm, kinds: mode === 'grid' ? gridAlone : kinds };
}

/** How far the pointer catches, in bed mm. */
export function snapReach({ view }: BenchState): number {
  return reachPx / view.scale;
}

/** Where a tool's point is caught; null where it is not, or nothing is to catch it. */
export function caught(actions: BenchActions, tool: Tool, free: Point, suspended: boolean): Snap | null {
  const state = actions.get();
  if (!tool.snaps || state.snapping.mode === 'none' || suspended) return null;
  const skip = tool.name === 'points' ? state.selection : none;
  return snapPoint(snapField(state, skip), free, snapReach(state), tool.from);
}

const steps = [0.01, 0.05, 0.1, 0.5, 1, 5];

/** A point rounded to what the view can show, so that what is drawn freely has plain numbers. */
export function rounded({ x, y }: Point, scale: number): Point {
  const step = steps.find((mm) => mm * scale >= 0.5) ?? 5;
  const to = (value: number) => Math.round(Math.round(value / step) * step * 1000) / 1000;
  return { x: to(x), y: to(y) };
}
