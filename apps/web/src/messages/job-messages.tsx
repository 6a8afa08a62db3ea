import type { JobCard } from '@lambent/contracts';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { api } from '../api.ts';
import { useWho } from '../stores/who.ts';
import { Button } from '../ui/button.tsx';
import { useSent } from '../ui/use-sent.tsx';
import { t } from '../words/words.ts';
import { Conversation } from './conversation.tsx';

/** What the workshop and the sender of a job wrote to each other. @param canWrite whether the sender would read it */
export function JobMessages({ job, canWrite }: { job: JobCard; canWrite: boolean }) {
  const queries = useQueryClient();
  const who = useWho();
  const key = ['jobs', 'messages', job.id];
  const messages = useQuery({ queryKey: key, queryFn: () => api.jobMessages(job.id) });
  const write = async (text: string) => {
    queries.setQueryData(key, await api.writeToSender(job.id, { text, ...(who ? { by: who } : {}) }));
    await queries.invalidateQueries({ queryKey: ['jobs', 'desk'] });
  };
  const [endAwaiting, trouble] = useSent(async () => {
    await api.endAwaiting(job.id);
    await queries.invalidateQueries({ queryKey: ['jobs', 'desk'] });
  });
  const said = messages.data ?? [];
  if (!canWrite && said.length === 0) return null;
  return (
    <section aria-label={t('Messages')} className="mt-3">
      <Conversation
        id={job.id}
        messages={said}
        error={messages.error}
        reader="workshop"
        label={t('Ask or tell its sender')}
        write={canWrite ? write : undefined}
      >
        {job.awaits && (
          <Button onClick={() => void endAwaiting(undefined)}>
            {job.awaits === 'workshop' ? t('Nothing to answer') : t('Wait for no answer')}
          </Button>
        )}
      </Conversation>
      {!canWrite && <p className="mt-2 text-quiet">{t('The sender withdrew it: nobody would read an answer.')}</p>}
      {trouble}
    </section>
  );
}
