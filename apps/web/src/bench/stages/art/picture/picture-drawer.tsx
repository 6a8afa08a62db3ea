import type { Item, Tone } from '@lambent/core/document';
import { pinItems, setTone } from '@lambent/core/edits';
import { burnsPictures } from '@lambent/core/operations';
import { sharpenReach } from '@lambent/core/pictures';
import { type PreparedLayer, toneOn } from '@lambent/core/plan';
import { ArrowLeft } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Button } from '../../../../ui/button.tsx';
import { Notice } from '../../../../ui/notice.tsx';
import { NumberField } from '../../../../ui/number-field.tsx';
import { Tick } from '../../../../ui/tick.tsx';
import { useBench, useBenchActions } from '../../../context.ts';
import { jobOf } from '../../../state/document.ts';
import { nameOf } from '../../../thing-names.ts';
import { Part } from '../../drawer.tsx';
import { GrainPart } from './grain-part.tsx';
import { layerOfPicture } from './selected-picture.ts';
import { ToneCurve } from './tone-curve.tsx';

/** A picture that is selected: how its greys burn. */
export function PictureDrawer({ item }: { item: Item }) {
  const actions = useBenchActions();
  const layer = useBench(layerOfPicture);
  const file = useBench((state) => jobOf(state).arrivals.find(({ id }) => item.id.startsWith(id))?.file);
  const name = file ?? nameOf(item);
  if (item.shape.kind !== 'picture') return null;
  const { width, height } = item.shape;
  const [a, b] = item.matrix;
  const perMm = 1 / Math.hypot(a, b);
  return (
    <section
      aria-label={`Picture ${name}`}
      className="flex h-full w-[296px] shrink-0 flex-col border-r border-line bg-paper"
    >
      <div className="px-3.5 pb-2 pt-2">
        <Button look="quiet" className="-ml-3" onClick={() => actions.select([])}>
          <ArrowLeft size={15} aria-hidden /> Art
        </Button>
        <h1 className="truncate text-[16px] font-bold" title={name}>
          {name}
        </h1>
        <p className="figures text-[12px] text-quiet">
          {width} × {height} pixels · {Number(perMm.toPrecision(3))} per mm
        </p>
      </div>
      <div data-scrolls className="relative flex min-h-0 flex-1 flex-col gap-3.5 overflow-y-auto px-3.5 pb-4">
        {layer ? <Greys item={item} layer={layer} /> : <NotBurnt item={item} />}
      </div>
    </section>
  );
}

/** A picture that is only shown, and what has it burn. */
function NotBurnt({ item }: { item: Item }) {
  const actions = useBenchActions();
  const photo = useBench(({ prepared }) => prepared.meaning.layers.find(({ operation }) => burnsPictures(operation)));
  return (
    <>
      <Notice level="notes" title="It is shown, and does not burn">
        <p>Nothing says yet how it is to burn.</p>
      </Notice>
      {photo && (
        <Button
          look="main"
          onClick={() => actions.edit(`put on ${photo.name}`, (job) => pinItems(job, new Set([item.id]), photo.id))}
        >
          Burn its greys
        </Button>
      )}
    </>
  );
}

function Greys({ item, layer }: { item: Item; layer: PreparedLayer }) {
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
    actions.edit(`${what} of ${nameOf(item)}`, (job) => setTone(job, new Set([item.id]), part));
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
      commit={(value) => change(label.toLowerCase(), { [name]: value === 0 ? undefined : value })}
    />
  );
  return (
    <>
      <Part title="Tone">
        <ToneCurve
          pictureId={shape.pictureId}
          curve={tone.curve}
          drag={setDraft}
          commit={(curve) => {
            setDraft(null);
            change('tone curve', { curve });
          }}
        />
        <div className="grid grid-cols-2 items-start gap-2">
          {figure('brightness', 'Brightness', -100, 100)}
          {figure('contrast', 'Contrast', -100, 100)}
          {figure('localContrast', 'Local contrast', 0, 100)}
          {figure('sharpen', 'Sharpen', 0, 500)}
          {kept.sharpen ? (
            <NumberField
              label="Sharpen within"
              layout="stack"
              unit="mm"
              value={sharpenReach(kept)}
              least={0.01}
              most={20}
              commit={(sharpenMm) => change('reach of sharpening', { sharpenMm })}
            />
          ) : null}
        </div>
        <Tick
          checked={tone.lighter ?? false}
          set={(lighter) =>
            change('lighter stock', { lighter: lighter === toneOn(undefined, material).lighter ? undefined : lighter })
          }
          title="Slate, anodised metal and glass: what is light in the picture burns"
        >
          The stock turns lighter where it burns
        </Tick>
        <Tick
          checked={kept.inverted ?? false}
          set={(inverted) => change('negative', { inverted: inverted || undefined })}
        >
          Negative
        </Tick>
      </Part>
      <GrainPart item={item} tone={tone} layer={layer} />
    </>
  );
}
