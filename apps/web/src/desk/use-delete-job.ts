import { useMutation, useQueryClient } from '@tanstack/react-query';
import { toast } from 'sonner';
import { api, sentenceOf } from '../api.ts';
import { t } from '../words/words.ts';

/** What the Desk shows, looked up afresh. */
function useFreshDesk(): () => void {
  const queries = useQueryClient();
  return () => {
    void queries.invalidateQueries({ queryKey: ['jobs'] });
    void queries.invalidateQueries({ queryKey: ['deleted jobs'] });
  };
}

/** Takes a deleted job back onto the Desk. */
export function useTakeJobBack() {
  const fresh = useFreshDesk();
  return useMutation({
    mutationFn: ({ id }: { id: string; title: string }) => api.takeJobBack(id),
    onSuccess: fresh,
    onError: (error) => toast.error(sentenceOf(error)),
  });
}

/** Deletes a job, and offers to take it back. */
export function useDeleteJob() {
  const fresh = useFreshDesk();
  const back = useTakeJobBack();
  return useMutation({
    mutationFn: ({ id }: { id: string; title: string }) => api.deleteJob(id),
    onSuccess: (_, job) => {
      fresh();
      toast(t('“{{title}}” was deleted.', { title: job.title }), {
        action: { label: t('Take back'), onClick: () => back.mutate(job) },
      });
    },
    onError: (error) => toast.error(sentenceOf(error)),
  });
}
