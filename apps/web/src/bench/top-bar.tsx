import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { priceOf } from '@lambent/core/plan';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Check, Cpu, Flame, Layers, Redo2, Undo2 } from 'lucide-react';
import { type ReactNode, useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { toast } from 'sonner';
import { api, sentenceOf } from '../api.ts';
import { dayAndTimeOf } from '../stores/dates.ts';
import { useLive } from '../stores/live.ts';
import { Button, IconButton } from '../ui/button.tsx';
import { Choice } from '../ui/choice.tsx';
import { formatDuration, formatMoney, inMm } from '../ui/figures.ts';
import { useBench, useBenchActions } from './context.ts';
import { changeMachine, offeredMachines } from './machine-choice.ts';
import { chooseMaterial, offeredMaterials } from './sheet-choice.ts';
import { withKeys } from './shortcuts.ts';
import { laterPart } from './stages/later-drawer.tsx';
import { jobOf, machineOf, type SaveState } from './state/document.ts';
import { isBlocked, isPlanned, planOf } from './state/plan.ts';
import { runBefore, useBurntRuns } from './use-runs.ts';
import { type SaidOfRun, useSend } from './use-send.ts';
import { Versions } from './versions.tsx';

const WhoChip = laterPart(async () => (await import('../people/who-chip.tsx')).WhoChip);

/** Job, machine and sheet, undo and redo, the time, and the one main action. */
export function TopBar() {
  const actions = useBenchActions();
  const past = useBench((state) => state.history.past.at(-1)?.name);
  const future = useBench((state) => state.history.future[0]?.name);
  const machine = useBench(machineOf);
  const machines = useBench((state) => state.shop.machines);
  const materials = useBench((state) => state.shop.materials);
  const material = useBench((state) => state.prepared.material);
  return (
    <header className="relative z-20 flex h-12 shrink-0 items-center gap-3 border-b border-line bg-paper pr-3.5">
      <Link to="/" className="flex w-[86px] shrink-0 justify-center" aria-label="To the Desk" title="To the Desk">
        <img src="/mark.svg" alt="" className="size-7" />
      </Link>
      <JobName />
      <div className="mx-auto flex gap-3">
        <Choice
          label="Machine"
          look="chip"
          icon={<Cpu size={15} className="shrink-0 text-petrol" aria-hidden />}
          value={machine.id}
          options={offeredMachines(machines, machine.id).map(({ id, name, bedWidth, bedHeight }) => ({
            value: id,
            text: name,
            aside: `${bedWidth} × ${bedHeight} mm`,
          }))}
          choose={(id) => changeMachine(actions, id)}
        />
        <Choice
          label="Material of the sheet"
          look="chip"
          icon={<Layers size={15} className="shrink-0 text-petrol" aria-hidden />}
          value={material?.id ?? null}
          empty="No sheet yet"
          options={offeredMaterials(materials, material?.id).map(({ id, name, thicknessMm }) => ({
            value: id,
            text: name,
            aside: inMm(thicknessMm),
          }))}
          choose={(id) => chooseMaterial(actions, id)}
        />
      </div>
      <WhoChip isSlim />
      <div className="flex">
        <IconButton
          label={past ? withKeys(`Undo: ${past}`, 'undo') : 'Nothing to undo'}
          disabled={past === undefined}
          onClick={actions.undo}
        >
          <Undo2 size={18} aria-hidden />
        </IconButton>
        <IconButton
          label={future ? withKeys(`Redo: ${future}`, 'redo') : 'Nothing to redo'}
          disabled={future === undefined}
          onClick={actions.redo}
        >
          <Redo2 size={18} aria-hidden />
        </IconButton>
      </div>
      <PlanTime />
      <SendButton />
    </header>
  );
}

function JobName() {
  const actions = useBenchActions();
  const jobId = useBench((state) => state.jobId);
  const title = useBench((state) => state.title);
  const project = useBench((state) => state.project);
  const save = useBench((state) => state.save);
  const queries = useQueryClient();
  const [typed, setTyped] = useState<string | null>(null);
  const rename = async () => {
    const next = typed?.trim();
    setTyped(null);
    if (!next || next === title) return;
    try {
      await api.renameJob(jobId, next);
      actions.rename(next);
      void queries.invalidateQueries({ queryKey: ['jobs'] });
    } catch (error) {
      toast.error(`The title was not changed. ${sentenceOf(error)}`);
    }
  };
  return (
    <div className="min-w-0 max-w-[290px] flex-1">
      <input
        aria-label="Title of the job"
        title="Click to change the title"
        value={typed ?? title}
        maxLength={120}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => void rename()}
        onKeyDown={(event) => {
          if (event.key === 'Enter') event.currentTarget.blur();
          if (event.key === 'Escape') {
            setTyped(null);
            event.stopPropagation();
          }
        }}
        className="-ml-1 block w-full truncate rounded border border-transparent bg-transparent px-1 text-[14px] font-bold leading-5 hover:border-line"
      />
      <p className="truncate text-[12px] leading-4 text-quiet">
        {/* What is not saved is said in full, whatever the project is called. */}
        Desk
        {project && (save.kind === 'saved' || save.kind === 'saving' || save.kind === 'changed') ? ` / ${project}` : ''}{' '}
        ·{' '}
        <Versions>
          <SaveWord save={save} />
        </Versions>
      </p>
    </div>
  );
}

