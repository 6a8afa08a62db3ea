import { isBurnt, operationOf } from '../operations/operations.ts';
import { type Check, finding } from './finding.ts';

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
        const stockOn = material ? `${material.name} on ${machine.name}` : 'no material';
        return [
          finding(
            'no-recipe',
            'blocks',
            `${layer.name} has no recipe (${operationOf(layer.operation).name.toLowerCase()}, ${stockOn}) and would not be burnt. Burn a test card, choose another material, or type power and speed.`,
            items,
            layer.id,
          ),
        ];
      }
      const said = beyond.map(({ sentence }) =>
        finding('beyond-machine', 'blocks', `${layer.name}: ${sentence} It would not be burnt.`, items, layer.id),
      );
      const source = applied.sources.speedMmPerS;
      if (source?.kind !== 'worked out') return said;
      const { least, most } = source.doubt;
      return [
        ...said,
        finding(
          'worked-out',
          'warns',
          `${layer.name} was never burnt like this: it is worked out from ${source.from}, and the right speed may be anything from ${least} to ${most} mm/s. Burn a test card first.`,
          items,
          layer.id,
        ),
      ];
    }),
  ];
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
