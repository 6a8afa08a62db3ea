import type { Point } from '@lambent/core/geometry';
import type { BenchActions } from '../state/bench-state.ts';
import { DrawnHold, takesHold } from '../tools/drawn-hold.ts';
import { caught, rounded } from '../tools/snapping.ts';
import type { Tool, ToolPoint } from '../tools/tool.ts';
import { toBed, zoomAt } from './view.ts';

/** What a mouse, a pen or a finger did on the bed. */
export interface PointerInput {
  readonly id: number;
  readonly kind: 'mouse' | 'pen' | 'touch';
  /** Pixels of the view. */
  readonly screen: Point;
  readonly button: number;
  readonly shift: boolean;
  readonly ctrl: boolean;
  readonly alt: boolean;
  /** When it was made, in ms: a busy page hears of it later. */
  readonly madeAt: number;
}

/** What the bed does beside what its tool does. */
export interface BedPointing {
  /** Whether the key is held that turns a drag into a move of the view. */
  readonly movesView: () => boolean;
  /** Takes a press before the tool does. @returns whether it took it */
  readonly press: (screen: Point) => boolean;
  /** A finger was held where it is. */
  readonly held: (screen: Point) => void;
}

/** A finger that went further than this, in pixels, does not stay where it is. */
const fingerPx = 7;
/** A finger that stays for so long is held. */
const holdMs = 500;
/** Presses in quick succession are within so many ms and pixels. */
const quickMs = 400;
const quickPx = { finger: 16, 'pen or mouse': 5 };

/** What is under way. */
type Doing =
  | { kind: 'nothing' }
  | { kind: 'tool'; id: number; tool: Tool }
  | { kind: 'view'; id: number; last: Point }
  /** One finger is down, and may yet be a press, a drag, a hold, or the first of two. */
  | { kind: 'finger'; input: PointerInput; timer: ReturnType<typeof setTimeout> }
  /** Two fingers hold the bed, each where it was last. */
  | { kind: 'pinch'; places: ReadonlyMap<number, Point> };

/**
 * Tells apart what pointers do on the bed. A mouse and a pen work with the tool; so does one finger. Two fingers move and
 * zoom the view; what a tool has begun with clicks stays as it is then. A finger that is held asks for the menu.
 */
export class BedPointers {
  private doing: Doing = { kind: 'nothing' };
  private last = { count: 0, madeAt: 0, screen: { x: 0, y: 0 } };

  constructor(
    private readonly actions: BenchActions,
    private readonly pointing: BedPointing,
  ) {}

  down(input: PointerInput): void {
    const { doing, actions } = this;
    const { id, kind, screen, button } = input;
    if (kind === 'touch' && doing.kind === 'finger') {
      clearTimeout(doing.timer);
      const { input: first } = doing;
      this.doing = {
        kind: 'pinch',
        places: new Map([
          [first.id, first.screen],
          [id, screen],
        ]),
      };
      return;
    }
    // A third finger, or a second one while the first draws, changes nothing; a mouse whose button was let go elsewhere does.
    const isSame = (doing.kind === 'tool' || doing.kind === 'view') && doing.id === id;
    if (doing.kind !== 'nothing' && !isSame) return;
    actions.pointWith(kind === 'touch' ? 'finger' : 'pen or mouse');
    if (button === 1 || this.pointing.movesView()) this.doing = { kind: 'view', id, last: screen };
    else if (kind === 'touch') this.doing = { kind: 'finger', input, timer: setTimeout(() => this.hold(), holdMs) };
    else if (button === 0) this.press(input);
  }

  move(input: PointerInput): void {
    const { doing, actions } = this;
    const { id, screen } = input;
    if (doing.kind === 'view' && doing.id === id) {
      const { view } = actions.get();
      actions.showView({ ...view, x: view.x + screen.x - doing.last.x, y: view.y + screen.y - doing.last.y });
      this.doing = { ...doing, last: screen };
    } else if (doing.kind === 'finger' && doing.input.id === id) {
      if (distance(doing.input.screen, screen) < fingerPx) return;
      clearTimeout(doing.timer);
      this.press(doing.input);
      this.point(input);
    } else if (doing.kind === 'pinch' && doing.places.has(id)) {
      this.pinch(doing.places, id, screen);
    } else if (doing.kind === 'tool' ? doing.id === id : input.kind !== 'touch') {
      this.point(input);
    }
  }

