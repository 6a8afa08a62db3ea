import type { MachineCommand, RunAnswer } from '@lambent/contracts';
import { priceOf, stepTitle } from '@lambent/core/plan';
import { formatClock } from '@lambent/core/units';
import { Pause, Play, RotateCcw } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { api, sentenceOf } from '../../../api.ts';
import { dayAndTimeOf } from '../../../stores/dates.ts';
import { useLive } from '../../../stores/live.ts';
import { Button, IconButton } from '../../../ui/button.tsx';
import { Choice } from '../../../ui/choice.tsx';
import { fixed, formatDuration, formatMoney } from '../../../ui/figures.ts';
import { stateLook } from '../../../ui/machine-state.ts';
import { Notice } from '../../../ui/notice.tsx';
import { cardStepsTitle, shownSteps } from '../../card/card-steps.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { jobOf, machineOf } from '../../state/document.ts';
import { planOf } from '../../state/plan.ts';
import { useRuns } from '../../use-runs.ts';
import { useShownRun } from '../../use-shown-run.ts';
import { Drawer, Part } from '../drawer.tsx';
import { BeforeSend } from './before-send.tsx';
import { JobSheetPart } from './job-sheet-part.tsx';
import { PiecesPart } from './pieces-part.tsx';
import { TakeOut } from './take-out.tsx';
import { TakenSheets } from './taken-sheets.tsx';

/** See it, time it, run it. */
export function BurnDrawer() {
  const plan = useBench(planOf);
  const run = useShownRun();
  return (
    <Drawer title="Burn" aside={plan ? formatDuration(plan.timeS) : undefined}>
      <MachinePart />
      <BeforeSend />
      {plan && plan.steps.length > 0 && !run && <Preview timeS={plan.timeS - plan.backS} />}
      {plan && plan.steps.length > 0 && (
        <Part title="Time">
          <dl className="figures flex flex-col gap-1 text-[12.5px]">
            {shownSteps(plan.steps).map((shown) =>
              shown.kind === 'card' ? (
                <Fact key={shown.steps[0].id} name={cardStepsTitle(shown.steps)} value={formatClock(shown.timeS)} />
              ) : (
                <Fact key={shown.step.id} name={stepTitle(shown.step)} value={formatClock(shown.step.timeS)} />
              ),
            )}
            <Fact name="Back to zero" value={formatClock(plan.backS)} />
            <div className="border-t border-line pt-1 font-bold">
              <Fact name="In all" value={formatClock(plan.timeS)} />
            </div>
            <Fact name="Moved unlit" value={`${fixed(plan.travelMm / 1000, 2)} m`} />
          </dl>
        </Part>
      )}
      <PiecesPart />
      <PricePart />
      <JobSheetPart />
      <TakeOut />
      <Record />
    </Drawer>
  );
}

/** What the run costs, in its parts. */
function PricePart() {
  const plan = useBench(planOf);
  const prepared = useBench((state) => state.prepared);
  const shop = useBench((state) => state.shop);
  const pricing = useBench((state) => state.pricing);
  const price = useMemo(() => plan && priceOf(plan, prepared, shop, pricing), [plan, prepared, shop, pricing]);
  if (!price || (price.total === 0 && price.unpriced.length === 0)) return null;
  return (
    <Part title={prepared.job.runs.length > 1 ? `Price of ${prepared.run.name}` : 'Price'}>
      <dl className="figures flex flex-col gap-1 text-[12.5px]">
        {price.parts.map(({ what, amount }) => (
          <Fact key={what} name={what} value={formatMoney(amount, pricing)} />
        ))}
        <div className="border-t border-line pt-1 font-bold">
          <Fact name="In all" value={formatMoney(price.total, pricing)} />
        </div>
      </dl>
      {price.unpriced.length > 0 && (
        <p className="mt-1.5 text-[12px] text-warn">
          Without {price.unpriced.join(' and ')}: no price is set.{' '}
          <Link to="/shop" className="font-semibold underline">
            Set it
          </Link>
        </p>
      )}
    </Part>
  );
}

function Fact({ name, value }: { name: string; value: string }) {
  return (
    <div className="flex justify-between gap-3">
      <dt className="font-sans">{name}</dt>
      <dd>{value}</dd>
    </div>
  );
}

/** The machine as it is, and what can be asked of it while it burns. */
function MachinePart() {
  const machine = useBench(machineOf);
  const state = useLive((live) => live.machines[machine.id]);
  const run = useShownRun();
  const timeS = useBench((bench) => planOf(bench)?.timeS ?? 0);
  const look = stateLook(state?.state ?? 'away');
  const send = (command: MachineCommand) =>
    api.command(machine.id, command).catch((error) => toast.error(sentenceOf(error)));
  return (
    <Part title={machine.name}>
      <div className="rounded-[10px] border border-line bg-raised p-3" data-testid="machine-part">
        <p className="flex items-center gap-2 font-semibold">
          <span className={`size-2.5 rounded-full ${look.dot}`} aria-hidden />
          {look.text}
          {run && (
            <span className="figures ml-auto text-[12.5px] font-normal">
              {formatClock(Math.max(0, timeS - run.atS))} left
            </span>
          )}
        </p>
        {state?.reason && <p className="mt-1 text-warn">{state.reason}</p>}
        {run && state && (
          <div className="mt-2.5 flex gap-2">
            {state.state === 'held' && state.lid !== 'open' && (
              <Button look="main" onClick={() => void send('resume')}>
                Resume
              </Button>
            )}
            {state.state === 'running' && (
              <Button look="main" onClick={() => void send('hold')}>
                Hold
              </Button>
            )}
            <Button look="danger" onClick={() => void send('stop')}>
              Stop
            </Button>
          </div>
        )}
      </div>
    </Part>
  );
}

