import type { JobCard } from '@lambent/contracts';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api, sentenceOf } from '../api.ts';
import { nameOfShow } from '../desk/job-states.ts';
import { formatMoney } from '../ui/figures.ts';
import { t } from '../words/words.ts';

/** On whose sheets a job lies, or whose pieces lie on its own; nothing where it shares none. */
export function JobSharing({ job }: { job: Pick<JobCard, 'id' | 'sharedOn' | 'shares'> }) {
  const shares = job.shares > 0;
  const settings = useQuery({ queryKey: ['settings'], queryFn: api.settings, enabled: shares });
  const sharing = useQuery({
    queryKey: ['jobs', 'sharing', job.id],
    queryFn: () => api.jobSharing(job.id),
    enabled: shares,
  });
  if (job.sharedOn) {
    const { jobId, title } = job.sharedOn;
    return (
      <p className="mt-3 border-t border-line pt-2">
        {t('Burns together with others:')}{' '}
        <Link to={`/jobs/${jobId}`} className="font-semibold text-petrol hover:underline">
          {title}
        </Link>
      </p>
    );
  }
  if (sharing.isError) return <p className="mt-3 text-stop">{sentenceOf(sharing.error)}</p>;
  if (!sharing.data || sharing.data.parts.length === 0) return null;
  const currency = settings.data?.pricing.currency ?? '';
  return (
    <section aria-label={t('Whose pieces lie on it')} className="mt-3 border-t border-line pt-2">
      <ul className="flex flex-col gap-1.5">
        {sharing.data.parts.map(({ jobId, title, whose, copies, state, isChanged, price, leftAt }) => (
          <li key={jobId}>
            <span className="flex gap-2">
              <span className="min-w-0 flex-1 truncate font-semibold">
                {copies > 1 ? t('{{title}}, {{copies}} times', { title, copies }) : title}
              </span>
              {price !== null && <span className="figures">{formatMoney(price, { currency })}</span>}
            </span>
            <span className="block text-quiet">{[whose, nameOfShow(state)].filter(Boolean).join(' · ')}</span>
            {leftAt && <span className="block text-warn">{t('Spoilt: it is burnt again alone.')}</span>}
            {isChanged && !leftAt && <span className="block text-warn">{t('Changed since it was laid here.')}</span>}
          </li>
        ))}
      </ul>
      <p className="mt-2 text-quiet">{t('To burn them alone again, delete this job.')}</p>
    </section>
  );
}
