import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import type { JobCard } from '@lambent/contracts';
import { isToBurn } from '@lambent/contracts/job-states';
import type { Machine } from '@lambent/core/machine';
import type { Material } from '@lambent/core/recipes';
import { Ellipsis } from 'lucide-react';
import { lazy, Suspense, useState } from 'react';
import { Link } from 'react-router';
import { type GivenBlock, useDayFocus } from '../day/use-day.ts';
import { loadBench } from '../routes/load-bench.ts';
import { dayOf } from '../stores/dates.ts';
import { asLength, formatDuration, formatMoney } from '../ui/figures.ts';
import { t } from '../words/words.ts';
import { isLate } from './job-states.ts';
import { StateCell } from './state-cell.tsx';

const JobPanel = lazy(() => import('./job-panel.tsx'));

interface Props {
  readonly job: JobCard;
  /** Where it waits on the day; undefined where it was given to no machine. */
  readonly block: GivenBlock | undefined;
  readonly machine: Machine | undefined;
  readonly material: Material | undefined;
  readonly currency: string;
  /** Such as 2026-12-24. */
  readonly today: string;
}

/** A job on the Desk: what it draws, whose it is, what it takes, and where it stands. */
export function DeskRow({ job, block, machine, material, currency, today }: Props) {
  const { estimate } = job;
  const focused = { ...job, seconds: estimate?.seconds ?? null };
  return (
    <tr
      className="relative border-t border-line hover:bg-petrol-soft/40"
      onPointerEnter={() => isToBurn(job.state) && useDayFocus.setState({ hovered: focused })}
      onPointerLeave={() => useDayFocus.setState({ hovered: null })}
    >
      <td className="py-2 pl-3 max-sm:hidden">
        <span
          className="flex h-11 w-16 items-center justify-center rounded-md border border-line p-0.5"
          style={{ background: job.itemCount > 0 ? (material?.tone ?? '#F4F1E9') : undefined }}
        >
          <Picture job={job} />
        </span>
      </td>
      <td className="px-2 py-2">
        <Link
          to={`/jobs/${job.id}`}
          onPointerEnter={comeCloser}
          onFocus={comeCloser}
          onDragStart={(event) => {
            event.dataTransfer.setData('text/plain', job.title);
            if (isToBurn(job.state)) useDayFocus.setState({ dragged: focused });
          }}
          onDragEnd={() => useDayFocus.setState({ dragged: null })}
          className="block truncate font-bold after:absolute after:inset-0"
        >
          {job.title}
        </Link>
        <span className="block truncate text-quiet">
          {[job.whose, job.project].filter(Boolean).join(' · ') ||
            (job.shares > 0 ? t('Sheets that jobs share: {{jobs}}', { jobs: job.shares }) : t('Nobody’s yet'))}
        </span>
      </td>
      <td className="px-2 py-2 max-lg:hidden">
        <span className="block truncate">
          {material ? `${material.name} ${asLength(material.thicknessMm)}` : t('no sheet yet')}
        </span>
        <span className="block truncate text-quiet">{machine?.name ?? t('No machine')}</span>
      </td>
      <td className="figures whitespace-nowrap px-2 py-2 max-md:hidden">
        {estimate?.seconds ? formatDuration(estimate.seconds) : '–'}
      </td>
      <td className="figures px-2 py-2 max-md:hidden">
        {estimate && estimate.price !== null ? formatMoney(estimate.price, { currency }) : '–'}
      </td>
      <td className={`px-2 py-2 max-sm:hidden ${isLate(job, today) ? 'font-semibold text-stop' : ''}`}>
        {job.wantedBy ? dayOf(job.wantedBy) : '–'}
        {isLate(job, today) && <span className="block font-normal">{t('late')}</span>}
      </td>
      <td className="px-2 py-2">
        <StateCell job={job} block={block} machine={machine} />
      </td>
      <td className="py-2 pr-2">
        <Popover className="relative z-10">
          <PopoverButton
            aria-label={t('More of {{title}}', { title: job.title })}
            className="grid size-8 place-items-center rounded-lg text-quiet hover:bg-petrol-soft hover:text-ink pointer-coarse:size-11"
          >
            <Ellipsis size={16} aria-hidden />
          </PopoverButton>
          <PopoverPanel
            anchor={{ to: 'bottom end', gap: 4, padding: 8 }}
            focus
            className="z-30 w-80 rounded-xl border border-line bg-paper p-4 shadow-float"
          >
            {({ close }) => (
              <Suspense>
                <JobPanel job={job} block={block} close={close} />
              </Suspense>
            )}
          </PopoverPanel>
        </Popover>
      </td>
    </tr>
  );
}

/** Whoever points at a job is about to open it. Where the Bench cannot be loaded, opening says so. */
const comeCloser = () => void loadBench().catch(() => {});

/** What the job draws; nothing while the picture is made, and a word where there can be none. */
function Picture({ job }: { job: JobCard }) {
  const [isMissing, setMissing] = useState(false);
  if (job.itemCount === 0) return <span className="text-[12px] text-quiet">{t('empty')}</span>;
  if (isMissing) {
    return (
      <span
        className="rounded bg-paper px-1 text-[12px] text-quiet"
        title={t('No picture: this job could not be drawn. It can be opened.')}
      >
        {t('no picture')}
      </span>
    );
  }
  return (
    <img
      src={`/api/jobs/${job.id}/picture.svg?version=${job.version}`}
      alt={t('The artwork of {{title}}', { title: job.title })}
      loading="lazy"
      className="max-h-full max-w-full"
      onError={() => setMissing(true)}
    />
  );
}
