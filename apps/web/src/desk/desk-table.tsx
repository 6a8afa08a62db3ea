import type { DayAnswer, DeskSort, JobCard } from '@lambent/contracts';
import type { Machine } from '@lambent/core/machine';
import type { Material } from '@lambent/core/recipes';
import { format } from 'date-fns';
import { ChevronDown, ChevronUp } from 'lucide-react';
import { blockOf } from '../day/use-day.ts';
import { t } from '../words/words.ts';
import { DeskRow } from './desk-row.tsx';
import type { DeskWish } from './desk-wish.ts';

interface Props {
  readonly jobs: readonly JobCard[];
  /** What the machines have to do; undefined until it is known. */
  readonly day: DayAnswer | undefined;
  readonly machines: readonly Machine[];
  readonly materials: readonly Material[];
  readonly currency: string;
  readonly wish: DeskWish;
  readonly ask: (change: Partial<DeskWish>) => void;
}

interface Column {
  readonly sort: DeskSort;
  readonly name: string;
  readonly look: string;
}

const columns = (): readonly Column[] => [
  { sort: 'title', name: t('Job'), look: '' },
  { sort: 'material', name: t('Made of'), look: 'w-44 max-lg:hidden' },
  { sort: 'time', name: t('Time'), look: 'w-26 max-md:hidden' },
  { sort: 'price', name: t('Price'), look: 'w-24 max-md:hidden' },
  { sort: 'wanted by', name: t('Wanted by'), look: 'w-28 max-sm:hidden' },
  { sort: 'state', name: t('Where it stands'), look: 'w-52' },
];

/** A page of the jobs of the Desk. A press on a column's head sorts by it, and back again. */
export function DeskTable({ jobs, day, machines, materials, currency, wish, ask }: Props) {
  const today = format(new Date(), 'yyyy-MM-dd');
  return (
    <table aria-label={t('Jobs')} className="w-full table-fixed border-collapse text-left">
      <thead>
        <tr className="text-[12px] text-quiet">
          <td className="w-[92px] max-sm:hidden" />
          {columns().map(({ sort, name, look }) => {
            const isSorted = wish.sort === sort;
            return (
              <th
                key={sort}
                scope="col"
                aria-sort={isSorted ? (wish.down ? 'descending' : 'ascending') : undefined}
                className={`px-2 py-2 font-normal ${look}`}
              >
                <button
                  type="button"
                  onClick={() => ask({ sort, down: isSorted && !wish.down })}
                  className="flex items-center gap-0.5 rounded hover:text-ink"
                >
                  {name}
                  {isSorted &&
                    (wish.down ? <ChevronDown size={12} aria-hidden /> : <ChevronUp size={12} aria-hidden />)}
                </button>
              </th>
            );
          })}
          <td className="w-12" />
        </tr>
      </thead>
      <tbody>
        {jobs.map((job) => (
          <DeskRow
            key={job.id}
            job={job}
            block={day && blockOf(day, job.id)}
            machine={machines.find(({ id }) => id === job.machineId)}
            material={materials.find(({ id }) => id === job.materialId)}
            currency={currency}
            today={today}
          />
        ))}
      </tbody>
    </table>
  );
}
