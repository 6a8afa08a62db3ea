import { type JobPack, type Laying, nameOfPiece, type Packing, sheetUses } from '@lambent/core/packing';
import { formatClock } from '@lambent/core/units';
import { counted } from '../../../ui/counted.ts';
import { t } from '../../../words/words.ts';
import { Trouble } from './placing-fields.tsx';
import { usePackTimes } from './use-pack-times.ts';
import type { PackLook } from './use-packing.ts';

/** So many of the pieces that find no room are named. */
const mostNamed = 4;

/** What was found so far. */
export function PackResult({ look, laidWith }: { look: PackLook; laidWith: Laying }) {
  const { pack, best, tries, isWorking, isBroken } = look;
  if (isBroken) return <Trouble words={t('It could not be worked out. Try again.')} />;
  if (!best) return <p role="status">{isWorking ? t('Looking for a first packing…') : t('None was found.')}</p>;
  const uses = sheetUses(pack.wish, best);
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
      <LeftOver pack={pack} packing={best} />
      <Times pack={pack} packing={best} laidWith={laidWith} />
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

/** The pieces that find no room, by name. */
function LeftOver({ pack, packing }: { pack: JobPack; packing: Packing }) {
  const left = packing.left.reduce((sum, count) => sum + count, 0);
  if (left === 0) return null;
  const named = packing.left.flatMap((count, i) => {
    const name = nameOfPiece(pack.pieces[i]);
    return count > 1 ? [`${count} × ${name}`] : count === 1 ? [name] : [];
  });
  const more = named.length > mostNamed ? [t('{{count}} more', { count: named.length - mostNamed })] : [];
  return (
    <p className="text-warn">
      {left === 1
        ? t('1 piece finds no room. It is laid beside the bed, and does not burn.')
        : t('{{left}} pieces find no room. They are laid beside the bed, and do not burn.', { left })}{' '}
      {[...named.slice(0, mostNamed), ...more].join(', ')}
    </p>
  );
}

function Times(props: { pack: JobPack; packing: Packing; laidWith: Laying }) {
  const times = usePackTimes(props.pack, props.packing, props.laidWith);
  if (times === null) return null;
  return (
    <p className="figures text-[12px]">
      {times
        ? t('Burns in {{time}}, of which {{travel}} moving unlit', {
            time: formatClock(times.timeS),
            travel: formatClock(times.travelS),
          })
        : t('Working out the time…')}
    </p>
  );
}
