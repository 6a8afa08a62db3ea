import type { DayAnswer, DayMachine } from '@lambent/contracts';
import { earliestFit, type Span, scheduleQueue, type WorkingTimes } from '@lambent/core/day';
import type { FocusedJob } from './use-day.ts';
import type { DayPlace } from './use-give.ts';

/** Where a job would be, and when it would burn. */
export interface LaidIn {
  readonly place: DayPlace;
  readonly span: Span;
}

/** Kept free for a job of which it is not known yet how long it takes, as the server does, in s. */
const unknownS = 30 * 60;
/** What is dropped behind all others begins at a multiple of this. */
const stepMs = 5 * 60_000;

/** The first place of a machine where a job fits and makes no other wait. */
export function firstFit(day: DayAnswer, machine: DayMachine, job: FocusedJob): LaidIn {
  const { times, free, others } = lane(day, machine, job);
  const spans = scheduleQueue(others.map(queued), free, times);
  const { span, place } = earliestFit({ takesMs: takesOf(job), notBefore: null }, spans, free, times);
  return { span, place: before(machine, others[place]?.jobId) };
}

/** Where a job comes to be that is dropped at a time: before what burns then, or as late as that behind all others. */
export function dropAt(day: DayAnswer, machine: DayMachine, job: FocusedJob, time: number): LaidIn {
  const { times, free, others } = lane(day, machine, job);
  const spans = scheduleQueue(others.map(queued), free, times);
  const next = spans.findIndex(({ from, until }) => (from + until) / 2 > time);
  const place = next < 0 ? others.length : next;
  const end = (spans[place - 1]?.until ?? free) + times.setUpMs;
  const isLast = place === others.length;
  const notBefore = isLast && time > end ? Math.round(time / stepMs) * stepMs : null;
  const queue = others.map(queued).toSpliced(place, 0, { takesMs: takesOf(job), notBefore });
  return {
    span: scheduleQueue(queue, free, times)[place],
    place: {
      ...before(machine, others[place]?.jobId),
      ...(notBefore === null ? {} : { notBefore: new Date(notBefore).toISOString() }),
    },
  };
}

function lane({ openings, setUpMinutes, now }: DayAnswer, { blocks, running }: DayMachine, { id }: FocusedJob) {
  const times: WorkingTimes = { openings: openings.map(msSpan), setUpMs: setUpMinutes * 60_000 };
  const free = Date.parse(running?.until ?? now);
  return { times, free, others: blocks.filter(({ jobId }) => jobId !== id) };
}

function before({ machineId }: DayMachine, jobId: string | undefined): DayPlace {
  return jobId === undefined ? { machineId } : { machineId, beforeJobId: jobId };
}

function queued({ from, until, notBefore }: DayMachine['blocks'][number]) {
  return {
    takesMs: Date.parse(until) - Date.parse(from),
    notBefore: notBefore === null ? null : Date.parse(notBefore),
  };
}

function takesOf({ seconds }: FocusedJob): number {
  return Math.round((seconds ?? unknownS) * 1000);
}

/** A stretch of time in ms since 1970. */
export function msSpan({ from, until }: { readonly from: string; readonly until: string }): Span {
  return { from: Date.parse(from), until: Date.parse(until) };
}
