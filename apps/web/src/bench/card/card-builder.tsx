import type { CardAxis, CardWish, JobDocument } from '@lambent/core/document';
import type { Machine } from '@lambent/core/machine';
import { type BurntOperation, burntOperations, labelOperation, operationOf } from '@lambent/core/operations';
import {
  cardKinds,
  cardSettingOf,
  cardWish,
  layCard,
  type Material,
  type TestCard,
  valuesAlong,
} from '@lambent/core/recipes';
import { beyondMachine, settingsOf } from '@lambent/core/settings';
import { useMemo, useState } from 'react';
import { Button } from '../../ui/button.tsx';
import { Choice } from '../../ui/choice.tsx';
import { counted } from '../../ui/counted.ts';
import { LengthField } from '../../ui/length-field.tsx';
import { NumberField } from '../../ui/number-field.tsx';
import { useEscape } from '../../ui/use-escape.ts';
import { lowered, said, t } from '../../words/words.ts';
import { useBench, useBenchActions } from '../context.ts';
import { freeOnSheet } from '../lay-on-sheet.ts';
import { Drawer, Part } from '../stages/drawer.tsx';
import { jobOf, machineOf, unitOf } from '../state/document.ts';
import { BackToRecipe } from './back.tsx';
import { CardRoom } from './card-room.tsx';
import { CardSketch } from './card-sketch.tsx';
import { CardValue } from './card-value.tsx';
import { putCard } from './lay-card.ts';

/** What a new card begins with: another operation's, or one that looks closer at a cell. */
export interface CardStart {
  readonly operation: BurntOperation;
  readonly wish?: CardWish;
}

/** Asks what a new test card is to try, and lays it on the sheet. */
export function CardBuilder({ start, leave }: { start: CardStart; leave: () => void }) {
  const material = useBench((state) => state.prepared.material);
  const hasSheet = useBench((state) => jobOf(state).sheets.length > 0);
  useEscape(leave);
  return (
    <Drawer title={t('New test card')} aside={<BackToRecipe leave={leave} />}>
      {material?.forbidden ? (
        <p className="text-stop">
          {t('{{name}} must never be lasered: {{forbidden}}', { name: material.name, forbidden: material.forbidden })}
        </p>
      ) : !material || !hasSheet ? (
        <p className="text-quiet">{t('Lay a sheet first: a card tries its material on this machine.')}</p>
      ) : (
        <CardForm material={material} start={start} leave={leave} />
      )}
    </Drawer>
  );
}

const groundWords = {
  recipe: t('The ranges lie around the recipe that is in the book.'),
  'worked out': t('The ranges lie around what is worked out from other burns.'),
  nothing: t('Nothing is known of this: the ranges are wide. Burn the card, then one that looks closer.'),
};

/** Which kind of card to begin with: that of a wish, where there is one. */
function kindOf({ operation, wish }: CardStart) {
  const kinds = cardKinds(wish?.operation ?? operation);
  const known = kinds.find(({ across, down }) => across === wish?.across.setting && down === wish.down?.setting);
  return known ?? kinds[0];
}

function stockOf(job: JobDocument, material: Material) {
  const thicknessMm = job.sheets.find(({ materialId }) => materialId === material.id)?.thicknessMm;
  return { material, ...(thicknessMm === undefined ? {} : { thicknessMm }) };
}

