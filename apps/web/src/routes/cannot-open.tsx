import { useMutation, useQuery } from '@tanstack/react-query';
import { Link, useNavigate } from 'react-router';
import { api, sentenceOf } from '../api.ts';
import { useDeleteJob } from '../desk/use-delete-job.ts';
import { dayAndTimeOf } from '../stores/dates.ts';
import { Button } from '../ui/button.tsx';
import { Notice } from '../ui/notice.tsx';
import { PageBar } from '../ui/page-bar.tsx';
import { t } from '../words/words.ts';
import { documentBlob } from '../workers/document-blob.ts';
import { openJob } from '../workers/work.ts';

/** In place of the Bench where a job cannot be opened: why, its earlier versions, and a way to delete it. */
export function CannotOpen({ jobId, error, reload }: { jobId: string; error: Error; reload: () => void }) {
  const navigate = useNavigate();
  const versions = useQuery({ queryKey: ['versions', jobId], queryFn: () => api.versions(jobId), retry: false });
  const deletion = useDeleteJob();
  const goBack = useMutation({
    mutationFn: async (number: number) => {
      const document = documentBlob((await openJob(jobId, number)).document);
      const [latest] = await api.versions(jobId);
      await api.saveJob(jobId, latest.number, t('back to version {{number}}', { number }), document);
    },
    onSuccess: reload,
  });
  const earlier = versions.data?.slice(1) ?? [];
  return (
    <div className="flex h-full flex-col">
      <PageBar />
      <main className="mx-auto mt-16 w-full max-w-lg px-6">
        <h1 className="mb-2 text-xl font-bold">{t('This job cannot be opened')}</h1>
        <p className="mb-4 text-quiet">{sentenceOf(error)}</p>
        <div className="mb-6 flex items-center gap-3">
          <Link to="/" className="font-semibold text-petrol underline">
            {t('To the Desk')}
          </Link>
          {versions.isSuccess && (
            <Button
              look="danger"
              disabled={deletion.isPending}
              onClick={() =>
                deletion.mutate({ id: jobId, title: t('The job') }, { onSuccess: () => void navigate('/') })
              }
            >
              {t('Delete this job')}
            </Button>
          )}
        </div>
        {goBack.isError && (
          <Notice level="blocks">
            {t('That version cannot be opened either: {{error}}', { error: sentenceOf(goBack.error) })}
          </Notice>
        )}
        {earlier.length > 0 && (
          <section aria-label={t('Earlier versions')}>
            <h2 className="mb-2 font-semibold">{t('Go back to an earlier version')}</h2>
            <ul className="max-h-80 overflow-auto rounded-xl border border-line bg-paper">
              {earlier.map(({ number, edit, savedAt }) => (
                <li key={number} className="flex items-center gap-3 border-b border-line px-4 py-2 last:border-b-0">
                  <span className="w-10 text-quiet tabular-nums">{number}</span>
                  <span className="min-w-0 flex-1 truncate">{edit}</span>
                  <span className="text-quiet">{dayAndTimeOf(savedAt)}</span>
                  <Button disabled={goBack.isPending} onClick={() => goBack.mutate(number)}>
                    {t('Go back')}
                  </Button>
                </li>
              ))}
            </ul>
          </section>
        )}
      </main>
    </div>
  );
}
