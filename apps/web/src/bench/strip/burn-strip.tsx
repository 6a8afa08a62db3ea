import {
  formatClock,
  formatLength,
  formatSpeed,
  isBurnt,
  type LayerSettings,
  type Operation,
  operationNames,
  type PlanStep,
  stepTitle,
  switchLayer,
  toMachine,
} from '@lambent/core';
import { Power, PowerOff } from 'lucide-react';
import { useNavigate } from 'react-router';
import { operationLook } from '../../ui/operation-look.ts';
import { useBench, useBenchActions } from '../context.ts';
import { machineOf, unitOf } from '../store.ts';
import { useShownRun } from '../use-shown-run.ts';

/** The layers in the order they burn, each as wide as the time it takes. */
export function BurnStrip() {
  const steps = useBench((state) => state.planned?.plan.steps ?? null);
  const previewS = useBench((state) => state.previewS);
  const run = useShownRun();
  const layers = useBench((state) => state.prepared.layers);
  const meaning = useBench((state) => state.prepared.meaning);
  const idle = layers.filter(
    ({ layer, burns }) => isBurnt(layer.operation) && !burns && (meaning.placed.get(layer.id) ?? []).length > 0,
  );
  const at = run?.atS ?? previewS;
  let start = 0;
  return (
    <section
      className="flex h-[92px] shrink-0 gap-3 bg-slate py-2.5 pl-3.5 pr-3.5 text-[#E9EEEB]"
      aria-label="Burn order"
    >
      <div className="flex w-[72px] shrink-0 flex-col justify-between py-1">
        <p className="font-bold">Burn order</p>
        <p className="text-[12px] text-[#A9B7B4]">first → last</p>
      </div>
      <ol className="flex min-w-0 flex-1 gap-2.5 overflow-x-auto">
        {steps?.map((step) => {
          const from = start;
          start += step.timeS;
          return (
            <StepBlock
              key={`${step.layerId} ${step.part}`}
              step={step}
              done={at === null ? null : Math.min(1, Math.max(0, (at - from) / step.timeS))}
            />
          );
        })}
        {idle.map(({ layer, on, beyond }) => (
          <IdleBlock
            key={layer.id}
            layerId={layer.id}
            name={layer.name}
            operation={layer.operation}
            why={on ? (beyond.length > 0 ? 'beyond the machine' : 'no recipe') : 'off for this run'}
            off={!on}
          />
        ))}
        {steps?.length === 0 && idle.length === 0 && (
          <li className="self-center text-[#A9B7B4]">
            What burns, and in which order, appears here once something is drawn.
          </li>
        )}
      </ol>
      <Readout />
    </section>
  );
}

function StepBlock({ step, done }: { step: PlanStep; done: number | null }) {
  const actions = useBenchActions();
  const navigate = useNavigate();
  const jobId = useBench((state) => state.jobId);
  const placed = useBench((state) => state.prepared.meaning.placed.get(step.layerId));
  const machine = useBench(machineOf);
  const speedUnit = useBench((state) => state.speedUnit);
  const { settings, operation } = step;
  const { colour } = operationLook[operation];
  const hot = done !== null && done > 0 && done < 1;
  return (
    <li
      className="min-w-[162px]"
      style={{ flexGrow: Math.max(step.timeS, 1), flexBasis: 0 }}
      onPointerEnter={() => actions.pointOut(placed?.map(({ item }) => item.id) ?? [])}
      onPointerLeave={() => actions.pointOut([])}
    >
      <div
        className={`group relative flex h-full flex-col overflow-hidden rounded-lg border bg-slate-raised ${hot ? 'border-flame' : 'border-slate-line'}`}
        data-testid={`step-${step.layerId}-${step.part}`}
        data-done={done === null ? undefined : done.toFixed(3)}
      >
        <StepEdge operation={operation} />
        {done !== null && (
          <div
            className="pointer-events-none absolute inset-y-0 left-0 opacity-40"
            style={{ width: `${done * 100}%`, background: colour }}
            aria-hidden
          />
        )}
        <button
          type="button"
          title={`${operationNames[operation]}: its settings`}
          onClick={() => navigate(`/jobs/${jobId}/recipe`, { replace: true })}
          className="relative flex flex-1 flex-col justify-between px-3 pb-2 pt-2.5 text-left"
        >
          <span className="flex w-full justify-between gap-2">
            <span className="truncate font-bold">{stepTitle(step)}</span>
            <span className="figures font-bold">{formatClock(step.timeS)}</span>
          </span>
          <span className="figures truncate pr-5 text-[12px] text-[#B9C5C2]">
            {settingsLine(settings, operation, formatSpeed(settings.speedMmPerS, speedUnit, machine.topSpeed))}
          </span>
        </button>
        <SwitchButton layerId={step.layerId} name={step.layerName} on />
      </div>
    </li>
  );
}

/** The bar along the top of a block, in its operation's colour and pattern. */
function StepEdge({ operation }: { operation: Operation }) {
  const { colour } = operationLook[operation];
  const lightened = `color-mix(in srgb, ${colour} 78%, white)`;
  const pattern: Partial<Record<Operation, string>> = {
    score: `repeating-linear-gradient(90deg, ${lightened} 0 14px, transparent 14px 20px)`,
    engrave: `repeating-linear-gradient(90deg, ${lightened} 0 2px, color-mix(in srgb, ${colour} 55%, white) 2px 4px)`,
  };
  return <div className="h-1 w-full shrink-0" style={{ background: pattern[operation] ?? lightened }} aria-hidden />;
}

function IdleBlock(props: { layerId: string; name: string; operation: Operation; why: string; off: boolean }) {
  return (
    <li className="w-[138px] shrink-0">
      <div
        className="relative flex h-full flex-col justify-between rounded-lg border border-dashed border-slate-line px-3 pb-2 pt-3 text-[#A9B7B4]"
        data-testid={`step-off-${props.layerId}`}
      >
        <span className="truncate font-bold">{props.name}</span>
        <span className="truncate text-[12px]">{props.why}</span>
        {props.off && <SwitchButton layerId={props.layerId} name={props.name} on={false} />}
      </div>
    </li>
  );
}

function SwitchButton({ layerId, name, on }: { layerId: string; name: string; on: boolean }) {
  const actions = useBenchActions();
  const label = on ? `Leave ${name} out of this run` : `Burn ${name} in this run`;
  const Icon = on ? Power : PowerOff;
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      onClick={() =>
        actions.edit(on ? `switch ${name} off` : `switch ${name} on`, (job) => switchLayer(job, layerId, !on))
      }
      className={`absolute bottom-1.5 right-1.5 flex size-6 items-center justify-center rounded hover:bg-slate-line hover:text-white ${on ? 'text-[#8FA19D]' : 'text-flame'}`}
    >
      <Icon size={14} aria-hidden />
    </button>
  );
}

function settingsLine(settings: LayerSettings, operation: Operation, speed: string): string {
  const parts = [`${settings.powerPercent} %`, speed];
  if (operation === 'engrave') parts.push(`${settings.lineSpacingMm.toFixed(2)} mm lines`);
  if (settings.passes > 1) parts.push(`${settings.passes} passes`);
  return parts.join(' · ');
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
    <div className="figures flex w-[104px] shrink-0 flex-col justify-between py-0.5 text-right text-[12px]">
      <p>X {say(place?.x)}</p>
      <p>Y {say(place?.y)}</p>
      <p className="text-flame">
        {unit} {Math.round((scale / (96 / 25.4)) * 100)} %
      </p>
    </div>
  );
}
