import { useSortable } from '@dnd-kit/sortable';
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { switchLayer } from '@lambent/core/edits';
import { burnsPictures, fillsAreas, type Operation, operationOf } from '@lambent/core/operations';
import { type PlanStep, type PreparedLayer, stepTitle } from '@lambent/core/plan';
import { type LayerSettings, settingOf, settingsOf } from '@lambent/core/settings';
import { formatClock } from '@lambent/core/units';
import { Power, PowerOff } from 'lucide-react';
import { memo } from 'react';
import { Link } from 'react-router';
import { useInSentence } from '../../stores/numbers.ts';
import { useSpeedUnit } from '../../stores/speed-unit.ts';
import { formatSpeed } from '../../ui/figures.ts';
import { said, t } from '../../words/words.ts';
import { cardOperation, cardStepsTitle, type ShownStep } from '../card/card-steps.ts';
import { useBench, useBenchActions } from '../context.ts';
import { openIdleMenu, openStepMenu } from '../menus/open-bed-menu.ts';
import { laterPart } from '../stages/later-drawer.tsx';
import type { BenchState } from '../state/bench-state.ts';
import { machineOf } from '../state/document.ts';
import { beginsAt, planOf } from '../state/plan.ts';

const panel =
  'z-30 w-[320px] rounded-xl border border-line bg-paper p-3.5 text-ink shadow-float outline-none max-h-[70vh] overflow-y-auto';

/** One step of the plan, as wide as its time: dragged to another place in the order, opened for its layer. */
export const StepBlock = memo(function StepBlock({ step, done }: { step: PlanStep; done: number | null }) {
  const actions = useBenchActions();
  const machine = useBench(machineOf);
  const speedUnit = useSpeedUnit();
  const inSentence = useInSentence();
  const material = useBench((state) => materialToSay(state, step));
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: step.id });
  const { settings, operation } = step;
  const hot = done !== null && done > 0 && done < 1;
  const title = material === null ? said(stepTitle(step)) : `${said(stepTitle(step))} · ${material}`;
  return (
    <li
      ref={setNodeRef}
      className={`min-w-[162px] ${isDragging ? 'z-10' : ''}`}
      style={{
        flexGrow: Math.max(step.timeS, 1),
        flexBasis: 0,
        transform: transform ? `translate3d(${transform.x}px, 0, 0)` : undefined,
        transition,
      }}
      onContextMenu={(event) => openStepMenu(actions, event, step)}
      onPointerEnter={() => actions.pointOut(itemsIn(actions.get(), step))}
      onPointerLeave={() => actions.pointOut([])}
    >
      <div
        className={`group relative flex h-full flex-col overflow-hidden rounded-lg border bg-slate-raised ${hot || isDragging ? 'border-flame' : 'border-slate-line'}`}
        data-testid={`step-${step.id.replaceAll(' ', '-')}`}
        data-done={done === null ? undefined : done.toFixed(3)}
      >
        <StepEdge operation={operation} />
        <Done share={done} operation={operation} />
        <Popover className="flex min-h-0 flex-1">
          <PopoverButton
            {...attributes}
            {...listeners}
            onClick={(event) => {
              const { previewS } = actions.get();
              const plan = planOf(actions.get());
              if (previewS === null || !plan) return;
              // In the preview a block leads to its step, and opens nothing.
              event.preventDefault();
              actions.preview(beginsAt(plan, step.id));
            }}
            role="button"
            title={t(
              '{{title}} ({{name}}): its settings. Drag it to burn it earlier or later; with the keyboard, Space and the arrows.',
              { title, name: said(operationOf(operation).name) },
            )}
            className="relative flex min-w-0 flex-1 cursor-grab flex-col justify-between px-3 pb-2 pt-2.5 text-left"
          >
            <span className="flex w-full justify-between gap-2 low:pr-6">
              <span className="line-clamp-2 font-bold leading-[1.2]">{title}</span>
              <span className="figures font-bold">{formatClock(step.timeS)}</span>
            </span>
            <span className="figures truncate pr-5 text-[12px] text-[#B9C5C2] low:hidden">
              {inSentence(
                settingsLine(settings, operation, formatSpeed(settings.speedMmPerS, speedUnit, machine.topSpeed)),
              )}
            </span>
          </PopoverButton>
          <PopoverPanel anchor={{ to: 'top start', gap: 12, padding: 8 }} className={panel}>
            {({ close }) => <StepLayer step={step} done={close} />}
          </PopoverPanel>
        </Popover>
        <SwitchButton layerId={step.layerId} name={step.layerName} on />
      </div>
    </li>
  );
});

/** The steps of a test card, which burn in its own order, from the mildest cell to the fiercest. */
export function CardBlock({ card, done }: { card: Extract<ShownStep, { kind: 'card' }>; done: number | null }) {
  const actions = useBenchActions();
  const jobId = useBench((state) => state.jobId);
  const hot = done !== null && done > 0 && done < 1;
  const operation = cardOperation(card.steps);
  const title = cardStepsTitle(card.steps);
  return (
    <li
      className="min-w-[162px]"
      style={{ flexGrow: Math.max(card.timeS, 1), flexBasis: 0 }}
      onPointerEnter={() => actions.pointOut(card.steps.flatMap((step) => itemsIn(actions.get(), step)))}
      onPointerLeave={() => actions.pointOut([])}
    >
      <Link
        to={`/jobs/${jobId}/recipe`}
        title={t('{{title}}: from the mildest to the fiercest. Its cells are read under Recipe.', { title })}
        className={`relative flex h-full flex-col overflow-hidden rounded-lg border bg-slate-raised ${hot ? 'border-flame' : 'border-slate-line'}`}
        data-testid="card-block"
      >
        <StepEdge operation={operation} />
        <Done share={done} operation={operation} />
        <span className="relative flex flex-1 flex-col justify-between px-3 pb-2 pt-2.5">
          <span className="flex w-full justify-between gap-2">
            <span className="line-clamp-2 font-bold leading-[1.2]">{title}</span>
            <span className="figures font-bold">{formatClock(card.timeS)}</span>
          </span>
          <span className="truncate text-[12px] text-[#B9C5C2] low:hidden">{t('from mild to fierce')}</span>
        </span>
      </Link>
    </li>
  );
}

