import type { MachineState, RunAnswer } from '@lambent/contracts';
import { t } from '../words/words.ts';
import { announce } from './announcer.ts';
import { useLive } from './live.ts';

interface Heard {
  readonly runs: Readonly<Record<string, RunAnswer>>;
  readonly machines: Readonly<Record<string, Pick<MachineState, 'runId' | 'runS'>>>;
}

/** How far a run is that is on its way, from 0 to 1; null where its machine does not say. */
export function shareOf({ id, machineId, plannedS }: RunAnswer, { machines }: Pick<Heard, 'machines'>): number | null {
  const machine = machines[machineId];
  if (machine?.runId !== id || plannedS <= 0) return null;
  return Math.min(1, machine.runS / plannedS);
}

/** A run that is on its way; the one begun first where there are several. */
export function runUnderWay({ runs }: Pick<Heard, 'runs'>): RunAnswer | null {
  const open = Object.values(runs).filter(({ endedAt }) => endedAt === null);
  return open.sort((a, b) => a.startedAt.localeCompare(b.startedAt))[0] ?? null;
}

const quarters = [0.75, 0.5, 0.25];

/** What is to be said of runs between two moments: that they begin, are held, go on, and how far they are by quarters. */
export function runNews(before: Heard, now: Heard): string[] {
  return Object.values(now.runs).flatMap((run): string[] => {
    const was = before.runs[run.id];
    const name = `“${run.jobTitle}”`;
    if (run.endedAt !== null) return [];
    if (!was) return [t('{{name}} has begun.', { name })];
    if (was.status !== run.status) {
      return run.status === 'held'
        ? [t('{{name}} is held{{reason}}.', { name, reason: run.reason ? `: ${run.reason}` : '' })]
        : [t('{{name}} goes on.', { name })];
    }
    const [from, to] = [shareOf(was, before), shareOf(run, now)];
    const passed = quarters.find((quarter) => from !== null && to !== null && from < quarter && to >= quarter);
    return passed === undefined ? [] : [t('{{name}} is {{passed}} % burnt.', { name, passed: passed * 100 })];
  });
}

/** Says on every page how runs go; how they end is said where it is shown. */
export function sayRunNews(): void {
  useLive.subscribe((now, before) => {
    if (now.runs === before.runs && now.machines === before.machines) return;
    const news = runNews(before, now);
    if (news.length > 0) announce(news.join(' '));
  });
}
