import { type Item, pathOf, polylinesOf } from '../document/item.ts';
import type { StartPoint } from '../document/job.ts';
import { fineLinesOf } from '../fit/kerf.ts';
import type { Point } from '../geometry/paths/matrix.ts';
import type { Progress } from '../geometry/paths/progress.ts';
import { pointAt, subpathsOf } from '../geometry/paths/segments.ts';
import type { LayerSettings } from '../settings/settings.ts';
import type { MoveList } from './moves.ts';
import { type BurnLine, burnLines } from './order.ts';
import type { PreparedJob, PreparedLayer } from './prepare.ts';

/** Which of a layer's lines a step burns: all, or of a cut those that lie in others, or the rest. */
export type StepPart = 'all' | 'inner' | 'outer';

/** A step before it is moves: what it burns, and how its moves are made. */
export interface StepDraft {
  /** By which the operator's order names it: its layer, and which part of that. */
  readonly id: string;
  readonly layer: PreparedLayer;
  readonly settings: LayerSettings;
  readonly part: StepPart;
  /** Makes the moves, and tells how many of them are made. @returns the lines in the order they burn, and whether a run-up was cut short */
  readonly fill: (
    list: MoveList,
    progress?: Progress,
  ) => { readonly burnt: readonly BurnLine[]; readonly runUpShort: boolean };
}

/** A layer that burns, and what it burns with. */
export interface Burning {
  readonly layer: PreparedLayer;
  readonly settings: LayerSettings;
}

/** A step that burns lines, by how deep they lie in others. @param nth which of several steps of this part of the layer */
export function lineStep(
  { job }: PreparedJob,
  { layer, settings }: Burning,
  part: StepPart,
  byDepth: readonly (readonly BurnLine[])[],
  nth = 0,
): StepDraft {
  const how = { ...layer.burning, settings, numbered: job.numbered };
  return {
    id: `${layer.id} ${part}${nth > 0 ? ` ${nth + 1}` : ''}`,
    layer,
    settings,
    part,
    fill: (list, progress) => ({ burnt: burnLines(list, byDepth, how, progress), runUpShort: false }),
  };
}

/** Every line of what a layer burns, in drawing order: finer for machines that take arcs, which then lie closer to curves. */
export function linesOf({ job, machine }: PreparedJob, { placed }: PreparedLayer): BurnLine[] {
  const linesIn = machine.arcsWithin === undefined ? polylinesOf : fineLinesOf;
  return placed.flatMap(({ item }, place) => {
    const starts = job.starts.filter(({ itemId }) => itemId === item.id);
    return linesIn(item).map((line, i) => ({
      item,
      line,
      nth: i,
      place,
      start: startNode(item, line.points, starts, i),
    }));
  });
}

/** The node of a flattened outline that is nearest to where it was told to start. */
function startNode(item: Item, points: Float64Array, starts: readonly StartPoint[], outline: number): number | null {
  const start = starts.find(({ subpath }) => subpath === outline);
  const segments = start && [...subpathsOf(pathOf(item))][start.subpath]?.segments;
  if (!start || !segments) return null;
  const i = Math.min(Math.floor(start.at), segments.length - 1);
  return nearestNode(points, pointAt(segments[i], Math.min(1, start.at - i)));
}

/** The node of a flattened outline that is nearest to a place, counted from 0; coordinates are x and y in turn. */
export function nearestNode(points: Float64Array, { x, y }: Point): number {
  let best = 0;
  for (let k = 0; k < points.length; k += 2) {
    if (Math.hypot(points[k] - x, points[k + 1] - y) < Math.hypot(points[best] - x, points[best + 1] - y)) best = k;
  }
  return best / 2;
}
