import type { Extent, PaintUse } from '@lambent/core/colours';
import type { JobDocument, Layer } from '@lambent/core/document';
import { assignPaint } from '@lambent/core/edits';
import { isBurnt } from '@lambent/core/operations';
import type { LengthUnit } from '@lambent/core/units';
import { useVirtualizer } from '@tanstack/react-virtual';
import { Search, X } from 'lucide-react';
import { useMemo, useRef, useState } from 'react';
import { asArea } from '../../../ui/area.ts';
import { Button, IconButton } from '../../../ui/button.tsx';
import { Choice, type Option } from '../../../ui/choice.tsx';
import { counted } from '../../../ui/counted.ts';
import { asLength, fixed } from '../../../ui/figures.ts';
import { OperationMark } from '../../../ui/operation-mark.tsx';
import { t } from '../../../words/words.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { useIsUnder } from '../../row-state.ts';
import { unitOf } from '../../state/document.ts';
import { ownLayers } from '../../use-own-layers.ts';
import { Swatch } from './swatch.tsx';
import { useExtent } from './use-extent.ts';

const backToKey = ' key';
/** Lists longer than this can be searched, and stand closer. */
const longFrom = 9;
const rowPx = { roomy: 66, close: 50 };

const nameOf = ({ part, colour, widthMm }: PaintUse) => `${part} ${colour} ${widthMm}`;
const said = ({ part, colour }: PaintUse) => (part === 'stroke' ? colour : t('fill {{colour}}', { colour }));

/** Every paint of the drawing and what it means, those without meaning first; several can be given one meaning at once. */
export function PaintList() {
  const { paints, layers } = useBench((state) => state.prepared.meaning);
  const job = useBench((state) => state.prepared.job);
  const [sought, setSought] = useState('');
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const long = paints.length > longFrom;
  const rows = useMemo(() => {
    const words = sought.trim().toLowerCase();
    const names = new Map(layers.map(({ id, name }) => [id, name.toLowerCase()]));
    const found = paints.filter(
      (use) => said(use).toLowerCase().includes(words) || (names.get(use.layerId ?? '') ?? 'undecided').includes(words),
    );
    // What needs a decision comes first; the rest stays in the drawing's order.
    return found.sort((a, b) => Number(a.layerId !== null) - Number(b.layerId !== null));
  }, [paints, layers, sought]);
  const holder = useRef<HTMLDivElement>(null);
  const size = long ? rowPx.close : rowPx.roomy;
  const list = useVirtualizer({
    count: rows.length,
    getScrollElement: () => holder.current?.closest('[data-scrolls]') ?? null,
    estimateSize: () => size,
    overscan: 12,
    scrollMargin: holder.current?.offsetTop ?? 0,
  });
  if (paints.length === 0) {
    return (
      <p className="text-quiet">{t('Nothing is drawn yet. Bring in a drawing, and its colours are listed here.')}</p>
    );
  }
  const picked = paints.filter((use) => chosen.has(nameOf(use)));
  const toggle = (use: PaintUse) => {
    const next = new Set(chosen);
    if (!next.delete(nameOf(use))) next.add(nameOf(use));
    setChosen(next);
  };
  return (
    <div className="flex flex-col gap-2">
      {long && (
        <label className="flex h-8 items-center gap-2 rounded-lg border border-line bg-raised px-2.5 focus-within:border-petrol">
          <Search size={14} className="shrink-0 text-quiet" aria-hidden />
          <input
            aria-label={t('Search paints')}
            placeholder={t('Search {{paints}}: a colour, a layer, undecided', { paints: paints.length })}
            value={sought}
            onChange={(event) => setSought(event.target.value)}
            className="min-w-0 flex-1 bg-transparent outline-none"
          />
        </label>
      )}
      {picked.length > 0 && <Together picked={picked} layers={layers} clear={() => setChosen(new Set())} />}
      <div ref={holder} className="relative" style={{ height: list.getTotalSize() }}>
        <ul>
          {list.getVirtualItems().map(({ index, start }) => {
            const use = rows[index];
            return (
              <li
                key={nameOf(use)}
                className="absolute inset-x-0 pb-2"
                style={{ top: start - list.options.scrollMargin, height: size }}
              >
                <PaintRow
                  use={use}
                  job={job}
                  layers={layers}
                  close={long}
                  tellsWidth={hasTwin(use, paints)}
                  chosen={chosen.has(nameOf(use))}
                  toggle={() => toggle(use)}
                />
              </li>
            );
          })}
        </ul>
      </div>
      {rows.length === 0 && <p className="text-quiet">{t('No paint is called that.')}</p>}
      <p className="text-quiet">{t('Guides and notes are shown, never burnt.')}</p>
    </div>
  );
}