function CardForm({ material, start, leave }: { material: Material; start: CardStart; leave: () => void }) {
  const actions = useBenchActions();
  const machine = useBench(machineOf);
  const job = useBench(jobOf);
  const unit = useBench(unitOf);
  const fresh = (operation: BurntOperation, kind: string) => {
    const { shop } = actions.get();
    return cardWish(shop, stockOf(jobOf(actions.get()), material), machine, operation, kind);
  };
  const [kind, setKind] = useState(() => kindOf(start).id);
  const [{ wish, ground }, setDraft] = useState<{ wish: CardWish; ground: keyof typeof groundWords | null }>(() =>
    start.wish ? { wish: start.wish, ground: null } : fresh(start.operation, kind),
  );
  const [busy, setBusy] = useState(false);
  const change = (part: Partial<CardWish>) => setDraft({ wish: { ...wish, ...part }, ground });
  const choose = (operation: BurntOperation, wanted: string) => {
    const kinds = cardKinds(operation);
    const { id } = kinds.find((known) => known.id === wanted) ?? kinds[0];
    setKind(id);
    setDraft(fresh(operation, id));
  };
  const varied = new Set<string>([wish.across.setting, wish.down?.setting ?? '']);
  const card = layCard(wish);
  // What lies on the sheet decides whether the card can lie there.
  const isFree = useMemo(
    () => freeOnSheet(job, machine, card.width, card.height) !== null,
    [job, machine, card.width, card.height],
  );
  const trouble = troubleOf(card, wish, machine);
  return (
    <>
      <Part title={t('What it tries')}>
        <Choice
          label={t('Operation')}
          value={wish.operation}
          options={burntOperations.map((operation) => ({ value: operation, text: said(operationOf(operation).name) }))}
          choose={(operation) => choose(operation, kind)}
        />
        <Choice
          label={t('Kind of card')}
          value={kind}
          options={cardKinds(wish.operation)
            // A focus that is set by hand cannot differ from cell to cell.
            .filter(({ id }) => id !== 'focus' || machine.focus)
            .map(({ id, name }) => ({ value: id, text: name }))}
          choose={(next) => choose(wish.operation, next)}
        />
        <p className="text-[12px] text-quiet">
          {ground ? groundWords[ground] : t('A closer look: from one neighbour of the best cell to the other.')}
        </p>
      </Part>
      <AxisPart title={t('Across')} axis={wish.across} machine={machine} set={(across) => change({ across })} />
      {wish.down && <AxisPart title={t('Down')} axis={wish.down} machine={machine} set={(down) => change({ down })} />}
      <Part title={t('The same in every cell')}>
        <div className="grid grid-cols-2 items-start gap-1.5">
          {(['powerPercent', 'speedMmPerS', 'passes', 'lineSpacingMm', 'focusMm'] as const)
            .filter((setting) => settingsOf(wish.operation).includes(setting) && !varied.has(setting))
            .map((setting) => (
              <CardValue
                key={setting}
                label={setting === 'powerPercent' && varied.has('greyPercent') ? t('Power at black') : undefined}
                setting={setting}
                value={wish.rest[setting] ?? 0}
                machine={machine}
                commit={(value) => change({ rest: { ...wish.rest, [setting]: value } })}
              />
            ))}
          {wish.lightest !== undefined && (
            <NumberField
              label={t('Power at white')}
              layout="stack"
              unit={t('% of it')}
              value={wish.lightest * 100}
              least={0}
              most={90}
              commit={(percent) => change({ lightest: percent / 100 })}
            />
          )}
        </div>
      </Part>
      <Part title={t('Cells and words')}>
        <div className="grid grid-cols-2 items-start gap-1.5">
          <LengthField
            label={t('Cell')}
            unit={unit}
            value={wish.cellMm}
            commit={(cellMm) => (cellMm >= 3 && cellMm <= 100 ? change({ cellMm }) : t('From 3 to 100 mm.'))}
          />
          <LengthField
            label={t('Between cells')}
            unit={unit}
            value={wish.gapMm}
            commit={(gapMm) => (gapMm >= 1 && gapMm <= 50 ? change({ gapMm }) : t('From 1 to 50 mm.'))}
          />
          <CardValue
            label={t('Words: power')}
            setting="powerPercent"
            value={wish.words.powerPercent}
            machine={machine}
            commit={(powerPercent) => change({ words: { ...wish.words, powerPercent } })}
          />
          <CardValue
            label={t('Words: speed')}
            setting="speedMmPerS"
            value={wish.words.speedMmPerS}
            machine={machine}
            commit={(speedMmPerS) => change({ words: { ...wish.words, speedMmPerS } })}
          />
        </div>
        <p className="text-[12px] text-quiet">{t('The words are scored as mildly as the book knows.')}</p>
      </Part>
      <CardSketch card={card} wish={wish} />
      <CardRoom card={card} wish={wish} isFree={isFree} change={change} />
      {trouble && (
        <p role="alert" className="text-stop">
          {trouble}
        </p>
      )}
      <Button
        look="main"
        className="shrink-0 self-start"
        disabled={busy || trouble !== null || !isFree}
        onClick={async () => {
          setBusy(true);
          const lies = await putCard(actions, wish, material);
          setBusy(false);
          if (lies) leave();
        }}
      >
        {t('Lay {{cells}} on the sheet', { cells: counted(card.cells.length, 'cell') })}
      </Button>
    </>
  );
}

/** What of a card the machine cannot burn, in its own sentence. */
function troubleOf(card: TestCard, { operation, words }: CardWish, machine: Machine): string | null {
  for (const { settings } of card.cells) {
    const [beyond] = beyondMachine(settings, operation, machine);
    if (beyond) return beyond.sentence;
  }
  const [first] = card.cells;
  const [beyond] = beyondMachine({ ...first.settings, passes: 1, kerfMm: 0, ...words }, labelOperation, machine);
  return beyond ? t('Words: {{sentence}}', { sentence: beyond.sentence }) : null;
}

interface AxisProps {
  title: string;
  axis: CardAxis;
  machine: Machine;
  set: (axis: CardAxis) => void;
}

function AxisPart({ title, axis, machine, set }: AxisProps) {
  const { name } = cardSettingOf(axis.setting);
  const value = (label: string, end: 'from' | 'to') => (
    <CardValue
      label={label}
      bare
      setting={axis.setting}
      value={axis[end]}
      machine={machine}
      commit={(next) => set({ ...axis, [end]: next })}
    />
  );
  return (
    <Part title={`${title}: ${lowered(name)}`}>
      <div className="grid grid-cols-3 items-start gap-x-1.5 gap-y-1">
        {[t('From'), t('To'), t('Steps')].map((words) => (
          <span key={words} className="text-quiet" aria-hidden>
            {words}
          </span>
        ))}
        {value(t('{{name}} from', { name }), 'from')}
        {value(t('{{name}} to', { name }), 'to')}
        <NumberField
          label={t('{{name}} steps', { name })}
          bare
          layout="stack"
          value={axis.steps}
          least={1}
          most={20}
          whole
          commit={(steps) => set({ ...axis, steps })}
        />
      </div>
      <p className="figures text-[12px] text-quiet">{valuesAlong(axis).join(' · ')}</p>
    </Part>
  );
}
