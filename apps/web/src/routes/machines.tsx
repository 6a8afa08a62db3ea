import type { MachineCommand, MachineState } from '@lambent/contracts';
import { beamOf, fromMachine, type Machine } from '@lambent/core/machine';
import { formatDuration, formatLength } from '@lambent/core/units';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { api, sentenceOf } from '../api.ts';
import { Prices } from '../shop/prices.tsx';
import { useLive } from '../stores/live.ts';
import { Button } from '../ui/button.tsx';
import { stateLook } from '../ui/machine-state.ts';
import { Notice } from '../ui/notice.tsx';
import { PageBar } from '../ui/page-bar.tsx';

/** Every machine, live. */
export function MachinesRoute() {
  const machines = useQuery({ queryKey: ['machines'], queryFn: api.machines });
  return (
    <div className="flex h-full flex-col">
      <title>Machines · Lambent</title>
      <PageBar />
      <main className="min-h-0 flex-1 overflow-auto">
        <div className="mx-auto max-w-[1180px] px-6 py-6">
          <h1 className="mb-1 text-xl font-bold">Machines</h1>
          <p className="mb-5 text-quiet">
            These machines are stand-ins: simulated, running at many times a real machine’s speed.
          </p>
          {machines.isError && <Notice level="blocks">{sentenceOf(machines.error)}</Notice>}
          <ul className="grid grid-cols-[repeat(auto-fill,minmax(340px,1fr))] gap-4">
            {machines.data?.map((machine) => (
              <li key={machine.id}>
                <MachineCard machine={machine} />
              </li>
            ))}
          </ul>
          <Prices />
        </div>
      </main>
    </div>
  );
}

function MachineCard({ machine }: { machine: Machine }) {
  const state = useLive((live) => live.machines[machine.id]);
  const run = useLive((live) => (state?.runId ? live.runs[state.runId] : undefined));
  const runs = useQuery({ queryKey: ['runs'], queryFn: () => api.runs() });
  const shownRun = run ?? runs.data?.find(({ id }) => id === state?.runId);
  const look = stateLook(state?.state ?? 'away');
  return (
    <section className="rounded-xl border border-line bg-paper p-4" aria-label={machine.name}>
      <div className="mb-3 flex items-baseline gap-2">
        <h2 className="text-[15px] font-bold">{machine.name}</h2>
        <span className="text-quiet">{beamOf(machine)}</span>
        <span className="ml-auto flex items-center gap-1.5 font-semibold" data-testid={`state-${machine.id}`}>
          <span className={`size-2.5 rounded-full ${look.dot}`} aria-hidden />
          {look.text}
        </span>
      </div>
      <HeadPlace machine={machine} state={state} />
      <dl className="figures mt-3 grid grid-cols-2 gap-x-4 gap-y-1 text-[12px]">
        <Fact name="Head X" value={state ? formatLength(state.x, 'mm', { fixed: true }) : '—'} />
        <Fact name="Head Y" value={state ? formatLength(state.y, 'mm', { fixed: true }) : '—'} />
        <Fact name="Speed" value={state ? `${(state.feed / 60).toFixed(0)} mm/s` : '—'} />
        <Fact name="Power" value={state ? `${((100 * state.power) / machine.powerScale).toFixed(0)} %` : '—'} />
        <Fact name="Lid" value={state?.lid ?? '—'} />
        <Fact name="Bed" value={`${machine.bedWidth} × ${machine.bedHeight} mm`} />
      </dl>
      <div className="mt-3 min-h-10 text-[13px]">
        {state?.reason && <p className="font-semibold text-warn">{sentenceFor(state)}</p>}
        {shownRun && state && (
          <p>
            <Link to={`/jobs/${shownRun.jobId}/burn`} className="font-semibold text-petrol underline">
              {shownRun.jobTitle}
            </Link>
            , {formatDuration(Math.max(0, shownRun.plannedS - state.runS))} of {formatDuration(shownRun.plannedS)} left
          </p>
        )}
        {!state?.reason && !shownRun && (
          <p className="text-quiet">
            {state?.state === 'away' ? 'It does not answer. It is asked again by itself.' : 'No run.'}
          </p>
        )}
      </div>
      <div className="mt-3 flex flex-wrap gap-2">
        {commandsFor(state).map(({ command, text, look: buttonLook }) => (
          <Button key={command} look={buttonLook} onClick={() => send(machine.id, command)}>
            {text}
          </Button>
        ))}
      </div>
    </section>
  );
}

function Fact({ name, value }: { name: string; value: string }) {
  return (
    <div className="flex justify-between">
      <dt className="text-quiet">{name}</dt>
      <dd>{value}</dd>
    </div>
  );
}

/** The bed from above, with the head where it is. */
function HeadPlace({ machine, state }: { machine: Machine; state?: MachineState }) {
  const head = state && state.state !== 'away' ? fromMachine(machine, state.x, state.y) : null;
  const r = machine.bedWidth / 60;
  return (
    <svg
      viewBox={`0 0 ${machine.bedWidth} ${machine.bedHeight}`}
      className="h-36 w-full rounded-lg bg-table"
      role="img"
      aria-label={`The bed of ${machine.name}`}
    >
      <rect
        width={machine.bedWidth}
        height={machine.bedHeight}
        fill="var(--paper)"
        stroke="var(--line)"
        strokeWidth={r / 3}
      />
      {head && (
        <g stroke={state?.power ? '#F0A93B' : 'var(--petrol)'} strokeWidth={r / 3}>
          <line x1={head.x} y1={0} x2={head.x} y2={machine.bedHeight} opacity={0.35} />
          <line x1={0} y1={head.y} x2={machine.bedWidth} y2={head.y} opacity={0.35} />
          <circle cx={head.x} cy={head.y} r={r} fill={state?.power ? '#F0A93B' : 'var(--paper)'} />
        </g>
      )}
    </svg>
  );
}

function sentenceFor({ state, reason }: MachineState): string {
  return `${stateLook(state).text}: ${reason}.`;
}

function commandsFor(
  state: MachineState | undefined,
): { command: MachineCommand; text: string; look: 'plain' | 'danger' | 'main' }[] {
  if (!state || state.state === 'away') return [];
  const lid =
    state.lid === 'open'
      ? ({ command: 'close-lid', text: 'Close lid', look: 'plain' } as const)
      : ({ command: 'open-lid', text: 'Open lid', look: 'plain' } as const);
  switch (state.state) {
    case 'running':
      return [{ command: 'hold', text: 'Hold', look: 'main' }, { command: 'stop', text: 'Stop', look: 'danger' }, lid];
    case 'held':
      return [
        ...(state.lid === 'open' ? [] : [{ command: 'resume', text: 'Resume', look: 'main' } as const]),
        { command: 'stop', text: 'Stop', look: 'danger' },
        lid,
      ];
    case 'alarm':
      return [{ command: 'clear', text: 'Clear alarm', look: 'main' }, lid];
    case 'homing':
      return [lid];
    default:
      return [{ command: 'home', text: 'Home', look: 'plain' }, lid];
  }
}

function send(machineId: string, command: MachineCommand): void {
  api.command(machineId, command).catch((error) => toast.error(sentenceOf(error)));
}
