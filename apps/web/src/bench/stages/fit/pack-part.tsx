import { isOnCard } from '@lambent/core/document';
import { bedBox } from '@lambent/core/machine';
import { type JobPack, layPacked, packedOutlines, packOfJob, sheetUses, type Turning } from '@lambent/core/packing';
import { useEffect, useMemo } from 'react';
import { Button } from '../../../ui/button.tsx';
import { Choice } from '../../../ui/choice.tsx';
import { counted } from '../../../ui/counted.ts';
import { LengthField } from '../../../ui/length-field.tsx';
import { NumberField } from '../../../ui/number-field.tsx';
import { Tick } from '../../../ui/tick.tsx';
import { t } from '../../../words/words.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { useKeptSettings } from '../../kept-settings.ts';
import { newId } from '../../new-id.ts';
import { jobOf, machineOf, unitOf } from '../../state/document.ts';
import { Trouble } from './placing-fields.tsx';
import { type PackLook, usePackLook } from './use-packing.ts';

const firstSettings = {
  gapMm: 2,
  marginMm: 5,
  turning: 'quarter' as Turning,
  mirror: false,
  fillsHoles: true,
  keepsGroups: false,
  count: 1,
  fits: false,
};

const turnings: readonly { value: Turning; text: string }[] = [
  { value: 'none', text: t('Not at all') },
  { value: 'half', text: t('By 180° only, along the grain') },
  { value: 'quarter', text: t('By right angles') },
  { value: 'free', text: t('By any angle') },
];

/** Pieces are laid on the sheets with little waste: looked for, shown on the bed, and taken or left. */
export default function PackPart() {
  const actions = useBenchActions();
  const unit = useBench(unitOf);
  const job = useBench(jobOf);
  const prepared = useBench((state) => state.prepared);
  const machine = useBench(machineOf);
  const selection = useBench((state) => state.selection);
  const [settings, set] = useKeptSettings('pack', firstSettings);
  const { look, begin, stop, forget } = usePackLook();
  const pack = useMemo(() => {
    const { fits, count, ...how } = settings;
    const isTaken = (id: string) => selection.size === 0 || selection.has(id);
    const ids = new Set(
      job.drawing.items.flatMap((item) => (isTaken(item.id) && !item.hidden && !isOnCard(item) ? [item.id] : [])),
    );
    return packOfJob(prepared, { ids, count: fits ? null : count, ...how });
  }, [job, prepared, selection, settings]);
  const isOld = look !== null && look.pack !== pack;
  useEffect(() => {
    if (isOld) forget();
  }, [isOld, forget]);
  const shown = isOld ? null : look;
  const outline = useMemo(() => (shown?.best ? packedOutlines(shown.pack, shown.best) : null), [shown]);
  useEffect(() => {
    actions.showDraft(outline && { outline });
    return () => actions.showDraft(null);
  }, [actions, outline]);
  if (job.sheets.length === 0)
    return <p className="text-quiet">{t('Lay a sheet first: pieces are packed onto it.')}</p>;
  if (pack.pieces.length === 0) {
    return (
      <p className="text-quiet">
        {t('Nothing to pack is cut out. A piece is an outline that is cut, with all that lies in it.')}
      </p>
    );
  }
  const lay = (best: NonNullable<PackLook['best']>) => {
    forget();
    actions.edit(t('pack {{pieces}}', { pieces: counted(pack.pieces.length, 'piece') }), (now) =>
      layPacked(now, pack, best, bedBox(machine), newId),
    );
  };
  return (
    <>
      <p className="text-quiet">
        {selection.size === 0
          ? t('All that is cut is packed: {{pieces}}. Select some to pack only these.', {
              pieces: counted(pack.pieces.length, 'piece'),
            })
          : t('The selection is packed: {{pieces}}. What else lies there stays.', {
              pieces: counted(pack.pieces.length, 'piece'),
            })}
      </p>
      <div className="grid grid-cols-2 gap-1.5">
        <LengthField
          label={t('Between pieces')}
          unit={unit}
          value={settings.gapMm}
          within={[0, 1000]}
          layout="stack"
          commit={(gapMm) => set({ gapMm })}
        />
        <LengthField
          label={t('To the edge')}
          unit={unit}
          value={settings.marginMm}
          within={[0, 1000]}
          layout="stack"
          commit={(marginMm) => set({ marginMm })}
        />
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
      {shown && <Result look={shown} pack={pack} />}
      <div className="flex flex-wrap gap-1.5">
        {shown?.best && (
          <Button look="main" onClick={() => shown.best && lay(shown.best)}>
            {t('Lay them like this')}
          </Button>
        )}
        {shown?.isWorking ? (
          <Button onClick={stop}>{t('Stop looking')}</Button>
        ) : (
          <Button look={shown?.best ? 'plain' : 'main'} onClick={() => begin(pack)}>
            {shown ? t('Look again') : t('Look for a packing')}
          </Button>
        )}
        {shown && (
          <Button look="quiet" onClick={forget}>
            {t('Leave it')}
          </Button>
        )}
      </div>
    </>
  );
}

/** What was found so far. */
function Result({ look: { best, tries, isWorking, isBroken }, pack }: { look: PackLook; pack: JobPack }) {
  if (isBroken) return <Trouble words={t('It could not be worked out. Try again.')} />;
  if (!best) return <p role="status">{isWorking ? t('Looking for a first packing…') : t('None was found.')}</p>;
  const uses = sheetUses(pack.wish, best);
  const left = best.left.reduce((sum, count) => sum + count, 0);
  const laid = best.sheets.reduce((sum, { pieces }) => sum + pieces.length, 0);
  return (
    <div className="flex flex-col gap-1 rounded-[10px] border border-line bg-raised p-3" data-testid="packing">
      <p role="status" className="figures font-semibold">
        {uses.length === 1
          ? t('{{pieces}} on 1 sheet, {{use}} % of it used', {
              pieces: counted(laid, 'piece'),
              use: (100 * uses[0]).toFixed(1),
            })
          : t('{{pieces}} on {{count}} sheets: {{uses}} % used', {
              pieces: counted(laid, 'piece'),
              count: uses.length,
              uses: uses.map((use) => (100 * use).toFixed(1)).join(', '),
            })}
      </p>
      {left > 0 && (
        <p className="text-warn">
          {left === 1
            ? t('1 piece finds no room. It is laid beside the bed, and does not burn.')
            : t('{{left}} pieces find no room. They are laid beside the bed, and do not burn.', { left })}
        </p>
      )}
      <p className="figures text-[12px] text-quiet">
        {isWorking
          ? t('{{tries}}, looking on for up to a minute', {
              tries: tries === 1 ? t('1 try') : t('{{tries}} tries', { tries }),
            })
          : tries === 1
            ? t('1 try')
            : t('{{tries}} tries', { tries })}
      </p>
    </div>
  );
}
