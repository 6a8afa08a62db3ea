import type { Point } from '@lambent/core/geometry';
import { fromMachine } from '@lambent/core/machine';
import { useEffect } from 'react';
import { sentenceOf } from '../api.ts';
import { useLive } from '../stores/live.ts';
import { planned } from '../workers/work.ts';
import type { BenchActions, BenchState } from './state/bench-state.ts';
import { jobOf, machineOf } from './state/document.ts';
import { isPlanned } from './state/plan.ts';

/** A plan is worked out once edits have paused for as long as the last one took, within these: it would take the time of the next one. */
const quietMs = { least: 150, most: 1000 };
/** A fresh worker must be told the whole job again: what takes less than this is let come to its end. */
const longMs = 1000;

/** A plan that takes longer than this says how far it has come. */
const saidAfterMs = 400;

/** Keeps the plan true: works it out in a worker whenever the job or the shop has changed. */
export function usePlanning(actions: BenchActions, subscribe: (listener: () => void) => () => void): void {
  useEffect(() => {
    let timer: number | null = null;
    let working: AbortController | null = null;
    let began = 0;
    let tookMs = 0;
    let over = false;
    const work = async () => {
      if (working) return;
      while (!isCurrent(actions.get()) && !over) {
        const turn = new AbortController();
        working = turn;
        const state = actions.get();
        const { run } = state.prepared;
        const head = headFor(state);
        const subject = { document: jobOf(state), runId: run.id, head };
        try {
          began = performance.now();
          const choice = { runId: run.id, head };
          const progress = (share: number) => {
            if (!turn.signal.aborted && performance.now() - began > saidAfterMs) actions.tellPlanned(share);
          };
          const answer = await planned(subject.document, state.shop, choice, { signal: turn.signal, progress });
          tookMs = performance.now() - began;
          actions.showPlan(subject, answer);
        } catch (error) {
          // One that was stopped is asked for again, as things are by now.
          if (turn.signal.aborted) actions.tellPlanned(null);
          else actions.failPlan(subject, sentenceOf(error));
        }
      }
      working = null;
    };
    const soon = () => {
      if (isCurrent(actions.get())) return;
      // A plan that takes long is not waited for when it is no longer the one that is wanted.
      if (performance.now() - began > longMs) working?.abort();
      if (timer !== null) window.clearTimeout(timer);
      timer = window.setTimeout(() => void work(), Math.min(quietMs.most, Math.max(quietMs.least, tookMs)));
    };
    soon();
    let last = actions.get().prepared;
    const stop = subscribe(() => {
      const { prepared } = actions.get();
      if (prepared !== last) {
        last = prepared;
        soon();
      }
    });
    // A run that lands at the head is planned anew where that was moved to.
    const stopLive = useLive.subscribe(() => {
      if (actions.get().prepared.run.landing.kind === 'head') soon();
    });
    return () => {
      over = true;
      working?.abort();
      stop();
      stopLive();
      if (timer !== null) window.clearTimeout(timer);
    };
  }, [actions, subscribe]);
}

/** Where the head stands, in bed mm, for a run that lands there; not while it moves. */
function headFor(state: BenchState): Point | null {
  const machine = machineOf(state);
  const live = useLive.getState().machines[machine.id];
  if (state.prepared.run.landing.kind !== 'head' || !live || live.state === 'away') return null;
  if (live.state === 'running' || live.state === 'homing') return plannedHead(state);
  return fromMachine(machine, live.x, live.y);
}

function plannedHead({ planning }: BenchState): Point | null {
  return planning.subject?.head ?? null;
}

function isCurrent(state: BenchState): boolean {
  const [head, planned] = [headFor(state), plannedHead(state)];
  const moved = head && (!planned || Math.hypot(head.x - planned.x, head.y - planned.y) > 0.005);
  return isPlanned(state) && !moved;
}
