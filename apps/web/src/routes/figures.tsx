import type { FiguresAnswer } from '@lambent/contracts';
import type { Machine } from '@lambent/core/machine';
import type { Material } from '@lambent/core/recipes';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { format, startOfWeek, subWeeks } from 'date-fns';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { api, sentenceOf } from '../api.ts';
import { FigureCard } from '../figures/figure-card.tsx';
import { dayOf } from '../stores/dates.ts';
import { DayField } from '../ui/day-field.tsx';
import { asLength, fixed, formatMoney } from '../ui/figures.ts';
import { Notice } from '../ui/notice.tsx';
import { PageBar } from '../ui/page-bar.tsx';
import { PageTitle } from '../ui/page-title.tsx';
import { t } from '../words/words.ts';

/** So many weeks are told at first, with the one that is not over. */
const usualWeeks = 12;

/** What the shop did, in figures: hours, money, sheets, and by whom. */
export function FiguresRoute() {
  const [from, setFrom] = useState(() =>
    format(subWeeks(startOfWeek(new Date(), { weekStartsOn: 1 }), usualWeeks - 1), 'yyyy-MM-dd'),
  );
  const [until, setUntil] = useState(() => format(new Date(), 'yyyy-MM-dd'));
  const isWhole = from !== '' && until !== '' && from <= until;
  const figures = useQuery({
    queryKey: ['figures', from, until],
    queryFn: () => api.figures(from, until),
    enabled: isWhole,
    placeholderData: keepPreviousData,
  });
  const machines = useQuery({ queryKey: ['machines'], queryFn: api.machines });
  const materials = useQuery({ queryKey: ['materials'], queryFn: api.materials });
  const error = figures.error ?? machines.error ?? materials.error;
  return (
    <div className="flex h-full flex-col">
      <PageTitle>{t('Figures')}</PageTitle>
      <PageBar />
      <main className="min-h-0 flex-1 overflow-auto">
        <div className="mx-auto max-w-[1180px] px-6 py-6">
          <div className="mb-4 flex flex-wrap items-end gap-3">
            <h1 className="mr-auto text-xl font-bold">{t('Figures')}</h1>
            <DayField label={t('First day')} value={from} set={setFrom} />
            <DayField label={t('Last day')} value={until} set={setUntil} />
            <Link to="/record" className="h-9 py-1.5 font-semibold text-petrol">
              {t('To the record')}
            </Link>
          </div>
          {!isWhole && <p className="mb-4 text-warn">{t('Choose a first day that is not after the last.')}</p>}
          {error && <Notice level="blocks">{sentenceOf(error)}</Notice>}
          {figures.isPending && isWhole && <p className="text-quiet">{t('Counting…')}</p>}
          {figures.data && machines.data && materials.data && (
            <Cards
              figures={figures.data}
              machines={machines.data}
              materials={materials.data}
              from={from}
              until={until}
            />
          )}
        </div>
      </main>
    </div>
  );
}

interface CardsProps {
  readonly figures: FiguresAnswer;
  readonly machines: readonly Machine[];
  readonly materials: readonly Material[];
  readonly from: string;
  readonly until: string;
}

