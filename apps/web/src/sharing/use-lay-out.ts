import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { api, sentenceOf } from '../api.ts';
import { useDeleteJob } from '../desk/use-delete-job.ts';
import { useWho } from '../stores/who.ts';
import { t } from '../words/words.ts';

interface Wanted {
  readonly print: string;
  readonly title: string;
  /** The machine that is to burn them; null for none yet. */
  readonly machineId: string | null;
}

/** Lays jobs onto sheets that they share, as one job, and gives that to a machine if so. It can be undone. */
export function useLayOut(): { readonly layOut: (wanted: Wanted) => void; readonly isPending: boolean } {
  const queries = useQueryClient();
  const who = useWho();
  const navigate = useNavigate();
  const deletion = useDeleteJob();
  const { mutate, isPending } = useMutation({
    mutationFn: async ({ print, title, machineId }: Wanted) => {
      const { jobId } = await api.shareSheets({ print, title, ...(who ? { by: who } : {}) });
      if (machineId !== null) await api.giveJob(jobId, { machineId, seen: null });
      return jobId;
    },
    onSuccess: (id, { title }) => {
      toast(t('“{{title}}” was laid out.', { title }), {
        action: { label: t('Open it'), onClick: () => void navigate(`/jobs/${id}`) },
        cancel: { label: t('Undo'), onClick: () => deletion.mutate({ id, title }) },
      });
    },
    onError: (error) => toast.error(sentenceOf(error)),
    onSettled: () => Promise.all([['jobs'], ['day']].map((queryKey) => queries.invalidateQueries({ queryKey }))),
  });
  return { layOut: mutate, isPending };
}
