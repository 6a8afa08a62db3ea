import { useQuery } from '@tanstack/react-query';
import { Fragment } from 'react';
import { useParams } from 'react-router';
import { api, sentenceOf } from '../api.ts';
import { BookHistory } from '../book/book-history.tsx';
import { Compare } from '../book/compare.tsx';
import { MaterialFacts } from '../book/material-facts.tsx';
import { MaterialList } from '../book/material-list.tsx';
import { RecipesPart } from '../book/recipes-part.tsx';
import { StockTable } from '../book/stock-table.tsx';
import { useBook } from '../book/use-book.ts';
import { asLength } from '../ui/figures.ts';
import { Notice } from '../ui/notice.tsx';
import { PageBar } from '../ui/page-bar.tsx';
import { PageTitle } from '../ui/page-title.tsx';
import { t } from '../words/words.ts';

/** The recipe book: what the shop knows of each material, changed in place, with the history of every value. */
export function BookRoute() {
  const { materialId } = useParams();
  const materials = useQuery({ queryKey: ['materials'], queryFn: api.materials });
  const machines = useQuery({ queryKey: ['machines'], queryFn: api.machines });
  const book = useBook();
  const all = materials.data ?? [];
  const chosen =
    all.find(({ id }) => id === materialId) ?? (materialId ? undefined : all.find(({ archived }) => !archived));
  return (
    <div className="flex h-full flex-col">
      <PageTitle>{t('Recipe book')}</PageTitle>
      <PageBar />
      <main className="flex min-h-0 flex-1">
        <MaterialList materials={all} chosen={chosen?.id} book={book} />
        <div className="min-w-0 flex-1 overflow-auto px-5 py-4">
          {(materials.isError || machines.isError) && (
            <Notice level="blocks">{sentenceOf(materials.error ?? machines.error)}</Notice>
          )}
          {materials.isSuccess && materialId && !chosen && (
            <Notice level="warns">{t('There is no such material in the book. Choose one on the left.')}</Notice>
          )}
          {chosen && (
            <Fragment key={chosen.id}>
              <div className="mb-3 flex items-end gap-3">
                <span
                  className="mb-1 size-7 rounded-lg border border-line"
                  style={{ background: chosen.tone }}
                  aria-hidden
                />
                <h2 className="mb-1 min-w-0 flex-1 truncate text-[18px] font-bold">
                  {chosen.name}{' '}
                  <span className="figures text-[15px] font-normal text-quiet">{asLength(chosen.thicknessMm)}</span>
                </h2>
              </div>
              {chosen.forbidden && (
                <div className="mb-3">
                  <Notice level="blocks" title={t('Never laser this')}>
                    {chosen.name}: {chosen.forbidden}
                  </Notice>
                </div>
              )}
              <MaterialFacts material={chosen} book={book} />
              {!chosen.forbidden && <StockTable material={chosen} book={book} />}
              <RecipesPart material={chosen} machines={machines.data ?? []} book={book} />
              {!chosen.forbidden && <Compare material={chosen} materials={all} machines={machines.data ?? []} />}
            </Fragment>
          )}
        </div>
        {chosen && <BookHistory material={chosen} book={book} />}
      </main>
    </div>
  );
}
