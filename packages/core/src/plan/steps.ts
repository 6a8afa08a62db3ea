import { type Progress, partOf } from '../geometry/paths/progress.ts';
import { bedBox } from '../machine/machine.ts';
import { burnsPictures, fillsAreas, followsLines, operationOf, separates } from '../operations/operations.ts';
import { cutSteps } from './cut-steps.ts';
import { engravedFills } from './fill.ts';
import type { MoveList } from './moves.ts';
import type { PreparedJob } from './prepare.ts';
import { rasterFill, rasterTones } from './raster.ts';
import { type Burning, lineStep, linesOf, type StepDraft } from './step-draft.ts';
import { toneArt } from './tone-art.ts';

/**
 * The steps of a run in the usual order: by the phases of their operations, so engraving, then scores, then cuts; of
 * cuts those that lie in others (the innermost first, over all layers), then the outside edges. Layers of one kind go
 * by their rank, then as their key has them. Layers that are off, or cannot burn, are left out (see
 * `PreparedLayer.burns`).
 */
export function draftSteps(prepared: PreparedJob): StepDraft[] {
  const burning = prepared.layers.flatMap((layer): Burning[] =>
    layer.burns && layer.applied.settings ? [{ layer, settings: layer.applied.settings }] : [],
  );
  const inOrder = burning.toSorted((a, b) => phaseOf(a) - phaseOf(b) || rankOf(a) - rankOf(b));
  const phases = [...new Set(inOrder.map(phaseOf))];
  return phases.flatMap((phase) => {
    const now = inOrder.filter((entry) => phaseOf(entry) === phase);
    return [
      ...now.filter(({ layer }) => fillsAreas(layer.layer.operation)).map((entry) => areaStep(prepared, entry)),
      ...now
        .filter(({ layer: { layer } }) => followsLines(layer.operation) && !separates(layer.operation))
        .map((entry) => lineStep(prepared, entry, 'all', [linesOf(prepared, entry.layer)])),
      ...cutSteps(
        prepared,
        now.filter(({ layer }) => separates(layer.layer.operation)),
      ),
    ];
  });
}

function phaseOf({ layer }: Burning): number {
  return operationOf(layer.layer.operation).burning?.phase ?? 0;
}

function rankOf({ layer }: Burning): number {
  return layer.layer.rank ?? Number.MAX_SAFE_INTEGER;
}

/** A step that fills areas, row by row: all alike, or by their greys. */
function areaStep(prepared: PreparedJob, burning: Burning): StepDraft {
  const { layer, settings } = burning;
  const burn = burnsPictures(layer.layer.operation) ? burnGreys : engrave;
  return {
    id: `${layer.id} all`,
    layer,
    settings,
    part: 'all',
    fill: (list, progress) => ({ burnt: [], runUpShort: burn(prepared, burning, list, progress) }),
  };
}

/** Makes the moves that fill areas. @returns whether a run-up was cut short */
type BurnAreas = (prepared: PreparedJob, burning: Burning, list: MoveList, progress?: Progress) => boolean;

const engrave: BurnAreas = (prepared, { layer, settings }, list, progress) => {
  const { machine } = prepared;
  let runUpShort = false;
  const fills = engravedFills(prepared, layer);
  fills.forEach(({ power, pieces }, i) => {
    list.power = power;
    const part = partOf(progress, i / fills.length, (i + 1) / fills.length);
    const { thinParts, scanTurns } = layer.burning;
    const short = rasterFill(list, pieces, { ...settings, thinParts, scanTurns }, machine, bedBox(machine), part);
    runUpShort = runUpShort || short;
  });
  return runUpShort;
};

/** Pictures, and what else lies on their layer, by their greys. */
const burnGreys: BurnAreas = (prepared, { layer, settings }, list, progress) => {
  const { machine } = prepared;
  return rasterTones(list, toneArt(prepared, layer), settings, machine, bedBox(machine), progress);
};

/**
 * Steps in the operator's order, where that names them; those it does not name follow the one that they usually do.
 */
export function inOperatorsOrder(steps: readonly StepDraft[], order: readonly string[]): StepDraft[] {
  if (order.length === 0) return [...steps];
  const byId = new Map(steps.map((step) => [step.id, step]));
  const out = order.flatMap((id) => byId.get(id) ?? []);
  steps.forEach((step, i) => {
    if (out.includes(step)) return;
    const before = i === 0 ? -1 : out.indexOf(steps[i - 1]);
    out.splice(before + 1, 0, step);
  });
  return out;
}
