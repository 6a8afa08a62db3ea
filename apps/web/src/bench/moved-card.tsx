import { sheetsOnBed } from '@lambent/core/document';
import { itemsOffBed, ontoBed, setSheet, type WayOntoBed, waysOntoBed } from '@lambent/core/edits';
import { bedBox } from '@lambent/core/machine';
import type { PreparedLayer } from '@lambent/core/plan';
import { priceOf } from '@lambent/core/plan';
import { sheetAsStocked } from '@lambent/core/recipes';
import { type LayerSettings, settingOf } from '@lambent/core/settings';
import { X } from 'lucide-react';
import { useMemo } from 'react';
import { Button, IconButton } from '../ui/button.tsx';
import { asSize, formatDuration, formatMoney } from '../ui/figures.ts';
import { lowered, said, t } from '../words/words.ts';
import { showBed } from './bed/showing.ts';
import { useBench, useBenchActions } from './context.ts';
import { jobOf, machineOf, unitOf } from './state/document.ts';
import { isPlanned, planOf } from './state/plan.ts';

const wayNames: Readonly<Record<WayOntoBed, string>> = {
  move: t('Move it on'),
  centre: t('Centre it'),
  turn: t('Turn it by 90°'),
  scale: t('Make it smaller'),
};

/** Says what another machine means for the job: what no longer fits, what was not taken along, its time and price. */
export function MovedCard() {
  const actions = useBenchActions();
  const moved = useBench((state) => state.movedFrom);
  const machine = useBench(machineOf);
  // Taken back, or moved on, there is nothing to say of it any more.
  if (!moved || moved.machine.id === machine.id) return null;
  const close = () => actions.sayMoved(null);
  return (
    <section
      aria-label={t('Another machine')}
      className="w-[396px] max-w-full rounded-xl border border-line bg-paper px-4 py-3 shadow-float"
    >
      <div className="mb-1 flex items-center gap-2">
        <h2 className="min-w-0 flex-1 truncate font-bold">
          {t('From {{name}} to {{name2}}', { name: moved.machine.name, name2: machine.name })}
        </h2>
        <TimeAndPrice />
        <IconButton label={t('Close')} className="-mr-1.5 size-7" onClick={close}>
          <X size={15} aria-hidden />
        </IconButton>
      </div>
      <div className="flex max-h-56 flex-col gap-2 overflow-y-auto">
        <OffBed />
        <ShortSheets />
        <TypedBefore />
      </div>
    </section>
  );
}

/** The time and the price on the machine as it is now; dim until they are worked out. */
function TimeAndPrice() {
  const plan = useBench(planOf);
  const isCurrent = useBench(isPlanned);
  const prepared = useBench((state) => state.prepared);
  const shop = useBench((state) => state.shop);
  const pricing = useBench((state) => state.pricing);
  const price = useMemo(() => plan && priceOf(plan, prepared, shop, pricing), [plan, prepared, shop, pricing]);
  if (!plan) return null;
  return (
    <span className={`figures shrink-0 ${isCurrent ? '' : 'opacity-40'}`} data-testid="moved-time">
      {formatDuration(plan.timeS)}
      {price && price.total > 0 && ` · ${formatMoney(price.total, pricing)}`}
    </span>
  );
}

/** What lies off the bed, and the ways to bring it on. */
function OffBed() {
  const actions = useBenchActions();
  const job = useBench(jobOf);
  const machine = useBench(machineOf);
  const unit = useBench(unitOf);
  const bed = bedBox(machine);
  const off = useMemo(() => itemsOffBed(job, bedBox(machine)), [job, machine]);
  const { bedWidth, bedHeight, name, margin } = machine;
  const size = t('The bed of {{name}} is {{bedWidth}}', { name, bedWidth: asSize(bedWidth, bedHeight, unit) });
  if (off.length === 0) return <p>{t('{{size}}: all that is drawn lies on it.', { size })}</p>;
  return (
    <div>
      <p className="font-semibold text-warn">
        {t(off.length === 1 ? '{{size}}: 1 item lies off it.' : '{{size}}: {{off}} items lie off it.', {
          size,
          off: off.length,
        })}
      </p>
      <div className="mt-1.5 flex flex-wrap gap-1.5">
        {waysOntoBed.map((way) => {
          const brought = ontoBed(job, bed, margin, way);
          return (
            brought && (
              <Button
                key={way}
                onClick={() => {
                  actions.edit(
                    t('{{wayNames}}, for {{name}}', { wayNames: lowered(wayNames[way]), name }),
                    () => brought,
                  );
                  showBed(actions);
                }}
              >
                {wayNames[way]}
              </Button>
            )
          );
        })}
        <Button look="quiet" onClick={() => actions.select(off.map(({ id }) => id))}>
          {t('Select')}
        </Button>
      </div>
    </div>
  );
}

