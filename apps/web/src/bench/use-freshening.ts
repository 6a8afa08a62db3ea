import { freshened, staleOutline } from '@lambent/core';
import { useEffect, useMemo, useState } from 'react';
import { toast } from 'sonner';
import { sentenceOf } from '../api.ts';
import { fileWorker, fileWorkStopped } from '../workers/bench.ts';
import { useBench, useBenchActions } from './context.ts';
import { jobOf } from './store.ts';

/** Has outlines whose large sources have changed worked out by the worker, one after the other. */
export function useFreshening(): void {
  const actions = useBenchActions();
  const job = useBench(jobOf);
  const stale = useMemo(() => staleOutline(job), [job]);
  const [turn, setTurn] = useState(0);
  const shape = stale?.item.shape;
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is stale stays the same through edits of other things
  useEffect(() => {
    if (!stale) return;
    let given = false;
    const work = async () => {
      try {
        const path = await Promise.race([fileWorker().follow(stale.item.shape, stale.sources), fileWorkStopped()]);
        if (given) return;
        if (path) actions.amend((now) => freshened(now, stale, path));
        // The worker was stopped for the sake of something else.
        setTurn((before) => before + 1);
      } catch (error) {
        if (!given) toast.error(sentenceOf(error));
      }
    };
    void work();
    return () => {
      given = true;
    };
  }, [shape, turn, actions]);
}
