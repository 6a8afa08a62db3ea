import { polylinesOf } from '../document/item.ts';
import type { Box } from '../geometry/paths/box.ts';
import type { Point } from '../geometry/paths/matrix.ts';
import { type Progress, partOf } from '../geometry/paths/progress.ts';
import { restingFocus, restingPlace } from '../machine/frame.ts';
import { bedBox, lineTo, type Machine } from '../machine/machine.ts';
import { type Operation, operationOf, separates } from '../operations/operations.ts';
import type { LayerSettings } from '../settings/settings.ts';
import { withArcs } from './arcs.ts';
import { type TimedPart, timeMoves } from './motion.ts';
import { Move, MoveList, type Moves } from './moves.ts';
import type { BurnLine } from './order.ts';
import { type OutOfOrder, outOfOrder } from './out-of-order.ts';
import type { PreparedJob } from './prepare.ts';
import { type Burning, charactersOf, lengthsOf, unlitBurning, wordsOfProgram } from './program-words.ts';
import type { StepDraft, StepPart } from './step-draft.ts';
import { draftSteps, inOperatorsOrder } from './steps.ts';

export type { StepPart } from './step-draft.ts';

/** One segment of the burn plan, with one setting: what the burn strip shows as one block. */
export interface PlanStep {
  /** By which the operator's order names it. */
  readonly id: string;
  readonly layerId: string;
  /** Of which prepared layer: of several materials, one each. */
  readonly preparedId: string;
  readonly layerName: string;
  readonly operation: Operation;
  readonly part: StepPart;
  readonly settings: LayerSettings;
  readonly moves: Moves;
  /** Seconds each move takes. */
  readonly durations: Float32Array;
  readonly timeS: number;
  /** How far the head burns in this step, all passes together, in mm. */
  readonly litMm: number;
  /** How far it moves unlit, in mm. */
  readonly unlitMm: number;
  /** A run-up had to be cut short at the edge of the bed. */
  readonly runUpShort: boolean;
}

/** Something that was to burn in a prepared layer: its bounds in bed mm. */
export interface Missed {
  readonly preparedId: string;
  readonly box: Box;
  /** How many dots it would have, where those are too many to be worked out. */
  readonly dots?: number;
}

/** When a line is cut through, all its passes done: in seconds from the start of the run. */
export interface CutThrough {
  readonly itemId: string;
  /** Which of its item's lines it is. */
  readonly nth: number;
  readonly atS: number;
}

/** What the machine will do, move by move, from rest at its zero and back to it. */
export interface BurnPlan {
  readonly machine: Machine;
  readonly steps: readonly PlanStep[];
  /** From the end of the last step back to zero. */
  readonly back: Moves;
  readonly backS: number;
  readonly timeS: number;
  readonly travelMm: number;
  /** What was to burn, and of which no move came: too thin for the scan lines, or no longer than nothing. */
  readonly missed: readonly Missed[];
  /** The lines that are cut, in the order they are. */
  readonly cuts: readonly CutThrough[];
  /** What burns after the outline that it lies in was cut: only where the operator ordered it so. */
  readonly outOfOrder: readonly OutOfOrder[];
}

/** The share of planning that goes into what lies in what, and into kerfs. */
const draftedShare = 0.2;
/** The share that goes into routes and scan lines; the rest is timing. */
const filledShare = 0.7;

/** A step whose moves are made. */
interface FinishedStep {
  readonly draft: StepDraft;
  readonly moves: Moves;
  readonly litMm: number;
  readonly unlitMm: number;
  readonly burnt: readonly BurnLine[];
  /** How many moves there are after each of them. */
  readonly lineEnds: readonly number[];
  readonly runUpShort: boolean;
}

/** How a step is called: its operation, its layer's own name where it has one, and what of it. */
export function stepTitle(step: Pick<PlanStep, 'operation' | 'layerName' | 'part'>): string {
  const operation = operationOf(step.operation).name;
  const own = step.layerName === operation ? '' : ` · ${step.layerName}`;
  const part = step.part === 'all' ? '' : step.part === 'inner' ? ' · inside' : ' · outside';
  return operation + own + part;
}

/**
 * Works out what the machine will do in a run: its steps in the operator's order, or else engraving first, then
 * scores, then cuts that lie in others (the innermost first), then the outside edges.
 *
 * @param progress is told how much of the work is done, from 0 to 1; what it throws ends the work
 */
