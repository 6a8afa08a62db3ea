import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import type { DeskShow } from '@lambent/contracts';
import { atWork, type Machine } from '@lambent/core/machine';
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import { FileUp, Plus } from 'lucide-react';
import { lazy, Suspense, useDeferredValue, useEffect, useState } from 'react';
import { api, sentenceOf } from '../api.ts';
import { isBeginning } from '../begin/first-steps.ts';
import { useDay } from '../day/use-day.ts';
import { DeskFilters } from '../desk/desk-filters.tsx';
import { DeskPager } from '../desk/desk-pager.tsx';
import { DeskTable } from '../desk/desk-table.tsx';
import { type DeskWish, useDeskWish } from '../desk/desk-wish.ts';
import { useJobFile } from '../desk/use-job-file.tsx';
import { useLive } from '../stores/live.ts';
import { Button } from '../ui/button.tsx';
import { FileButton } from '../ui/file-button.tsx';
import { Notice } from '../ui/notice.tsx';
import { PageBar } from '../ui/page-bar.tsx';
import { PageTitle } from '../ui/page-title.tsx';
import { SearchField } from '../ui/search-field.tsx';
import { sendUnsaved } from '../unsaved/send-unsaved.ts';
import { StuckWorkList } from '../unsaved/stuck-work-list.tsx';
import { t } from '../words/words.ts';

const NewJobForm = lazy(() => import('../desk/new-job-form.tsx'));
const FirstRun = lazy(() => import('../begin/first-run.tsx'));
const DeletedJobs = lazy(() => import('../desk/deleted-jobs.tsx'));
const DemoBar = lazy(() => import('../desk/demo-bar.tsx'));
const BurnTogether = lazy(() => import('../sharing/burn-together.tsx'));
const DayStrip = lazy(() => import('../day/day-strip.tsx'));

/** The jobs of the shop, by what they wait for. */
export function DeskRoute() {
  const [wish, ask] = useDeskWish();
  const [page, shown] = useDeskPage(wish);
  const day = useDay(null).data;
  const machines = useQuery({ queryKey: ['machines'], queryFn: api.machines });
  const materials = useQuery({ queryKey: ['materials'], queryFn: api.materials });
  const settings = useQuery({ queryKey: ['settings'], queryFn: api.settings });
  const currency = settings.data?.pricing.currency ?? '';
  // What is sought is counted alone: of the shop that says nothing.
  const counted = page.data && !page.isPlaceholderData && wish.seek.trim() === '' ? page.data.counts : null;
  const jobCount = counted && counted.all + counted['put away'];
  const begun =
    settings.data && machines.data && materials.data && jobCount !== null
      ? { settings: settings.data, machines: machines.data, materials: materials.data, jobCount }
      : null;
  const isNew = begun !== null && isBeginning(begun);
  return (
    <div className="flex h-full flex-col">
      <PageTitle>{t('Desk')}</PageTitle>
      <PageBar />
      <UnsavedOnDesk />
      <main className="min-h-0 flex-1 overflow-auto">
        {machines.data && !isNew && (
          <Suspense>
            <DayStrip machines={machines.data} />
          </Suspense>
        )}
        <div className="mx-auto max-w-[1280px] px-6 py-6">
          <Suspense>{settings.data?.isDemo && <DemoBar />}</Suspense>
          {isNew && (
            <>
              <h1 className="text-xl font-bold">{t('A shop of your own')}</h1>
              <p className="mb-5 text-quiet">
                {t('Five steps to the first burn. Each can be skipped, and changed later.')}
              </p>
              <Suspense>
                <FirstRun begun={begun} />
              </Suspense>
            </>
          )}
          <div className="mb-4 flex flex-wrap items-center gap-3" hidden={isNew}>
            <h1 className="text-xl font-bold">{t('Desk')}</h1>
            <SearchField
              label={t('Find a job, a name, a material')}
              value={wish.seek}
              change={(seek) => ask({ seek })}
              className="ml-auto w-72"
            />
            <JobFromFile machines={machines.data ?? []} />
            <NewJob machines={machines.data && atWork(machines.data)} />
          </div>
          {!isNew && (
            <div className="mb-3">
              <DeskFilters shown={shown} counts={page.data?.counts} show={(show) => ask({ show })} />
            </div>
          )}
          {machines.data && materials.data && !isNew && (
            <Suspense>
              <BurnTogether machines={machines.data} materials={materials.data} currency={currency} />
            </Suspense>
          )}
          {page.isError && <Notice level="blocks">{sentenceOf(page.error)}</Notice>}
          {page.isPending && <p className="text-quiet">{t('Looking up the jobs…')}</p>}
          {begun && !isNew && jobCount === 0 && (
            <div className="rounded-xl border border-dashed border-line bg-paper p-12 text-center">
              <p className="mb-1 text-[15px] font-semibold">{t('No jobs yet')}</p>
              <p className="text-quiet">{t('Make one with “New job”, then drop a drawing on its bed.')}</p>
            </div>
          )}
          {page.data && page.data.jobs.length === 0 && jobCount !== 0 && (
            <p className="text-quiet">
              {wish.seek.trim()
                ? t('Nothing here has “{{typed}}” in it.', { typed: wish.seek.trim() })
                : t('No job stands here now.')}
            </p>
          )}
          {page.data && page.data.jobs.length > 0 && (
            <>
              <div className={`rounded-xl border border-line bg-paper ${page.isPlaceholderData ? 'opacity-60' : ''}`}>
                <DeskTable
                  jobs={page.data.jobs}
                  day={day}
                  machines={machines.data ?? []}
                  materials={materials.data ?? []}
                  currency={currency}
                  wish={wish}
                  ask={ask}
                />
              </div>
              <DeskPager page={wish.page} total={page.data.total} turnTo={(number) => ask({ page: number })} />
            </>
          )}
          <Suspense>
            <DeletedJobs />
          </Suspense>
        </div>
      </main>
    </div>
  );
}

