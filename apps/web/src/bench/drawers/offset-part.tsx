import {
  addOffsets,
  appendPath,
  formatLength,
  type Join,
  type MadeOffset,
  type OffsetWish,
  offsetSources,
  PathBuilder,
  pathOf,
  plainOffset,
  type Side,
  type SourceFate,
  subpathsOf,
} from '@lambent/core';
import { useEffect, useMemo, useState } from 'react';
import { Button } from '../../ui/button.tsx';
import { Choice } from '../../ui/choice.tsx';
import { LengthField } from '../../ui/length-field.tsx';
import { NumberField } from '../../ui/number-field.tsx';
import { OperationMark } from '../../ui/operation-mark.tsx';
import { Tick } from '../../ui/tick.tsx';
import { cancelFileWork } from '../../workers/bench.ts';
import { useBench, useBenchActions } from '../context.ts';
import { jobOf, unitOf } from '../store.ts';
import { newId, showDraft } from '../tools/draw.ts';
import { Part } from './drawer.tsx';
import { useOffsets } from './use-offsets.ts';

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

/** Outlines at a distance from what is selected, shown on the bed before they are made. */
export function OffsetPart() {
  const actions = useBenchActions();
  const unit = useBench(unitOf);
  const job = useBench(jobOf);
  const selection = useBench((state) => state.selection);
  const layers = useBench((state) => state.prepared.meaning.layers);
  const [wish, setWish] = useState(firstWish);
  const [layerId, setLayerId] = useState<string | null>(null);
  const [fate, setFate] = useState<SourceFate>('stays');
  const [follows, setFollows] = useState(true);
  const sources = useMemo(() => offsetSources(job, selection), [job, selection]);
  const open = useMemo(
    () => sources.some((item) => [...subpathsOf(pathOf(item))].some(({ closed }) => !closed)),
    [sources],
  );
  const { made, working, trouble } = useOffsets(sources, wish);
  /** What was just made is selected; an offset of it is shown once one is asked for. */
  const [justMade, setJustMade] = useState<ReadonlySet<string> | null>(null);
  const quiet = justMade === selection;
  const guide = layers.find(({ operation }) => operation === 'guide') ?? null;

  useEffect(() => {
    showDraft(actions, made.length === 0 || quiet ? null : { outline: outlineOfAll(made) });
    return () => showDraft(actions, null);
  }, [made, quiet, actions]);

  const { settings } = wish;
  const set = (part: Partial<OffsetWish>) => {
    setWish({ ...wish, ...part });
    setJustMade(null);
  };
  const setSettings = (part: Partial<OffsetWish['settings']>) => set({ settings: { ...settings, ...part } });
  const left = made.filter(({ path }) => path.verbs.length > 0);
  const gone = [...new Set(made.filter(({ path }) => path.verbs.length === 0).map((one) => one.settings.by))];

  if (sources.length === 0) {
    return (
      <Part title="Offset">
        <p className="text-quiet">
          Select outlines on the bed: what lies at a distance from them is shown there before it is made.
        </p>
      </Part>
    );
  }
  const make = () => {
    const placing = { layerId, fate, guideId: guide?.id ?? null, follows, newId };
    const name = left.length === 1 ? `offset ${formatLength(left[0].settings.by, unit)}` : `${left.length} offsets`;
    let ids: string[] = [];
    actions.edit(name, (before) => {
      const added = addOffsets(before, left, placing);
      ids = added.ids;
      return added.job;
    });
    actions.select(ids);
    setJustMade(actions.get().selection);
  };
  return (
    <Part title="Offset">
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
      <Choice
        label="Onto the layer"
        value={layerId ?? 'source'}
        options={[
          { value: 'source', text: 'Painted as the source' },
          ...layers.map(({ id, name, operation }) => ({
            value: id,
            text: `Onto ${name}`,
            mark: <OperationMark operation={operation} />,
          })),
        ]}
        choose={(value) => setLayerId(value === 'source' ? null : value)}
      />
      <Choice<SourceFate>
        label="The source"
        value={fate}
        options={[
          { value: 'stays', text: 'The source stays' },
          ...(guide ? [{ value: 'guide' as const, text: 'The source becomes a guide', aside: 'not burnt' }] : []),
          { value: 'goes', text: 'The source goes' },
        ]}
        choose={setFate}
      />
      <Tick
        title="When the source is moved, reshaped or retyped"
        checked={follows && fate !== 'goes'}
        disabled={fate === 'goes'}
        set={setFollows}
      >
        follows its source from now on
      </Tick>
      {gone.length > 0 && !working && !quiet && (
        <p role="status" className="text-warn">
          {gone.map((by) => sayGone(by, unit)).join(' ')}
        </p>
      )}
      {trouble && (
        <p role="alert" className="text-stop">
          {trouble}
        </p>
      )}
      <div className="flex gap-1.5">
        <Button look="main" disabled={working || left.length === 0} onClick={make}>
          {left.length > 1 ? `Make ${left.length} offsets` : 'Make the offset'}
        </Button>
        {working && <SlowStop />}
      </div>
    </Part>
  );
}

/** A way out of what takes long; not shown while it may be done in a moment. */
function SlowStop() {
  const [shown, setShown] = useState(false);
  useEffect(() => {
    const timer = window.setTimeout(() => setShown(true), 500);
    return () => window.clearTimeout(timer);
  }, []);
  return shown ? (
    <Button look="quiet" onClick={cancelFileWork}>
      Stop
    </Button>
  ) : null;
}

function sayGone(by: number, unit: Parameters<typeof formatLength>[1]): string {
  const distance = formatLength(Math.abs(by), unit);
  return by < 0 ? `Nothing is left ${distance} inward.` : `Nothing lies ${distance} outward.`;
}

function outlineOfAll(made: readonly MadeOffset[]) {
  const builder = new PathBuilder();
  for (const { path } of made) appendPath(builder, path, true);
  return builder.build();
}
