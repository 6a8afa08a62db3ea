import { Link } from 'react-router';
import { BurntGreysChart } from '../recipe/burnt-greys-chart.tsx';
import { FinerFields } from '../recipe/finer-fields.tsx';
import { Button } from '../ui/button.tsx';
import { lowered, t } from '../words/words.ts';
import { Words } from './material-facts.tsx';
import { type RecipeLine, today } from './recipe-line.ts';
import { RecipePicture } from './recipe-picture.tsx';

/** What of a recipe has no column: finer settings, how it is known, its picture. */
export function RecipeDetails({ line: { recipe, machine, title, hold, by, change } }: { line: RecipeLine }) {
  const { proof } = recipe;
  return (
    <div className="grid grid-cols-2 gap-5">
      <div>
        <FinerFields hold={hold} machine={machine} />
        {recipe.burntGreys && recipe.burntGreys.length > 0 && (
          <div className="mt-3 flex flex-col items-start gap-1.5">
            <h4 className="text-quiet">{t('Measured greys: how dark they came out, in %')}</h4>
            <BurntGreysChart greys={recipe.burntGreys} />
            <Button onClick={() => change({ burntGreys: undefined })}>{t('Forget the measured greys')}</Button>
          </div>
        )}
      </div>
      <div className="mt-2 flex flex-col gap-2">
        <Words label={t('Variant')} value={recipe.variant ?? ''} commit={(variant) => change({ variant })} />
        <Words
          label={t('Known from: which burn, which source, how worked out')}
          value={proof?.what ?? ''}
          commit={(what) => change({ proof: { by: proof?.by ?? by, on: proof?.on ?? today(), what } })}
        />
        <Words label={t('Note')} value={recipe.note} commit={(note) => change({ note })} />
        {proof?.jobId && (
          <Link to={`/jobs/${proof.jobId}/recipe`} className="self-start font-semibold text-petrol underline">
            {t('The job that was burnt for it')}
          </Link>
        )}
        <RecipePicture
          pictureId={recipe.pictureId}
          title={lowered(title)}
          keep={(pictureId) => change({ pictureId })}
        />
      </div>
    </div>
  );
}
