import type { Item, Tone } from '@lambent/core/document';
import { changeSetting } from '@lambent/core/edits';
import type { GrainSamples, PreparedLayer } from '@lambent/core/plan';
import { type Grain, grainMethods, grains, grainWords, type LayerSettings } from '@lambent/core/settings';
import { useMemo } from 'react';
import { LengthField } from '../../../../ui/length-field.tsx';
import { NumberField } from '../../../../ui/number-field.tsx';
import { said, t } from '../../../../words/words.ts';
import { work } from '../../../../workers/work.ts';
import { toBed } from '../../../bed/view.ts';
import { useBench, useBenchActions, useBenchLater } from '../../../context.ts';
import { unitOf } from '../../../state/document.ts';
import { Part } from '../../drawer.tsx';
import { useWorked } from '../../fit/use-worked.ts';
import { BurntDots } from './burnt-dots.tsx';
import { usualToneSettings } from './selected-picture.ts';

/** A sample has so many dots, each a pixel of the screen. */
const sampleSize = { columns: 80, rows: 44 };

/** How greys are made of burnt dots: each way as a small picture of the part that is in view. */
export function GrainPart({ item, tone, layer }: { item: Item; tone: Tone; layer: PreparedLayer }) {
  const unit = useBench(unitOf);
  const actions = useBenchActions();
  const known = layer.applied.settings;
  const settings = known ?? usualToneSettings;
  const { samples, trouble } = useSamples(item, tone, settings);
  const change = <Name extends keyof LayerSettings>(what: string, name: Name, value: LayerSettings[Name]) =>
    actions.edit(t('{{what}} of {{name}}', { what, name: layer.layer.name }), (job) =>
      changeSetting(job, layer.id, name, value),
    );
  return (
    <Part title={t('Grain')}>
      <div role="radiogroup" aria-label={t('Grain')} className="grid grid-cols-3 gap-2">
        {grains.map((grain) => (
          <GrainTile
            key={grain}
            grain={grain}
            chosen={grain === settings.grain}
            samples={samples}
            lighter={tone.lighter ?? false}
            choose={() => change('grain', 'grain', grain)}
          />
        ))}
      </div>
      {!known && (
        <p className="text-[12px] text-quiet">
          {t('{{name}} has no recipe yet for what is on the bed. The Recipe stage finds one.', {
            name: layer.layer.name,
          })}
        </p>
      )}
      {trouble && (
        <p role="alert" className="text-[12px] text-stop">
          {trouble}
        </p>
      )}
      <div className="grid grid-cols-2 items-start gap-2">
        <LengthField
          label={t('Line spacing')}
          unit={unit}
          value={settings.lineSpacingMm}
          within={[0.01, 2]}
          isFine
          commit={(mm) => change(t('line spacing'), 'lineSpacingMm', mm)}
        />
        {(settings.grain === 'dots' || settings.grain === 'lines') && (
          <NumberField
            label={t('Screen lines')}
            layout="stack"
            unit={t('per cm')}
            value={settings.screenPerCm}
            least={1}
            most={200}
            commit={(perCm) => change('screen', 'screenPerCm', perCm)}
          />
        )}
        {settings.grain === 'true-greys' && (
          <NumberField
            label={t('Least power')}
            layout="stack"
            unit="%"
            value={settings.leastPowerPercent}
            least={0}
            most={settings.powerPercent}
            commit={(power) => change(t('least power'), 'leastPowerPercent', power)}
          />
        )}
      </div>
    </Part>
  );
}

/** The part of a picture that is in view, in each grain. */
function useSamples(item: Item, tone: Tone, settings: LayerSettings) {
  const view = useBenchLater((state) => state.view);
  const size = useBench((state) => state.viewSize);
  const middle = toBed(view, size.width / 2, size.height / 2);
  // To whole millimetres: a hair further the same is seen.
  const [x, y] = [Math.round(middle.x), Math.round(middle.y)];
  const { shape, matrix } = item;
  const { pictureId, crop } = shape.kind === 'picture' ? shape : { pictureId: '', crop: undefined };
  const ask = useMemo(
    () => () => work('grainSamples', [pictureId, { matrix, tone, crop }, settings, { x, y }, sampleSize]),
    [pictureId, matrix, tone, crop, settings, x, y],
  );
  const { answer, trouble } = useWorked<GrainSamples | null>(ask);
  return { samples: answer, trouble };
}

function GrainTile({
  grain,
  chosen,
  samples,
  lighter,
  choose,
}: {
  grain: Grain;
  chosen: boolean;
  samples: GrainSamples | null;
  lighter: boolean;
  choose: () => void;
}) {
  return (
    // biome-ignore lint/a11y/useSemanticElements: a picture and a word are one thing to choose
    <button
      type="button"
      role="radio"
      aria-checked={chosen}
      title={grainMethods[grain]}
      onClick={choose}
      className={`flex flex-col overflow-hidden rounded-lg border bg-raised text-left ${chosen ? 'border-petrol ring-1 ring-petrol' : 'border-line hover:border-petrol'}`}
    >
      <BurntDots
        columns={samples?.columns ?? sampleSize.columns}
        rows={samples?.rows ?? sampleSize.rows}
        burnt={samples?.byGrain[grain] ?? null}
        bareColour={lighter ? '#464646' : '#FFFFFF'}
        burntColour={lighter ? '#F8F8F8' : '#262626'}
        className="h-11 w-full bg-table [image-rendering:pixelated]"
      />
      <span className={`truncate px-1.5 py-1 text-[12px] ${chosen ? 'font-bold text-petrol' : ''}`}>
        {said(grainWords[grain])}
      </span>
    </button>
  );
}
