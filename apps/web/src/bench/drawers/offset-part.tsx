import {
  formatLength,
  type Item,
  type Join,
  type MadeOffset,
  type OffsetWish,
  offsetSources,
  pathOf,
  plainOffset,
  type Side,
  subpathsOf,
  wishedOffsets,
} from '@lambent/core';
import { useMemo, useState } from 'react';
import { Button } from '../../ui/button.tsx';
import { Choice } from '../../ui/choice.tsx';
import { LengthField } from '../../ui/length-field.tsx';
import { NumberField } from '../../ui/number-field.tsx';
import { Tick } from '../../ui/tick.tsx';
import { fileWorker } from '../../workers/bench.ts';
import { useBench } from '../context.ts';
import { jobOf, unitOf } from '../store.ts';
import { type Placing, PlacingFields, SlowStop, Trouble, useMaking } from './placing-fields.tsx';
import { useWorked } from './use-worked.ts';

const ways = [
  { value: 'out' as const, text: 'Outward' },
  { value: 'in' as const, text: 'Inward' },
  { value: 'both' as const, text: 'Both ways' },
];
const joins: readonly { value: Join; text: string }[] = [
  { value: 'round', text: 'Round corners' },
  { value: 'miter', text: 'Mitred corners' },
  { value: 'bevel', text: 'Bevelled corners' },
];
const sides: readonly { value: Side; text: string }[] = [
  { value: 'both', text: 'Around the line' },
  { value: 'right', text: 'On its right' },
  { value: 'left', text: 'On its left' },
];
const caps = [
  { value: 'round' as const, text: 'Round ends' },
  { value: 'flat' as const, text: 'Flat ends' },
  { value: 'square' as const, text: 'Square ends' },
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
  const unit = useBench(unitOf);
  const job = useBench(jobOf);
  const selection = useBench((state) => state.selection);
  const [wish, setWish] = useState(firstWish);
  const [placing, setPlacing] = useState<Placing>({ layerId: null, fate: 'stays', follows: true });
  const sources = useMemo(() => offsetSources(job, selection), [job, selection]);
  const open = useMemo(
    () => sources.some((item) => [...subpathsOf(pathOf(item))].some(({ closed }) => !closed)),
    [sources],
  );
  const ask = useMemo(() => askFor(sources, wish), [sources, wish]);
  const { answer, working, trouble } = useWorked(ask);
  const made = answer ?? noOffsets;
  const { quiet, make, askAgain } = useMaking(made);

  const { settings } = wish;
  const set = (part: Partial<OffsetWish>) => {
    setWish({ ...wish, ...part });
    askAgain();
  };
  const setSettings = (part: Partial<OffsetWish['settings']>) => set({ settings: { ...settings, ...part } });
  const left = made.filter(({ path }) => path.verbs.length > 0);
  const gone = [...new Set(made.filter(({ path }) => path.verbs.length === 0).map((one) => one.settings.by))];

  if (sources.length === 0) {
    return (
      <p className="text-quiet">
        Select outlines on the bed: what lies at a distance from them is shown there before it is made.
      </p>
    );
  }
  const name = left.length === 1 ? `offset ${formatLength(left[0].settings.by, unit)}` : `${left.length} offsets`;
  return (
    <>
      <Choice label="Way" value={wish.way} options={ways} choose={(way) => set({ way })} />
      <div className="grid grid-cols-2 gap-1.5">
        <LengthField
          label="Distance"
          unit={unit}
          value={wish.distance}
          takes="more-than-0"
          commit={(distance) => {
            if (distance > 10_000) return 'That is larger than any bed.';
            set({ distance });
            return undefined;
          }}
        />
        <NumberField
          label="How many"
          layout="stack"
          value={wish.count}
          least={1}
          most={200}
          whole
          commit={(count) => set({ count })}
        />
        {wish.count > 1 && (
          <LengthField
            label="Step"
            unit={unit}
            value={wish.step}
            takes="more-than-0"
            commit={(step) => set({ step })}
          />
        )}
        {settings.join === 'miter' && (
          <NumberField
            label="Mitres up to"
            layout="stack"
            unit="×"
            value={settings.miterLimit}
            least={1}
            most={100}
            commit={(miterLimit) => setSettings({ miterLimit })}
          />
        )}
      </div>
      <Choice label="Corners" value={settings.join} options={joins} choose={(join) => setSettings({ join })} />
      {open && (
        <>
          <Choice label="Open lines" value={settings.side} options={sides} choose={(side) => setSettings({ side })} />
          {settings.side === 'both' && (
            <Choice label="Ends" value={settings.cap} options={caps} choose={(cap) => setSettings({ cap })} />
          )}
        </>
      )}
      <Tick checked={settings.ignoreHoles} set={(checked) => setSettings({ ignoreHoles: checked })}>
        without holes
      </Tick>
      {sources.length > 1 && (
        <Tick checked={wish.apart} set={(checked) => set({ apart: checked })}>
          each of the {sources.length} by itself
        </Tick>
      )}
      <PlacingFields placing={placing} set={(part) => setPlacing({ ...placing, ...part })} />
      {gone.length > 0 && !working && !quiet && (
        <p role="status" className="text-warn">
          {gone.map((by) => sayGone(by, unit)).join(' ')}
        </p>
      )}
      <Trouble words={trouble} />
      <div className="flex gap-1.5">
        <Button look="main" disabled={working || left.length === 0} onClick={() => make(name, placing)}>
          {left.length > 1 ? `Make ${left.length} offsets` : 'Make the offset'}
        </Button>
        {working && <SlowStop />}
      </div>
    </>
  );
}

/** Has a wish worked out; null where there is nothing to ask. */
function askFor(sources: readonly Item[], wish: OffsetWish): (() => Promise<readonly MadeOffset[]>) | null {
  const wished = wishedOffsets(sources, wish);
  if (wished.length === 0) return null;
  return () =>
    Promise.all(wished.map(async (one) => ({ ...one, path: await fileWorker().offset(one.sources, one.settings) })));
}

function sayGone(by: number, unit: Parameters<typeof formatLength>[1]): string {
  const distance = formatLength(Math.abs(by), unit);
  return by < 0 ? `Nothing is left ${distance} inward.` : `Nothing lies ${distance} outward.`;
}
