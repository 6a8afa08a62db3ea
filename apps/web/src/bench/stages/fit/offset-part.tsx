import { type Item, pathOf } from '@lambent/core/document';
import { alsoOn } from '@lambent/core/edits';
import {
  distanceFrom,
  distancesOf,
  type MadeOffset,
  type OffsetWish,
  offsetSources,
  wishedOffsets,
} from '@lambent/core/fit';
import { type Join, plainOffset, type Side, subpathsOf } from '@lambent/core/geometry';
import { useMemo } from 'react';
import { Button } from '../../../ui/button.tsx';
import { Choice } from '../../../ui/choice.tsx';
import { formatLength } from '../../../ui/figures.ts';
import { LengthField } from '../../../ui/length-field.tsx';
import { NumberField } from '../../../ui/number-field.tsx';
import { Tick } from '../../../ui/tick.tsx';
import { t } from '../../../words/words.ts';
import { work } from '../../../workers/work.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { keptSettings, useKeptSettings } from '../../kept-settings.ts';
import type { BenchActions } from '../../state/bench-state.ts';
import { jobOf, unitOf } from '../../state/document.ts';
import type { Grip } from '../../tools/tool.ts';
import { PlacingFields, SlowStop, Trouble, useMaking, usePlacing } from './placing-fields.tsx';
import { type Ask, useWorked } from './use-worked.ts';

const ways = [
  { value: 'out' as const, text: t('Outward') },
  { value: 'in' as const, text: t('Inward') },
  { value: 'both' as const, text: t('Both ways') },
];
const joins: readonly { value: Join; text: string }[] = [
  { value: 'round', text: t('Round') },
  { value: 'miter', text: t('Mitred') },
  { value: 'bevel', text: t('Bevelled') },
];
const sides: readonly { value: Side; text: string }[] = [
  { value: 'both', text: t('Around the line') },
  { value: 'right', text: t('On its right') },
  { value: 'left', text: t('On its left') },
];
const caps = [
  { value: 'round' as const, text: t('Round') },
  { value: 'flat' as const, text: t('Flat') },
  { value: 'square' as const, text: t('Square') },
];

const firstWish: OffsetWish = {
  settings: { ...plainOffset },
  way: 'out',
  distance: 2,
  count: 1,
  step: 2,
  apart: false,
};

const noOffsets: readonly MadeOffset[] = [];

/** Outlines at a distance from what is selected, shown on the bed before they are made. */
export function OffsetPart() {
  const actions = useBenchActions();
  const unit = useBench(unitOf);
  const job = useBench(jobOf);
  const selection = useBench((state) => state.selection);
  const [wish, change] = useKeptSettings('offset', firstWish);
  const [placing, setPlacing] = usePlacing('offset', null);
  const sources = useMemo(() => offsetSources(job, selection), [job, selection]);
  const open = useMemo(
    () => sources.some((item) => [...subpathsOf(pathOf(item))].some(({ closed }) => !closed)),
    [sources],
  );
  const ask = useMemo(() => askFor(sources, wish), [sources, wish]);
  const { answer, working, share, trouble, stop } = useWorked(ask);
  const made = answer ?? noOffsets;
  const grip = useMemo(() => gripFor(sources, actions, change), [sources, actions, change]);
  const { quiet, make, askAgain } = useMaking(made, grip);

  const { settings } = wish;
  const set = (part: Partial<OffsetWish>) => {
    change(part);
    askAgain();
  };
  const setSettings = (part: Partial<OffsetWish['settings']>) => set({ settings: { ...settings, ...part } });
  const left = made.filter(({ path }) => path.verbs.length > 0);
  const gone = [
    ...new Set(made.filter(({ path }) => path.verbs.length === 0).map((madeOffset) => madeOffset.settings.by)),
  ];

  if (sources.length === 0) {
    return (
      <p className="text-quiet">
        {t('Select outlines on the bed: what lies at a distance from them is shown there before it is made.')}
      </p>
    );
  }
  const zero = wish.distance === 0 && wish.count === 1;
  const name =
    left.length === 1
      ? t('offset {{by}}', { by: formatLength(left[0].settings.by, unit) })
      : t('{{left}} offsets', { left: left.length });
  return (
    <>
      <div className="grid grid-cols-2 gap-1.5">
        <LengthField
          label={t('Distance')}
          unit={unit}
          value={wish.distance}
          takes="not-below-0"
          commit={(distance) => {
            if (distance > 10_000) return t('That is larger than any bed.');
            set({ distance });
            return undefined;
          }}
        />
        <NumberField
          label={t('How many')}
          layout="stack"
          value={wish.count}
          least={1}
          most={200}
          whole
          commit={(count) => set({ count })}
        />
        {wish.count > 1 && (
          <LengthField
            label={t('Step')}
            unit={unit}
            value={wish.step}
            takes="more-than-0"
            commit={(step) => set({ step })}
          />
        )}
        {settings.join === 'miter' && (
          <NumberField
            label={t('Mitres up to')}
            layout="stack"
            unit="×"
            value={settings.miterLimit}
            least={1}
            most={100}
            commit={(miterLimit) => setSettings({ miterLimit })}
          />
        )}
      </div>
      <p className="text-[12px] text-quiet">{t('Or pull at the outline that is shown on the bed.')}</p>
      <Choice label={t('Way')} value={wish.way} options={ways} choose={(way) => set({ way })} />
      <Choice label={t('Corners')} value={settings.join} options={joins} choose={(join) => setSettings({ join })} />
      {open && (
        <>
          <Choice
            label={t('Open lines')}
            value={settings.side}
            options={sides}
            choose={(side) => setSettings({ side })}
          />
          {settings.side === 'both' && (
            <Choice label={t('Ends')} value={settings.cap} options={caps} choose={(cap) => setSettings({ cap })} />
          )}
        </>
      )}
      <Tick checked={settings.ignoreHoles} set={(checked) => setSettings({ ignoreHoles: checked })}>
        {t('without holes')}
      </Tick>
      {sources.length > 1 && (
        <Tick checked={wish.apart} set={(checked) => set({ apart: checked })}>
          {t('each of the {{sources}} by itself', { sources: sources.length })}
        </Tick>
      )}
      <PlacingFields placing={placing} set={setPlacing} />
      {zero && <AlsoOn sources={sources} layerId={placing.layerId} />}
      {gone.length > 0 && !working && !quiet && (
        <p role="status" className="text-warn">
          {gone.map((distance) => sayGone(distance, unit)).join(' ')}
        </p>
      )}
      <Trouble words={trouble} />
      <div className="flex flex-col items-start gap-1.5">
        <Button look="main" disabled={working || left.length === 0 || zero} onClick={() => make(name, placing)}>
          {left.length > 1 ? `Make ${left.length} offsets` : t('Make the offset')}
        </Button>
        {working && <SlowStop share={share} stop={stop} />}
      </div>
    </>
  );
}

