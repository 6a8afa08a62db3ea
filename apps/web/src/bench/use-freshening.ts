import type { Item, Shape } from '@lambent/core/document';
import { freshened, type StaleOutline, staleOutline } from '@lambent/core/fit';
import { useEffect } from 'react';
import { toast } from 'sonner';
import { sentenceOf } from '../api.ts';
import { work } from '../workers/work.ts';
import type { BenchActions, BenchState } from './state/bench-state.ts';
import { jobOf } from './state/document.ts';

const known = new WeakMap<readonly Item[], StaleOutline | null>();

/** What is stale in the job, looked for once in each state of its items. */
function staleIn(state: BenchState): StaleOutline | null {
  const { items } = jobOf(state).drawing;
  let stale = known.get(items);
  if (stale === undefined) {
    stale = staleOutline(jobOf(state));
    known.set(items, stale);
  }
  return stale;
}

/** Has outlines whose large sources have changed worked out by the worker, one after the other. */
export function useFreshening(actions: BenchActions, subscribe: (listener: () => void) => () => void): void {
  useEffect(() => {
    let timer: number | null = null;
    let following: { readonly shape: Shape; readonly given: AbortController } | null = null;
    const stop = () => {
      following?.given.abort();
      following = null;
    };
    const look = () => {
      timer = null;
      const stale = staleIn(actions.get());
      if (stale?.item.shape === following?.shape) return;
      stop();
      if (!stale) return;
      const given = new AbortController();
      following = { shape: stale.item.shape, given };
      work('follow', [stale.item.shape, stale.sources], { signal: given.signal })
        .then((path) => {
          if (given.signal.aborted) return;
          following = null;
          actions.amend((now) => freshened(now, stale, path));
        })
        .catch((error) => {
          if (!given.signal.aborted) toast.error(sentenceOf(error));
        });
    };
    // Not within the edit: of many items, looking takes a while.
    const soon = () => {
      timer ??= window.setTimeout(look);
    };
    soon();
    const unsubscribe = subscribe(soon);
    return () => {
      unsubscribe();
      stop();
      if (timer !== null) window.clearTimeout(timer);
    };
  }, [actions, subscribe]);
}
