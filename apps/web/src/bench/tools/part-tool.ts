import { type Path, PathBuilder, type Point } from '@lambent/core/geometry';
import type { BenchActions } from '../state/bench-state.ts';
import { PickTool } from './pick-tool.ts';
import type { Tool, ToolPoint } from './tool.ts';

/** How a part of something is shown with the pointer. */
export type PartWay = 'box' | 'circle' | 'lasso' | 'rub';

/** What is told of the part that is being shown: points on the bed in mm. */
export interface PartTaker {
  /**
   * While it is shown; null when nothing is. Of what is rubbed, the middles of the round eraser; of a circle, its middle
   * and a point on it.
   */
  readonly sketch: (points: readonly Point[] | null) => void;
  readonly take: (points: readonly Point[]) => void;
}

/** So many points show a part at least. */
const fewestPoints: Readonly<Record<PartWay, number>> = { box: 3, circle: 2, lasso: 3, rub: 1 };

/** Points nearer than this on the screen are one. */
const nearPx = 2;

/** Shows a part with the pointer: a box, a circle from its middle, a lasso, or the way of a round eraser, which stays at hand. */
export class PartTool implements Tool {
  readonly name = 'place';
  readonly snaps = false;
  readonly from = null;
  private points: Point[] | null = null;

  constructor(
    private readonly actions: BenchActions,
    readonly words: string,
    private readonly way: PartWay,
    private readonly taker: PartTaker,
  ) {}

  down({ button, free }: ToolPoint): void {
    if (button !== 0) return;
    this.points = [free];
    this.taker.sketch(this.shown());
  }

  move({ free }: ToolPoint): void {
    const { points } = this;
    if (!points) {
      if (this.way === 'rub') this.taker.sketch([free]);
      return;
    }
    const last = points[points.length - 1];
    if (Math.hypot(last.x - free.x, last.y - free.y) * this.actions.get().view.scale < nearPx) return;
    if (this.way === 'box' || this.way === 'circle') this.points = [points[0], free];
    else points.push(free);
    this.taker.sketch(this.shown());
  }

  up(): void {
    const shown = this.shown();
    this.points = null;
    this.taker.sketch(null);
    // A press without a way shows no part, but rubs.
    if (shown.length < fewestPoints[this.way]) return;
    if (this.way !== 'rub') this.actions.takeTool(new PickTool(this.actions));
    this.taker.take(shown);
  }

  cancel(): boolean {
    const was = this.points !== null;
    this.points = null;
    this.taker.sketch(null);
    return was;
  }

  private shown(): Point[] {
    const points = this.points ?? [];
    if (this.way !== 'box' || points.length < 2) return points;
    const [a, b] = points;
    return [a, { x: b.x, y: a.y }, b, { x: a.x, y: b.y }];
  }
}

/** Takes a tool to hand that shows a part; with *Done* or Esc nothing more is shown. */
export function askForPart(actions: BenchActions, words: string, way: PartWay, taker: PartTaker): void {
  actions.get().tool?.cancel();
  actions.takeTool(new PartTool(actions, words, way, taker));
}

/** The closed outline through points. */
export function outlineThrough(points: readonly Point[]): Path {
  const builder = new PathBuilder();
  for (const [i, { x, y }] of points.entries()) {
    if (i === 0) builder.moveTo(x, y);
    else builder.lineTo(x, y);
  }
  return builder.close().build();
}
