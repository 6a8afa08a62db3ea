import { type Item, isOnCard } from '@lambent/core/document';
import { type MadeBorder, outlinesOfItems } from '@lambent/core/fit';
import { type Border, type BorderSettings, loopPlace, type Progress } from '@lambent/core/geometry';
import { separates } from '@lambent/core/operations';
import { useMemo, useState } from 'react';
import { Button } from '../../../ui/button.tsx';
import { formatLength } from '../../../ui/figures.ts';
import { LengthField } from '../../../ui/length-field.tsx';
import { Tick } from '../../../ui/tick.tsx';
import { t } from '../../../words/words.ts';
import { work } from '../../../workers/work.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { useKeptSettings } from '../../kept-settings.ts';
import { jobOf, unitOf } from '../../state/document.ts';
import { askForPlace } from '../../tools/place-tool.ts';
import { useOwnLayers } from '../../use-own-layers.ts';
import { borderSources } from './picture-outlines.ts';
import { PlacingFields, SlowStop, Trouble, useMaking, usePlacing } from './placing-fields.tsx';
import { useWorked } from './use-worked.ts';
import { usualLoop } from './usual-loop.ts';

const firstSettings: Omit<BorderSettings, 'loop'> = {
  by: 3,
  bridgeGap: 10,
  bridgeWidth: 4,
  inletWidth: 2,
  innerRadius: 1,
};

const noBorder: readonly MadeBorder[] = [];

/** One cut outline around everything selected. */
export function BorderPart() {
  const actions = useBenchActions();
  const unit = useBench(unitOf);
  const job = useBench(jobOf);
  const selection = useBench((state) => state.selection);
  const cut = useOwnLayers().find(({ operation }) => separates(operation))?.id;
  const [kept, keep] = useKeptSettings('border', firstSettings);
  const [loop, setLoop] = useState<BorderSettings['loop']>(null);
  const settings = useMemo((): BorderSettings => ({ ...kept, loop }), [kept, loop]);
  const [placing, setPlacing] = usePlacing('border', cut ?? null);
  const chosen = useMemo(
    () => job.drawing.items.filter((item) => selection.has(item.id) && !item.hidden && !isOnCard(item)),
    [job, selection],
  );
  const ask = useMemo(
    () =>
      chosen.length > 0
        ? (progress: Progress, signal: AbortSignal) => borderOf(chosen, settings, progress, signal)
        : null,
    [chosen, settings],
  );
  const { answer, working, share, trouble, stop } = useWorked(ask);
  const made = useMemo(() => (answer ? [answer.made] : noBorder), [answer]);
  const { quiet, make, askAgain } = useMaking(made);
  const set = ({ loop: next, ...part }: Partial<BorderSettings>) => {
    if (next !== undefined) setLoop(next);
    keep(part);
    askAgain();
  };
  if (chosen.length === 0) {
    return (
      <p className="text-quiet">
        {t('Select what belongs together, letters and pictures and all: one outline goes around it, to be cut.')}
      </p>
    );
  }
  const length = (label: string, value: number, change: (value: number) => Partial<BorderSettings>, zero = true) => (
    <LengthField
      key={label}
      label={label}
      unit={unit}
      value={value}
      takes={zero ? 'not-below-0' : 'more-than-0'}
      commit={(typed) => {
        if (typed > 1000) return t('That is larger than any bed.');
        set(change(typed));
        return undefined;
      }}
    />
  );
  const place = () =>
    askForPlace(actions, t('Click where on the edge the loop should be'), (point) => {
      set({ loop: { ...usualLoop, ...loop, ...loopPlace(outlinesOfItems(chosen), point) } });
    });
  const border = answer?.border;
  return (
    <>
      <div className="grid grid-cols-2 gap-1.5">
        {length(t('Distance'), settings.by, (distance) => ({ by: distance }))}
        {length(t('Inner radius'), settings.innerRadius, (innerRadius) => ({ innerRadius }))}
        {length(t('Bridge gaps to'), settings.bridgeGap, (bridgeGap) => ({ bridgeGap }))}
        {length(t('Bridges’ width'), settings.bridgeWidth, (bridgeWidth) => ({ bridgeWidth }), false)}
        {length(t('Fill inlets to'), settings.inletWidth, (inletWidth) => ({ inletWidth }))}
      </div>
      <Tick checked={loop !== null} set={(checked) => set({ loop: checked ? usualLoop : null })}>
        {t('with a loop to hang it by')}
      </Tick>
      {loop && (
        <>
          <div className="grid grid-cols-2 gap-1.5">
            {length(t('Hole'), loop.holeMm, (holeMm) => ({ loop: { ...loop, holeMm } }), false)}
            {length(t('Rim'), loop.rimMm, (rimMm) => ({ loop: { ...loop, rimMm } }), false)}
          </div>
          <Button className="self-start" onClick={place}>
            {t('Place the loop on the bed')}
          </Button>
        </>
      )}
      <PlacingFields placing={placing} set={setPlacing} />
      {border && !working && !quiet && (
        <p role="status" className={border.pieces === 1 ? 'text-quiet' : 'text-warn'}>
          {sayPieces(border, unit)}
        </p>
      )}
      <Trouble words={trouble} />
      <div className="flex flex-col items-start gap-1.5">
        <Button
          look="main"
          disabled={working || !border || border.pieces === 0}
          onClick={() => make('border', placing)}
        >
          {t('Make the border')}
        </Button>
        {working && <SlowStop share={share} stop={stop} />}
      </div>
    </>
  );
}

interface Answer {
  readonly border: Border;
  readonly made: MadeBorder;
}

async function borderOf(
  chosen: readonly Item[],
  settings: BorderSettings,
  progress: Progress,
  signal: AbortSignal,
): Promise<Answer> {
  const sources = await borderSources(chosen, signal);
  const border = await work('border', [sources, settings], { progress, signal });
  return { border, made: { kind: 'border', sources, settings, path: border.path } };
}

function sayPieces({ pieces, openGap }: Border, unit: Parameters<typeof formatLength>[1]): string {
  if (pieces === 0) return t('There is nothing to go around.');
  if (pieces === 1) return t('It is one piece.');
  return t('It is {{pieces}} pieces: one piece needs gaps of up to {{openGap}} bridged.', {
    pieces,
    openGap: formatLength(Math.ceil(openGap * 10) / 10, unit),
  });
}
