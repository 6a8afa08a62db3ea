import type { Layer } from '../colours/key.ts';
import { type Operation, operationNames } from '../colours/operation.ts';
import { boundsOf, polylinesOf } from '../drawing/item.ts';
import type { LayerSettings } from '../drawing/job.ts';
import type { Polyline } from '../geometry/flatten.ts';
import { nestDepths } from '../geometry/nesting.ts';
import { bedBox, type Machine } from '../recipes/shop.ts';
import { machineZero } from './frame.ts';
import { timeMoves } from './motion.ts';
import { Move, MoveList, type Moves } from './moves.ts';
import { burnNearestNext } from './order.ts';
import type { PreparedJob } from './prepare.ts';
import { type Filled, rasterFill } from './raster.ts';

/** Which of a layer's lines a step burns: all, or of a cut those that lie in others, or the rest. */
export type StepPart = 'all' | 'inner' | 'outer';

/** One stretch of the burn plan, with one setting: what the burn strip shows as one block. */
export interface PlanStep {
  readonly layerId: string;
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

/** What the machine will do, move by move, from rest at its zero and back to it. */
export interface BurnPlan {
  readonly machine: Machine;
  readonly steps: readonly PlanStep[];
  /** From the end of the last step back to zero. */
  readonly back: Moves;
  readonly backS: number;
  readonly timeS: number;
  readonly travelMm: number;
}

/** How a step is called: its operation, its layer's own name where it has one, and what of it. */
export function stepTitle(step: Pick<PlanStep, 'operation' | 'layerName' | 'part'>): string {
  const operation = operationNames[step.operation];
  const own = step.layerName === operation ? '' : ` · ${step.layerName}`;
  const part = step.part === 'all' ? '' : step.part === 'inner' ? ' · inside' : ' · outside';
  return operation + own + part;
}

interface Draft {
  layer: Layer;
  settings: LayerSettings;
  part: StepPart;
  fill: (list: MoveList) => boolean;
}

/**
 * Works out what the machine will do: engraving first, then scores, then cuts that lie in others (the
 * innermost first), then the outside edges; layers of one kind in their key's order. Layers that are
 * off, or cannot burn, are left out (see `PreparedLayer.burns`).
 */
export function planJob(prepared: PreparedJob): BurnPlan {
  const { machine } = prepared;
  const start = machineZero(machine);
  const finished: { draft: Draft; list: MoveList; runUpShort: boolean }[] = [];
  let place = start;
  for (const draft of draftSteps(prepared)) {
    const list = new MoveList(place);
    const runUpShort = draft.fill(list);
    if (list.litMm === 0) continue;
    place = { x: list.x, y: list.y };
    finished.push({ draft, list, runUpShort });
  }
  const backList = new MoveList(place);
  backList.to(Move.travel, start.x, start.y);
  const back = backList.build();
  const parts = finished.map(({ draft, list }) => ({ moves: list.build(), speedMmPerS: draft.settings.speedMmPerS }));
  const durations = timeMoves([...parts, { moves: back, speedMmPerS: machine.travelSpeed }], machine, start);
  const steps = finished.map(
    ({ draft, list, runUpShort }, i): PlanStep => ({
      layerId: draft.layer.id,
      layerName: draft.layer.name,
      operation: draft.layer.operation,
      part: draft.part,
      settings: draft.settings,
      moves: parts[i].moves,
      durations: durations[i],
      timeS: sum(durations[i]),
      litMm: list.litMm,
      unlitMm: list.unlitMm,
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
  };
}

function sum(values: Float32Array): number {
  return values.reduce((total, value) => total + value, 0);
}

function draftSteps(prepared: PreparedJob): Draft[] {
  const { machine } = prepared;
  const burning = prepared.layers.flatMap(({ layer, applied, burns }) =>
    burns && applied.settings ? [{ layer, settings: applied.settings }] : [],
  );
  const engraves = burning.filter(({ layer }) => layer.operation === 'engrave');
  const scores = burning.filter(({ layer }) => layer.operation === 'score');
  const cuts = burning.filter(({ layer }) => layer.operation === 'cut');
  const nested = nestedCuts(
    prepared,
    cuts.map(({ layer }) => layer.id),
  );

  const lines = (byDepth: readonly Polyline[][], passes: number) => (list: MoveList) => {
    for (const group of byDepth) burnNearestNext(list, group, passes);
    return false;
  };
  return [
    ...engraves.map(
      ({ layer, settings }): Draft => ({
        layer,
        settings,
        part: 'all',
        fill: (list) => {
          const pieces = filledPieces(prepared, layer.id);
          if (pieces.length === 0) return false;
          return rasterFill(list, pieces, {
            spacing: settings.lineSpacingMm,
            speed: settings.speedMmPerS,
            passes: settings.passes,
            acceleration: machine.acceleration,
            bed: bedBox(machine),
          });
        },
      }),
    ),
    ...scores.map(
      ({ layer, settings }): Draft => ({
        layer,
        settings,
        part: 'all',
        fill: lines([linesOf(prepared, layer.id)], settings.passes),
      }),
    ),
    ...cuts.map(
      ({ layer, settings }): Draft => ({
        layer,
        settings,
        part: 'inner',
        fill: lines(nested.inner.get(layer.id) ?? [], settings.passes),
      }),
    ),
    ...cuts.map(
      ({ layer, settings }): Draft => ({
        layer,
        settings,
        part: 'outer',
        fill: lines([nested.outer.get(layer.id) ?? []], settings.passes),
      }),
    ),
  ];
}

/** Every line of a layer's items, in drawing order. */
export function linesOf(prepared: PreparedJob, layerId: string): Polyline[] {
  return (prepared.meaning.placed.get(layerId) ?? []).flatMap(({ item }) => polylinesOf(item));
}

function filledPieces(prepared: PreparedJob, layerId: string): Filled[] {
  return (prepared.meaning.placed.get(layerId) ?? []).flatMap(({ item }) => {
    const outlines = polylinesOf(item).filter((outline) => outline.closed);
    return outlines.length > 0 ? [{ outlines, bounds: boundsOf(item) }] : [];
  });
}

/** The cut lines of every layer by how deep they lie in others: inner ones by depth, deepest first. */
function nestedCuts(prepared: PreparedJob, layerIds: readonly string[]) {
  const all = layerIds.flatMap((layerId) => linesOf(prepared, layerId).map((line) => ({ layerId, line })));
  const depths = nestDepths(all.map(({ line }) => line));
  const inner = new Map<string, Polyline[][]>();
  const outer = new Map<string, Polyline[]>();
  for (const layerId of layerIds) {
    const byDepth: Polyline[][] = [];
    all.forEach((cut, i) => {
      if (cut.layerId !== layerId) return;
      byDepth[depths[i]] ??= [];
      byDepth[depths[i]].push(cut.line);
    });
    const [outside = [], ...inside] = byDepth;
    outer.set(layerId, outside);
    inner.set(layerId, inside.filter(Boolean).reverse());
  }
  return { inner, outer };
}
