import type { RunAnswer } from '@lambent/contracts';
import { formatClock } from '@lambent/core/units';
import { toast } from 'sonner';
import { said, t } from '../words/words.ts';
import { useLive } from './live.ts';

/** Asks the browser whether it may tell of the end of a run while nobody looks; once, and only where it was never asked. */
export function askToNotify(): void {
  if (typeof Notification !== 'undefined' && Notification.permission === 'default')
    void Notification.requestPermission();
}

/** How a run ended, in words. */
export function endInWords({ jobTitle, status, reason, machineS }: RunAnswer): string {
  if (status === 'done')
    return t('“{{jobTitle}}” is burnt, in {{machineS}}.', { jobTitle, machineS: formatClock(machineS) });
  // “stopped by hand” says that it was stopped.
  const why = reason && said(reason);
  const how = reason?.startsWith(status) ? why : `${said(status)}${why ? `: ${why}` : ''}`;
  return t('“{{jobTitle}}” was {{how}}.', { jobTitle, how });
}

/** Whether a run has just ended: it was heard of while it went on. */
export function hasEnded(before: RunAnswer | undefined, now: RunAnswer): boolean {
  return before !== undefined && before.endedAt === null && now.endedAt !== null;
}

/** Says on every page when a run ends, and through the system where the page is not looked at. */
export function sayRunEnds(): void {
  useLive.subscribe(({ runs }, { runs: before }) => {
    if (runs === before) return;
    for (const run of Object.values(runs)) if (hasEnded(before[run.id], run)) say(run);
  });
}

function say(run: RunAnswer): void {
  const words = endInWords(run);
  if (run.status === 'done') toast.success(words, { duration: 10_000 });
  // What did not end well stays until somebody has seen it.
  else if (run.status === 'stopped') toast(words);
  else toast.error(words, { duration: Number.POSITIVE_INFINITY, closeButton: true });
  if (document.hidden && typeof Notification !== 'undefined' && Notification.permission === 'granted') {
    new Notification('Lambent', { body: words, tag: run.id });
  }
}
