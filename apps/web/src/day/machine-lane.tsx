import type { DayAnswer, DayRun } from '@lambent/contracts';
import type { Span } from '@lambent/core/day';
import type { Machine } from '@lambent/core/machine';
import { type DragEvent, type ReactNode, useState } from 'react';
import { Link } from 'react-router';
import { timeOf, whenOf } from '../stores/dates.ts';
import { useLive } from '../stores/live.ts';
import { stateLook } from '../ui/machine-state.ts';
import { t } from '../words/words.ts';
import { DayBlockButton } from './day-block.tsx';
import { namesWidth, shareAt } from './hours-shown.ts';
import { dropAt, firstFit, type LaidIn, msSpan } from './lay-in.ts';
import { blockOf, useDayFocus } from './use-day.ts';
import { useGive } from './use-give.ts';

interface Props {
  readonly day: DayAnswer;
  readonly hours: Span;
  readonly machine: Machine;
  readonly machines: readonly Machine[];
}

/** What one machine did, does and will do; a job that is dropped here is given to it. */
export function MachineLane({ day, hours, machine, machines }: Props) {
  const give = useGive();
  const hovered = useDayFocus((focus) => focus.hovered);
  const dragged = useDayFocus((focus) => focus.dragged);
  const [dropped, setDropped] = useState<LaidIn | null>(null);
  const state = useLive((live) => live.machines[machine.id]?.state ?? 'away');
  const lane = day.machines.find(({ machineId }) => machineId === machine.id);
  if (!lane) return null;
  const timeUnder = ({ currentTarget, clientX }: DragEvent<HTMLElement>) => {
    const { left, width } = currentTarget.getBoundingClientRect();
    return hours.from + ((clientX - left) / width) * (hours.until - hours.from);
  };
  const isWaiting = hovered && blockOf(day, hovered.id) === undefined;
  const ghost =
    dropped ?? (!dragged && isWaiting && hovered.machineId === machine.id ? firstFit(day, lane, hovered) : null);
  const ghostJob = dropped ? dragged : hovered;
  const isFree = Date.parse(lane.freeAt) <= Date.parse(day.now);
  return (
    <section aria-label={machine.name} className="flex items-stretch">
      <div className="shrink-0 py-1 pr-2" style={{ width: namesWidth }}>
        <p className="truncate font-bold">{machine.name}</p>
        <p className="truncate text-[12px] text-[#B9C4C1]">
          {state === 'idle' || state === 'running' ? (
            <span className="figures">
              {isFree ? t('free now') : t('free {{time}}', { time: whenOf(lane.freeAt) })}
            </span>
          ) : (
            stateLook(state).text
          )}
        </p>
      </div>
      <div
        role="none"
        className="relative my-1 h-11 flex-1 overflow-hidden border-l border-slate-line"
        onDragOver={(event) => {
          if (!dragged) return;
          event.preventDefault();
          setDropped(dropAt(day, lane, dragged, timeUnder(event)));
        }}
        onDragLeave={() => setDropped(null)}
        onDrop={(event) => {
          event.preventDefault();
          setDropped(null);
          if (!dragged) return;
          const { place } = dropAt(day, lane, dragged, timeUnder(event));
          void give(dragged, place, blockOf(day, dragged.id));
        }}
      >
        <Closed day={day} hours={hours} />
        {lane.runs.map((run) => (
          <OnStrip key={run.runId} span={msSpan(run)} hours={hours}>
            <RunBlock run={run} />
          </OnStrip>
        ))}
        <ol>
          {lane.blocks.map((block) => (
            <OnStrip key={block.jobId} as="li" span={msSpan(block)} hours={hours}>
              <DayBlockButton block={{ ...block, machineId: machine.id }} day={day} machines={machines} />
            </OnStrip>
          ))}
        </ol>
        {ghost && ghostJob && (
          <OnStrip span={ghost.span} hours={hours}>
            <div
              data-testid="would-fit"
              className="pointer-events-none relative h-full rounded-md border-2 border-dashed border-flame bg-slate/80"
            >
              <p
                className={`absolute inset-y-0 flex flex-col justify-center whitespace-nowrap bg-slate/90 px-1.5 text-[12px] ${shareAt(ghost.span.until, hours) > 0.75 ? 'right-full' : 'left-full'}`}
              >
                <span className="font-bold">{ghostJob.title}</span>
                {t('ready {{time}}', { time: whenOf(ghost.span.until) })}
              </p>
            </div>
          </OnStrip>
        )}
      </div>
    </section>
  );
}

