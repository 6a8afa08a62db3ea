import { NotADrawing } from '@lambent/core/document';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useState } from 'react';
import { Navigate, useParams } from 'react-router';
import { api, Refusal } from '../api.ts';
import { keepPictures, pictureIdsIn } from '../bench/bed/pictures.ts';
import { BenchScreen } from '../bench/bench-screen.tsx';
import { BenchContext } from '../bench/context.ts';
import { type Stage, stageNames } from '../bench/stages/stage.ts';
import { benchActions, createBenchStore } from '../bench/state/bench-state.ts';
import { loadBuilders } from '../bench/state/built-following.ts';
import { sendUnsaved } from '../unsaved/send-unsaved.ts';
import { StuckWorkList } from '../unsaved/stuck-work.tsx';
import { openJob } from '../workers/work.ts';
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
        openJob(jobId),
        api.machines(),
        api.materials(),
        api.keys(),
        api.settings(),
      ]);
      if (job.document.built.length > 0) await loadBuilders();
      keepPictures(pictureIdsIn(job.document.drawing.items));
      const store = createBenchStore(job, { machines, materials, keys }, settings.pricing);
      return { store, actions: benchActions(store), stuck };
    },
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
    refetchOnWindowFocus: false,
    retry: (count, error) =>
      count < 1 && !(error instanceof NotADrawing) && !(error instanceof Refusal && error.code === 'not-found'),
  });
  const bench = loaded.data;
  const reload = useCallback(() => setRound((count) => count + 1), []);
  // The Desk shows the job as it is when one comes back to it.
  useEffect(() => () => void queries.invalidateQueries({ queryKey: ['jobs'] }), [queries]);

  if (loaded.isError) return <CannotOpen jobId={jobId} error={loaded.error} reload={reload} />;
  if (!bench) {
    return (
      <div className="flex h-full items-center justify-center text-quiet" role="status">
        Opening the job…
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

/** A job that has artwork opens where its colours are; an empty one where artwork is brought in. */
function firstStage(state: ReturnType<ReturnType<typeof createBenchStore>['getState']>): Stage {
  return state.history.present.drawing.items.length > 0 ? 'colours' : 'art';
}
