import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { atWork, type Machine } from '@lambent/core/machine';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { FileUp, Plus, Search } from 'lucide-react';
import { lazy, Suspense, useDeferredValue, useState } from 'react';
import { api, sentenceOf } from '../api.ts';
import { isBeginning } from '../begin/first-steps.ts';
import { DeletedJobs } from '../desk/deleted-jobs.tsx';
import { DemoBar } from '../desk/demo-bar.tsx';
import { DeskCard } from '../desk/desk-card.tsx';
import { useJobFile } from '../desk/use-job-file.tsx';
import { useLive } from '../stores/live.ts';
import { Button } from '../ui/button.tsx';
import { FileButton } from '../ui/file-button.tsx';
import { Notice } from '../ui/notice.tsx';
import { PageBar } from '../ui/page-bar.tsx';
import { PageTitle } from '../ui/page-title.tsx';
import { sendUnsaved } from '../unsaved/send-unsaved.ts';
import { StuckWorkList } from '../unsaved/stuck-work.tsx';
import { t } from '../words/words.ts';

const NewJobForm = lazy(() => import('../desk/new-job-form.tsx'));
const FirstRun = lazy(() => import('../begin/first-run.tsx'));

/** The list of jobs. */
export function DeskRoute() {
  const jobs = useQuery({ queryKey: ['jobs'], queryFn: api.jobs });
  const machines = useQuery({ queryKey: ['machines'], queryFn: api.machines });
  const materials = useQuery({ queryKey: ['materials'], queryFn: api.materials });
  const settings = useQuery({ queryKey: ['settings'], queryFn: api.settings });
  const begun =
    settings.data && machines.data && materials.data && jobs.data
      ? { settings: settings.data, machines: machines.data, materials: materials.data, jobs: jobs.data }
      : null;
  const isNew = begun !== null && isBeginning(begun);
  const [typed, setTyped] = useState('');
  const sought = useDeferredValue(typed.trim().toLowerCase());
  const shown = jobs.data?.filter((job) => `${job.title} ${job.project}`.toLowerCase().includes(sought));
  return (
    <div className="flex h-full flex-col">
      <PageTitle>{t('Desk')}</PageTitle>
      <PageBar />
      <UnsavedOnDesk />
      <main className="min-h-0 flex-1 overflow-auto">
        <div className="mx-auto max-w-[1180px] px-6 py-6">
          {settings.data?.isDemo && <DemoBar />}
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
          <div className="mb-5 flex items-center gap-4" hidden={isNew}>
            <h1 className="text-xl font-bold">{t('Desk')}</h1>
            <label className="ml-auto flex h-9 w-72 items-center gap-2 rounded-lg border border-line bg-raised px-3 focus-within:border-petrol">
              <Search size={15} className="text-quiet" aria-hidden />
              <input
                value={typed}
                onChange={(event) => setTyped(event.target.value)}
                placeholder={t('Find a job')}
                aria-label={t('Find a job')}
                className="w-full bg-transparent outline-none placeholder:text-quiet"
              />
            </label>
            <JobFromFile machines={machines.data ?? []} />
            <NewJob machines={machines.data && atWork(machines.data)} />
          </div>
          {jobs.isError && <Notice level="blocks">{sentenceOf(jobs.error)}</Notice>}
          {jobs.isPending && <p className="text-quiet">{t('Looking up the jobs…')}</p>}
          {jobs.data?.length === 0 && begun && !isNew && (
            <div className="rounded-xl border border-dashed border-line bg-paper p-12 text-center">
              <p className="mb-1 text-[15px] font-semibold">{t('No jobs yet')}</p>
              <p className="text-quiet">{t('Make one with “New job”, then drop a drawing on its bed.')}</p>
            </div>
          )}
          {shown?.length === 0 && (jobs.data?.length ?? 0) > 0 && (
            <p className="text-quiet">{t('No job’s title has “{{typed}}” in it.', { typed: typed.trim() })}</p>
          )}
          <ul className="grid grid-cols-[repeat(auto-fill,minmax(270px,1fr))] gap-4">
            {shown?.map((job) => (
              <li key={job.id}>
                <DeskCard
                  job={job}
                  machine={machines.data?.find(({ id }) => id === job.machineId)}
                  material={materials.data?.find(({ id }) => id === job.materialId)}
                />
              </li>
            ))}
          </ul>
          <DeletedJobs />
        </div>
      </main>
    </div>
  );
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
