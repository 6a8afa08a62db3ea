import { type BoltTie, boltRooms, type FitName, fitNames, type Item, itemsAmong } from '@lambent/core/document';
import {
  boltHoles,
  fitBolts,
  isCircle,
  slotsAmong,
  thicknessBy,
  thicknessUnder,
  tieToThickness,
  untie,
} from '@lambent/core/fit';
import { fitOf, type Material } from '@lambent/core/recipes';
import { lazy, Suspense, useState } from 'react';
import { Button } from '../../../ui/button.tsx';
import { Choice } from '../../../ui/choice.tsx';
import { formatLength } from '../../../ui/figures.ts';
import { Labelled } from '../../../ui/labelled.tsx';
import { lowered, t } from '../../../words/words.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { useKeptSettings } from '../../kept-settings.ts';
import { jobOf, unitOf } from '../../state/document.ts';
import { nameOf } from '../../thing-names.ts';
import { SheetThickness } from '../bed/sheet-thickness.tsx';

const KeepFitForm = lazy(() => import('./keep-fit-form.tsx'));

import { figureWords } from './kerf-words.ts';
import { type Chosen, Meetings } from './meetings-part.tsx';

const fitWords: Record<FitName, string> = {
  loose: t('Loose'),
  sliding: t('Sliding'),
  snug: t('Snug'),
  press: t('Press'),
};

const usualFit = { fit: 'snug' as FitName };
const usualBolt: BoltTie = { size: 'M4', room: 'normal' };

/** How parts meet: fits, and what goes by the thickness of the stock, by another part, or by a bolt. */
export function FitsPart() {
  const unit = useBench(unitOf);
  const material = useBench((state) => state.prepared.material);
  const drawing = useBench((state) => jobOf(state).drawing);
  const selection = useBench((state) => state.selection);
  const [{ fit }, keep] = useKeptSettings('fit', usualFit);
  const chosen = selection.size > 2000 ? [] : itemsAmong(drawing, selection).filter(({ hidden }) => !hidden);
  const figure = fitOf(material, fit);
  return (
    <>
      <Thickness />
      <Choice
        label={t('Fit')}
        value={fit}
        options={fitNames.map((name) => ({
          value: name,
          text: fitWords[name],
          aside: formatLength(fitOf(material, name).mm, unit),
        }))}
        choose={(next) => keep({ fit: next })}
      />
      <p className="text-[12px] text-quiet">
        {t('{{mm}} wider than what goes in: {{source}}.', {
          mm: formatLength(figure.mm, unit),
          source: figureWords(figure.source),
        })}
      </p>
      {material && <KeepFit key={`${material.id} ${fit}`} material={material} fit={fit} />}
      {chosen.length === 0 ? (
        <p className="text-quiet">{t('Select slots, round holes, or a part that another is to meet.')}</p>
      ) : (
        <>
          <Slots chosen={chosen} fit={fit} material={material} />
          <Bolts chosen={chosen} />
          <Meetings chosen={chosen} fit={fit} material={material} />
        </>
      )}
      <News />
    </>
  );
}

/** How thick each sheet truly is. */
function KeepFit({ material, fit }: { material: Material; fit: FitName }) {
  const [open, setOpen] = useState(false);
  if (!open) {
    return (
      <Button look="quiet" className="-ml-3 self-start" onClick={() => setOpen(true)}>
        {t('Change what {{fit}} is in {{name}}', { fit, name: lowered(material.name) })}
      </Button>
    );
  }
  return (
    <Suspense>
      <KeepFitForm material={material} fit={fit} leave={() => setOpen(false)} />
    </Suspense>
  );
}

function Thickness() {
  const sheets = useBench((state) => jobOf(state).sheets);
  if (sheets.length === 0) return <p className="text-quiet">{t('Lay a sheet first: slots go by its thickness.')}</p>;
  return (
    <div className="flex flex-col gap-1.5">
      {sheets.slice(0, 8).map((sheet) => (
        <SheetThickness key={sheet.id} sheet={sheet} alone={sheets.length === 1} />
      ))}
    </div>
  );
}

