import { fitPoints, type Path, PathBuilder } from '@lambent/core/geometry';
import { t } from '../../words/words.ts';
import type { BenchActions } from '../state/bench-state.ts';
import { addShape } from './draw.ts';
import type { Tool, ToolPoint } from './tool.ts';

/** Draws the way of the pointer, smoothed into curves; back at the start it closes. */
export class FreehandTool implements Tool {
  readonly name = 'freehand';
  readonly snaps = false;
  readonly from = null;
  private points: number[] | null = null;

  constructor(private readonly actions: BenchActions) {}

  down({ button, free }: ToolPoint): void {
    if (button === 0) this.points = [free.x, free.y];
  }

  move({ free }: ToolPoint): void {
    const { points } = this;
    if (!points) return;
    const last = points.length - 2;
    if (Math.hypot(points[last] - free.x, points[last + 1] - free.y) * this.actions.get().view.scale < 2) return;
    points.push(free.x, free.y);
    this.actions.showDraft({ outline: raw(points), at: free });
  }

  up(): void {
    const { points, actions } = this;
    this.cancel();
    if (!points || points.length < 6) return;
    const { view, toolOptions } = actions.get();
    const last = points.length - 2;
    const closed = Math.hypot(points[last] - points[0], points[last + 1] - points[1]) * view.scale < 10;
    const path = fitPoints(Float64Array.from(closed ? points.slice(0, -2) : points), closed, toolOptions.smoothing);
    addShape(actions, { kind: 'path', path }, t('freehand line'));
  }

  cancel(): boolean {
    const was = this.points !== null;
    this.points = null;
    this.actions.showDraft(null);
    return was;
  }
}

function raw(points: readonly number[]): Path {
  const builder = new PathBuilder();
  for (let i = 0; i < points.length; i += 2) {
    if (i === 0) builder.moveTo(points[0], points[1]);
    else builder.lineTo(points[i], points[i + 1]);
  }
  return builder.build();
}
