import { type GuideLine, groupsAround } from '@lambent/core/document';
import { moveItems, thingsAmong } from '@lambent/core/edits';
import {
  type Box,
  boxContains,
  distanceToLines,
  flatten,
  isEmpty,
  type Point,
  transformBox,
  translation,
} from '@lambent/core/geometry';
import { closedGroupOf, companionsOf, evenSpacings, itemsWithin, snapBox } from '@lambent/core/picking';
import { counted } from '../../ui/counted.ts';
import { t } from '../../words/words.ts';
import type { BenchActions, BenchState } from '../state/bench-state.ts';
import { jobOf } from '../state/document.ts';
import { otherFillingsIn } from '../state/fillings.ts';
import { reachOnBed, selectionBox } from '../state/hand.ts';
import { isDrag, itemUnder } from './draw.ts';
import { dropGuide, guideUnder, movedGuide } from './guides.ts';
import { snapField, snapReach } from './snapping.ts';
import { editText } from './text-tool.ts';
import type { Grip, Tool, ToolPoint } from './tool.ts';

/** What the pointer is at. Screen points are pixels of the view, bed points mm. */
type Doing =
  | { kind: 'nothing' }
  /** `alone` is what a press on a larger selection comes to when it is no drag. */
  | { kind: 'pressed'; screen: Point; bed: Point; onSelection: boolean; alone: readonly string[] | null }
  | { kind: 'moving'; from: Point; bounds: Box; others: readonly Box[] }
  | { kind: 'guide'; guide: GuideLine }
  | { kind: 'pulling' }
  | { kind: 'framing'; from: Point; keep: ReadonlySet<string> };

const reachPx = 6;

/** Selects and moves with the pointer: one state at a time, each event leads to the next. */
export class PickTool implements Tool {
  readonly name = 'pick';
  /** Presses are where the pointer is; what is moved is caught by its own points. */
  readonly snaps = false;
  readonly from = null;
  private doing: Doing = { kind: 'nothing' };

  constructor(private readonly actions: BenchActions) {}

  down({ screen, free: bed, button, shift, ctrl, alt, clicks }: ToolPoint): void {
    if (button !== 0) return;
    const state = this.actions.get();
    const { drawing } = jobOf(state);
    if (state.grip && isOnGrip(state, state.grip, bed)) {
      state.grip.grab(bed);
      this.doing = { kind: 'pulling' };
      return;
    }
    const hit = itemUnder(this.actions, bed, reachPx);
    const guide = hit ? null : guideUnder(state, bed);
    if (guide) {
      this.doing = { kind: 'guide', guide };
      return;
    }
    if (!hit) {
      const bounds = selectionBox(state);
      const within = !isEmpty(bounds) && boxContains(bounds, { minX: bed.x, minY: bed.y, maxX: bed.x, maxY: bed.y });
      this.doing = { kind: 'pressed', screen, bed, onSelection: within, alone: null };
      return;
    }
    if (clicks === 2 && hit.shape.kind === 'text') {
      editText(this.actions, hit.id);
      return;
    }
    // A second click opens the group; what is beside the open one closes it.
    const around = groupsAround(drawing, hit);
    const group = closedGroupOf(drawing, hit, state.openGroup);
    let open = around.some(({ id }) => id === state.openGroup) ? state.openGroup : null;
    const opens = clicks === 2 && group !== null;
    if (opens) open = group.id;
    if (open !== state.openGroup) this.actions.openGroup(open);
    const single = ctrl || opens;
    const ids = (ctrl ? [hit] : companionsOf(drawing, hit, open)).map((item) => item.id);
    const chosen = state.selection.has(hit.id);
    if (alt && chosen) {
      // It stays put when the rest is aligned; the same again lets it go.
      this.actions.holdStill(state.stays !== null && ids.includes(state.stays) ? null : hit.id);
    } else if (shift) {
      const next = new Set(state.selection);
      for (const id of ids) chosen ? next.delete(id) : next.add(id);
      this.actions.select(next);
    } else if (!chosen || single) {
      this.actions.select(ids);
    }
    this.doing = { kind: 'pressed', screen, bed, onSelection: true, alone: chosen && !shift && !alt ? ids : null };
  }

  move(point: ToolPoint): void {
    const { doing, actions } = this;
    const { free: bed, screen, shift } = point;
    const state = actions.get();
    switch (doing.kind) {
      case 'nothing': {
        const hit = itemUnder(actions, bed, reachPx);
        const ids = hit ? companionsOf(jobOf(state).drawing, hit, state.openGroup).map(({ id }) => id) : [];
        actions.hover(ids);
        break;
      }
      case 'pressed': {
        if (!isDrag(screen, doing.screen)) return;
        this.doing = doing.onSelection
          ? { kind: 'moving', from: doing.bed, bounds: selectionBox(state), others: othersOf(state) }
          : { kind: 'framing', from: doing.bed, keep: shift ? state.selection : new Set() };
        this.move(point);
        break;
      }
      case 'moving': {
        const [dx, dy] = this.shift(doing.from, doing.bounds, doing.others, point);
        actions.showLive(translation(dx, dy));
        break;
      }
      case 'pulling':
        state.grip?.pull(bed);
        break;
      case 'guide':
        actions.showGuide(movedGuide(state, doing.guide, point));
        break;
      case 'framing':
        actions.showFrame(frameOf(doing.from, bed));
        break;
    }
  }

