import {
  type Box,
  boundsOfAll,
  boxContains,
  companionsOf,
  isEmpty,
  itemAt,
  itemsWithin,
  moveItems,
  type Point,
  translation,
} from '@lambent/core';
import type { BenchActions } from '../store.ts';
import { jobOf } from '../store.ts';
import { toBed } from './view.ts';

/** What the pointer is at. Screen points are pixels of the view, bed points mm. */
type Doing =
  | { kind: 'nothing' }
  | { kind: 'panning'; last: Point }
  | { kind: 'pressed'; screen: Point; bed: Point; onSelection: boolean }
  | { kind: 'moving'; from: Point }
  | { kind: 'framing'; from: Point; keep: ReadonlySet<string> };

const dragFrom = 3;
const reachPx = 6;

export interface PointerEventLike {
  readonly x: number;
  readonly y: number;
  readonly button: number;
  readonly shift: boolean;
  readonly single: boolean;
  readonly space: boolean;
}

/** Selecting, moving and panning with the pointer: one state at a time, each event leads to the next. */
export class PointerTool {
  private doing: Doing = { kind: 'nothing' };

  constructor(
    private readonly actions: BenchActions,
    private readonly showFrame: (frame: Box | null) => void,
  ) {}

  get panning(): boolean {
    return this.doing.kind === 'panning';
  }

  down(event: PointerEventLike): void {
    const screen = { x: event.x, y: event.y };
    if (event.button === 1 || event.space) {
      this.doing = { kind: 'panning', last: screen };
      return;
    }
    if (event.button !== 0) return;
    const state = this.actions.get();
    const { drawing } = jobOf(state);
    const bed = toBed(state.view, event.x, event.y);
    const hit = itemAt(drawing, bed.x, bed.y, reachPx / state.view.scale);
    if (!hit) {
      const bounds = boundsOfAll(drawing.items.filter((item) => state.selection.has(item.id)));
      const within = !isEmpty(bounds) && boxContains(bounds, { minX: bed.x, minY: bed.y, maxX: bed.x, maxY: bed.y });
      this.doing = { kind: 'pressed', screen, bed, onSelection: within };
      return;
    }
    const ids = (event.single ? [hit] : companionsOf(drawing, hit)).map((item) => item.id);
    const chosen = state.selection.has(hit.id);
    if (event.shift) {
      const next = new Set(state.selection);
      for (const id of ids) chosen ? next.delete(id) : next.add(id);
      this.actions.select(next);
    } else if (!chosen || event.single) {
      this.actions.select(ids);
    }
    this.doing = { kind: 'pressed', screen, bed, onSelection: true };
  }

  move(event: PointerEventLike): void {
    const { doing, actions } = this;
    const state = actions.get();
    const bed = toBed(state.view, event.x, event.y);
    switch (doing.kind) {
      case 'nothing': {
        const { drawing } = jobOf(state);
        const hit = itemAt(drawing, bed.x, bed.y, reachPx / state.view.scale);
        actions.hover(hit ? companionsOf(drawing, hit).map((item) => item.id) : []);
        break;
      }
      case 'panning': {
        const { view } = state;
        actions.set({ view: { ...view, x: view.x + event.x - doing.last.x, y: view.y + event.y - doing.last.y } });
        this.doing = { kind: 'panning', last: { x: event.x, y: event.y } };
        break;
      }
      case 'pressed':
        if (Math.hypot(event.x - doing.screen.x, event.y - doing.screen.y) < dragFrom) return;
        this.doing = doing.onSelection
          ? { kind: 'moving', from: doing.bed }
          : { kind: 'framing', from: doing.bed, keep: event.shift ? state.selection : new Set() };
        this.move(event);
        break;
      case 'moving': {
        const [dx, dy] = this.shift(doing.from, bed, event.shift);
        actions.set({ live: translation(dx, dy) });
        break;
      }
      case 'framing':
        this.showFrame(frameOf(doing.from, bed));
        break;
    }
  }

  up(event: PointerEventLike): void {
    const { doing, actions } = this;
    this.doing = { kind: 'nothing' };
    const state = actions.get();
    const bed = toBed(state.view, event.x, event.y);
    if (doing.kind === 'pressed' && !event.shift) {
      // A click beside everything lets go of the selection, also inside its bounds.
      const { drawing } = jobOf(state);
      if (!itemAt(drawing, bed.x, bed.y, reachPx / state.view.scale)) actions.select([]);
    } else if (doing.kind === 'moving') {
      const [dx, dy] = this.shift(doing.from, bed, event.shift);
      const count = state.selection.size;
      actions.set({ live: null });
      actions.edit(`move ${count} ${count === 1 ? 'item' : 'items'}`, (job) => moveItems(job, state.selection, dx, dy));
    } else if (doing.kind === 'framing') {
      this.showFrame(null);
      const inside = itemsWithin(jobOf(state).drawing, frameOf(doing.from, bed)).map((item) => item.id);
      actions.select([...doing.keep, ...inside]);
    }
  }

  /** Gives up what is under way. @returns whether there was anything */
  cancel(): boolean {
    const was = this.doing.kind;
    this.doing = { kind: 'nothing' };
    this.showFrame(null);
    this.actions.set({ live: null });
    return was === 'moving' || was === 'framing';
  }

  /** How far a drag moves, to 0.01 mm; straight along one axis when constrained. */
  private shift(from: Point, to: Point, constrained: boolean): [dx: number, dy: number] {
    let dx = Math.round((to.x - from.x) * 100) / 100;
    let dy = Math.round((to.y - from.y) * 100) / 100;
    if (constrained) {
      if (Math.abs(dx) > Math.abs(dy)) dy = 0;
      else dx = 0;
    }
    return [dx, dy];
  }
}

function frameOf(a: Point, b: Point): Box {
  return { minX: Math.min(a.x, b.x), minY: Math.min(a.y, b.y), maxX: Math.max(a.x, b.x), maxY: Math.max(a.y, b.y) };
}