function Slots({ chosen, fit, material }: Chosen) {
  const actions = useBenchActions();
  const unit = useBench(unitOf);
  const job = useBench(jobOf);
  const materials = useBench((state) => state.shop.materials);
  const thicknessOf = thicknessBy(materials);
  const thick = thicknessUnder(job, chosen[0], thicknessOf);
  const slots = slotsAmong(chosen, thick ?? 0);
  if (slots.length === 0) return null;
  const clearanceMm = fitOf(material, fit).mm;
  const ids = new Set(slots.map(({ id }) => id));
  const tied = slots.filter(({ shape }) => (shape.kind === 'rectangle' || shape.kind === 'slot') && shape.tied).length;
  return (
    <div className="flex flex-wrap items-center gap-1.5">
      <Button
        disabled={thick === null}
        title={thick === null ? t('Lay a sheet first') : t('Their narrower side goes by the thickness from now on')}
        onClick={() =>
          actions.edit(t('slots for the stock'), (before) =>
            tieToThickness(before, ids, { fit, clearanceMm }, thicknessOf),
          )
        }
      >
        {slots.length === 1 ? t('A slot for the stock') : t('{{slots}} slots for the stock', { slots: slots.length })}
        {thick !== null && `: ${formatLength(thick + clearanceMm, unit)}`}
      </Button>
      {tied > 0 && (
        <Button look="quiet" onClick={() => actions.edit(t('release slots'), (before) => untie(before, ids))}>
          {t('Release {{tied}}', { tied })}
        </Button>
      )}
    </div>
  );
}

const roomWords: Record<BoltTie['room'], string> = { close: t('Close'), normal: t('Normal'), wide: t('Wide') };

function Bolts({ chosen }: { chosen: readonly Item[] }) {
  const actions = useBenchActions();
  const unit = useBench(unitOf);
  const [bolt, keep] = useKeptSettings('bolt', usualBolt);
  const holes = chosen.filter(isCircle);
  if (holes.length === 0) return null;
  const hole = boltHoles.find(({ size }) => size === bolt.size);
  const ids = new Set(holes.map(({ id }) => id));
  return (
    <section aria-label={t('Holes for bolts')} className="flex flex-col gap-1.5">
      <div className="grid grid-cols-2 gap-1.5">
        <Labelled label={t('Bolt')}>
          <Choice
            label={t('Bolt')}
            look="slim"
            value={bolt.size}
            options={boltHoles.map(({ size }) => ({ value: size, text: size }))}
            choose={(size) => keep({ size })}
          />
        </Labelled>
        <Labelled label={t('Room')}>
          <Choice
            label={t('Room')}
            look="slim"
            value={bolt.room}
            options={boltRooms.map((room) => ({ value: room, text: roomWords[room] }))}
            choose={(room) => keep({ room })}
          />
        </Labelled>
      </div>
      <Button
        className="self-start"
        onClick={() => actions.edit(t('holes for {{bolt}}', { bolt: bolt.size }), (job) => fitBolts(job, ids, bolt))}
      >
        {holes.length === 1
          ? t('A hole for {{bolt}}', { bolt: bolt.size })
          : t('{{holes}} holes for {{bolt}}', { holes: holes.length, bolt: bolt.size })}
        {hole && `: ${formatLength(hole[bolt.room], unit)}`}
      </Button>
    </section>
  );
}

/** What another thickness changed last. */
function News() {
  const actions = useBenchActions();
  const unit = useBench(unitOf);
  const news = useBench((state) => state.tieNews);
  const drawing = useBench((state) => jobOf(state).drawing);
  if (news.length === 0) return null;
  const names = new Map(
    itemsAmong(drawing, new Set(news.map(({ itemId }) => itemId))).map((item) => [item.id, nameOf(item)]),
  );
  return (
    <section aria-label={t('What followed the thickness')} className="flex flex-col gap-1 border-t border-line pt-2">
      <h3 className="text-quiet">{t('Followed the thickness: {{news}}', { news: news.length })}</h3>
      <ul>
        {news.slice(0, 100).map(({ itemId, what, fromMm, toMm }, i) => (
          <li key={`${itemId} ${i}`}>
            <button
              type="button"
              className="figures w-full rounded px-1 text-left text-[12px] hover:bg-table"
              onClick={() => actions.select([itemId])}
              onPointerEnter={() => actions.pointOut([itemId])}
              onPointerLeave={() => actions.pointOut([])}
            >
              {names.get(itemId) ?? t('gone')}, {what}: {formatLength(fromMm, unit)} → {formatLength(toMm, unit)}
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
