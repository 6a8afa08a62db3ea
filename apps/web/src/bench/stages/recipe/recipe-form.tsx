import { pictureFile } from '@lambent/core/formats';
import type { Machine } from '@lambent/core/machine';
import { type BurntOperation, separates } from '@lambent/core/operations';
import type { Evidence, Material, Proof, Recipe } from '@lambent/core/recipes';
import { type LayerSettings, settingsOf } from '@lambent/core/settings';
import { useState } from 'react';
import { api } from '../../../api.ts';
import { Button } from '../../../ui/button.tsx';
import { Choice } from '../../../ui/choice.tsx';
import { useBench } from '../../context.ts';
import { jobOf } from '../../state/document.ts';
import { ByField, useKeeping, useWitness } from '../keep-figure.tsx';

interface Props {
  material: Material;
  machine: Machine;
  operation: BurntOperation;
  settings: LayerSettings;
  /** What it goes by; who and when is put to it. */
  what: Pick<Proof, 'what' | 'jobId'>;
  /** How well it may be said to be known; proven, where there is nothing to choose. */
  kinds?: readonly { value: Evidence; text: string }[];
  /** What it is called, unless the operator says otherwise, and what is noted of it. */
  variant?: string;
  note?: string;
  /** A picture of what comes of it, PNG. */
  picture?: () => Promise<Uint8Array | null>;
  /** What is said of it, once it is kept. */
  words: string;
  kept: (variant: string) => void;
  leave: () => void;
}

/** Keeps settings as a recipe of a material on a machine: under a name, or in place of the one that has it. */
export function RecipeForm(props: Props) {
  const { material, machine, operation, settings, what, kinds, words, kept, leave } = props;
  const keep = useKeeping();
  // A lens of another machine means nothing on this one.
  const lensId = useBench((state) =>
    machine.lenses?.some(({ id }) => id === jobOf(state).lensId) ? jobOf(state).lensId : null,
  );
  const [variant, setVariant] = useState(props.variant ?? '');
  const [evidence, setEvidence] = useState<Evidence>('proven');
  const [{ by }, setWitness] = useWitness('measured');
  const name = variant.trim();
  const taken = material.recipes.find(
    (recipe) =>
      !recipe.archived &&
      recipe.machineId === machine.id &&
      recipe.operation === operation &&
      (recipe.variant ?? '') === name &&
      ((recipe.lensId ?? null) === null || recipe.lensId === lensId),
  );
  const recipe = (): Recipe => {
    const used = new Set<string>(settingsOf(operation));
    const own = Object.fromEntries(Object.entries(settings).filter(([setting]) => used.has(setting)));
    const { powerPercent, speedMmPerS, passes, lineSpacingMm } = settings;
    return {
      ...own,
      powerPercent,
      speedMmPerS,
      passes,
      lineSpacingMm,
      machineId: machine.id,
      ...(lensId ? { lensId } : {}),
      operation,
      variant: name,
      evidence,
      proof: { by: by.trim(), on: new Date().toISOString().slice(0, 10), ...what },
      note: props.note ?? '',
    };
  };
  /** Keeps the picture first, so that the recipe can name it. */
  const pictured = async (): Promise<Pick<Recipe, 'pictureId'>> => {
    const bytes = await props.picture?.();
    if (!bytes) return {};
    const { id } = pictureFile(bytes);
    await api.keepPicture(id, bytes);
    return { pictureId: id };
  };
  const save = async (ask: () => Promise<Material>) => {
    if (await keep(ask, words)) kept(name);
  };
  // In place of another, its kerf, its note and its picture stay.
  const replace = async ({ id, version, kerfMm, kerfFrom, note, pictureId, lensId: of }: Recipe) =>
    api.changeRecipe(by.trim(), {
      ...recipe(),
      ...(pictureId ? { pictureId } : {}),
      ...(await pictured()),
      id,
      version,
      ...(of ? { lensId: of } : {}),
      ...(separates(operation) && settings.kerfMm === 0 ? { kerfMm, kerfFrom } : {}),
      note: props.note ?? note,
    });
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
          {name === ''
            ? `There is a usual recipe (${taken.powerPercent} %, ${taken.speedMmPerS} mm/s): put this in its place, or give it a name of its own.`
            : `There is one of that name (${taken.powerPercent} %, ${taken.speedMmPerS} mm/s): put this in its place, or give it another.`}
        </p>
      )}
      {kinds && <Choice label="It is" value={evidence} options={kinds} choose={setEvidence} />}
      <ByField by={by} set={(value) => setWitness({ by: value })} />
      <div className="flex flex-wrap gap-1.5">
        <Button
          look="main"
          disabled={by.trim() === ''}
          onClick={() =>
            void save(async () =>
              taken ? replace(taken) : api.addRecipe(by.trim(), material.id, { ...recipe(), ...(await pictured()) }),
            )
          }
        >
          {taken ? 'Put it in its place' : 'Keep it'}
        </Button>
        <Button look="quiet" onClick={leave}>
          Never mind
        </Button>
      </div>
    </section>
  );
}
