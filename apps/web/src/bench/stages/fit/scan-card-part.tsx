import { drawnPaint } from '@lambent/core/colours';
import { type Group, type Item, type Layer, rectangleOf } from '@lambent/core/document';
import { addOwnRun } from '@lambent/core/edits';
import {
  layScanCard,
  readScanCard,
  type ScanCardWish,
  scanCardLayerId,
  scanCardLayers,
  stepsBetween,
} from '@lambent/core/fit';
import { translation } from '@lambent/core/geometry';
import { topSpeedOf } from '@lambent/core/machine';
import { labelOperation } from '@lambent/core/operations';
import { type Material, safeWords } from '@lambent/core/recipes';
import { usualSettings } from '@lambent/core/settings';
import { useState } from 'react';
import { toast } from 'sonner';
import { sentenceOf } from '../../../api.ts';
import { Button } from '../../../ui/button.tsx';
import { Choice } from '../../../ui/choice.tsx';
import { asSize } from '../../../ui/figures.ts';
import { LengthField } from '../../../ui/length-field.tsx';
import { NumberField } from '../../../ui/number-field.tsx';
import { t } from '../../../words/words.ts';
import { showItems } from '../../bed/showing.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { freeOnSheet, wordItems } from '../../lay-on-sheet.ts';
import { newId } from '../../new-id.ts';
import type { BenchActions } from '../../state/bench-state.ts';
import { jobOf, machineOf, unitOf } from '../../state/document.ts';
import { useKeepingMachine } from '../keeping.ts';

const axes = [
  { value: 'x' as const, text: t('Lines along X') },
  { value: 'y' as const, text: t('Lines along Y') },
];

/** A card that shows how far lines there and back burn apart, and what is read off it. */
export default function ScanCardPart() {
  const actions = useBenchActions();
  const unit = useBench(unitOf);
  const machine = useBench(machineOf);
  const material = useBench((state) => state.prepared.material);
  const top = topSpeedOf(machine, 'engrave');
  const [axis, setAxis] = useState<'x' | 'y'>('x');
  const [speedCount, setSpeedCount] = useState(4);
  const [powerPercent, setPower] = useState(15);
  const [range, setRange] = useState({ from: 0, to: 0.6, step: 0.05 });
  if (!material) return <p className="text-quiet">{t('Lay a sheet first: the card is burnt on it.')}</p>;
  const speeds = Array.from({ length: speedCount }, (_, i) => Math.round((top * (i + 1)) / speedCount));
  const wish = { axis, speeds, offsets: stepsBetween(range.from, range.to, range.step), powerPercent };
  const length = (label: string, value: number, commit: (mm: number) => string | undefined) => (
    <LengthField label={label} unit={unit} value={value} commit={commit} />
  );
  const set = (part: Partial<typeof range>) => setRange({ ...range, ...part });
  return (
    <>
      <p className="text-[12px] text-quiet">
        {t(
          'The beam follows a little late: engraved there and back, lines burn apart. Of each bar of the card one half is engraved there, the other one back.',
        )}
      </p>
      <Choice label={t('Along')} value={axis} options={axes} choose={setAxis} />
      <div className="grid grid-cols-2 gap-1.5">
        {length(t('From'), range.from, (from) =>
          from < range.to ? void set({ from }) : t('Less than where it ends.'),
        )}
        {length(t('To'), range.to, (to) => (to > range.from ? void set({ to }) : t('More than where it begins.')))}
        {length(t('Each'), range.step, (step) => (step >= 0.005 ? void set({ step }) : t('At least 0.005 mm.')))}
        <NumberField
          label={t('Speeds')}
          layout="stack"
          value={speedCount}
          least={1}
          most={8}
          whole
          commit={setSpeedCount}
        />
        <NumberField
          label={t('Power')}
          layout="stack"
          unit="%"
          value={powerPercent}
          least={1}
          most={100}
          commit={setPower}
        />
      </div>
      <Button
        look="main"
        className="self-start"
        disabled={wish.offsets.length < 2}
        onClick={() => void layOnSheet(actions, wish, material)}
      >
        {t('Lay it on the sheet')}
      </Button>
      <p className="text-[12px] text-quiet">
        {t(
          'Burn its run, and read for each speed which bar’s halves meet. Where none does, lay one that goes further.',
        )}
      </p>
      <ReadCard key={`${axis} ${speeds}`} wish={wish} />
    </>
  );
}

