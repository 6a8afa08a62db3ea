import type { Item, Tone } from '@lambent/core/document';
import { pinItems, setTone } from '@lambent/core/edits';
import { burnsPictures } from '@lambent/core/operations';
import { sharpenReach } from '@lambent/core/pictures';
import { type PreparedLayer, toneOn } from '@lambent/core/plan';
import { useMemo, useState } from 'react';
import { Button } from '../../../../ui/button.tsx';
import { LengthField } from '../../../../ui/length-field.tsx';
import { Notice } from '../../../../ui/notice.tsx';
import { NumberField } from '../../../../ui/number-field.tsx';
import { Tick } from '../../../../ui/tick.tsx';
import { lowered, t } from '../../../../words/words.ts';
import { useBench, useBenchActions } from '../../../context.ts';
import { unitOf } from '../../../state/document.ts';
import { nameOf } from '../../../thing-names.ts';
import { Part } from '../../drawer.tsx';
import { GrainPart } from './grain-part.tsx';
import { MeasuredGreys } from './measured-greys.tsx';
import { layerOfPicture } from './selected-picture.ts';
import { ToneCurve } from './tone-curve.tsx';

/** How the greys of the picture that is selected burn. */
export function BurntGreys({ item }: { item: Item }) {
  const layer = useBench(layerOfPicture);
  return layer ? <Greys item={item} layer={layer} /> : <NotBurnt item={item} />;
}

/** A picture that is only shown, and what has it burn. */
function NotBurnt({ item }: { item: Item }) {
  const actions = useBenchActions();
  const photo = useBench(({ prepared }) => prepared.meaning.layers.find(({ operation }) => burnsPictures(operation)));
  return (
    <>
      <Notice level="notes" title={t('It is shown, and does not burn')}>
        <p>{t('Nothing says yet how it is to burn.')}</p>
      </Notice>
      {photo && (
        <Button
          look="main"
          onClick={() =>
            actions.edit(t('put on {{name}}', { name: photo.name }), (job) =>
              pinItems(job, new Set([item.id]), photo.id),
            )
          }
        >
          {t('Burn its greys')}
        </Button>
      )}
    </>
  );
}

function Greys({ item, layer }: { item: Item; layer: PreparedLayer }) {
  const unit = useBench(unitOf);
  const actions = useBenchActions();
  /** What a curve that is dragged comes to, until it is let go. */
  const [draft, setDraft] = useState<Tone['curve'] | null>(null);
  const { shape } = item;
  const { material } = layer;
  const said = shape.kind === 'picture' ? shape.tone : undefined;
  // The same one for as long as nothing changes: samples are made of it.
  const tone = useMemo(
    () => toneOn(draft === null ? said : { ...said, curve: draft }, material),
    [said, draft, material],
  );
  if (shape.kind !== 'picture') return null;
  const kept = said ?? {};
  const change = (what: string, part: Partial<Tone>) =>
    actions.edit(t('{{what}} of {{item}}', { what, item: nameOf(item) }), (job) =>
      setTone(job, new Set([item.id]), part),
    );
  /** A number of which 0 is as if it had never been decided. */
  const figure = (
    name: 'brightness' | 'contrast' | 'localContrast' | 'sharpen',
    label: string,
    least: number,
    most: number,
  ) => (
    <NumberField
      label={label}
      layout="stack"
      unit={least < 0 ? '' : '%'}
      value={kept[name] ?? 0}
      least={least}
      most={most}
      commit={(value) => change(lowered(label), { [name]: value === 0 ? undefined : value })}
    />
  );
  return (
    <>
      <Part title={t('Tone')}>
        <ToneCurve
          pictureId={shape.pictureId}
          curve={tone.curve}
          drag={setDraft}
          commit={(curve) => {
            setDraft(null);
            change(t('tone curve'), { curve });
          }}
        />
        <MeasuredGreys layer={layer} />
        <div className="grid grid-cols-2 items-start gap-2">
          {figure('brightness', t('Brightness'), -100, 100)}
          {figure('contrast', t('Contrast'), -100, 100)}
          {figure('localContrast', t('Local contrast'), 0, 100)}
          {figure('sharpen', t('Sharpen'), 0, 500)}
          {kept.sharpen ? (
            <LengthField
              label={t('Sharpen within')}
              unit={unit}
              value={sharpenReach(kept)}
              within={[0.01, 20]}
              isFine
              commit={(sharpenMm) => change(t('reach of sharpening'), { sharpenMm })}
            />
          ) : null}
        </div>
        <Tick
          checked={tone.lighter ?? false}
          set={(lighter) =>
            change(t('lighter stock'), {
              lighter: lighter === toneOn(undefined, material).lighter ? undefined : lighter,
            })
          }
          title={t('Slate, anodised metal and glass: what is light in the picture burns')}
        >
          {t('The stock turns lighter where it burns')}
        </Tick>
        <Tick
          checked={kept.inverted ?? false}
          set={(inverted) => change('negative', { inverted: inverted || undefined })}
        >
          {t('Negative')}
        </Tick>
      </Part>
      <GrainPart item={item} tone={tone} layer={layer} />
    </>
  );
}