const speeds = ['1', '5', '20', '100'] as const;

/** Plays the plan on the bed. */
function Preview({ timeS }: { timeS: number }) {
  const actions = useBenchActions();
  const previewS = useBench((state) => state.previewS);
  const [playing, setPlaying] = useState(false);
  const [speed, setSpeed] = useState<(typeof speeds)[number]>('20');

  useEffect(() => {
    if (!playing) return;
    let frame = 0;
    let last = performance.now();
    const tick = (now: number) => {
      const next = (actions.get().previewS ?? 0) + ((now - last) / 1000) * Number(speed);
      last = now;
      actions.preview(Math.min(timeS, next));
      if (next >= timeS) setPlaying(false);
      else frame = requestAnimationFrame(tick);
    };
    frame = requestAnimationFrame(tick);
    return () => cancelAnimationFrame(frame);
  }, [playing, speed, timeS, actions]);

  // The preview goes with its drawer.
  useEffect(() => () => actions.preview(null), [actions]);

  const play = () => {
    if (!playing && (previewS ?? 0) >= timeS) actions.preview(0);
    setPlaying(!playing);
  };
  return (
    <Part title="Preview">
      <div className="flex items-center gap-1.5">
        <IconButton
          label={playing ? 'Pause the preview' : 'Play the preview'}
          onClick={play}
          className="border border-line"
        >
          {playing ? <Pause size={16} aria-hidden /> : <Play size={16} aria-hidden />}
        </IconButton>
        <input
          type="range"
          min={0}
          max={timeS}
          step="any"
          value={previewS ?? 0}
          aria-label="Place in the preview"
          aria-valuetext={formatDuration(previewS ?? 0)}
          onChange={(event) => actions.preview(Number(event.target.value))}
          className="min-w-0 flex-1 accent-petrol"
        />
        <IconButton
          label="Leave the preview"
          disabled={previewS === null}
          onClick={() => {
            setPlaying(false);
            actions.preview(null);
          }}
        >
          <RotateCcw size={16} aria-hidden />
        </IconButton>
      </div>
      <div className="flex items-center justify-between">
        <span className="figures text-[12.5px]">
          {formatClock(previewS ?? 0)} of {formatClock(timeS)}
        </span>
        <Choice
          label="Speed of the preview"
          look="chip"
          value={speed}
          options={speeds.map((times) => ({ value: times, text: `${times}×` }))}
          choose={setSpeed}
        />
      </div>
    </Part>
  );
}

/** What was burnt of this job. */
function Record() {
  const { runs, error } = useRuns();
  return (
    <Part title="Record">
      {error && <Notice level="blocks">{sentenceOf(error)}</Notice>}
      {runs.length === 0 && !error && <p className="text-quiet">This job has not been burnt yet.</p>}
      <ul className="flex flex-col gap-2">
        {runs.map((run) => (
          <RunRow key={run.id} run={run} />
        ))}
      </ul>
    </Part>
  );
}

const runInk: Record<RunAnswer['status'], string> = {
  running: 'text-ink',
  held: 'text-warn',
  done: 'text-[#2E7A4C]',
  stopped: 'text-warn',
  refused: 'text-stop',
  'broken off': 'text-stop',
};

function RunRow({ run }: { run: RunAnswer }) {
  const actions = useBenchActions();
  const several = useBench((state) => jobOf(state).runs.length > 1);
  const pictured = useBench((state) => state.pictured === run.id);
  const name = useBench((state) => state.shop.machines.find(({ id }) => id === run.machineId)?.name ?? run.machineId);
  return (
    <li
      className="rounded-[10px] border border-line bg-raised px-3 py-2"
      data-testid="run-row"
      data-status={run.status}
    >
      <p className="flex justify-between gap-2">
        <span className={`font-semibold ${runInk[run.status]}`}>{run.status}</span>
        <span className="figures text-[12px] text-quiet">{dayAndTimeOf(run.startedAt)}</span>
      </p>
      <p className="text-[12px] text-quiet">
        {several && `${run.jobRunName}, `}
        {name}, version {run.version}, planned {formatClock(run.plannedS)}
        {run.endedAt && `, took ${formatClock(run.machineS)}`}
      </p>
      {run.reason && (
        <p className="text-[12px]">
          {run.reason}, at line {run.doneLine} of {run.lines}
        </p>
      )}
      {run.hasPicture && (
        <button
          type="button"
          aria-pressed={pictured}
          onClick={() => actions.showPictureOf(pictured ? null : run.id)}
          className="block text-[12px] font-semibold text-petrol underline"
        >
          {pictured ? 'leave how it came out' : 'how it came out'}
        </button>
      )}
      <a
        href={`/api/runs/${run.id}/program.gcode`}
        download
        className="text-[12px] font-semibold text-petrol underline"
      >
        the program that was sent
      </a>
      <TakenSheets run={run} />
    </li>
  );
}