/** Sheets that reach over the bed, which can be cut to it. */
function ShortSheets() {
  const actions = useBenchActions();
  const moved = useBench(jobOf);
  const sheets = useMemo(() => sheetsOnBed(moved), [moved]);
  const materials = useBench((state) => state.shop.materials);
  const machine = useBench(machineOf);
  const { maxX, maxY } = bedBox(machine);
  const over = sheets.filter(({ x, y, width, height }) => x < 0 || y < 0 || x + width > maxX || y + height > maxY);
  if (over.length === 0) return null;
  const cut = () =>
    actions.edit(t('lay the sheets again'), (job) =>
      over.reduce((known, sheet) => {
        const material = materials.find(({ id }) => id === sheet.materialId);
        if (!material) return known;
        const { x, y, width, height } = sheetAsStocked(sheet.id, material, machine, sheet.stockId);
        return setSheet(known, {
          ...sheet,
          x,
          y,
          // One with an outline of its own is as large as that.
          ...(sheet.outline ? {} : { width: Math.min(width, sheet.width), height: Math.min(height, sheet.height) }),
          angle: undefined,
        });
      }, job),
    );
  return (
    <div className="flex flex-wrap items-center gap-2">
      <p className="min-w-0 flex-1 text-warn">
        {t(
          over.length === 1
            ? 'A sheet is larger than the bed or over its edge.'
            : '{{over}} sheets are larger than the bed or over its edge.',
          { over: over.length },
        )}
      </p>
      <Button onClick={cut}>
        {t(over.length === 1 ? 'Fit it at the zero corner' : 'Fit them at the zero corner')}
      </Button>
    </div>
  );
}

/** What was typed by hand for the other machine: not taken along unasked, beside what the book says here. */
function TypedBefore() {
  const actions = useBenchActions();
  const moved = useBench((state) => state.movedFrom);
  const layers = useBench((state) => state.prepared.layers);
  const settings = useBench((state) => jobOf(state).settings);
  if (!moved) return null;
  const typed = Object.entries(moved.settings).flatMap(([id, changed]) =>
    Object.entries(changed)
      .filter(([name, value]) => settings[id]?.[name as keyof LayerSettings] !== value)
      .map(([name, value]) => ({ id, name: name as keyof LayerSettings, value })),
  );
  if (typed.length === 0) return null;
  const take = () =>
    actions.edit(t('take along what was typed'), (job) => ({
      ...job,
      settings: { ...moved.settings, ...job.settings },
    }));
  return (
    <div className="border-t border-line pt-2">
      <p>{t('Typed by hand for {{name}}, and not taken along:', { name: moved.machine.name })}</p>
      <ul className="my-1 text-[12.5px]">
        {typed.map(({ id, name, value }) => (
          <li key={`${id} ${name}`} className="flex gap-2">
            <span className="min-w-0 flex-1 truncate">
              {layerName(layers, id)}, {said(settingOf(name).words)}
            </span>
            <span className="figures">{inWords(name, value)}</span>
            <span className="figures w-32 text-right text-quiet">
              {t('here {{layers}}', { layers: hereFor(layers, id, name) })}
            </span>
          </li>
        ))}
      </ul>
      <Button onClick={take}>{typed.length === 1 ? t('Take it along') : t('Take them along')}</Button>
    </div>
  );
}

function layerName(layers: readonly PreparedLayer[], id: string): string {
  return layers.find((known) => known.id === id)?.layer.name ?? id;
}

/** What holds of a setting on this machine: what the book says, or that it says nothing. */
function hereFor(layers: readonly PreparedLayer[], id: string, name: keyof LayerSettings): string {
  const value = layers.find((known) => known.id === id)?.applied.settings?.[name];
  return value === undefined ? t('nothing yet') : inWords(name, value);
}

function inWords(name: keyof LayerSettings, value: unknown): string {
  return `${String(value)} ${settingOf(name).unit}`.trim();
}