  up(point: ToolPoint): void {
    const { doing, actions } = this;
    this.doing = { kind: 'nothing' };
    const state = actions.get();
    const bed = point.free;
    if (doing.kind === 'pressed' && !point.shift) {
      // A click beside everything lets go of the selection, also inside its bounds; one on a piece of it, of the rest.
      if (!itemUnder(actions, bed, reachPx)) {
        actions.select([]);
        actions.openGroup(null);
      } else if (doing.alone && doing.alone.length < state.selection.size) actions.select(doing.alone);
    } else if (doing.kind === 'moving') {
      const [dx, dy] = this.shift(doing.from, doing.bounds, doing.others, point);
      actions.endDrag();
      actions.rememberMove(dx, dy);
      actions.edit(t('move {{items}}', { items: counted(state.selection.size, 'item') }), (job) =>
        moveItems(job, state.selection, dx, dy),
      );
    } else if (doing.kind === 'guide') {
      dropGuide(actions);
    } else if (doing.kind === 'framing') {
      actions.endDrag();
      const within = frameOf(doing.from, bed);
      const inside = itemsWithin(jobOf(state).drawing, within, otherFillingsIn(state.prepared)).map(({ id }) => id);
      actions.select([...doing.keep, ...inside]);
    }
  }

  cancel(): boolean {
    const was = this.doing.kind;
    this.doing = { kind: 'nothing' };
    this.actions.endDrag();
    return was === 'moving' || was === 'framing' || was === 'guide';
  }

  /**
   * How far a drag moves: to where the selection is caught, by what is near or by gaps that come out alike, else to
   * 0.01 mm; straight along one axis when constrained.
   */
  private shift(
    from: Point,
    bounds: Box,
    others: readonly Box[],
    { free: to, shift, alt }: ToolPoint,
  ): [dx: number, dy: number] {
    const state = this.actions.get();
    let dx = Math.round((to.x - from.x) * 100) / 100;
    let dy = Math.round((to.y - from.y) * 100) / 100;
    if (shift) {
      if (Math.abs(dx) > Math.abs(dy)) dy = 0;
      else dx = 0;
    }
    const catches = state.snapping.mode !== 'none' && !alt && !isEmpty(bounds);
    const moved = transformBox(bounds, translation(dx, dy));
    const found = catches ? snapBox(snapField(state, state.selection), moved, null, snapReach(state)) : null;
    const fits = found && !(shift && ((dx === 0 && found.dx !== 0) || (dy === 0 && found.dy !== 0)));
    // Points and edges beat gaps.
    const gaps =
      catches && !fits && state.snapping.mode === 'all' && state.snapping.kinds.has('spacing')
        ? evenSpacings(moved, others, snapReach(state)).filter(({ axis }) => !shift || (axis === 'x' ? dx : dy) !== 0)
        : [];
    this.actions.showCaught(fits ? found.snap : null, gaps);
    if (fits) return [dx + found.dx, dy + found.dy];
    const gapAlong = (axis: 'x' | 'y') => gaps.find((gap) => gap.axis === axis)?.by ?? 0;
    return [dx + gapAlong('x'), dy + gapAlong('y')];
  }
}

/** Whether a grip is had at a point of the bed: by what it says, or on the outline that is shown before it is made. */
function isOnGrip(state: BenchState, grip: Grip, { x, y }: Point): boolean {
  const { draft } = state;
  const reach = reachOnBed(state, reachPx);
  if (grip.reaches) return grip.reaches({ x, y }, reach);
  return draft?.outline ? distanceToLines(flatten(draft.outline, reach / 4), x, y) <= reach : false;
}

/** The boxes of the things that are not selected. */
function othersOf(state: BenchState): Box[] {
  const { drawing } = jobOf(state);
  const rest = new Set(
    drawing.items.filter((item) => !item.hidden && !state.selection.has(item.id)).map((item) => item.id),
  );
  return thingsAmong(drawing, rest).map(({ bounds }) => bounds);
}

function frameOf(a: Point, b: Point): Box {
  return { minX: Math.min(a.x, b.x), minY: Math.min(a.y, b.y), maxX: Math.max(a.x, b.x), maxY: Math.max(a.y, b.y) };
}
