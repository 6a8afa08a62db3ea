import type { Point } from '../geometry/paths/matrix.ts';
import type { Machine } from '../machine/machine.ts';
import type { Operation } from '../operations/operations.ts';
import { changesInWords } from '../recipes/book/book-changes.ts';
import { textInOrder } from '../schema/in-order.ts';
import type { LayerSettings } from '../settings/settings.ts';
import { type BurnPlan, stepTitle } from './plan.ts';
import type { PreparedJob } from './prepare.ts';

/** What a run was planned by, beside its version of the job: kept with its record. */
export interface RunBasis {
  /** What the job was called. */
  readonly title: string;
  /** With its figures as they were; neither its name nor how it is reached. */
  readonly machine: Omit<Machine, 'name' | 'connection' | 'isPutAway'>;
  /** Where the head stood, in bed mm; null where that was not known. */
  readonly head: Point | null;
  /** What burnt, each layer once for every material. */
  readonly layers: readonly {
    readonly id: string;
    readonly name: string;
    readonly operation: Operation;
    /** Such as `Birch plywood 3 mm`; null where it lay on no sheet. */
    readonly material: string | null;
    readonly settings: LayerSettings;
  }[];
  /** In the order they burnt, with their planned seconds. */
  readonly steps: readonly { readonly title: string; readonly timeS: number }[];
}

/** Gathers what a run is planned by. @param head where the head stands, in bed mm */
export function basisOf(
  { layers }: Pick<PreparedJob, 'layers'>,
  plan: BurnPlan,
  title: string,
  head: Point | null,
): RunBasis {
  const { name: _, connection: __, isPutAway: ___, ...machine } = plan.machine;
  return {
    title,
    machine,
    head,
    layers: layers.flatMap(({ id, layer, material, applied: { settings }, burns }) =>
      burns && settings
        ? [
            {
              id,
              name: layer.name,
              operation: layer.operation,
              material: material && `${material.name} ${material.thicknessMm} mm`,
              settings,
            },
          ]
        : [],
    ),
    steps: plan.steps.map((step) => ({ title: stepTitle(step), timeS: step.timeS })),
  };
}

/** What is other in one basis than in another, a sentence each; empty where nothing is. */
export function basisChanges(before: RunBasis, after: RunBasis): string[] {
  const machine = changesInWords(before.machine, after.machine);
  const known = new Map(before.layers.map((layer) => [layer.id, layer]));
  const layers = after.layers.flatMap(({ id, name, settings }) => {
    const was = known.get(id);
    if (!was) return [`${name} burns, and did not then.`];
    const words = changesInWords(was.settings, settings);
    return words ? [`${name}: ${words}.`] : [];
  });
  const gone = before.layers.filter(({ id }) => !after.layers.some((layer) => layer.id === id));
  return [
    ...(machine ? [`The machine: ${machine}.`] : []),
    ...layers,
    ...gone.map(({ name }) => `${name} burnt then, and does not now.`),
  ];
}

/** Whether a program for one machine can be run on another: its places, powers and words mean the same there. */
export function takesSamePrograms(before: RunBasis['machine'], after: RunBasis['machine']): boolean {
  const meaning = ({ bedWidth, bedHeight, origin, powerScale, focus, air, axes }: RunBasis['machine']) =>
    textInOrder({
      bedWidth,
      bedHeight,
      origin,
      powerScale,
      focus: focus ?? null,
      air: air ?? null,
      axes: axes ?? null,
    });
  const knowsItsArcs = before.arcsWithin === undefined || after.arcsWithin !== undefined;
  return knowsItsArcs && meaning(before) === meaning(after);
}
