import { pictureFile } from '@lambent/core/formats';
import type { Machine } from '@lambent/core/machine';
import { type BurntOperation, separates } from '@lambent/core/operations';
import { type Evidence, evidences, type Material, type Proof, type Recipe } from '@lambent/core/recipes';
import { type LayerSettings, settingsOf } from '@lambent/core/settings';
import { IsIn, IsString, Length, MaxLength } from 'class-validator';
import { api } from '../../../api.ts';
import { Button } from '../../../ui/button.tsx';
import { ChoiceInput, useCheckedForm, WordsInput } from '../../../ui/form.tsx';
import { SignedBy } from '../../../ui/signed-by.tsx';
import { t } from '../../../words/words.ts';
import { useBench } from '../../context.ts';
import { jobOf } from '../../state/document.ts';
import { useKeeping, useLastWitness } from '../keeping.ts';

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

/** What is filled in of a recipe that is kept; its settings are there already. */
class KeptRecipe {
  @IsString()
  @MaxLength(40, { message: t('A name has up to 40 characters.') })
  variant!: string;

  @IsIn(evidences)
  evidence!: Evidence;

  @IsString()
  @Length(1, 120, { message: t('Say who has read it, in 1 to 120 characters.') })
  by!: string;
}

/** Keeps settings as a recipe of a material on a machine: under a name, or in place of the one that has it. */
export default function RecipeForm(props: Props) {
  const { material, machine, operation, settings, what, kinds, words, kept, leave } = props;
  const keep = useKeeping();
  // A lens of another machine means nothing on this one.
  const lensId = useBench((state) =>
    machine.lenses?.some(({ id }) => id === jobOf(state).lensId) ? jobOf(state).lensId : null,
  );
  const { control, handleSubmit, watch } = useCheckedForm(KeptRecipe, {
    variant: props.variant ?? '',
    evidence: 'proven',
    by: useLastWitness(),
  });
  const name = watch('variant').trim();
  const taken = material.recipes.find(
    (recipe) =>
      !recipe.archived &&
      recipe.machineId === machine.id &&
      recipe.operation === operation &&
      (recipe.variant ?? '') === name &&
      ((recipe.lensId ?? null) === null || recipe.lensId === lensId),
  );
  const recipe = ({ evidence, by }: KeptRecipe): Recipe => {
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
      proof: { by, on: new Date().toISOString().slice(0, 10), ...what },
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
  const save = async (form: KeptRecipe) => {
    const add = async () => api.addRecipe(form.by, material.id, { ...recipe(form), ...(await pictured()) });
    if (await keep(form.by, taken ? () => replace(form, taken) : add, words)) kept(name);
  };
  // In place of another, its kerf, its note and its picture stay.
  const replace = async (form: KeptRecipe, known: Recipe) => {
    const { id, version, kerfMm, kerfFrom, note, pictureId, lensId: ownLensId } = known;
    return api.changeRecipe(form.by, {
      ...recipe(form),
      ...(pictureId ? { pictureId } : {}),
      ...(await pictured()),
      id,
      version,
      ...(ownLensId ? { lensId: ownLensId } : {}),
      ...(separates(operation) && settings.kerfMm === 0 ? { kerfMm, kerfFrom } : {}),
      note: props.note ?? note,
    });
  };
  return (
    <form
      aria-label={t('Keep as a recipe')}
      className="mt-2 flex flex-col gap-1.5 border-t border-line pt-2"
      onSubmit={handleSubmit(save)}
    >
      <WordsInput
        control={control}
        name="variant"
        label={t('Called')}
        maxLength={40}
        placeholder={taken ? t('masked, deep, back…') : t('the usual recipe')}
      />
      {taken && (
        <p className="text-[12px] text-quiet">
          {name === ''
            ? t(
                'There is a usual recipe ({{powerPercent}} %, {{speedMmPerS}} mm/s): put this in its place, or give it a name of its own.',
                { powerPercent: taken.powerPercent, speedMmPerS: taken.speedMmPerS },
              )
            : t(
                'There is one of that name ({{powerPercent}} %, {{speedMmPerS}} mm/s): put this in its place, or give it another.',
                { powerPercent: taken.powerPercent, speedMmPerS: taken.speedMmPerS },
              )}
        </p>
      )}
      {kinds && <ChoiceInput control={control} name="evidence" label={t('It is')} options={kinds} />}
      <SignedBy control={control} name="by" label={t('Read by')} />
      <div className="flex flex-wrap gap-1.5">
        <Button look="main" type="submit">
          {taken ? t('Put it in its place') : t('Keep it')}
        </Button>
        <Button look="quiet" onClick={leave}>
          {t('Never mind')}
        </Button>
      </div>
    </form>
  );
}