/** What a block opens on is not needed before the first one is opened. */
const LayerPopover = laterPart(async () => (await import('../layer/layer-popover.tsx')).LayerPopover);

const preparedFor = ({ prepared }: BenchState, { preparedId }: PlanStep) =>
  prepared.layers.find(({ id }) => id === preparedId);

const itemsIn = (state: BenchState, step: PlanStep) =>
  preparedFor(state, step)?.placed.map(({ item }) => item.id) ?? [];

/** The material of a step whose layer burns on several; otherwise null. */
function materialToSay(state: BenchState, step: PlanStep): string | null {
  const several = state.prepared.layers.filter(({ layer }) => layer.id === step.layerId).length > 1;
  return several ? (preparedFor(state, step)?.material?.name ?? null) : null;
}

/** What a block opens on: its layer as it is now, which the plan may not have caught up with. */
function StepLayer({ step, done }: { step: PlanStep; done: () => void }) {
  const prepared = useBench((state) => preparedFor(state, step));
  return prepared ? <LayerPopover prepared={prepared} done={done} /> : <span />;
}

/** How much of a block is burnt. */
function Done({ share, operation }: { share: number | null; operation: Operation }) {
  if (share === null) return null;
  return (
    <div
      className="pointer-events-none absolute inset-y-0 left-0 opacity-40"
      style={{ width: `${share * 100}%`, background: operationOf(operation).colour }}
      aria-hidden
    />
  );
}

/** The bar along the top of a block, in its operation's colour and pattern. */
function StepEdge({ operation }: { operation: Operation }) {
  const { colour, dash } = operationOf(operation);
  const lightened = `color-mix(in srgb, ${colour} 78%, white)`;
  const rows = `repeating-linear-gradient(90deg, ${lightened} 0 2px, color-mix(in srgb, ${colour} 55%, white) 2px 4px)`;
  const dashes = `repeating-linear-gradient(90deg, ${lightened} 0 14px, transparent 14px 20px)`;
  const greys = `linear-gradient(90deg, color-mix(in srgb, ${colour} 25%, transparent), ${lightened})`;
  const background = burnsPictures(operation)
    ? greys
    : fillsAreas(operation)
      ? rows
      : dash.length > 0
        ? dashes
        : lightened;
  return <div className="h-1 w-full shrink-0" style={{ background }} aria-hidden />;
}

/** A layer that has items and does not burn in this run, and why. */
export function IdleBlock({ prepared }: { prepared: PreparedLayer }) {
  const actions = useBenchActions();
  const { layer, on, beyond } = prepared;
  const why = on ? (beyond.length > 0 ? t('beyond the machine') : t('no recipe')) : t('off for this run');
  return (
    <li className="w-[138px] shrink-0" onContextMenu={(event) => openIdleMenu(actions, event, prepared)}>
      <div
        className="relative flex h-full flex-col rounded-lg border border-dashed border-slate-line text-[#A9B7B4]"
        data-testid={`step-off-${prepared.id}`}
      >
        <Popover className="flex min-h-0 flex-1">
          <PopoverButton
            title={t('{{name}}: its settings', { name: layer.name })}
            className="flex min-w-0 flex-1 flex-col justify-between px-3 pb-2 pt-3 text-left"
          >
            <span className="w-full truncate font-bold">{layer.name}</span>
            <span className="w-full truncate text-[12px] low:hidden">{why}</span>
          </PopoverButton>
          <PopoverPanel anchor={{ to: 'top start', gap: 12, padding: 8 }} className={panel}>
            {({ close }) => <LayerPopover prepared={prepared} done={close} />}
          </PopoverPanel>
        </Popover>
        {!on && <SwitchButton layerId={layer.id} name={layer.name} on={false} />}
      </div>
    </li>
  );
}

function SwitchButton({ layerId, name, on }: { layerId: string; name: string; on: boolean }) {
  const actions = useBenchActions();
  const label = on ? t('Leave {{name}} out of this run', { name }) : t('Burn {{name}} in this run', { name });
  const Icon = on ? Power : PowerOff;
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      onClick={() => {
        const { run } = actions.get().prepared;
        actions.edit(on ? t('switch {{name}} off', { name }) : t('switch {{name}} on', { name }), (job) =>
          switchLayer(job, layerId, !on, run.id),
        );
      }}
      className={`absolute bottom-1.5 right-1.5 flex size-6 items-center justify-center rounded hover:bg-slate-line hover:text-white ${on ? 'text-[#8FA19D]' : 'text-flame'}`}
    >
      <Icon size={14} aria-hidden />
    </button>
  );
}

function settingsLine(settings: LayerSettings, operation: Operation, speed: string): string {
  const words = settingsOf(operation).map((name) =>
    name === 'speedMmPerS' ? speed : (settingOf(name).onStrip?.(settings[name]) ?? null),
  );
  return words.filter((word) => word !== null).join(' · ');
}