function SaveWord({ save }: { save: SaveState }) {
  switch (save.kind) {
    case 'saved':
      return <span data-testid="save-state">saved</span>;
    case 'changed':
    case 'saving':
      return <span data-testid="save-state">saving…</span>;
    case 'conflict':
      return (
        <span data-testid="save-state" className="font-semibold text-stop">
          changed elsewhere
        </span>
      );
    case 'deleted':
      return (
        <span data-testid="save-state" className="font-semibold text-stop">
          deleted elsewhere
        </span>
      );
    case 'refused':
      return (
        <span data-testid="save-state" className="font-semibold text-stop" title={save.message}>
          not saved: {save.message}
        </span>
      );
    case 'failed':
      return (
        <span data-testid="save-state" className="font-semibold text-stop" title={save.message}>
          not saved, trying again
        </span>
      );
  }
}

function PlanTime() {
  const planned = useBench(planOf);
  const current = useBench(isPlanned);
  const share = useBench((state) => state.plannedShare);
  const count = planned?.steps.length ?? 0;
  const prepared = useBench((state) => state.prepared);
  const shop = useBench((state) => state.shop);
  const pricing = useBench((state) => state.pricing);
  const price = useMemo(
    () => (planned ? priceOf(planned, prepared, shop, pricing) : null),
    [planned, prepared, shop, pricing],
  );
  const parts = [
    ...(price?.parts.map(({ what, amount }) => `${what}: ${formatMoney(amount, pricing)}`) ?? []),
    ...(price?.unpriced.map((what) => `${what}: no price`) ?? []),
  ].join('\n');
  const faded = current ? '' : 'opacity-50';
  return (
    <div className="min-w-[92px] text-right" data-testid="plan-time" aria-live="off">
      <p className={`figures text-[14px] font-bold leading-5 ${faded}`}>
        {planned ? formatDuration(planned.timeS) : '…'}
      </p>
      {share !== null && <p className="text-[12px] leading-4 text-quiet">planning, {Math.round(share * 100)} %</p>}
      <p className={`text-[12px] leading-4 text-quiet ${faded}`} title={parts} hidden={share !== null}>
        {count === 1 ? '1 step' : `${count} steps`}
        {price && price.total > 0 && (
          <>
            {' · '}
            <span data-testid="plan-price">
              {price.unpriced.length > 0 && 'from '}
              {formatMoney(price.total, pricing)}
            </span>
          </>
        )}
      </p>
    </div>
  );
}

function SendButton() {
  const machine = useBench(machineOf);
  const jobId = useBench((state) => state.jobId);
  const blocked = useBench(isBlocked);
  const current = useBench(isPlanned);
  const runs = useBench((state) => jobOf(state).runs);
  const several = runs.length > 1;
  const jobRun = useBench((state) => state.prepared.run);
  const burnt = useBurntRuns();
  const burntAt = burnt.get(jobRun.id);
  const before = runBefore(runs, jobRun);
  const state = useLive((live) => live.machines[machine.id]?.state ?? 'away');
  // What the head does by hand ends where a job is sent.
  const isByHand = useLive((live) => live.machines[machine.id]?.errand != null);
  const navigate = useNavigate();
  const send = useSend();
  const run = useMutation({ mutationFn: (said: SaidOfRun) => send(said) });
  if (blocked) {
    return (
      <Button look="main" className="h-[34px]" onClick={() => navigate(`/jobs/${jobId}/check`, { replace: true })}>
        See what blocks
      </Button>
    );
  }
  const idle = state === 'idle' || isByHand;
  if (several && burntAt && idle && !run.isPending) {
    return (
      <SayFirst
        words={`${jobRun.name} is burnt`}
        icon={<Check size={16} className="shrink-0 text-settled" aria-hidden />}
        button="Burn it again"
        send={() => run.mutate({ again: true, early: true })}
      >
        {jobRun.name} was burnt on {dayAndTimeOf(burntAt)}. Again, it burns over what is there: lay fresh stock first,
        or choose another run in the burn strip.
      </SayFirst>
    );
  }
  if (before && !burnt.has(before.id) && idle && !run.isPending) {
    return (
      <SayFirst
        words={`${before.name} first`}
        button={`Send ${jobRun.name} all the same`}
        send={() => run.mutate({ early: true })}
      >
        {jobRun.name} takes the stock as {before.name} leaves it, and {before.name} was not burnt yet. Burn{' '}
        {before.name} first, or send this where the stock lies there already.
      </SayFirst>
    );
  }
  const what = several ? `Send ${jobRun.name}` : `Send to ${machine.name}`;
  return (
    <Button
      look="main"
      className="h-[34px] max-w-[220px]"
      disabled={!idle || !current || run.isPending}
      title={
        !current
          ? 'The plan is being worked out'
          : idle
            ? `${jobRun.name} to ${machine.name}`
            : `${machine.name} is ${state}`
      }
      onClick={() => run.mutate({})}
    >
      <Flame size={16} className="shrink-0" aria-hidden />
      <span className="truncate">{run.isPending ? 'Sending…' : idle ? what : `${machine.name} is ${state}`}</span>
    </Button>
  );
}

/** What a run needs to have said before it is sent, for it would else spoil its stock. */
function SayFirst(props: { words: string; icon?: ReactNode; button: string; send: () => void; children: ReactNode }) {
  const { words, icon, button, send, children } = props;
  return (
    <Popover className="relative">
      <PopoverButton as={Button} className="h-[34px] max-w-[220px]">
        {icon}
        <span className="truncate">{words}</span>
      </PopoverButton>
      <PopoverPanel
        anchor={{ to: 'bottom end', gap: 8 }}
        className="z-30 w-[300px] rounded-xl border border-line bg-paper p-3.5 shadow-float outline-none"
      >
        {({ close }) => (
          <>
            <p className="mb-2.5">{children}</p>
            <Button
              look="danger"
              onClick={() => {
                close();
                send();
              }}
            >
              {button}
            </Button>
          </>
        )}
      </PopoverPanel>
    </Popover>
  );
}