/** At no distance there is nothing to make: the outline itself burns on a second layer, and stays one. */
function AlsoOn({ sources, layerId }: { sources: readonly Item[]; layerId: string | null }) {
  const actions = useBenchActions();
  const layer = useBench((state) => state.prepared.meaning.layers.find(({ id }) => id === layerId));
  if (!layer)
    return <p role="status">{t('At 0 it is the outline itself. Choose a layer for it to burn on as well.')}</p>;
  const ids = new Set(sources.map(({ id }) => id));
  return (
    <>
      <p role="status">
        {t('At 0 it is the outline itself: it burns on {{name}} as well, without a second one.', { name: layer.name })}
      </p>
      <Button
        className="self-start"
        onClick={() =>
          actions.edit(t('burn on {{name}} as well', { name: layer.name }), (job) => alsoOn(job, ids, layer.id))
        }
      >
        {t('Burn it on {{name}} as well', { name: layer.name })}
      </Button>
    </>
  );
}

/** Pulling at one of the outlines sets how far the first lies. */
function gripFor(sources: readonly Item[], actions: BenchActions, change: (part: Partial<OffsetWish>) => void): Grip {
  let nth = 0;
  const now = () => keptSettings('offset', firstWish);
  return {
    grab: (point) => {
      const from = distanceFrom(sources, point);
      const distances = distancesOf(now());
      const nearest = distances.reduce(
        (best, distance, i) => (Math.abs(distance - from) < Math.abs(distances[best] - from) ? i : best),
        0,
      );
      nth = nearest % now().count;
    },
    pull: (point) => {
      const step = actions.get().view.scale > 8 ? 0.01 : 0.1;
      const from = distanceFrom(sources, point);
      const wish = now();
      const distance = Math.max(step, Math.round((Math.abs(from) - nth * wish.step) / step) * step);
      const way = wish.way === 'both' ? 'both' : from < 0 ? 'in' : 'out';
      change({ way, distance: Math.round(distance * 1000) / 1000 });
    },
  };
}

/** Has a wish worked out; null where there is nothing to ask. */
function askFor(sources: readonly Item[], wish: OffsetWish): Ask<readonly MadeOffset[]> | null {
  const wished = wishedOffsets(sources, wish);
  if (wished.length === 0) return null;
  return (progress, signal) =>
    // The worker takes one after the other.
    Promise.all(
      wished.map(async (made, i) => {
        const told = (share: number) => progress((i + share) / wished.length);
        const path = await work('offset', [made.sources, made.settings], { progress: told, signal });
        return { ...made, path };
      }),
    );
}

function sayGone(delta: number, unit: Parameters<typeof formatLength>[1]): string {
  const distance = formatLength(Math.abs(delta), unit);
  return delta < 0
    ? t('Nothing is left {{distance}} inward.', { distance })
    : t('Nothing lies {{distance}} outward.', { distance });
}
