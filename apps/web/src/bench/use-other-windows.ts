import { useEffect } from 'react';
import { toast } from 'sonner';
import { api } from '../api.ts';
import { useLive } from '../stores/live.ts';
import { t } from '../words/words.ts';
import { openWholeJob } from './open-whole-job.ts';
import type { BenchActions } from './state/bench-state.ts';

/**
 * Shows what another window saves of this job, as soon as nothing here waits to be saved. What does is never overwritten:
 * its save is refused, and both can be kept (conflict-bar.tsx).
 */
export function useOtherWindows(actions: BenchActions, subscribe: (listener: () => void) => () => void): void {
  useEffect(() => {
    const { jobId } = actions.get();
    /** The last version that is known of. */
    let latest = 0;
    let isAsking = false;
    let isOver = false;
    const isBehind = () => {
      const { save, stored } = actions.get();
      return save.kind === 'saved' && stored.version < latest;
    };
    const follow = async () => {
      if (isAsking || !isBehind()) return;
      isAsking = true;
      try {
        const opened = await openWholeJob(jobId);
        latest = Math.max(latest, opened.version);
        if (isOver || !isBehind()) return;
        actions.takeStored(opened);
        toast(t('Changed in another window. This is how it was saved there; undo goes back.'));
      } catch {
        // Asked again with the next save, here or there.
        latest = 0;
      } finally {
        isAsking = false;
      }
    };
    const stopHearing = useLive.subscribe(({ jobVersions, connected }, before) => {
      latest = Math.max(latest, jobVersions[jobId] ?? 0);
      void follow();
      if (!connected || before.connected) return;
      // What was saved while the server was not heard.
      api.versions(jobId).then(
        ([last]) => {
          latest = Math.max(latest, last?.number ?? 0);
          void follow();
        },
        () => {},
      );
    });
    const stop = subscribe(() => void follow());
    return () => {
      isOver = true;
      stopHearing();
      stop();
    };
  }, [actions, subscribe]);
}
