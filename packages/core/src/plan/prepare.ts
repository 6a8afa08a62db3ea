import { deriveMeaning, type Meaning } from '../colours/derive.ts';
import type { ColourKey, Layer } from '../colours/key.ts';
import { isBurnt } from '../colours/operation.ts';
import type { JobDocument } from '../drawing/job.ts';
import { type AppliedSettings, applyRecipe, beyondMachine } from '../recipes/apply.ts';
import type { Machine, Material, Shop } from '../recipes/shop.ts';

/** A layer with what it will burn with, and whether it can. */
export interface PreparedLayer {
  readonly layer: Layer;
  readonly applied: AppliedSettings;
  /** What of its settings the machine cannot do. */
  readonly beyond: readonly string[];
  /** Switched on for this run. */
  readonly on: boolean;
  /** Switched on, has items, and has settings that the machine can do. */
  readonly burns: boolean;
}

/** A job together with everything of the shop that it uses: what plan and checks go by. */
export interface PreparedJob {
  readonly job: JobDocument;
  readonly machine: Machine;
  readonly key: ColourKey;
  /** What the first sheet is of; null when there is no sheet. */
  readonly material: Material | null;
  readonly meaning: Meaning;
  readonly layers: readonly PreparedLayer[];
}

/**
 * Looks up a job's machine, key and material in the shop, and derives what each item means and what
 * each layer burns with. A machine or key that the shop no longer has is replaced by its first one.
 *
 * @throws RangeError when the shop has no machine or no key
 */
export function prepareJob(job: JobDocument, shop: Pick<Shop, 'machines' | 'keys' | 'materials'>): PreparedJob {
  const machine = shop.machines.find(({ id }) => id === job.machineId) ?? shop.machines[0];
  const key = shop.keys.find(({ id }) => id === job.keyId) ?? shop.keys[0];
  if (!machine || !key) throw new RangeError('prepareJob: the shop needs at least one machine and one colour key');
  const material = shop.materials.find(({ id }) => id === job.sheets[0]?.materialId) ?? null;
  const meaning = deriveMeaning(job, key);
  const layers = meaning.layers.map((layer): PreparedLayer => {
    const applied = applyRecipe(material, machine.id, layer.operation, job.settings[layer.id]);
    const burnt = isBurnt(layer.operation);
    const beyond = burnt && applied.settings ? beyondMachine(applied.settings, layer.operation, machine) : [];
    const on = !job.off.includes(layer.id);
    const filled = (meaning.placed.get(layer.id) ?? []).length > 0;
    const burns = burnt && on && filled && applied.settings !== null && beyond.length === 0 && !material?.forbidden;
    return { layer, applied, beyond, on, burns };
  });
  return { job, machine, key, material, meaning, layers };
}
