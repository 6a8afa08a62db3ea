/*
 * When a machine does the jobs that wait for it: one after the other, while the shop is open. Times are in ms since 1970.
 */

/** A stretch of time. */
export interface Span {
  readonly from: number;
  readonly until: number;
}

/** A job that waits for a machine: how long it burns, in ms, and before when it does not begin; null where it may at once. */
export interface QueuedJob {
  readonly takesMs: number;
  readonly notBefore: number | null;
}

/** When there is somebody to set jobs up, and how long that takes before each of them. */
export interface WorkingTimes {
  /** When the shop is open: in their order, none over another. All that comes after the last one counts as open. */
  readonly openings: readonly Span[];
  readonly setUpMs: number;
}

/** Where a job fits in: when it burns, and how many jobs of the queue come before it. */
export interface Fit {
  readonly span: Span;
  readonly place: number;
}

/**
 * When the jobs of a queue burn, each as soon as it can: the one before it has ended, it was set up, and it ends before the
 * shop closes. One that is longer than the shop is ever open begins as soon as it is open, and goes on after that.
 * @param free when the machine is done with what it does now
 */
export function scheduleQueue(queue: readonly QueuedJob[], free: number, times: WorkingTimes): Span[] {
  const spans: Span[] = [];
  for (const job of queue) spans.push(spanFrom(spans.at(-1)?.until ?? free, job, times));
  return spans;
}

/**
 * The first place in a queue where a job fits without making another wait longer.
 * @param spans when the jobs of the queue burn, as `scheduleQueue` gives it
 */
export function earliestFit(job: QueuedJob, spans: readonly Span[], free: number, times: WorkingTimes): Fit {
  for (let place = 0; place < spans.length; place++) {
    const span = spanFrom(spans[place - 1]?.until ?? free, job, times);
    if (span.until + times.setUpMs <= spans[place].from) return { span, place };
  }
  return { span: spanFrom(spans.at(-1)?.until ?? free, job, times), place: spans.length };
}

/** When a job burns that is set up at a time at the earliest. */
function spanFrom(time: number, { takesMs, notBefore }: QueuedJob, { openings, setUpMs }: WorkingTimes): Span {
  const whole = setUpMs + takesMs;
  const earliest = notBefore === null ? time : Math.max(time, notBefore - setUpMs);
  const longest = Math.max(0, ...openings.map(({ from, until }) => until - from));
  const open = openings.find(
    ({ from, until }) => until > earliest && (whole > longest || Math.max(earliest, from) + whole <= until),
  );
  const last = openings.at(-1)?.until ?? earliest;
  const begin = open ? Math.max(earliest, open.from) : Math.max(earliest, last);
  return { from: begin + setUpMs, until: begin + whole };
}
