import type { FigureTable } from '@lambent/contracts';
import { Download } from 'lucide-react';
import { lazy, type ReactNode, Suspense } from 'react';
import { ShopCard } from '../shop/shop-card.tsx';
import { buttonLook } from '../ui/button.tsx';
import { t } from '../words/words.ts';
import type { BarChartProps } from './bar-chart.tsx';

const BarChart = lazy(() => import('./bar-chart.tsx'));

interface Props {
  readonly title: string;
  readonly about?: ReactNode;
  readonly chart: BarChartProps;
  /** The heads of its table. */
  readonly heads: readonly string[];
  /** So many of its columns are words, the first one if nothing is said; the others are figures. */
  readonly wordColumns?: number;
  readonly rows: readonly (readonly string[])[];
  /** What it all comes to, under the rows. */
  readonly total?: readonly string[];
  /** Which table is saved as CSV, and of which days. */
  readonly csv: { readonly table: FigureTable; readonly from: string; readonly until: string };
}

/** Figures as bars and as a table, which can be saved. */
export function FigureCard({
  title,
  about,
  chart,
  heads,
  wordColumns = 1,
  rows,
  total,
  csv: { table, from, until },
}: Props) {
  const cell = (i: number) => (i < wordColumns ? 'py-1 pr-3 [overflow-wrap:anywhere]' : 'figures py-1 pl-3 text-right');
  return (
    <ShopCard title={title} about={about}>
      {chart.series.length > 0 && (
        <Suspense fallback={<div className="h-[240px]" />}>
          <BarChart {...chart} />
        </Suspense>
      )}
      {rows.length === 0 ? (
        <p className="text-quiet">{t('Nothing in these days.')}</p>
      ) : (
        <section
          className="mt-2 max-h-64 overflow-auto print:max-h-none"
          aria-label={t('{{title}}, as a table', { title })}
          // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls can be scrolled with the keyboard
          tabIndex={0}
        >
          <table className="w-full border-collapse">
            <thead className="sticky top-0 bg-paper">
              <tr>
                {heads.map((head, i) => (
                  <th
                    key={head}
                    scope="col"
                    className={`text-[12px] font-normal text-quiet ${i < wordColumns ? 'text-left' : 'pl-3 text-right'}`}
                  >
                    {head}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rows.map((row) => (
                <tr key={row.join(' ')} className="border-t border-line">
                  {row.map((words, i) => (
                    <td key={heads[i]} className={cell(i)}>
                      {words}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
            {total && (
              <tfoot className="sticky bottom-0 bg-paper shadow-[inset_0_1px_var(--line)]">
                <tr className="font-bold">
                  {total.map((words, i) => (
                    <td key={heads[i]} className={cell(i)}>
                      {words}
                    </td>
                  ))}
                </tr>
              </tfoot>
            )}
          </table>
        </section>
      )}
      <a
        href={`/api/figures.csv?table=${table}&from=${from}&until=${until}`}
        download
        aria-label={t('{{title}}: save as CSV', { title })}
        className={`${buttonLook('plain')} mt-3`}
      >
        <Download size={14} aria-hidden />
        {t('save as CSV')}
      </a>
    </ShopCard>
  );
}