/** What a paint comes to: how far lines run, or what fills cover. */
function extentWords({ part }: PaintUse, { lengthMm, areaMm2 }: Extent, unit: LengthUnit): string {
  return part === 'stroke' ? `${fixed(lengthMm / 1000, 2)} m` : asArea(areaMm2, unit, 1);
}

/** Whether another stroke has the same colour, so that only the width tells them apart. */
function hasTwin(use: PaintUse, paints: readonly PaintUse[]): boolean {
  return (
    use.part === 'stroke' &&
    paints.some((other) => other !== use && other.part === 'stroke' && other.colour === use.colour)
  );
}

function layerOptions(layers: readonly Layer[]): Option<string>[] {
  return ownLayers(layers).map(({ id, name, operation }) => ({
    value: id,
    text: isBurnt(operation) ? name : t('{{name}}, not burnt', { name }),
    mark: <OperationMark operation={operation} />,
  }));
}

/** One meaning for several paints. */
function Together(props: { picked: readonly PaintUse[]; layers: readonly Layer[]; clear: () => void }) {
  const { picked, layers, clear } = props;
  const actions = useBenchActions();
  return (
    <div className="sticky top-0 z-10 flex items-center gap-2 rounded-[10px] border border-petrol bg-petrol-soft p-2">
      <span className="flex-1 font-semibold">
        {picked.length} {picked.length === 1 ? t('paint') : t('paints')}
      </span>
      <Button look="quiet" onClick={() => actions.select(picked.flatMap(({ itemIds }) => itemIds))}>
        {t('Select')}
      </Button>
      <Choice
        label={t('What they all mean')}
        look="chip"
        value={null}
        options={layerOptions(layers)}
        choose={(layerId) => {
          actions.edit(t('meaning of {{picked}} paints', { picked: picked.length }), (job) =>
            picked.reduce<JobDocument>((done, use) => assignPaint(done, use, layerId), job),
          );
          clear();
        }}
      />
      <IconButton label={t('Deselect them')} className="size-7" onClick={clear}>
        <X size={14} aria-hidden />
      </IconButton>
    </div>
  );
}

function PaintRow(props: {
  use: PaintUse;
  job: JobDocument;
  layers: readonly Layer[];
  close: boolean;
  tellsWidth: boolean;
  chosen: boolean;
  toggle: () => void;
}) {
  const { use, job, layers, close, tellsWidth, chosen, toggle } = props;
  const actions = useBenchActions();
  const unit = useBench(unitOf);
  const open = use.layerId === null;
  const count = use.itemIds.length;
  const extent = useExtent(use, job);
  const options = [...layerOptions(layers), ...(use.byJob ? [{ value: backToKey, text: t('As the key has it') }] : [])];
  const under = useIsUnder(use.itemIds);
  const details = [
    counted(count, 'item'),
    extent ? extentWords(use, extent, unit) : '…',
    ...(tellsWidth ? [asLength(use.widthMm ?? 0, unit)] : []),
    ...(use.byJob ? [t('by hand')] : []),
  ].join(' · ');
  return (
    <div
      data-under={under}
      className={`group relative flex h-full items-center gap-1.5 rounded-[10px] border px-2 data-[under=true]:ring-1 data-[under=true]:ring-flame ${open ? 'border-stop/60 bg-stop-soft' : 'border-line bg-raised'}`}
      onPointerEnter={() => actions.pointOut(use.itemIds)}
      onPointerLeave={() => actions.pointOut([])}
    >
      <label className="absolute left-1.5 z-10 flex items-center justify-center pointer-coarse:static pointer-coarse:min-w-11 pointer-coarse:shrink-0">
        <input
          type="checkbox"
          aria-label={t('Choose {{use}}', { use: said(use) })}
          title={t('Choose it, to say for several at once what they mean')}
          checked={chosen}
          onChange={toggle}
          className={`m-[5px] size-3.5 accent-petrol focus:opacity-100 group-hover:opacity-100 ${chosen ? '' : 'opacity-40'}`}
        />
      </label>
      <button
        type="button"
        title={t('Select its items')}
        onClick={() => actions.select(use.itemIds)}
        className="flex min-w-0 flex-1 items-center gap-2 text-left"
      >
        <span className="ml-3.5 shrink-0">
          <Swatch part={use.part} colour={use.colour} />
        </span>
        <span className="min-w-0">
          <span className="figures block truncate text-[12.5px] font-semibold">{said(use)}</span>
          <span className={`block truncate text-[12px] text-quiet ${close ? 'leading-4' : ''}`} title={details}>
            {details}
          </span>
        </span>
      </button>
      <Choice
        label={t('What {{use}} means', { use: said(use) })}
        look={open ? 'alert' : 'chip'}
        value={use.layerId}
        options={options}
        choose={(layerId) =>
          actions.edit(t('meaning of {{colour}}', { colour: use.colour }), (job) =>
            assignPaint(job, use, layerId === backToKey ? null : layerId),
          )
        }
      />
    </div>
  );
}
