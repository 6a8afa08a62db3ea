import type { Layer } from '@lambent/core/document';
import type { FollowingPlace, MadeBorder, MadeOffset, SourceFate } from '@lambent/core/fit';
import { addFollowing } from '@lambent/core/fit';
import { appendPath, PathBuilder } from '@lambent/core/geometry';
import { useEffect, useState } from 'react';
import { Button } from '../../../ui/button.tsx';
import { Choice } from '../../../ui/choice.tsx';
import { OperationMark } from '../../../ui/operation-mark.tsx';
import { ProgressBar } from '../../../ui/progress-bar.tsx';
import { Tick } from '../../../ui/tick.tsx';
import { t } from '../../../words/words.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { useKeptSettings } from '../../kept-settings.ts';
import { newId } from '../../new-id.ts';
import type { Grip } from '../../tools/tool.ts';
import { useOwnLayers } from '../../use-own-layers.ts';

/** Where what is made of a selection goes, and what becomes of that. */
export type Placing = Pick<FollowingPlace, 'layerId' | 'fate' | 'follows'>;

const firstPlacing: Pick<Placing, 'fate' | 'follows'> = { fate: 'stays', follows: true };

/** Where what a part makes goes: onto a layer of this job, and what it was set to last. */
export function usePlacing(part: string, firstLayer: string | null): [Placing, (change: Partial<Placing>) => void] {
  const [kept, keep] = useKeptSettings(`placing of ${part}`, firstPlacing);
  const [layerId, setLayer] = useState(firstLayer);
  const set = ({ layerId: next, ...change }: Partial<Placing>) => {
    if (next !== undefined) setLayer(next);
    keep(change);
  };
  return [{ layerId, ...kept }, set];
}

interface Props {
  placing: Placing;
  set: (part: Partial<Placing>) => void;
}

/** Where offset outlines go, and what becomes of their sources. */
export function PlacingFields({ placing: { layerId, fate, follows }, set }: Props) {
  const layers = useOwnLayers();
  return (
    <>
      <Choice
        label={t('Layer')}
        value={layerId ?? 'source'}
        options={[
          { value: 'source', text: t('As its source') },
          ...layers.map(({ id, name, operation }) => ({
            value: id,
            text: name,
            mark: <OperationMark operation={operation} />,
          })),
        ]}
        choose={(value) => set({ layerId: value === 'source' ? null : value })}
      />
      <Choice<SourceFate>
        label={t('Source')}
        value={fate}
        options={[
          { value: 'stays', text: t('Stays') },
          ...(guideOf(layers) ? [{ value: 'guide' as const, text: t('Becomes a guide'), aside: t('not burnt') }] : []),
          { value: 'goes', text: t('Is deleted') },
        ]}
        choose={(value) => set({ fate: value })}
      />
      <Tick
        title={t('When the source is moved, reshaped or retyped')}
        checked={follows && fate !== 'goes'}
        disabled={fate === 'goes'}
        set={(checked) => set({ follows: checked })}
      >
        {t('follows its source from now on')}
      </Tick>
    </>
  );
}

function guideOf(layers: readonly Layer[]): string | null {
  return layers.find(({ operation }) => operation === 'guide')?.id ?? null;
}

type Made = readonly (MadeOffset | MadeBorder)[];

/**
 * Shows on the bed what would be made, and makes it. What was just made is selected; what would be made of that is
 * shown once something else is asked for (`askAgain`).
 */
export function useMaking(made: Made, grip: Grip | null = null) {
  const actions = useBenchActions();
  const selection = useBench((state) => state.selection);
  const [justMade, setJustMade] = useState<ReadonlySet<string> | null>(null);
  const quiet = justMade === selection;
  useEffect(() => {
    actions.showDraft(made.length === 0 || quiet ? null : { outline: outlineOfAll(made) });
    return () => actions.showDraft(null);
  }, [made, quiet, actions]);
  useEffect(() => {
    actions.offerGrip(quiet ? null : grip);
    return () => actions.offerGrip(null);
  }, [grip, quiet, actions]);
  const make = (name: string, placing: Placing) => {
    const guideId = guideOf(actions.get().prepared.meaning.layers);
    let ids: string[] = [];
    actions.edit(name, (before) => {
      const added = addFollowing(before, made, { ...placing, guideId, newId });
      ids = added.ids;
      return added.job;
    });
    actions.select(ids);
    setJustMade(actions.get().selection);
  };
  return { quiet, make, askAgain: () => setJustMade(null) };
}

function outlineOfAll(made: Made) {
  const builder = new PathBuilder();
  for (const { path } of made) appendPath(builder, path, true);
  return builder.build();
}

/** How far what takes long has got, and a way out of it; not shown while it may be done in a moment. */
export function SlowStop({ share, stop }: { share: number; stop: () => void }) {
  const [shown, setShown] = useState(false);
  useEffect(() => {
    const timer = window.setTimeout(() => setShown(true), 500);
    return () => window.clearTimeout(timer);
  }, []);
  if (!shown) return null;
  const percent = Math.round(share * 100);
  return (
    <div className="flex w-full items-center gap-2">
      <ProgressBar label={t('Working it out')} share={share} />
      <span className="figures w-9 text-right text-[12px] text-quiet">{percent} %</span>
      <Button look="quiet" onClick={stop}>
        {t('Stop')}
      </Button>
    </div>
  );
}

/** Why something cannot be made; nothing where it can. */
export function Trouble({ words }: { words: string | null }) {
  return words ? (
    <p role="alert" className="text-stop">
      {words}
    </p>
  ) : null;
}
