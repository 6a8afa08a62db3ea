import type { Item } from '@lambent/core/document';
import { freshened, type StaleOutline, staleOutline } from '@lambent/core/fit';
import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import { sentenceOf } from '../api.ts';
import { work } from '../workers/work.ts';
import { useBench, useBenchActions } from './context.ts';
import type { BenchState } from './state/bench-state.ts';
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
export function useFreshening(): void {
  const actions = useBenchActions();
  const [turn, setTurn] = useState(0);
  // The shape alone: the whole Bench would be drawn anew with each edit otherwise.
  const shape = useBench((state) => staleIn(state)?.item.shape ?? null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: each turn is another try
  useEffect(() => {
    const stale = staleIn(actions.get());
    if (!stale || stale.item.shape !== shape) return;
    const given = new AbortController();
    work('follow', [stale.item.shape, stale.sources], { signal: given.signal })
      .then((path) => {
        if (given.signal.aborted) return;
        actions.amend((now) => freshened(now, stale, path));
        setTurn((before) => before + 1);
      })
      .catch((error) => {
        if (!given.signal.aborted) toast.error(sentenceOf(error));
      });
    return () => given.abort();
  }, [shape, turn, actions]);
}
