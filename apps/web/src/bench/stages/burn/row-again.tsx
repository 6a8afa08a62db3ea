import { burnRowAgain, laidRows, type NamedRow } from '@lambent/core/rows';
import { useMemo, useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../../../ui/button.tsx';
import { SearchField } from '../../../ui/search-field.tsx';
import { t } from '../../../words/words.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { newId } from '../../new-id.ts';
import { jobOf } from '../../state/document.ts';
import { Part } from '../drawer.tsx';

/** So many rows are offered at a time. */
const mostOffered = 5;

/** One row of a list is burnt once more, by its name, without the others: the one that broke. */
export function RowAgain() {
  const actions = useBenchActions();
  const lists = useBench((state) => jobOf(state).lists);
  const drawing = useBench((state) => jobOf(state).drawing);
  const [sought, setSought] = useState('');
  const rows = useMemo(() => laidRows({ lists, drawing }), [lists, drawing]);
  if (rows.length === 0) return null;
  const words = sought.trim().toLowerCase();
  const found = rows.filter(({ name, number }) => name.toLowerCase().includes(words) || `${number}` === words);
  const burn = (row: NamedRow) => {
    const { prepared } = actions.get();
    const nameRun = (run: { readonly name: string }, isOnly: boolean) =>
      isOnly ? t('{{row}} again', { row: row.name }) : t('{{row}} again, {{run}}', { row: row.name, run: run.name });
    let runId: string | null = null;
    actions.edit(t('burn a row again'), (job) => {
      const again = burnRowAgain({ job, meaning: prepared.meaning }, row, nameRun, newId);
      runId = again.runId;
      return again.job;
    });
    if (runId === null) toast.message(t('No run burns {{name}}.', { name: row.name }));
    else actions.chooseRun(runId);
    setSought('');
  };
  return (
    <Part title={t('One row again')}>
      <p className="text-[12px] text-quiet">{t('The piece that broke is burnt once more, without the others.')}</p>
      <SearchField label={t('Find a row by its name')} value={sought} change={setSought} />
      {words !== '' && (
        <ul className="flex flex-col" aria-label={t('Rows found')}>
          {found.slice(0, mostOffered).map((row) => (
            <li key={`${row.listId} ${row.rowId}`} className="flex items-center justify-between gap-2">
              <span className="min-w-0 truncate">
                {t('{{number}}: {{name}}', { number: row.number, name: row.name })}
              </span>
              <Button look="quiet" onClick={() => burn(row)}>
                {t('Burn {{name}} again', { name: row.name })}
              </Button>
            </li>
          ))}
          {found.length === 0 && <li className="text-quiet">{t('No row is called so.')}</li>}
          {found.length > mostOffered && (
            <li className="text-[12px] text-quiet">{t('{{count}} more', { count: found.length - mostOffered })}</li>
          )}
        </ul>
      )}
    </Part>
  );
}
