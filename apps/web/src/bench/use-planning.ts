import { useEffect } from 'react';
import { sentenceOf } from '../api.ts';
import { planInWorker } from '../workers/bench.ts';
import type { BenchActions } from './store.ts';
import { jobOf } from './store.ts';

const quietMs = 80;

/** Keeps the plan true: works it out in a worker whenever the job or the shop has changed. */
export function usePlanning(actions: BenchActions, subscribe: (listener: () => void) => () => void): void {
  useEffect(() => {
    let timer: number | null = null;
    let working = false;
    const work = async () => {
      if (working) return;
      working = true;
      while (actions.get().plannedFor !== jobOf(actions.get())) {
        const state = actions.get();
        const job = jobOf(state);
        try {
          const planned = await planInWorker(job, state.shop);
          actions.set({ planned, plannedFor: job, planTrouble: null });
        } catch (error) {
          actions.set({ planned: null, plannedFor: job, planTrouble: sentenceOf(error) });
        }
      }
      working = false;
    };
    const soon = () => {
      if (actions.get().plannedFor === jobOf(actions.get())) return;
      if (timer !== null) window.clearTimeout(timer);
      timer = window.setTimeout(() => void work(), quietMs);
    };
    soon();
    let last = jobOf(actions.get());
    const stop = subscribe(() => {
      const job = jobOf(actions.get());
      if (job !== last) {
        last = job;
        soon();
      }
    });
    return () => {
      stop();
      if (timer !== null) window.clearTimeout(timer);
    };
  }, [actions, subscribe]);
}
