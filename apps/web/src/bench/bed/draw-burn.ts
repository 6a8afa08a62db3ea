import { fillsAreas } from '@lambent/core/operations';
import { type BurnPlan, Move, type PlanStep } from '@lambent/core/plan';
import type { BurnShares } from '@lambent/core/recipes';
import { BurntPixels, type BurntState, keptBytes } from '../burnt/burnt-pixels.ts';
import { guessedKerf } from './draw-gaps.ts';
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

/** From bed mm to the pixels of a canvas. */
interface Frame {
  readonly scale: number;
  readonly x: number;
  readonly y: number;
  /** Pixels of the canvas to one of the screen. */
  readonly ratio: number;
}

/**
 * Paints the stock as it is at a time of the plan: burnt so far by what the book says of its material, and the ways of
 * the head between. As time goes on it adds what is new, and keeps how it was from time to time, to go back to; another view or
 * another plan starts it afresh.
 */
export class BurnPainter {
  private readonly stock = document.createElement('canvas');
  private readonly ways = document.createElement('canvas');
  private pixels = new BurntPixels(1, 1);
  private plan: BurnPlan | null = null;
  private view: View | null = null;
  private painted = 0;
  private readonly kept: KeptStock[] = [];

  /** @param sharesOf what a lit move of a step does to its stock @returns canvases, one over the other */
  paint(
    plan: BurnPlan,
    time: number,
    sharesOf: (step: PlanStep) => BurnShares,
    view: View,
    size: { readonly width: number; readonly height: number; readonly ratio: number },
  ): HTMLCanvasElement[] {
    const { stock, ways } = this;
    const timeline = timelineOf(plan);
    const until = moveAt(timeline, time);
    const [width, height] = [Math.round(size.width * size.ratio), Math.round(size.height * size.ratio)];
    const isResized = this.pixels.width !== width || this.pixels.height !== height;
    if (plan !== this.plan || view !== this.view || isResized) {
      // A canvas that is given a size is empty.
      for (const canvas of [stock, ways]) Object.assign(canvas, { width, height });
      this.pixels = new BurntPixels(width, height);
      this.painted = 0;
      this.kept.length = 0;
      this.plan = plan;
      this.view = view;
    }
    if (until < this.painted) this.goBack(until);
    const frame = { scale: view.scale * size.ratio, x: view.x * size.ratio, y: view.y * size.ratio, ratio: size.ratio };
    while (this.painted < until) {
      const next = Math.min(until, this.nextMark(timeline.ends.length, width * height));
      this.goOn(timeline, next, sharesOf, frame);
      this.painted = next;
      if (next < until) this.keep();
    }
    const context = stock.getContext('2d');
    this.pixels.flush((part, x, y) => context?.putImageData(part, x, y));
    return [stock, ways];
  }

  /** After which move the stock is kept next: as often as there is memory for it. */
  private nextMark(moves: number, pixels: number): number {
    const marks = Math.min(mostKept, Math.floor(keptMemory / (keptBytes * pixels)));
    const apart = Math.max(leastApart, Math.ceil(moves / (marks + 1)));
    return (Math.floor(this.painted / apart) + 1) * apart;
  }

  private keep(): void {
    const { ways, painted } = this;
    if ((this.kept.at(-1)?.painted ?? 0) >= painted) return;
    const copy = Object.assign(document.createElement('canvas'), { width: ways.width, height: ways.height });
    copy.getContext('2d')?.drawImage(ways, 0, 0);
    this.kept.push({ painted, pixels: this.pixels.kept(), ways: copy });
  }

  /** Goes back to what was kept last before a move, or to the beginning. */
  private goBack(until: number): void {
    const { ways } = this;
    const from = this.kept.findLast(({ painted }) => painted <= until);
    Object.assign(ways, { width: ways.width });
    if (from) {
      ways.getContext('2d')?.drawImage(from.ways, 0, 0);
      this.pixels.comeBack(from.pixels);
    } else {
      this.stock.width = ways.width;
      this.pixels = new BurntPixels(ways.width, ways.height);
    }
    this.painted = from?.painted ?? 0;
  }

  private goOn(timeline: Timeline, until: number, sharesOf: (step: PlanStep) => BurnShares, frame: Frame): void {
    const context = this.ways.getContext('2d');
    timeline.steps.forEach((step, s) => {
      const from = Math.max(this.painted, timeline.firsts[s]);
      const to = Math.min(until, timeline.firsts[s] + step.moves.kinds.length);
      if (from >= to) return;
      burn(this.pixels, timeline, s, from, to, sharesOf(step), frame);
      if (!fillsAreas(step.operation)) addWays(context, timeline, from, to, frame);
    });
  }
}

/** The stock as it was after so many moves. */
interface KeptStock {
  readonly painted: number;
  readonly pixels: BurntState;
  readonly ways: HTMLCanvasElement;
}

/** It is kept so often on the way through a plan at most, in so many bytes, and not after fewer moves than this. */
const mostKept = 24;
const keptMemory = 160e6;
const leastApart = 2000;

/** Burns moves of a step into the stock. */
function burn(
  pixels: BurntPixels,
  { xs, ys, kinds, steps, firsts }: Timeline,
  s: number,
  from: number,
  to: number,
  shares: BurnShares,
  { scale, x, y }: Frame,
): void {
  const { operation, settings, moves } = steps[s];
  const isArea = fillsAreas(operation);
  const wide = scale * (isArea ? settings.lineSpacingMm : settings.kerfMm || guessedKerf);
  for (let i = Math.max(1, from); i < to; i++) {
    if (kinds[i] !== Move.lit) continue;
    const power = moves.powers ? moves.powers[i - firsts[s]] : 1;
    const given = power === 1 ? shares : { through: shares.through * power, dark: shares.dark * power };
    const [x0, y0] = [xs[i - 1] * scale + x, ys[i - 1] * scale + y];
    const [x1, y1] = [xs[i] * scale + x, ys[i] * scale + y];
    if (isArea) pixels.row(x0, y0, x1, y1, wide, given);
    else pixels.line(x0, y0, x1, y1, wide, given);
  }
}

/** Draws where the head goes from one line to the next. */
function addWays(
  context: CanvasRenderingContext2D | null,
  { xs, ys, kinds }: Timeline,
  from: number,
  to: number,
  { scale, x, y, ratio }: Frame,
): void {
  if (!context) return;
  const unlit = new Path2D();
  for (let i = from; i < to; i++) {
    if (kinds[i] !== Move.travel) continue;
    unlit.moveTo(i > 0 ? xs[i - 1] : xs[i], i > 0 ? ys[i - 1] : ys[i]);
    unlit.lineTo(xs[i], ys[i]);
  }
  context.setTransform(scale, 0, 0, scale, x, y);
  context.lineWidth = (0.7 * ratio) / scale;
  context.strokeStyle = 'rgb(30 42 46 / 0.3)';
  context.stroke(unlit);
}
