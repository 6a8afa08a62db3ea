import { NotADrawing } from '@lambent/core/document';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useDeferredValue, useEffect, useState } from 'react';
import { Navigate, useParams } from 'react-router';
import { api, Refusal } from '../api.ts';
import { BenchScreen } from '../bench/bench-screen.tsx';
import { BenchContext } from '../bench/context.ts';
import { keptHistory } from '../bench/left/kept-history.ts';
import { leftStage } from '../bench/left/left-place.ts';
import { openWholeJob } from '../bench/open-whole-job.ts';
import { type Stage, stageNames } from '../bench/stages/stage.ts';
import { type BenchState, benchActions, createBenchStore } from '../bench/state/bench-state.ts';
import { sendUnsaved } from '../unsaved/send-unsaved.ts';
import { StuckWorkList } from '../unsaved/stuck-work-list.tsx';
import { t } from '../words/words.ts';
import { CannotOpen } from './cannot-open.tsx';

/** Loads a job and the shop it uses, and opens the Bench on them. */
export function BenchRoute() {
  const { jobId = '', stage } = useParams();
  const queries = useQueryClient();
  const [round, setRound] = useState(0);
  const loaded = useQuery({
    queryKey: ['bench', jobId, round],
    queryFn: async () => {
      // What a closed tab or a crash left here is saved first, so that it is in what is opened.
      const { stuck } = await sendUnsaved(jobId);
      const [job, machines, materials, keys, settings] = await Promise.all([
        openWholeJob(jobId),
        api.machines(),
        api.materials(),
        api.keys(),
        api.settings(),
      ]);
      const history = await keptHistory(jobId, job.version, job.updatedAt).catch(() => null);
      const store = createBenchStore(job, { machines, materials, keys }, settings.pricing, history ?? undefined);
      return { store, actions: benchActions(store), stuck };
    },
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
    refetchOnWindowFocus: false,
    retry: (count, error) =>
      count < 1 && !(error instanceof NotADrawing) && !(error instanceof Refusal && error.code === 'not-found'),
  });
  // So large a page is made bit by bit, and what is pressed meanwhile is heard.
  const bench = useDeferredValue(loaded.data);
  const reload = useCallback(() => setRound((count) => count + 1), []);
  // The Desk shows the job as it is when one comes back to it.
  useEffect(() => () => void queries.invalidateQueries({ queryKey: ['jobs'] }), [queries]);

  if (loaded.isError) return <CannotOpen jobId={jobId} error={loaded.error} reload={reload} />;
  if (!bench || bench !== loaded.data) {
    return (
      <div className="flex h-full items-center justify-center text-quiet" role="status">
        {t('Opening the job…')}
      </div>
    );
  }
  const open = stageNames.find((known) => known === stage);
  if (!open) return <Navigate to={`/jobs/${jobId}/${firstStage(bench.store.getState())}`} replace />;
  return (
    <BenchContext value={bench}>
      <div className="flex h-full flex-col">
        <StuckWorkList stuck={bench.stuck} changed={reload} />
        <div className="min-h-0 flex-1">
          <BenchScreen key={`${jobId} ${round}`} stage={open} reload={reload} />
        </div>
      </div>
    </BenchContext>
  );
}

/** A job opens where it was left: at first, where its colours are, or where artwork is brought in. */
function firstStage({ jobId, history }: BenchState): Stage {
  return leftStage(jobId) ?? (history.present.drawing.items.length > 0 ? 'colours' : 'art');
}
