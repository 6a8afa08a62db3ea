import { chooseVariant, type Evidence, type LayerSettings, type PreparedLayer, settingsOf } from '@lambent/core';
import { useState } from 'react';
import { api } from '../../api.ts';
import { Button } from '../../ui/button.tsx';
import { Choice } from '../../ui/choice.tsx';
import { useBench, useBenchActions } from '../context.ts';
import { jobOf, machineOf } from '../store.ts';
import { ByField, useKeeping, useWitness } from './keep-figure.tsx';

const kinds: readonly { value: Evidence; text: string }[] = [
  { value: 'proven', text: 'Proven: burnt and judged' },
  { value: 'copied', text: 'Copied from elsewhere' },
];

/** Keeps what was changed by hand on a layer as a recipe of its material, under a name of its own. */
export function KeepRecipe({ prepared }: { prepared: PreparedLayer }) {
  const { id, layer, material, applied } = prepared;
  const actions = useBenchActions();
  const keep = useKeeping();
  const machine = useBench(machineOf);
  const lensId = useBench((state) => jobOf(state).lensId);
  const [open, setOpen] = useState(false);
  const [variant, setVariant] = useState('');
  const [evidence, setEvidence] = useState<Evidence>('proven');
  const [{ by }, setWitness] = useWitness('measured');
  const isChanged = Object.values(applied.sources).some((source) => source.kind === 'hand');
  if (!material || !applied.settings || !isChanged) return null;
  const taken = material.recipes.some(
    (recipe) =>
      !recipe.archived &&
      recipe.machineId === machine.id &&
      recipe.operation === layer.operation &&
      (recipe.variant ?? '') === variant.trim(),
  );
  if (!open) {
    return (
      <Button look="quiet" className="-ml-3 mt-1" onClick={() => setOpen(true)}>
        Keep this as a recipe
      </Button>
    );
  }
  const used = new Set<keyof LayerSettings>(settingsOf[layer.operation]);
  const settings = Object.fromEntries(
    Object.entries(applied.settings).filter(([setting]) => used.has(setting as keyof LayerSettings)),
  );
  const save = () => {
    const { powerPercent, speedMmPerS, passes, lineSpacingMm } = applied.settings as LayerSettings;
    const recipe = {
      ...settings,
      powerPercent,
      speedMmPerS,
      passes,
      lineSpacingMm,
      machineId: machine.id,
      ...(lensId ? { lensId } : {}),
      operation: layer.operation,
      variant: variant.trim(),
      evidence,
      proof: { by: by.trim(), on: new Date().toISOString().slice(0, 10), what: actions.get().title },
      note: '',
    };
    return api.addRecipe(by.trim(), material.id, recipe);
  };
  return (
    <section aria-label="Keep as a recipe" className="mt-2 flex flex-col gap-1.5 border-t border-line pt-2">
      <label className="flex flex-col gap-1">
        <span className="text-quiet">Called</span>
        <input
          value={variant}
          maxLength={40}
          placeholder={taken ? 'masked, deep, back…' : 'the usual recipe'}
          onChange={(event) => setVariant(event.target.value)}
          className="h-9 rounded-lg border border-line bg-raised px-3"
        />
      </label>
      {taken && (
        <p className="text-[12px] text-quiet">
          {variant.trim() === ''
            ? 'There is a usual recipe: give this one a name, or change that one in the recipe book.'
            : 'There is one of that name: give this one another.'}
        </p>
      )}
      <Choice label="It is" value={evidence} options={kinds} choose={setEvidence} />
      <ByField by={by} set={(value) => setWitness({ by: value })} />
      <div className="flex gap-1.5">
        <Button
          disabled={by.trim() === '' || taken}
          onClick={async () => {
            if (!(await keep(save, `${material.name}: ${layer.name.toLowerCase()} is kept in the recipe book.`)))
              return;
            setOpen(false);
            // The layer goes by the recipe from now on, with nothing left by hand.
            actions.edit(`${layer.name} by its new recipe`, (job) => {
              const { [id]: _, ...others } = job.settings;
              return chooseVariant({ ...job, settings: others }, id, variant.trim());
            });
          }}
        >
          Keep it
        </Button>
        <Button look="quiet" onClick={() => setOpen(false)}>
          Never mind
        </Button>
      </div>
    </section>
  );
}
