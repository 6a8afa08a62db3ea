import { fillsAreas, operationOf } from '@lambent/core/operations';
import { type BurnPlan, Move, type PlanStep } from '@lambent/core/plan';
import type { View } from './view.ts';

/** The moves of a plan one after the other, with the time at which each ends. */
interface Timeline {
  readonly ends: Float64Array;
  readonly xs: Float64Array;
  readonly ys: Float64Array;
  readonly kinds: Uint8Array;
  readonly steps: readonly PlanStep[];
  /** The index of each step's first move. */
  readonly firsts: readonly number[];
}

const timelines = new WeakMap<BurnPlan, Timeline>();

/** When each move of a plan ends and where, so that the bed at any second is found by bisection. */
export function timelineOf(plan: BurnPlan): Timeline {
  let timeline = timelines.get(plan);
  if (timeline) return timeline;
  const count = plan.steps.reduce((sum, step) => sum + step.moves.kinds.length, 0);
  const ends = new Float64Array(count);
  const xs = new Float64Array(count);
  const ys = new Float64Array(count);
  const kinds = new Uint8Array(count);
  const firsts: number[] = [];
  let index = 0;
  let time = 0;
  for (const { moves, durations } of plan.steps) {
    firsts.push(index);
    xs.set(moves.xs, index);
    ys.set(moves.ys, index);
    kinds.set(moves.kinds, index);
    for (const duration of durations) {
      time += duration;
      ends[index++] = time;
    }
  }
  timeline = { ends, xs, ys, kinds, steps: plan.steps, firsts };
  timelines.set(plan, timeline);
  return timeline;
}

/** The index of the first move that ends after `time`. */
function moveAt({ ends }: Timeline, time: number): number {
  let low = 0;
  let high = ends.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (ends[middle] <= time) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Where the head is at a time of the plan, in bed mm. */
export function headAt(plan: BurnPlan, time: number): { x: number; y: number } | null {
  const timeline = timelineOf(plan);
  const { ends, xs, ys } = timeline;
  if (ends.length === 0) return null;
  const i = Math.min(moveAt(timeline, time), ends.length - 1);
  if (i === 0) return { x: xs[0], y: ys[0] };
  const share = Math.min(1, Math.max(0, (time - ends[i - 1]) / (ends[i] - ends[i - 1] || 1)));
  return { x: xs[i - 1] + (xs[i] - xs[i - 1]) * share, y: ys[i - 1] + (ys[i] - ys[i - 1]) * share };
}

/**
 * Paints what is burnt up to a time of the plan, on a canvas of its own. As time goes on it adds what is new; another
 * view, another plan or going back starts it afresh.
 */
export class BurnPainter {
  private readonly canvas = document.createElement('canvas');
  private plan: BurnPlan | null = null;
  private view: View | null = null;
  private painted = 0;

  paint(plan: BurnPlan, time: number, view: View, width: number, height: number, ratio: number): HTMLCanvasElement {
    const { canvas } = this;
    const timeline = timelineOf(plan);
    const until = moveAt(timeline, time);
    const resized = canvas.width !== Math.round(width * ratio) || canvas.height !== Math.round(height * ratio);
    if (plan !== this.plan || view !== this.view || resized || until < this.painted) {
      canvas.width = Math.round(width * ratio);
      canvas.height = Math.round(height * ratio);
      this.painted = 0;
      this.plan = plan;
      this.view = view;
    }
    const context = canvas.getContext('2d');
    if (context && until > this.painted) {
      context.setTransform(view.scale * ratio, 0, 0, view.scale * ratio, view.x * ratio, view.y * ratio);
      this.addMoves(context, timeline, until, view);
      this.painted = until;
    }
    return canvas;
  }

  private addMoves(context: CanvasRenderingContext2D, timeline: Timeline, until: number, view: View): void {
    const { xs, ys, kinds, steps, firsts } = timeline;
    steps.forEach((step, s) => {
      const from = Math.max(this.painted, firsts[s]);
      const to = Math.min(until, firsts[s] + step.moves.kinds.length);
      if (from >= to) return;
      const lit = new Path2D();
      const unlit = new Path2D();
      for (let i = from; i < to; i++) {
        const path =
          kinds[i] === Move.lit ? lit : kinds[i] === Move.travel && !fillsAreas(step.operation) ? unlit : null;
        if (!path) continue;
        path.moveTo(i > 0 ? xs[i - 1] : xs[i], i > 0 ? ys[i - 1] : ys[i]);
        path.lineTo(xs[i], ys[i]);
      }
      context.lineWidth = 0.7 / view.scale;
      context.strokeStyle = 'rgb(30 42 46 / 0.3)';
      context.stroke(unlit);
      context.lineWidth = fillsAreas(step.operation)
        ? Math.max(step.settings.lineSpacingMm, 0.6 / view.scale)
        : 1.8 / view.scale;
      context.strokeStyle = operationOf(step.operation).colour;
      context.stroke(lit);
    });
  }
}
