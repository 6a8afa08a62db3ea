import { topSpeedOf } from '../machine/machine.ts';
import type { Mend, MendStep } from '../mends/mend.ts';
import { burnsPictures, isBurnt, operationOf } from '../operations/operations.ts';
import { Move } from '../plan/moves.ts';
import type { PreparedLayer } from '../plan/prepare.ts';
import { type Beyond, settingOf } from '../settings/settings.ts';
import { type Check, finding, withMends } from './finding.ts';

/** Layers that have items but no settings to burn with, or settings beyond the machine. */
export const checkSettings: Check = ({ sheets, machine, layers }) => {
  const used = layers.filter(({ layer, on, placed }) => on && isBurnt(layer.operation) && placed.length > 0);
  if (used.length === 0) return [];
  const forbidden = new Set(used.flatMap(({ material }) => (material?.forbidden ? [material] : [])));
  if (forbidden.size > 0) {
    return [...forbidden].map((material) =>
      finding('forbidden-stock', 'blocks', `${material.name} must never be lasered: ${material.forbidden}`),
    );
  }
  const noSheet =
    sheets.length === 0
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
    ...used.flatMap((prepared) => {
      const { layer, material, placed, applied, beyond } = prepared;
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
      const said = beyond.map((entry) =>
        withMends(
          finding(
            'beyond-machine',
            'blocks',
            `${layer.name}: ${entry.sentence} It would not be burnt.`,
            items,
            layer.id,
          ),
          broughtWithin(prepared, entry),
        ),
      );
      const source = applied.sources.speedMmPerS;
      if (source?.kind !== 'worked out') return said;
      // What the machine cannot do is no doubt.
      const top = topSpeedOf(machine, layer.operation);
      const [least, most] = [Math.min(source.doubt.least, top), Math.min(source.doubt.most, top)];
      return [
        ...said,
        finding(
          'worked-out',
          'warns',
          `${layer.name} was never burnt like this: it is worked out from ${source.from}, and ${least < most ? `the right speed may be anything from ${least} to ${most} mm/s` : `the right speed may be beyond the ${top} mm/s that ${machine.name} does`}. Burn a test card first.`,
          items,
          layer.id,
        ),
      ];
    }),
  ];
};

/** Takes what the machine can do that is nearest to a setting; null where only the operator can say. */
function broughtWithin(layer: PreparedLayer, { setting, nearest }: Beyond): Mend | null {
  return nearest === undefined ? null : setTo(layer, setting, nearest);
}

function setTo({ id, layer }: PreparedLayer, setting: Beyond['setting'], to: Beyond['nearest']): Mend {
  const { words, unit } = settingOf(setting);
  const value = typeof to === 'number' ? `${Number(to.toFixed(3))} ${unit}`.trim() : String(to);
  return {
    words: `Set ${words} to ${value}`,
    name: `set ${words} of ${layer.name} to ${value}`,
    isSafe: false,
    // A setting and a value of it: of which one cannot be told from the other in types here.
    step: { kind: 'set', preparedId: id, setting, value: to } as MendStep,
  };
}

/** Greys that burn with less power than the beam lights from: they stay bare. */
export const checkFaint: Check = ({ machine, layers }, plan) =>
  plan.steps.flatMap(({ preparedId, settings, moves }) => {
    const { leastPower } = machine;
    const prepared = layers.find(({ id }) => id === preparedId);
    if (!leastPower || !moves.powers || !prepared) return [];
    const faintest = faintestShare(moves.kinds, moves.powers) * settings.powerPercent;
    if (faintest >= leastPower - 1e-6) return [];
    const { layer, placed } = prepared;
    const said = `The lightest greys of ${layer.name} burn with ${Number(faintest.toFixed(1))} % power; the beam of ${machine.name} lights from ${leastPower} % on. They stay bare.`;
    const items = placed.map(({ item }) => item);
    const mend = burnsPictures(layer.operation) ? setTo(prepared, 'leastPowerPercent', leastPower) : null;
    return [withMends(finding('greys-too-faint', 'warns', said, items, layer.id), mend)];
  });

/** The least share of power that a lit move has; 1 where none is lit. */
function faintestShare(kinds: Uint8Array, powers: Float32Array): number {
  let least = 1;
  for (let i = 0; i < kinds.length; i++) if (kinds[i] === Move.lit && powers[i] < least) least = powers[i];
  return least;
}

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
