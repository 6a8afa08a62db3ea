import { isOnCard, type JobDocument } from '@lambent/core/document';
import {
  type FurtherSheets,
  furtherSheets,
  type JobPack,
  layPacked,
  type Packing,
  packedMaterial,
  packOfJob,
  usualGap,
} from '@lambent/core/packing';
import { useMemo } from 'react';
import { Button } from '../../../ui/button.tsx';
import { counted } from '../../../ui/counted.ts';
import { lowered, t } from '../../../words/words.ts';
import { showSheets } from '../../bed/showing.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { useKeptSettings } from '../../kept-settings.ts';
import type { BenchState } from '../../state/bench-state.ts';
import { jobOf } from '../../state/document.ts';
import { layingOn } from './laying-on.ts';
import { firstPackSettings, PackFields, type PackSettings } from './pack-fields.tsx';
import { PackResult } from './pack-result.tsx';
import { type Distances, useDistances } from './use-distances.ts';
import { useShownPacking } from './use-packing.ts';

const noFurther: FurtherSheets = { offcuts: [], whole: [] };

/** Pieces are laid on the sheets with little waste: looked for, shown on the bed, and taken or left. */
export default function PackPart() {
  const actions = useBenchActions();
  const hasSheet = useBench((state) => jobOf(state).sheets.length > 0);
  const prepared = useBench((state) => state.prepared);
  const selection = useBench((state) => state.selection);
  const [settings, set] = useKeptSettings('pack', firstPackSettings);
  const { job, machine } = prepared;
  const ids = useMemo(() => packedIds(job, selection), [job, selection]);
  const material = useBench(({ shop }) => shop.materials.find(({ id }) => id === packedMaterial(job, ids)) ?? null);
  const laidWith = useMemo(() => layingOn(machine), [machine]);
  const further = useMemo(
    () => (material ? furtherSheets(job, material, machine) : noFurther),
    [job, material, machine],
  );
  const [distances, setDistances] = useDistances({
    gapMm: usualGap(prepared),
    marginMm: prepared.sheets[0]?.margin ?? 0,
  });
  const { gapMm, marginMm } = distances;
  const pack = useMemo(
    () => packFor(prepared, ids, { ...settings, gapMm, marginMm }, further),
    [prepared, ids, settings, further, gapMm, marginMm],
  );
  const { shown, begin, stop, forget } = useShownPacking(pack, laidWith);
  if (!hasSheet) return <p className="text-quiet">{t('Lay a sheet first: pieces are packed onto it.')}</p>;
  if (pack.pieces.length === 0) {
    return (
      <p className="text-quiet">
        {t('Nothing to pack is cut out. A piece is an outline that is cut, with all that lies in it.')}
      </p>
    );
  }
  const lay = (best: Packing) => {
    forget();
    actions.edit(t('pack {{pieces}}', { pieces: counted(pack.pieces.length, 'piece') }), (now) =>
      layPacked(now, pack, best, laidWith),
    );
    // What was laid on further sheets is seen as well.
    if (best.sheets.some(({ sheet }) => !pack.targets[sheet].isLaid)) showSheets(actions);
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
      {material && prepared.job.sheets.some(({ materialId }) => materialId !== material.id) && (
        <p className="text-quiet">
          {t('They go onto sheets of {{material}}. Select pieces on other stock to pack those.', {
            material: lowered(material.name),
          })}
        </p>
      )}
      <PackFields
        settings={settings}
        set={set}
        distances={distances}
        setDistances={setDistances}
        kerfMm={pack.wish.gapMm}
        further={further}
      />
      {shown && <PackResult look={shown} laidWith={laidWith} />}
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

/** What is to be packed: the selection, or all where nothing is selected. */
function packedIds({ drawing }: JobDocument, selection: ReadonlySet<string>): ReadonlySet<string> {
  const isTaken = (id: string) => selection.size === 0 || selection.has(id);
  return new Set(
    drawing.items.flatMap((item) => (isTaken(item.id) && !item.hidden && !isOnCard(item) ? [item.id] : [])),
  );
}

function packFor(
  prepared: BenchState['prepared'],
  ids: ReadonlySet<string>,
  { fits, count, offcutsFirst, more, ...how }: PackSettings & Distances,
  { offcuts, whole }: FurtherSheets,
): JobPack {
  // Of as many as fit there is no end where there is none of sheets.
  const further = { before: offcutsFirst ? offcuts : [], after: more && !fits ? whole : [] };
  return packOfJob(prepared, { ids, count: fits ? null : count, further, ...how });
}