function Cards({ figures, machines, materials, from, until }: CardsProps) {
  const { weeks, people, stock, currency, withoutPrice } = figures;
  const money = (amount: number) => formatMoney(amount, { currency });
  const charts = useMemo(() => chartsOf(figures, machines, materials), [figures, machines, materials]);
  const used = stock.filter((material) => material.used + material.offcutsUsed + (material.left ?? 0) > 0);
  const nameOfMachine = namesOf(machines);
  const seconds = people.reduce((sum, person) => sum + person.seconds, 0);
  const runs = people.reduce((sum, person) => sum + person.runs, 0);
  const jobs = people.reduce((sum, person) => sum + person.jobs, 0);
  const amount = people.reduce((sum, person) => sum + person.amount, 0);
  return (
    <div className="grid grid-cols-1 items-start gap-4 lg:grid-cols-2">
      <FigureCard
        title={t('Machine hours')}
        about={t('How long the runs took that began in a week, also those that were stopped.')}
        chart={charts.hours}
        heads={[t('Week from'), t('Machine'), t('Hours'), t('Runs')]}
        wordColumns={2}
        rows={weeks.flatMap(({ week, machines: each }) =>
          each.map((time) => [dayOf(week), nameOfMachine(time.machineId), hours(time.seconds), String(time.runs)]),
        )}
        total={[t('In all'), '', hours(seconds), String(runs)]}
        csv={{ table: 'hours', from, until }}
      />
      <FigureCard
        title={t('Money')}
        about={
          withoutPrice > 0
            ? t(
                'Of jobs that were burnt for the first time in a week. Without a price, or in another currency: {{withoutPrice}}.',
                { withoutPrice },
              )
            : t('Of jobs that were burnt for the first time in a week.')
        }
        chart={charts.money}
        heads={[t('Week from'), t('Jobs'), t('Amount')]}
        rows={weeks.map((week) => [dayOf(week.week), String(week.jobs), money(week.amount)])}
        total={[t('In all'), String(jobs), money(amount)]}
        csv={{ table: 'money', from, until }}
      />
      <FigureCard
        title={t('Sheets')}
        about={t('Whole sheets that runs took in these days, and those in stock now.')}
        chart={charts.sheets}
        heads={[t('Material'), t('Used'), t('Left'), t('Offcuts used'), t('Offcuts left')]}
        rows={used.map(({ materialId, used: whole, left, offcutsUsed, offcutsLeft }) => [
          nameOfMaterial(materials, materialId),
          String(whole),
          left === null ? t('not counted') : String(left),
          String(offcutsUsed),
          String(offcutsLeft),
        ])}
        csv={{ table: 'sheets', from, until }}
      />
      <FigureCard
        title={t('By person')}
        about={t('Who sent the runs, and whose the jobs are.')}
        chart={charts.people}
        heads={[t('Who'), t('Hours sent'), t('Runs'), t('Jobs of theirs'), t('Amount')]}
        rows={people.map((person) => [
          person.name || t('Nobody said'),
          hours(person.seconds),
          String(person.runs),
          String(person.jobs),
          money(person.amount),
        ])}
        csv={{ table: 'people', from, until }}
      />
    </div>
  );
}

/** What the charts show of the same figures. */
function chartsOf(
  { weeks, people, stock, currency }: FiguresAnswer,
  machines: readonly Machine[],
  materials: readonly Material[],
) {
  const places = weeks.map(({ week }) => dayOf(week));
  const met = [...new Set(weeks.flatMap((week) => week.machines.map(({ machineId }) => machineId)))];
  const nameOfMachine = namesOf(machines);
  const inHours = (seconds: number) => Math.round(seconds / 36) / 100;
  const busy = people.filter(({ seconds }) => seconds > 0);
  const used = stock.filter((material) => material.used + (material.left ?? 0) > 0);
  const money = (amount: number) => formatMoney(amount, { currency });
  return {
    hours: {
      label: t('Machine hours by week'),
      places,
      series: met.map((machineId) => ({
        name: nameOfMachine(machineId),
        values: weeks.map((week) => inHours(week.machines.find((time) => time.machineId === machineId)?.seconds ?? 0)),
      })),
      stacked: true,
      unit: 'h',
      wordsOf: inWords,
    },
    money: {
      label: t('Money by week'),
      places,
      series: weeks.some(({ amount }) => amount > 0)
        ? [{ name: t('Amount'), values: weeks.map(({ amount }) => amount) }]
        : [],
      unit: currency,
      wordsOf: money,
    },
    sheets: {
      label: t('Sheets used and left, by material'),
      places: used.map(({ materialId }) => nameOfMaterial(materials, materialId)),
      series:
        used.length === 0
          ? []
          : [
              { name: t('Used'), values: used.map((material) => material.used) },
              { name: t('Left'), values: used.map(({ left }) => left ?? 0) },
            ],
      lying: true,
      unit: '',
      wordsOf: String,
    },
    people: {
      label: t('Machine hours by who sent the runs'),
      places: busy.map(({ name }) => name || t('Nobody said')),
      series: busy.length === 0 ? [] : [{ name: t('Hours sent'), values: busy.map(({ seconds }) => inHours(seconds)) }],
      lying: true,
      unit: 'h',
      wordsOf: inWords,
    },
  };
}

function inWords(hours: number): string {
  return t('{{hours}} h', { hours: fixed(hours, 2) });
}

function hours(seconds: number): string {
  return fixed(seconds / 3600, 2);
}

function namesOf(machines: readonly Machine[]): (machineId: string) => string {
  const names = new Map(machines.map(({ id, name }) => [id, name]));
  return (machineId) => names.get(machineId) ?? t('a machine that is gone');
}

function nameOfMaterial(materials: readonly Material[], materialId: string): string {
  const material = materials.find(({ id }) => id === materialId);
  return material ? `${material.name} ${asLength(material.thicknessMm)}` : t('a material that is gone');
}
