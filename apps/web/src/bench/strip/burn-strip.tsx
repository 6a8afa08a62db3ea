import { closestCenter, DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import {
  arrayMove,
  horizontalListSortingStrategy,
  SortableContext,
  sortableKeyboardCoordinates,
} from '@dnd-kit/sortable';
import { cardOfLayer } from '@lambent/core/document';
import { orderSteps } from '@lambent/core/edits';
import { toMachine } from '@lambent/core/machine';
import { isBurnt } from '@lambent/core/operations';
import type { PlanStep, PreparedLayer } from '@lambent/core/plan';
import { RotateCcw } from 'lucide-react';
import { useMemo } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { formatLength } from '../../ui/figures.ts';
import { t } from '../../words/words.ts';
import { shownSteps } from '../card/card-steps.ts';
import { useBench, useBenchActions } from '../context.ts';
import { jobOf, machineOf, unitOf } from '../state/document.ts';
import { planOf } from '../state/plan.ts';
import { useShownRun } from '../use-shown-run.ts';
import { RunsSwitcher } from './runs-switcher.tsx';
import { CardBlock, IdleBlock, StepBlock } from './step-block.tsx';

/** What burns, in its order; the run looked at; and the readout. */
export function BurnStrip() {
  return (
    <section
      className="flex h-[92px] shrink-0 gap-3 bg-slate py-2.5 pl-3.5 pr-3.5 text-[#E9EEEB] low:h-[52px] low:py-1 pointer-coarse:h-[104px]"
      id="strip"
      aria-label={t('Burn order')}
    >
      <div className="flex w-[104px] shrink-0 flex-col justify-between py-0.5 low:w-auto low:flex-row low:items-center low:gap-2">
        <p className="flex items-center justify-between font-bold">
          {t('Burn order')}
          <UsualOrder />
        </p>
        <RunsSwitcher />
      </div>
      <Steps />
      <Readout />
    </section>
  );
}

/** The layers in the order they burn, each as wide as the time it takes: dragged into another order. */
function Steps() {
  const actions = useBenchActions();
  const steps = useBench((state) => planOf(state)?.steps ?? null);
  const previewS = useBench((state) => state.previewS);
  const run = useShownRun();
  const idle = useBench(useShallow((state) => state.prepared.layers.filter(isIdle)));
  // A drag begins some pixels on: a click opens the block.
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates, keyboardCodes: dragKeys }),
  );
  const shownS = run?.atS ?? previewS;
  const shown = useMemo(() => steps && shownSteps(steps), [steps]);
  const ids = useMemo(() => steps?.map(({ id }) => id) ?? [], [steps]);
  let start = 0;
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={({ active, over }) => {
        if (!over || active.id === over.id) return;
        const order = arrayMove(ids, ids.indexOf(String(active.id)), ids.indexOf(String(over.id)));
        actions.edit(t('change the burn order'), (job) => orderSteps(job, order));
      }}
    >
      <SortableContext items={ids} strategy={horizontalListSortingStrategy}>
        <ol className="flex min-w-0 flex-1 gap-2.5 overflow-x-auto">
          {shown?.map((shown) => {
            const from = start;
            if (shown.kind === 'card') {
              start += shown.timeS;
              return <CardBlock key={shown.steps[0].id} card={shown} done={shareDone(shownS, from, shown.timeS)} />;
            }
            const { step } = shown;
            start += step.timeS;
            return <StepBlock key={blockKey(step)} step={step} done={shareDone(shownS, from, step.timeS)} />;
          })}
          {idle.map((layer) => (
            <IdleBlock key={layer.id} prepared={layer} />
          ))}
          {steps?.length === 0 && idle.length === 0 && (
            <li className="self-center text-[#A9B7B4]">
              {t('What burns, and in which order, appears here once something is drawn.')}
            </li>
          )}
        </ol>
      </SortableContext>
    </DndContext>
  );
}

/** How much of a stretch of the plan is done at a time, from 0 to 1. */
function shareDone(shownS: number | null, from: number, timeS: number): number | null {
  return shownS === null ? null : Math.min(1, Math.max(0, (shownS - from) / timeS));
}

/** Whether a layer could burn and does not, in the run looked at; cards have runs of their own. */
function isIdle({ layer, burns, placed }: PreparedLayer): boolean {
  return isBurnt(layer.operation) && !burns && placed.length > 0 && cardOfLayer(layer.id) === null;
}

/** A block stays itself, and open, when its layer's edge and inside become one step or two. */
function blockKey({ id, preparedId, part }: PlanStep): string {
  return part === 'inner' ? id : preparedId;
}

/** Enter opens a block; Space takes it up and puts it down. */
const dragKeys = { start: ['Space'], cancel: ['Escape'], end: ['Space', 'Enter'] };

/** The way back to the usual order. */
function UsualOrder() {
  const actions = useBenchActions();
  const own = useBench((state) => jobOf(state).order.length > 0);
  if (!own) return null;
  return (
    <button
      type="button"
      aria-label={t('Back to the usual order')}
      title={t('Back to the usual order: engrave, score, inner cuts, outside edges')}
      onClick={() => actions.edit(t('usual burn order'), (job) => orderSteps(job, []))}
      className="flex size-6 items-center justify-center rounded text-flame hover:bg-slate-line"
    >
      <RotateCcw size={13} aria-hidden />
    </button>
  );
}

/** Where the pointer is, from the machine's zero; the unit and the zoom. */
function Readout() {
  const pointer = useBench((state) => state.pointer);
  const machine = useBench(machineOf);
  const unit = useBench(unitOf);
  const scale = useBench((state) => state.view.scale);
  const place = pointer && toMachine(machine, pointer.x, pointer.y);
  const say = (mm: number | undefined) =>
    mm === undefined ? '—' : formatLength(mm, unit, { bare: true, fixed: true });
  return (
    <div className="figures flex w-[104px] shrink-0 flex-col justify-between py-0.5 text-right text-[12px] low:w-auto low:flex-row low:items-center low:gap-2">
      <p data-testid="pointer-x">{t('X {{x}}', { x: say(place?.x) })}</p>
      <p data-testid="pointer-y">{t('Y {{y}}', { y: say(place?.y) })}</p>
      <p className="text-flame">
        {unit} {Math.round((scale / (96 / 25.4)) * 100)} %
      </p>
    </div>
  );
}