  up(input: PointerInput): void {
    const { doing } = this;
    const { id } = input;
    if (doing.kind === 'finger' && doing.input.id === id) {
      clearTimeout(doing.timer);
      // A tool is told where a finger comes down before it presses, as it is told of a mouse.
      this.point(doing.input);
      this.press(doing.input);
    }
    const { doing: now } = this;
    if (now.kind === 'tool' && now.id === id) {
      this.doing = { kind: 'nothing' };
      now.tool.up(this.toolPoint(input));
      if (input.kind === 'touch') this.leave();
    } else if ((now.kind === 'view' && now.id === id) || (now.kind === 'pinch' && now.places.has(id))) {
      this.doing = { kind: 'nothing' };
    }
  }

  /** The system took a pointer away: what it was at is given up. */
  cancel(id: number): void {
    const { doing } = this;
    if (doing.kind === 'finger') clearTimeout(doing.timer);
    if (doing.kind === 'tool' && doing.id !== id) return;
    this.doing = { kind: 'nothing' };
    if (doing.kind === 'tool') doing.tool.cancel();
  }

  /** The pointer is on the bed no longer. */
  leave(): void {
    this.actions.movePointer(null);
    this.actions.showCaught(null);
    this.actions.hover([]);
  }

  private press(input: PointerInput): void {
    const { screen, id, madeAt } = input;
    this.doing = { kind: 'nothing' };
    if (this.pointing.press(screen)) return;
    const { last } = this;
    const near = quickPx[input.kind === 'touch' ? 'finger' : 'pen or mouse'];
    const isQuick = madeAt - last.madeAt < quickMs && distance(screen, last.screen) < near;
    this.last = { count: isQuick ? last.count + 1 : 1, madeAt, screen };
    const point = this.toolPoint(input);
    const { tool } = this.actions.get();
    if (!tool) return;
    const hand = takesHold(this.actions, point) ? new DrawnHold(this.actions, tool) : tool;
    this.doing = { kind: 'tool', id, tool: hand };
    hand.down(point);
  }

  private point(input: PointerInput): void {
    const { doing, actions } = this;
    const point = this.toolPoint(input);
    (doing.kind === 'tool' ? doing.tool : actions.get().tool)?.move(point);
    if (doing.kind !== 'tool') actions.takeHold(takesHold(actions, point));
    this.actions.movePointer(point.snap ?? point.free);
  }

  private hold(): void {
    const { doing } = this;
    if (doing.kind !== 'finger') return;
    this.doing = { kind: 'nothing' };
    this.pointing.held(doing.input.screen);
  }

  /** Zooms and moves the view so that both fingers stay on the points of the bed that they hold. */
  private pinch(places: ReadonlyMap<number, Point>, id: number, screen: Point): void {
    const { actions } = this;
    const other = [...places].find(([key]) => key !== id)?.[1] ?? screen;
    const before = places.get(id) ?? screen;
    const factor = distance(screen, other) / Math.max(1, distance(before, other));
    const { view } = actions.get();
    const from = middle(before, other);
    const to = middle(screen, other);
    const moved = { ...view, x: view.x + to.x - from.x, y: view.y + to.y - from.y };
    actions.showView(zoomAt(moved, to.x, to.y, factor));
    this.doing = { kind: 'pinch', places: new Map(places).set(id, screen) };
  }

  /** Where the tool's point is: caught by what is near, else rounded. */
  private toolPoint({ screen, button, shift, ctrl, alt }: PointerInput): ToolPoint {
    const { actions } = this;
    const { view, tool } = actions.get();
    const free = toBed(view, screen.x, screen.y);
    const snap = tool && caught(actions, tool, free, alt);
    if (tool?.name !== 'pick') actions.showCaught(snap);
    const bed = snap ?? rounded(free, view.scale);
    return { screen, free, bed, snap, button, shift, ctrl, alt, clicks: this.last.count };
  }
}

function distance(a: Point, b: Point): number {
  return Math.hypot(a.x - b.x, a.y - b.y);
}

function middle(a: Point, b: Point): Point {
  return { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
}
