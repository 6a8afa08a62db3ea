import { changeSetting } from '@lambent/core/edits';
import type { PreparedLayer } from '@lambent/core/plan';
import type { LayerSettings } from '@lambent/core/settings';
import { dayOf } from '../../../../stores/dates.ts';
import { Tick } from '../../../../ui/tick.tsx';
import { lowered, t } from '../../../../words/words.ts';
import { useBenchActions } from '../../../context.ts';

/** What the darkness of a grey hangs on: with others of these it comes out otherwise. */
const measuredWith: readonly (keyof LayerSettings)[] = [
  'powerPercent',
  'speedMmPerS',
  'lineSpacingMm',
  'grain',
  'passes',
];

/** Whether greys are corrected by how dark they came out on a test card, and which card that was. */
export function MeasuredGreys({ layer }: { layer: PreparedLayer }) {
  const actions = useBenchActions();
  const { applied, material } = layer;
  const { name } = layer.layer;
  const recipe = applied.basis?.recipe;
  if (!recipe?.burntGreys?.length) {
    return (
      <p className="text-[12px] text-quiet">
        {t('How dark greys come out was not measured here. A test card of grey steps, under Recipe, shows it.')}
      </p>
    );
  }
  const follows = applied.sources.burntGreys?.kind === 'recipe';
  const others = measuredWith.filter((setting) => applied.sources[setting]?.kind === 'hand');
  const on = recipe.proof ? t(' of {{on}}', { on: dayOf(recipe.proof.on) }) : '';
  return (
    <div>
      <Tick
        checked={follows}
        set={(next) =>
          actions.edit(t('measured greys of {{name}}', { name }), (job) =>
            changeSetting(job, layer.id, 'burntGreys', next ? undefined : []),
          )
        }
      >
        {t('Burnt greys follow the card{{on}} for', { on })} {material && lowered(material.name)}
      </Tick>
      {follows && others.length > 0 && (
        <p role="status" className="text-[12px] text-warn">
          {t('The card was burnt with other settings than these: greys may come out otherwise.')}
        </p>
      )}
    </div>
  );
}