/** A place on the strip, as wide as its time, and never too narrow to be pressed. */
function OnStrip(props: { as?: 'div' | 'li'; span: Span; hours: Span; children: ReactNode }) {
  const { as: Tag = 'div', span, hours, children } = props;
  const [left, right] = [shareAt(span.from, hours), shareAt(span.until, hours)];
  if (right < 0 || left > 1) return null;
  return (
    <Tag className="absolute inset-y-0 min-w-2" style={{ left: `${left * 100}%`, width: `${(right - left) * 100}%` }}>
      {children}
    </Tag>
  );
}

/** When the shop is closed. */
function Closed({ day, hours }: { day: DayAnswer; hours: Span }) {
  const open = day.openings.map(msSpan).filter(({ from, until }) => until > hours.from && from < hours.until);
  const edges = [hours.from, ...open.flatMap(({ from, until }) => [from, until]), hours.until];
  return edges.flatMap((from, i) => {
    const until = edges[i + 1];
    if (i % 2 === 1 || until === undefined || until <= from) return [];
    const left = Math.max(0, shareAt(from, hours));
    return (
      <div
        key={from}
        title={t('The shop is closed')}
        className="absolute inset-y-0 opacity-60 [background:repeating-linear-gradient(135deg,#2f403f_0_6px,transparent_6px_12px)]"
        style={{ left: `${left * 100}%`, width: `${(Math.min(1, shareAt(until, hours)) - left) * 100}%` }}
      />
    );
  });
}

const ends: Readonly<Record<DayRun['status'], string>> = {
  running: 'border-flame',
  held: 'border-warn',
  done: 'border-[#6FC491]',
  stopped: 'border-[#FF8A80]',
  refused: 'border-[#FF8A80]',
  'broken off': 'border-[#FF8A80]',
};

/** A run that was, or is: it fills as its machine goes on. */
function RunBlock({ run }: { run: DayRun }) {
  const { runId, jobId, title, status, plannedS, from, until } = run;
  const done = useLive((live) => {
    const state = Object.values(live.machines).find((machine) => machine.runId === runId);
    return state && plannedS > 0 ? Math.min(1, state.runS / plannedS) : null;
  });
  const time = t('{{from}} to {{until}}', { from: timeOf(from), until: timeOf(until) });
  return (
    <Link
      to={`/jobs/${jobId}/burn`}
      title={`${title}, ${time}`}
      className={`@container relative block h-full overflow-hidden rounded-md border border-t-[3px] bg-slate-raised px-[min(6px,15%)] ${ends[status]}`}
    >
      {done !== null && (
        <span className="absolute inset-y-0 left-0 bg-flame/35" style={{ width: `${done * 100}%` }} aria-hidden />
      )}
      <span className="relative block truncate font-bold @max-[36px]:opacity-0">{title}</span>
      <span className="figures relative block truncate text-[12px] @max-[36px]:opacity-0">{wordOf(status)}</span>
      <span className="sr-only"> {time}</span>
    </Link>
  );
}

function wordOf(status: DayRun['status']): string {
  return {
    running: t('burning'),
    held: t('held'),
    done: t('done'),
    stopped: t('stopped'),
    refused: t('refused'),
    'broken off': t('broken off'),
  }[status];
}
