import type { Material } from '@lambent/core/recipes';
import { useQuery } from '@tanstack/react-query';
import { Undo2 } from 'lucide-react';
import { api, sentenceOf } from '../api.ts';
import { wholeDayAndTimeOf } from '../stores/dates.ts';
import { IconButton } from '../ui/button.tsx';
import { Notice } from '../ui/notice.tsx';
import { t } from '../words/words.ts';
import type { BookHold } from './use-book.ts';

/** What was changed of a material and its recipes, by whom and when; each change can be taken back. */
export function BookHistory({ material, book }: { material: Material; book: BookHold }) {
  const history = useQuery({
    queryKey: ['book-history', material.id],
    queryFn: () => api.bookHistory(material.id),
  });
  return (
    <aside
      aria-label={t('History')}
      className="w-[224px] shrink-0 overflow-y-auto border-l border-line bg-paper px-3.5 py-4"
    >
      <h2 className="font-bold">{t('History')}</h2>
      {history.isError && <Notice level="blocks">{sentenceOf(history.error)}</Notice>}
      {history.data?.length === 0 && (
        <p className="mt-1 text-quiet">{t('As it came into the book. What is changed from now on stands here.')}</p>
      )}
      <ul className="mt-2 flex flex-col gap-2.5">
        {history.data?.map(({ id, at, by, what, recipeId }) => (
          <li key={id} className="group flex gap-1.5 border-b border-line pb-2 last:border-b-0">
            <div className="min-w-0 flex-1">
              <p className="break-words">{recipeId === null ? t('The material: {{what}}', { what }) : what}</p>
              <p className="text-[12px] text-quiet">
                {by}, {wholeDayAndTimeOf(at)}
              </p>
            </div>
            <IconButton
              label={t('Take back: {{what}}', { what })}
              className="size-7"
              onClick={() => void book.change((who) => api.undoChange(who, id), t('Taken back.'))}
            >
              <Undo2 size={14} aria-hidden />
            </IconButton>
          </li>
        ))}
      </ul>
    </aside>
  );
}
