import { useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { api, sentenceOf } from '../api.ts';
import { askToNotify } from '../stores/run-ends.ts';
import { useWho } from '../stores/who.ts';
import { t } from '../words/words.ts';
import { useBenchActions } from './context.ts';
import { saveNow } from './use-autosave.ts';

/** What has to be said before a run is sent that would else spoil its stock. */
export interface SaidOfRun {
  /** It is burnt already, and burns once more. */
  readonly again?: boolean;
  /** The run that leaves its stock in place is not on record, and lies there all the same. */
  readonly early?: boolean;
}

/** Saves what is on screen and sends that very version to its machine. */
export function useSend(): (said?: SaidOfRun) => Promise<void> {
  const actions = useBenchActions();
  const queries = useQueryClient();
  const navigate = useNavigate();
  const who = useWho();
  return async (said = {}) => {
    askToNotify();
    try {
      await saveNow(actions);
      const { save, stored, jobId, prepared } = actions.get();
      if (save.kind !== 'saved') throw new Error(t('The job could not be saved, so it was not sent.'));
      actions.preview(null);
      actions.select([]);
      await api.startRun(jobId, {
        version: stored.version,
        runId: prepared.run.id,
        ...said,
        ...(who ? { by: who } : {}),
      });
      navigate(`/jobs/${jobId}/burn`, { replace: true });
      void queries.invalidateQueries({ queryKey: ['runs'] });
    } catch (error) {
      toast.error(sentenceOf(error));
    }
  };
}
