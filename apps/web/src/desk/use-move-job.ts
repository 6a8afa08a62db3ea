import type { JobCard, JobState } from '@lambent/contracts';
import { useQueryClient } from '@tanstack/react-query';
import { toast } from 'sonner';
import { api, sentenceOf } from '../api.ts';
import { useWho } from '../stores/who.ts';
import { t } from '../words/words.ts';
import { nameOfShow } from './job-states.ts';

/** Moves a job to another state, and offers to move it back. */
export function useMoveJob(): (job: JobCard, state: JobState) => void {
  const queries = useQueryClient();
  const who = useWho();
  const move = async (id: string, state: JobState) => {
    try {
      await api.moveJob(id, { state, ...(who ? { by: who } : {}) });
    } catch (error) {
      toast.error(sentenceOf(error));
      return false;
    } finally {
      await queries.invalidateQueries({ queryKey: ['jobs'] });
    }
    return true;
  };
  return (job, state) => {
    void move(job.id, state).then((isMoved) => {
      if (!isMoved) return;
      toast(t('“{{title}}” is {{state}} now.', { title: job.title, state: nameOfShow(state) }), {
        action: { label: t('Undo'), onClick: () => void move(job.id, job.state) },
      });
    });
  };
}
