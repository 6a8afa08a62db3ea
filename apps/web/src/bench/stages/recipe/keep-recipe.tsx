import { chooseVariant } from '@lambent/core/edits';
import { isBurnt } from '@lambent/core/operations';
import type { PreparedLayer } from '@lambent/core/plan';
import type { Evidence } from '@lambent/core/recipes';
import { lazy, Suspense, useState } from 'react';
import { Button } from '../../../ui/button.tsx';
import { lowered, t } from '../../../words/words.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { machineOf } from '../../state/document.ts';

const RecipeForm = lazy(() => import('./recipe-form.tsx'));

const kinds: readonly { value: Evidence; text: string }[] = [
  { value: 'proven', text: t('Proven: burnt and judged') },
  { value: 'copied', text: t('Copied from elsewhere') },
];

/** Keeps what was changed by hand on a layer as a recipe of its material. */
export function KeepRecipe({ prepared }: { prepared: PreparedLayer }) {
  const { id, layer, material, applied } = prepared;
  const actions = useBenchActions();
  const machine = useBench(machineOf);
  const title = useBench((state) => state.title);
  const jobId = useBench((state) => state.jobId);
  const [open, setOpen] = useState(false);
  const isChanged = Object.values(applied.sources).some((source) => source.kind === 'hand');
  if (!material || !applied.settings || !isChanged || !isBurnt(layer.operation)) return null;
  if (!open) {
    return (
      <Button look="quiet" className="-ml-3 mt-1" onClick={() => setOpen(true)}>
        {t('Keep this as a recipe')}
      </Button>
    );
  }
  return (
    <Suspense>
      <RecipeForm
        material={material}
        machine={machine}
        operation={layer.operation}
        settings={applied.settings}
        what={{ what: title, jobId }}
        kinds={kinds}
        words={t('{{name}}: {{name2}} is kept in the recipe book.', {
          name: material.name,
          name2: lowered(layer.name),
        })}
        kept={(variant) => {
          setOpen(false);
          // The layer goes by the recipe from now on, with nothing left by hand.
          actions.edit(t('{{name}} by its new recipe', { name: layer.name }), (job) => {
            const { [id]: _, ...others } = job.settings;
            return chooseVariant({ ...job, settings: others }, id, variant);
          });
        }}
        leave={() => setOpen(false)}
      />
    </Suspense>
  );
}