/** So long what changes on the Desk is gathered before it is asked for anew, in ms. */
const gatherMs = 300;

/** The page of the Desk that is asked for, and what it shows: where nothing was chosen, what wants an operator, if anything does. */
function useDeskPage({ show, seek, sort, down, page }: DeskWish) {
  const queries = useQueryClient();
  const sought = useDeferredValue(seek.trim());
  const changed = useLive((live) => live.deskChanged);
  const [isQuiet, setQuiet] = useState(false);
  const shown: DeskShow = show ?? (isQuiet ? 'all' : 'wants you');
  const asked = useQuery({
    queryKey: ['jobs', 'desk', shown, sought, sort, down, page],
    queryFn: () => api.desk({ show: shown, seek: sought, sort, down, page }),
    placeholderData: keepPreviousData,
  });
  const wantNothing = asked.data?.counts['wants you'] === 0 && sought === '';
  useEffect(() => {
    if (wantNothing) setQuiet(true);
  }, [wantNothing]);
  useEffect(() => {
    if (changed === 0) return;
    const timer = setTimeout(() => {
      for (const queryKey of [
        ['jobs', 'desk'],
        ['jobs', 'sharing'],
        ['jobs', 'messages'],
        ['jobs', 'sending'],
        ['day'],
      ])
        void queries.invalidateQueries({ queryKey });
    }, gatherMs);
    return () => clearTimeout(timer);
  }, [changed, queries]);
  return [asked, shown] as const;
}

/** How often what could not be sent is tried again, and what is just being saved is looked at. */
const retryMs = 2000;

/** Saves what closed tabs left in this browser, and shows what of it could not be saved. */
function UnsavedOnDesk() {
  const queries = useQueryClient();
  const connected = useLive((live) => live.connected);
  const stuck = useQuery({
    queryKey: ['unsaved', connected],
    queryFn: async () => {
      const left = await sendUnsaved();
      void queries.invalidateQueries({ queryKey: ['jobs'] });
      return left;
    },
    refetchInterval: ({ state: { data } }) =>
      data?.saving || data?.stuck.some(({ why }) => why === 'waiting') ? retryMs : false,
    gcTime: 0,
  });
  return <StuckWorkList stuck={stuck.data?.stuck ?? []} changed={() => void stuck.refetch()} />;
}

function JobFromFile({ machines }: { machines: readonly Machine[] }) {
  const [take, dialog] = useJobFile(machines);
  return (
    <>
      <FileButton accept=".zip,application/zip" testId="job-file" take={(file) => void take(file)}>
        <FileUp size={16} aria-hidden />
        {t('Job from a file')}
      </FileButton>
      {dialog}
    </>
  );
}

function NewJob({ machines }: { machines: readonly Machine[] | undefined }) {
  return (
    <Popover>
      <PopoverButton as={Button} look="main" className="h-9">
        <Plus size={16} aria-hidden />
        {t('New job')}
      </PopoverButton>
      <PopoverPanel
        anchor={{ to: 'bottom end', gap: 6 }}
        focus
        className="z-20 w-80 rounded-xl border border-line bg-paper p-4 shadow-float"
      >
        <Suspense>{machines && <NewJobForm machines={machines} />}</Suspense>
      </PopoverPanel>
    </Popover>
  );
}
