import { useEffect, useRef } from 'react';
import type { Stage } from '../stages/stage.ts';
import type { BenchActions, BenchState } from '../state/bench-state.ts';
import { keepHistory } from './kept-history.ts';
import { rememberPlace } from './left-place.ts';

/** So long after the last save what can be undone is kept: not at every nudge. */
const quietMs = 300;

/** Has a job open again as it is left: at the stage and view that were seen, with what can be undone. */
export function useLeft(actions: BenchActions, subscribe: (listener: () => void) => () => void, stage: Stage): void {
  const shown = useRef(stage);
  shown.current = stage;
  useEffect(() => {
    const remember = () => {
      const { jobId, view, viewSize } = actions.get();
      if (viewSize.width > 0) rememberPlace(jobId, shown.current, view, viewSize);
    };
    let timer: number | undefined;
    let last: BenchState['stored'] | null = actions.get().stored;
    const keep = () => {
      const { jobId, history, stored, save } = actions.get();
      if (save.kind === 'saved') void keepHistory({ jobId, ...stored, history }).catch(() => {});
    };
    const stop = subscribe(() => {
      const { save, stored } = actions.get();
      if (save.kind !== 'saved' || stored === last) return;
      last = stored;
      window.clearTimeout(timer);
      timer = window.setTimeout(keep, quietMs);
    });
    window.addEventListener('pagehide', remember);
    return () => {
      stop();
      window.clearTimeout(timer);
      window.removeEventListener('pagehide', remember);
      remember();
      keep();
    };
  }, [actions, subscribe]);
}
