import type { RunAnswer, RunsWishDto } from '@lambent/contracts';
import { formatClock } from '@lambent/core/units';
import { keepPreviousData, useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { createColumnHelper } from '@tanstack/react-table';
import { addDays } from 'date-fns';
import { createContext, useContext, useDeferredValue } from 'react';
import { Link, useSearchParams } from 'react-router';
import { api, sentenceOf } from '../api.ts';
import { wholeDayAndTimeOf } from '../stores/dates.ts';
import { inSentence } from '../stores/numbers.ts';
import { Button } from '../ui/button.tsx';
import { Choice } from '../ui/choice.tsx';
import { type CellOf, DataTable, type tableParts } from '../ui/data-table.tsx';
import { Notice } from '../ui/notice.tsx';
import { PageBar } from '../ui/page-bar.tsx';
import { PageTitle } from '../ui/page-title.tsx';
import { said, t } from '../words/words.ts';

/** As many runs come at a time. */
const mostRuns = 100;
const searches = ['title', 'material', 'machine', 'day'] as const;

/** What was burnt in this shop: every run, searched by job, material, machine and day. */
export function RecordRoute() {
  const [params, setParams] = useSearchParams();
  const said = Object.fromEntries(searches.map((name) => [name, params.get(name) ?? '']));
  const say = (name: (typeof searches)[number], value: string) =>
    setParams(
      (known) => {
        const next = new URLSearchParams(known);
        if (value) next.set(name, value);
        else next.delete(name);
        return next;
      },
      { replace: true },
    );
  const machines = useQuery({ queryKey: ['machines'], queryFn: api.machines });
  const wish = useDeferredValue(JSON.stringify(wishFrom(said)));
  const found = useInfiniteQuery({
    queryKey: ['runs', 'searched', wish],
    queryFn: ({ pageParam }) =>
      api.searchRuns({ ...(JSON.parse(wish) as RunsWishDto), ...(pageParam ? { until: pageParam } : {}) }),
    initialPageParam: '',
    getNextPageParam: (page) => (page.length < mostRuns ? undefined : page[page.length - 1].startedAt),
    placeholderData: keepPreviousData,
  });
  const runs = found.data?.pages.flat() ?? [];
  const isSearched = searches.some((name) => said[name]);
  const names = new Map((machines.data ?? []).map(({ id, name }) => [id, name]));
  return (
    <div className="flex h-full flex-col">
      <PageTitle>{t('Record')}</PageTitle>
      <PageBar />
      <main className="min-h-0 flex-1 overflow-auto">
        <div className="mx-auto max-w-[1180px] px-6 py-6">
          <div className="mb-4 flex items-baseline gap-4">
            <h1 className="text-xl font-bold">{t('Record')}</h1>
            <Link to="/figures" className="font-semibold text-petrol">
              {t('Figures of the shop')}
            </Link>
          </div>
          <search className="mb-4 flex flex-wrap items-end gap-3" aria-label={t('Find runs')}>
            <Field label={t('Job')} value={said.title} change={(value) => say('title', value)} />
            <Field label={t('Material')} value={said.material} change={(value) => say('material', value)} />
            <div className="flex w-44 flex-col gap-1">
              <span className="text-quiet">{t('Machine')}</span>
              <Choice
                label={t('Machine')}
                look="slim"
                value={said.machine}
                options={[
                  { value: '', text: t('All machines') },
                  ...(machines.data ?? []).map(({ id, name }) => ({ value: id, text: name })),
                ]}
                choose={(value) => say('machine', value)}
              />
            </div>
            <Field label={t('Day')} type="date" value={said.day} change={(value) => say('day', value)} />
            {isSearched && (
              <Button look="quiet" onClick={() => setParams({}, { replace: true })}>
                {t('Show all')}
              </Button>
            )}
          </search>
          {found.isError && <Notice level="blocks">{sentenceOf(found.error)}</Notice>}
          {found.isPending && <p className="text-quiet">{t('Looking up the runs…')}</p>}
          {found.isSuccess && runs.length === 0 && (
            <div className="rounded-xl border border-dashed border-line bg-paper p-12 text-center">
              <p className="mb-1 text-[15px] font-semibold">
                {isSearched ? t('No run matches') : t('Nothing was burnt yet')}
              </p>
              <p className="text-quiet">
                {isSearched
                  ? t('Use fewer words, or another day.')
                  : t('Every run stands here, from when it is sent, with what it was burnt by.')}
              </p>
            </div>
          )}
          {runs.length > 0 && (
            <div className="overflow-x-auto rounded-xl border border-line bg-paper">
              <MachineNames.Provider value={names}>
                <DataTable label={t('Runs')} columns={columns} lines={runs} idOf={({ id }) => id} />
              </MachineNames.Provider>
            </div>
          )}
          {found.hasNextPage && (
            <Button className="mt-3" disabled={found.isFetchingNextPage} onClick={() => void found.fetchNextPage()}>
              {found.isFetchingNextPage ? t('Looking them up…') : t('Show earlier runs')}
            </Button>
          )}
        </div>
      </main>
    </div>
  );
}

/** What the server is asked for. */
function wishFrom(said: Readonly<Record<string, string>>): RunsWishDto {
  const { title, material, machine, day } = said;
  const begins = /^\d{4}-\d\d-\d\d$/.test(day) ? new Date(`${day}T00:00:00`) : null;
  return {
    ...(title.trim() ? { title: title.trim() } : {}),
    ...(material.trim() ? { material: material.trim() } : {}),
    ...(machine ? { machine } : {}),
    ...(begins && !Number.isNaN(begins.getTime())
      ? { from: begins.toISOString(), until: addDays(begins, 1).toISOString() }
      : {}),
  };
}

interface FieldProps {
  label: string;
  value: string;
  change: (value: string) => void;
  type?: 'text' | 'date';
}

function Field({ label, value, change, type = 'text' }: FieldProps) {
  return (
    <label className="flex w-52 flex-col gap-1">
      <span className="text-quiet">{label}</span>
      <input
        type={type}
        value={value}
        maxLength={120}
        onChange={(event) => change(event.target.value)}
        className="h-8 rounded-lg border border-line bg-raised px-2.5 focus:border-petrol focus:outline-none"
      />
    </label>
  );
}

type Cell = CellOf<RunAnswer>;

const MachineNames = createContext<ReadonlyMap<string, string>>(new Map());

function JobCell({ row: { original: run } }: Cell) {
  return (
    <Link to={`/jobs/${run.jobId}/burn`} className="font-semibold text-petrol hover:underline">
      {run.jobTitle}
      {run.fromLine !== null && (
        <span className="font-normal text-quiet">{t(', from line {{fromLine}} on', { fromLine: run.fromLine })}</span>
      )}
    </Link>
  );
}

function MachineCell({ row: { original: run } }: Cell) {
  return <>{useContext(MachineNames).get(run.machineId) ?? t('a machine that is gone')}</>;
}

function DayCell({ row: { original: run } }: Cell) {
  return <span className="figures whitespace-nowrap text-[12px]">{wholeDayAndTimeOf(run.startedAt)}</span>;
}

function MaterialCell({ row: { original: run } }: Cell) {
  return <>{run.materials.map((name) => inSentence(name)).join(', ') || '—'}</>;
}

function TimesCell({ row: { original: run } }: Cell) {
  return (
    <span className="figures whitespace-nowrap">
      {formatClock(run.plannedS)} / {run.endedAt ? formatClock(run.machineS) : '…'}
    </span>
  );
}

const endInk = { done: 'text-settled', running: 'text-ink', held: 'text-warn', stopped: 'text-warn' } as const;

function EndCell({ row: { original: run } }: Cell) {
  const ink = run.status in endInk ? endInk[run.status as keyof typeof endInk] : 'text-stop';
  return (
    <span className={`font-semibold ${ink}`} title={run.reason ?? undefined}>
      {said(run.status)}
    </span>
  );
}

const helper = createColumnHelper<typeof tableParts, RunAnswer>();
const look = { head: 'px-3 py-2', cell: 'px-3 py-2 align-top' };
const columns = [
  helper.accessor('startedAt', { header: t('Sent'), cell: DayCell, meta: look }),
  helper.accessor('jobTitle', { header: t('Job'), cell: JobCell, meta: look }),
  helper.display({ id: 'material', header: t('Material'), cell: MaterialCell, meta: look }),
  helper.display({ id: 'machine', header: t('Machine'), cell: MachineCell, meta: look }),
  helper.accessor((run) => run.by ?? '', { id: 'by', header: t('Who'), meta: look }),
  helper.accessor('plannedS', { header: t('Planned / took'), cell: TimesCell, meta: look }),
  helper.accessor('status', { header: t('How it ended'), cell: EndCell, meta: look }),
];
