import type { JobCard } from '@lambent/contracts';
import type { Machine } from '@lambent/core/machine';
import type { Material } from '@lambent/core/recipes';
import { formatDistanceToNow } from 'date-fns';
import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { loadBench } from '../routes/load-bench.ts';
import { asLength } from '../ui/figures.ts';
import { said, t } from '../words/words.ts';
import { useDeleteJob } from './use-delete-job.ts';

/** A job on the Desk: what it draws, where it stands, and a way to delete it. */
export function DeskCard({ job, machine, material }: { job: JobCard; machine?: Machine; material?: Material }) {
  const deletion = useDeleteJob();
  return (
    <article className="group relative overflow-hidden rounded-xl border border-line bg-paper transition-colors duration-100 focus-within:border-petrol hover:border-petrol">
      <Link to={`/jobs/${job.id}`} onPointerEnter={comeCloser} onFocus={comeCloser} className="block">
        <div
          className="flex h-44 items-center justify-center p-4"
          style={{ background: job.itemCount > 0 ? (material?.tone ?? '#F4F1E9') : undefined }}
        >
          <Picture job={job} />
        </div>
        <div className="border-t border-line p-3">
          <p className="truncate pr-8 text-[14px] font-bold">{job.title}</p>
          <p className="truncate text-quiet">{job.project || t('No project')}</p>
          <p className="mt-2 truncate">
            {machine?.name ?? t('No machine')}
            <span className="text-quiet">
              {' '}
              · {material ? `${material.name} ${asLength(material.thicknessMm)}` : t('no sheet yet')}
            </span>
          </p>
          <p className="mt-1 text-quiet">
            {t('{{lastRun}} · changed {{formatDistanceToNow}}', {
              lastRun: job.lastRun
                ? t('Last run {{status}}', { status: said(job.lastRun.status) })
                : t('Not burnt yet'),
              formatDistanceToNow: formatDistanceToNow(new Date(job.updatedAt), { addSuffix: true }),
            })}
          </p>
        </div>
      </Link>
      <button
        type="button"
        aria-label={t('Delete {{title}}', { title: job.title })}
        title={t('Delete this job; it can be taken back for 30 days')}
        disabled={deletion.isPending}
        onClick={() => deletion.mutate(job)}
        className="absolute top-[180px] right-2 grid size-8 place-items-center rounded-lg text-quiet hover:bg-stop-soft hover:text-stop focus-visible:text-stop"
      >
        <Trash2 size={15} aria-hidden />
      </button>
    </article>
  );
}

/** Whoever points at a job is about to open it. Where the Bench cannot be loaded, opening says so. */
const comeCloser = () => void loadBench().catch(() => {});

/** What the job draws; a quiet placeholder while the picture is made, and words where there can be none. */
function Picture({ job }: { job: JobCard }) {
  const [state, setState] = useState<'coming' | 'shown' | 'none'>('coming');
  if (job.itemCount === 0) return <span className="text-quiet">{t('Nothing drawn yet')}</span>;
  if (state === 'none') {
    return (
      <span className="max-w-52 rounded-lg bg-paper px-2.5 py-1 text-center text-quiet">
        {t('No picture: this job could not be drawn. It can be opened.')}
      </span>
    );
  }
  return (
    <>
      {state === 'coming' && (
        <span className="absolute rounded-lg bg-paper px-2.5 py-1 text-quiet">{t('Drawing…')}</span>
      )}
      <img
        src={`/api/jobs/${job.id}/picture.svg?version=${job.version}`}
        alt={t('The artwork of {{title}}', { title: job.title })}
        className="max-h-full max-w-full"
        onLoad={() => setState('shown')}
        onError={() => setState('none')}
      />
    </>
  );
}
