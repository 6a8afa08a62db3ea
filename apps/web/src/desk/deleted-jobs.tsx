import { useQuery } from '@tanstack/react-query';
import { Undo2 } from 'lucide-react';
import { api } from '../api.ts';
import { dayOf } from '../stores/dates.ts';
import { Button } from '../ui/button.tsx';
import { t } from '../words/words.ts';
import { useTakeJobBack } from './use-delete-job.ts';

/** The jobs that were deleted and can be taken back; nothing where there are none. */
export default function DeletedJobs() {
  const deleted = useQuery({ queryKey: ['deleted jobs'], queryFn: api.deletedJobs });
  const back = useTakeJobBack();
  const count = deleted.data?.length ?? 0;
  if (count === 0) return null;
  return (
    <details className="mt-6 rounded-xl border border-line bg-paper">
      <summary className="cursor-pointer px-4 py-3 font-semibold">{t('Deleted jobs ({{count}})', { count })}</summary>
      <ul className="border-t border-line">
        {deleted.data?.map((job) => (
          <li key={job.id} className="flex items-center gap-4 border-b border-line px-4 py-2 last:border-b-0">
            <span className="min-w-0 flex-1 truncate">{job.title}</span>
            <span className="text-quiet">{t('gone for good on {{goneAt}}', { goneAt: dayOf(job.goneAt) })}</span>
            <Button onClick={() => back.mutate(job)} disabled={back.isPending}>
              <Undo2 size={15} aria-hidden />
              {t('Take back')}
            </Button>
          </li>
        ))}
      </ul>
    </details>
  );
}