export function planJob(prepared: PreparedJob, progress?: Progress): BurnPlan {
  const { machine, job } = prepared;
  const start = { ...restingPlace(machine), z: restingFocus(machine) };
  const finished: FinishedStep[] = [];
  const missed: Missed[] = [];
  let place: Point & { z?: number } = start;
  const drafts = inOperatorsOrder(draftSteps(prepared), job.order);
  const sizes = drafts.map(({ layer }) => layer.placed.length);
  const all = sizes.reduce((total, size) => total + size, 0);
  let before = 0;
  drafts.forEach((draft, i) => {
    const filled = new MoveList(place);
    const [from, to] = [before / all, (before + sizes[i]) / all].map((share) => draftedShare + share * filledShare);
    before += sizes[i];
    progress?.(from);
    const { burnt, runUpShort } = draft.fill(filled, partOf(progress, from, to));
    missed.push(...filled.missed.map((box) => ({ preparedId: draft.layer.id, box })));
    missed.push(...filled.tooFine.map((fine) => ({ preparedId: draft.layer.id, ...fine })));
    if (filled.litMm === 0) return;
    const { arcsWithin, axes } = machine;
    // Where axes are not true to scale, what is to be a circle is told as an ellipse.
    const isRound = arcsWithin !== undefined && !axes && burnt.length > 0;
    const list = isRound ? withArcs(filled.build(), place, filled.lineEnds, bedBox(machine), arcsWithin) : filled;
    place = { x: list.x, y: list.y, z: list.z };
    const { litMm, unlitMm } = list;
    const { lineEnds } = list;
    finished.push({ draft, moves: list.build(), litMm, unlitMm, burnt, lineEnds, runUpShort });
  });
  progress?.(draftedShare + filledShare);
  const backList = new MoveList(place);
  backList.focus(start.z);
  backList.to(Move.travel, start.x, start.y);
  const back = backList.build();
  const durations = timeMoves(timedParts(machine, finished, back), machine, start);
  const steps = finished.map(
    ({ draft, moves, litMm, unlitMm, runUpShort }, i): PlanStep => ({
      id: draft.id,
      layerId: draft.layer.layer.id,
      preparedId: draft.layer.id,
      layerName: draft.layer.layer.name,
      operation: draft.layer.layer.operation,
      part: draft.part,
      settings: draft.settings,
      moves,
      durations: durations[i],
      timeS: sum(durations[i]),
      litMm,
      unlitMm,
      runUpShort,
    }),
  );
  const backS = sum(durations[steps.length]);
  return {
    machine,
    steps,
    back,
    backS,
    timeS: steps.reduce((total, step) => total + step.timeS, backS),
    travelMm: steps.reduce((total, step) => total + step.unlitMm, backList.unlitMm),
    missed,
    cuts: cutsOf(finished, steps),
    outOfOrder: outOfOrder(finished.map(({ draft, burnt }) => ({ layer: draft.layer, burnt }))),
  };
}

/** When each line is cut through. What shares its edges with others is, as far as is told, when its step is done. */
function cutsOf(finished: readonly FinishedStep[], steps: readonly PlanStep[]): CutThrough[] {
  let before = 0;
  return finished.flatMap(({ draft: { layer }, burnt, lineEnds }, i) => {
    const begins = before;
    const { durations, timeS } = steps[i];
    before += timeS;
    if (!separates(layer.layer.operation)) return [];
    if (layer.burning.sharedEdges !== 'each') {
      return layer.placed.flatMap(({ item }) =>
        polylinesOf(item).map((_, nth): CutThrough => ({ itemId: item.id, nth, atS: before })),
      );
    }
    let [seconds, moves] = [begins, 0];
    return burnt.map(({ item, nth }, k): CutThrough => {
      for (; moves < lineEnds[k]; moves++) seconds += durations[moves];
      return { itemId: item.id, nth, atS: seconds };
    });
  });
}

/** The moves of a plan as they are timed, with the lines that come between them. */
function timedParts(machine: Machine, finished: readonly FinishedStep[], back: Moves): TimedPart[] {
  const words = wordsOfProgram(
    machine,
    finished.map(({ draft }) => draft.settings),
  );
  const isCounted = lineTo(machine).characterS > 0;
  const counted = (moves: Moves, burning: Burning) =>
    isCounted ? { characters: charactersOf(machine, moves, burning) } : {};
  const parts = finished.map(({ draft, moves }, i): TimedPart => {
    const { switches, burning } = words.steps[i];
    const before = i === 0 ? [...words.opening, ...switches] : switches;
    const speedMmPerS = draft.settings.speedMmPerS;
    return { moves, speedMmPerS, switches: lengthsOf(before), ...counted(moves, burning) };
  });
  const toRest = { moves: back, speedMmPerS: machine.travelSpeed, switches: lengthsOf(words.closing) };
  return [...parts, { ...toRest, ...counted(back, unlitBurning) }];
}

function sum(values: Float32Array): number {
  let total = 0;
  for (let i = 0; i < values.length; i++) total += values[i];
  return total;
}
