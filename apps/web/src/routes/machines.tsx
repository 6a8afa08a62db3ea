import type { MachineCommand, MachineState } from '@lambent/contracts';
import { atWork, beamOf, fromMachine, type Machine } from '@lambent/core/machine';
import { useQuery } from '@tanstack/react-query';
import { ChevronDown, ChevronRight, Footprints, Plus } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { api, sentenceOf } from '../api.ts';
import { HandPad } from '../hand/hand-pad.tsx';
import { isAboutToRun } from '../hand/hand-state.ts';
import { StopButton } from '../hand/stop-button.tsx';
import { shownUnit } from '../stores/length-unit.ts';
import { useLive } from '../stores/live.ts';
import { Button, buttonLook } from '../ui/button.tsx';
import { asSize, formatDuration, formatLength } from '../ui/figures.ts';
import { stateLook } from '../ui/machine-state.ts';
import { Notice } from '../ui/notice.tsx';
import { PageBar } from '../ui/page-bar.tsx';
import { PageTitle } from '../ui/page-title.tsx';
import { PressButton } from '../ui/press-button.tsx';
import { said, t } from '../words/words.ts';

/** Every machine, live. */
export function MachinesRoute() {
  const machines = useQuery({ queryKey: ['machines'], queryFn: api.machines });
  return (
    <div className="flex h-full flex-col">
      <PageTitle>{t('Machines')}</PageTitle>
      <PageBar />
      <main className="min-h-0 flex-1 overflow-auto">
        <div className="mx-auto max-w-[1180px] px-6 py-6">
          <div className="mb-5 flex flex-wrap items-center gap-3">
            <h1 className="mr-auto text-xl font-bold">{t('Machines')}</h1>
            <Link to="/machines/new" className={buttonLook('main')}>
              <Plus size={16} aria-hidden />
              {t('Add a machine')}
            </Link>
          </div>
          {machines.isError && <Notice level="blocks">{sentenceOf(machines.error)}</Notice>}
          <ul className="grid grid-cols-[repeat(auto-fill,minmax(340px,1fr))] gap-4">
            {atWork(machines.data ?? []).map((machine) => (
              <li key={machine.id}>
                <MachineCard machine={machine} />
              </li>
            ))}
          </ul>
          {machines.data?.length === 0 && (
            <div className="rounded-xl border border-dashed border-line bg-paper p-12 text-center">
              <p className="mb-1 text-[15px] font-semibold">{t('No machine yet')}</p>
              <p className="text-quiet">
                {t('Add one with its bed, speeds and power. A stand-in of it runs its jobs until it is connected.')}
              </p>
            </div>
          )}
          <PutAwayMachines machines={(machines.data ?? []).filter(({ isPutAway }) => isPutAway)} />
        </div>
      </main>
    </div>
  );
}

function PutAwayMachines({ machines }: { machines: readonly Machine[] }) {
  if (machines.length === 0) return null;
  return (
    <p className="mt-6 text-quiet">
      {t('Put away:')}{' '}
      {machines.map(({ id, name }, i) => (
        <span key={id}>
          {i > 0 && ', '}
          <Link to={`/machines/${id}`} className="font-semibold text-petrol underline">
            {name}
          </Link>
        </span>
      ))}
    </p>
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
        {machine.connection?.kind === 'stand-in' && (
          <span className="rounded bg-table px-1.5 text-[12px] text-quiet" title={t('Simulated: nothing burns')}>
            {t('stand-in, {{factor}} × as fast', { factor: machine.connection.factor })}
          </span>
        )}
        <span className="ml-auto flex items-center gap-1.5 font-semibold" data-testid={`state-${machine.id}`}>
          <span className={`size-2.5 rounded-full ${look.dot}`} aria-hidden />
          {machine.connection ? look.text : t('Not connected')}
        </span>
      </div>
      <HeadPlace machine={machine} state={state} />
      <dl className="figures mt-3 grid grid-cols-2 gap-x-4 gap-y-1 text-[12px]">
        <Fact name={t('Head X')} value={state ? formatLength(state.x, shownUnit(), { fixed: true }) : '—'} />
        <Fact name={t('Head Y')} value={state ? formatLength(state.y, shownUnit(), { fixed: true }) : '—'} />
        <Fact name={t('Speed')} value={state ? t('{{feed}} mm/s', { feed: (state.feed / 60).toFixed(0) }) : '—'} />
        <Fact name={t('Power')} value={state ? `${((100 * state.power) / machine.powerScale).toFixed(0)} %` : '—'} />
        {state?.lid != null && <Fact name={t('Lid')} value={said(state.lid)} />}
        <Fact name={t('Bed')} value={asSize(machine.bedWidth, machine.bedHeight)} />
      </dl>
      <div className="mt-3 min-h-10 text-[13px]">
        {state?.reason && machine.connection && <p className="font-semibold text-warn">{sentenceFor(state)}</p>}
        {!machine.connection && (
          <p className="text-quiet">{t('Jobs can be planned for it. To send them, say how it is reached.')}</p>
        )}
        {shownRun && state && (
          <p>
            <Link to={`/jobs/${shownRun.jobId}/burn`} className="font-semibold text-petrol underline">
              {shownRun.jobTitle}
            </Link>
            {t(', {{plannedS}} of {{plannedS2}} left', {
              plannedS: formatDuration(Math.max(0, shownRun.plannedS - state.runS)),
              plannedS2: formatDuration(shownRun.plannedS),
            })}
          </p>
        )}
        {machine.connection && !state?.reason && !shownRun && (
          <p className="text-quiet">
            {state?.state === 'away' ? t('It does not answer. Lambent keeps asking.') : doingOf(state)}
          </p>
        )}
      </div>
      {state && machine.connection && state.state !== 'away' && state.state !== 'alarm' && (
        <ByHand machine={machine} state={state} />
      )}
      <div className="mt-3 flex flex-wrap gap-2">
        {ordersFor(state).map(({ command, text, look: buttonLook }) =>
          command === 'stop' && state ? (
            <StopButton key={command} state={state} />
          ) : command === 'hold' ? (
            <PressButton key={command} look={buttonLook} act={() => send(machine.id, command)}>
              {text}
            </PressButton>
          ) : (
            <Button key={command} look={buttonLook} onClick={() => send(machine.id, command)}>
              {text}
            </Button>
          ),
        )}
        <Link to={`/machines/${machine.id}`} className={`ml-auto ${buttonLook('plain')}`}>
          {machine.connection ? t('Figures') : t('Connect it')}
        </Link>
      </div>
    </section>
  );
}

