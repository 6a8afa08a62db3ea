import type { FurtherSheets, Turning } from '@lambent/core/packing';
import { Choice } from '../../../ui/choice.tsx';
import { formatLength } from '../../../ui/figures.ts';
import { NumberField } from '../../../ui/number-field.tsx';
import { Tick } from '../../../ui/tick.tsx';
import { t } from '../../../words/words.ts';
import { useBench } from '../../context.ts';
import { unitOf } from '../../state/document.ts';
import { DistanceField } from './distance-field.tsx';
import type { Distances } from './use-distances.ts';

/** How the operator packs. */
export interface PackSettings {
  readonly isOneCut: boolean;
  readonly turning: Turning;
  readonly mirror: boolean;
  readonly fillsHoles: boolean;
  readonly keepsGroups: boolean;
  readonly count: number;
  readonly fits: boolean;
  readonly offcutsFirst: boolean;
  readonly more: boolean;
}

export const firstPackSettings: PackSettings = {
  isOneCut: false,
  turning: 'quarter',
  mirror: false,
  fillsHoles: true,
  keepsGroups: false,
  count: 1,
  fits: false,
  offcutsFirst: false,
  more: true,
};

const turnings: readonly { value: Turning; text: string }[] = [
  { value: 'none', text: t('Not at all') },
  { value: 'half', text: t('By 180° only, along the grain') },
  { value: 'quarter', text: t('By right angles') },
  { value: 'free', text: t('By any angle') },
];

interface Props {
  settings: PackSettings;
  set: (part: Partial<PackSettings>) => void;
  distances: Distances;
  setDistances: (part: Partial<Distances>) => void;
  /** How far apart pieces come to lie where edges are cut once. */
  kerfMm: number;
  further: FurtherSheets;
}

/** How many pieces are packed, how far apart, how they may lie, and onto what. */
export function PackFields({ settings, set, distances, setDistances, kerfMm, further }: Props) {
  const unit = useBench(unitOf);
  const offcuts = further.offcuts.reduce((sum, { count }) => sum + (count ?? 0), 0);
  return (
    <>
      <div className="grid grid-cols-2 gap-1.5">
        {settings.isOneCut ? (
          <p className="figures self-end pb-1.5">
            {t('{{kerf}} apart: the kerf', { kerf: formatLength(kerfMm, unit) })}
          </p>
        ) : (
          <DistanceField name="gapMm" distances={distances} setDistances={setDistances} />
        )}
        <DistanceField name="marginMm" distances={distances} setDistances={setDistances} />
        {!settings.fits && (
          <NumberField
            label={t('How many of each')}
            value={settings.count}
            least={1}
            most={1000}
            whole
            layout="stack"
            commit={(count) => set({ count })}
          />
        )}
      </div>
      <Tick checked={settings.fits} set={(fits) => set({ fits })}>
        {t('as many as fit')}
      </Tick>
      <Tick checked={settings.isOneCut} set={(isOneCut) => set({ isOneCut })}>
        {t('one cut for two: straight edges side by side are cut once')}
      </Tick>
      <Choice label={t('Turned')} value={settings.turning} options={turnings} choose={(turning) => set({ turning })} />
      <Tick checked={settings.mirror} set={(mirror) => set({ mirror })}>
        {t('mirrored where it helps')}
      </Tick>
      <Tick checked={settings.fillsHoles} set={(fillsHoles) => set({ fillsHoles })}>
        {t('small ones in the holes of large ones')}
      </Tick>
      <Tick checked={settings.keepsGroups} set={(keepsGroups) => set({ keepsGroups })}>
        {t('groups stay whole')}
      </Tick>
      {offcuts > 0 && (
        <Tick checked={settings.offcutsFirst} set={(offcutsFirst) => set({ offcutsFirst })}>
          {offcuts === 1 ? t('the offcut in stock first') : t('the {{offcuts}} offcuts in stock first', { offcuts })}
        </Tick>
      )}
      {!settings.fits && (
        <Tick checked={settings.more} set={(more) => set({ more })}>
          {t('more sheets if it takes them, each burnt in a run of its own')}
        </Tick>
      )}
    </>
  );
}
