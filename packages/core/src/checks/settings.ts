import { isBurnt, operationNames } from '../colours/operation.ts';
import { kerfLines } from '../fit/kerf.ts';
import type { PreparedLayer } from '../plan/prepare.ts';
import { nestedLines } from '../plan/steps.ts';
import { type Check, countOf, finding, ifAny } from './finding.ts';

/** Layers that have items but no settings to burn with, or settings beyond the machine. */
export const checkSettings: Check = ({ job, machine, layers }) => {
  const used = layers.filter(({ layer, on, placed }) => on && isBurnt(layer.operation) && placed.length > 0);
  if (used.length === 0) return [];
  const forbidden = new Set(used.flatMap(({ material }) => (material?.forbidden ? [material] : [])));
  if (forbidden.size > 0) {
    return [...forbidden].map((material) =>
      finding('forbidden-stock', 'blocks', `${material.name} must never be lasered: ${material.forbidden}`),
    );
  }
  const noSheet =
    job.sheets.length === 0
      ? [
          finding(
            'no-sheet',
            'warns',
            'No sheet lies on the bed. Choose the material to get its recipes and to check that the work fits.',
          ),
        ]
      : [];
  return [
    ...noSheet,
    ...used.flatMap(({ layer, material, placed, applied, beyond }) => {
      const items = placed.map(({ item }) => item);
      if (applied.settings === null) {
        const of = material ? `${material.name} on ${machine.name}` : 'no material';
        return [
          finding(
            'no-recipe',
            'blocks',
            `${layer.name} has no recipe (${operationNames[layer.operation].toLowerCase()}, ${of}) and would not be burnt. Choose another material, or type power and speed.`,
            items,
            layer.id,
          ),
        ];
      }
      return beyond.map((sentence) =>
        finding('beyond-machine', 'blocks', `${layer.name}: ${sentence} It would not be burnt.`, items, layer.id),
      );
    }),
  ];
};

/** Outlines so narrow that the beam takes away all of them. */
export const checkKerf: Check = (prepared) => {
  const cuts = prepared.layers.filter(({ layer, burns }) => burns && layer.operation === 'cut');
  const kerfOf = ({ applied }: PreparedLayer) => applied.settings?.kerfMm ?? 0;
  if (cuts.every((layer) => kerfOf(layer) === 0)) return [];
  const lines = nestedLines(prepared, cuts);
  return cuts.flatMap((layer, i) => {
    const kerfMm = kerfOf(layer);
    const swallowed = lines.flatMap(({ at, line, depth }) =>
      at === i && kerfLines(line.item, line.nth, depth, kerfMm).length === 0 ? [line.item] : [],
    );
    return ifAny(swallowed, () =>
      finding(
        'kerf-swallows',
        'blocks',
        `${countOf(swallowed.length, 'hole is', 'holes are')} no wider than the kerf of ${kerfMm} mm, and would not be burnt. Make it a single line, or set the kerf to 0.`,
        [...new Set(swallowed)],
        layer.layer.id,
      ),
    );
  });
};

/** Engravings so near the edge of the bed that the head cannot come to speed before them. */
export const checkRunUp: Check = (_prepared, plan) =>
  plan.steps
    .filter((step) => step.runUpShort)
    .map((step) =>
      finding(
        'run-up-short',
        'notes',
        `${step.layerName} starts so near the edge of the bed that the head is still speeding up there; the ends of its lines may burn darker.`,
        [],
        step.layerId,
      ),
    );