/** Moves the head, and walks the bounds of the run that was walked last; folded until it is wanted. */
function ByHand({ machine, state }: { machine: Machine; state: MachineState }) {
  const [isOpen, setOpen] = useState(false);
  const { lastWalk, errand } = state;
  const walkAgain = () => {
    if (!lastWalk) return;
    const { jobId, title: _, runName: __, ...wish } = lastWalk;
    api.walk(jobId, wish).catch((error) => toast.error(sentenceOf(error)));
  };
  return (
    <div className="mt-1 flex flex-col gap-2">
      <button
        type="button"
        aria-expanded={isOpen}
        onClick={() => setOpen(!isOpen)}
        className="flex items-center gap-1 self-start text-quiet hover:text-ink"
      >
        {isOpen ? <ChevronDown size={14} aria-hidden /> : <ChevronRight size={14} aria-hidden />}
        {t('Head by hand')}
      </button>
      {isOpen && (
        <HandPad machine={machine} state={state}>
          {lastWalk && (
            <Button disabled={state.state !== 'idle' || errand !== null} onClick={walkAgain}>
              <Footprints size={15} aria-hidden />
              <span className="truncate">{t('Walk the bounds of “{{title}}” again', { title: lastWalk.title })}</span>
            </Button>
          )}
        </HandPad>
      )}
    </div>
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
      viewBox={`${-1.5 * r} ${-1.5 * r} ${machine.bedWidth + 3 * r} ${machine.bedHeight + 3 * r}`}
      className="h-36 w-full rounded-lg bg-table"
      role="img"
      aria-label={t('The bed of {{name}}', { name: machine.name })}
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

/** What a machine without a run does. */
function doingOf(state: MachineState | undefined): string {
  const { errand, makingReady } = state ?? {};
  if (makingReady) return t('“{{makingReady}}” is made ready for it.', { makingReady });
  if (errand?.kind === 'walk') return t('Walks the bounds of “{{title}}”, unlit.', { title: errand.title });
  if (errand?.kind === 'timing') return t('Runs its timing card, unlit.');
  return errand ? t('Moves by hand, unlit.') : t('No run.');
}

function sentenceFor({ state, reason }: MachineState): string {
  return `${stateLook(state).text}: ${reason && said(reason)}.`;
}

interface Order {
  readonly command: MachineCommand;
  readonly text: string;
  readonly look: 'plain' | 'danger' | 'main';
}

/** What a machine can be told as it is now. */
function ordersFor(state: MachineState | undefined): Order[] {
  if (!state || state.state === 'away') return [];
  return everyOrder(state).filter(({ command }) => state.orders.includes(command));
}

function everyOrder(state: MachineState): Order[] {
  const lid: Order =
    state.lid === 'open'
      ? { command: 'close-lid', text: t('Close lid'), look: 'plain' }
      : { command: 'open-lid', text: t('Open lid'), look: 'plain' };
  const stop: Order = { command: 'stop', text: t('Stop'), look: 'danger' };
  switch (state.state) {
    case 'running':
      return state.errand ? [stop, lid] : [{ command: 'hold', text: t('Hold'), look: 'main' }, stop, lid];
    case 'held':
      return [
        ...(state.lid === 'open' ? [] : [{ command: 'resume', text: t('Resume'), look: 'main' } satisfies Order]),
        stop,
        lid,
      ];
    case 'alarm':
      return [
        { command: 'clear', text: t('Clear alarm'), look: 'main' },
        { command: 'home', text: t('Home'), look: 'plain' },
        lid,
      ];
    case 'homing':
      return [lid];
    default:
      if (state.errand) return [stop, lid];
      if (isAboutToRun(state)) return [stop];
      return [{ command: 'home', text: t('Home'), look: 'plain' }, lid];
  }
}

function send(machineId: string, command: MachineCommand): void {
  api.command(machineId, command).catch((error) => toast.error(sentenceOf(error)));
}