/** Which bar meets at each speed; kept in the machine's table. */
function ReadCard({ wish: { axis, speeds, offsets } }: { wish: ScanCardWish }) {
  const machine = useBench(machineOf);
  const { name } = machine;
  const keepMachine = useKeepingMachine();
  const [read, setRead] = useState<ReadonlyMap<number, number>>(new Map());
  const keep = async () => {
    const isKept = await keepMachine(
      machine,
      (stored) => ({ scanOffsets: readScanCard(stored, axis, read) }),
      t('The scan offsets of {{name}} are kept. Plans correct for them from now on.', { name }),
    );
    if (isKept) setRead(new Map());
  };
  return (
    <section aria-label={t('Read the card')} className="flex flex-col gap-1.5 border-t border-line pt-2">
      <h3 className="text-quiet">{t('Read off the burnt card')}</h3>
      {speeds.map((speed) => (
        <Choice
          key={speed}
          label={t('Meets at {{speed}} mm/s', { speed })}
          value={read.has(speed) ? String(read.get(speed)) : null}
          empty={t('At {{speed}} mm/s: which one', { speed })}
          options={offsets.map((mm) => ({ value: String(mm), text: t('At {{speed}} mm/s: {{mm}} mm', { speed, mm }) }))}
          choose={(mm) => setRead(new Map(read).set(speed, Number(mm)))}
        />
      ))}
      <Button className="self-start" disabled={read.size === 0} onClick={() => void keep()}>
        {t('Keep with {{name}}', { name })}
      </Button>
    </section>
  );
}

/** Puts the card into the job, with a run of its own. */
async function layOnSheet(actions: BenchActions, wish: ScanCardWish, material: Material): Promise<void> {
  const card = layScanCard(wish);
  const machine = machineOf(actions.get());
  const free = freeOnSheet(jobOf(actions.get()), machine, card.width, card.height);
  if (!free) {
    const size = asSize(Math.ceil(card.width), Math.ceil(card.height), unitOf(actions.get()));
    toast.error(
      t('There is no room for the card on the sheet: it takes {{size}}. Choose fewer steps or speeds.', { size }),
    );
    return;
  }
  try {
    const { prepared, shop } = actions.get();
    const { key } = prepared;
    const [id, runId] = [newId(), newId()];
    const group: Group = {
      id: newId(),
      name: t('Scan offset along {{axis}}', { axis: wish.axis.toUpperCase() }),
      parentId: null,
    };
    const wordsLayer = `scan ${id} words`;
    const items: Item[] = [
      ...card.bars.map(
        (bar): Item => ({
          ...drawnPaint(key, 'engrave'),
          id: newId(),
          name: null,
          groupId: group.id,
          hidden: false,
          fillRule: 'nonzero',
          shape: rectangleOf(bar.box),
          matrix: translation(free.x, free.y),
          pinned: scanCardLayerId(id, bar),
        }),
      ),
      ...(await wordItems(card.labels, free, {
        ...drawnPaint(key, labelOperation),
        groupId: group.id,
        pinned: wordsLayer,
      })),
    ];
    const words = safeWords(shop, { material }, machine);
    const layers: Layer[] = [
      {
        id: wordsLayer,
        name: t('Words of the card'),
        operation: labelOperation,
        settings: { ...usualSettings(), ...words },
      },
      ...scanCardLayers(wish, id),
    ];
    actions.edit(t('lay a scan card'), (job) =>
      addOwnRun(job, { id: runId, name: t('Scan card') }, layers, items, group),
    );
    actions.chooseRun(runId);
    showItems(
      actions,
      items.map((item) => item.id),
    );
    actions.select([]);
  } catch (error) {
    toast.error(sentenceOf(error));
  }
}
