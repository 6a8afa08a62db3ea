import type { RowList } from '@lambent/core/document';
import { removeList, setList } from '@lambent/core/edits';
import { faultsOfList, type TableFault, writeTable } from '@lambent/core/rows';
import { useMemo, useState } from 'react';
import { Button } from '../../../../ui/button.tsx';
import { counted } from '../../../../ui/counted.ts';
import { said, t } from '../../../../words/words.ts';
import { useBenchActions } from '../../../context.ts';
import { FaultList } from './fault-list.tsx';
import { TableForm } from './table-form.tsx';

/** The rows of a list in short, what in them may not be meant, and the way to change them. */
export function ListRows({ list }: { list: RowList }) {
  const actions = useBenchActions();
  const [isOpen, open] = useState(false);
  const [onReading, setOnReading] = useState<readonly TableFault[]>([]);
  const faults = useMemo(() => [...onReading, ...faultsOfList(list)], [onReading, list]);
  return (
    <section aria-label={t('Rows')} className="flex flex-col gap-1.5">
      <div className="flex items-baseline justify-between gap-2">
        <p className="min-w-0 truncate" data-testid="list-rows">
          <b className="font-semibold">{counted(list.rows.length, 'row')}</b>
          {`: ${list.columns.join(', ')}`}
        </p>
        <span className="flex shrink-0">
          <Button look="quiet" onClick={() => open(!isOpen)}>
            {isOpen ? t('Close') : t('Change')}
          </Button>
          <Button
            look="quiet"
            title={t('What was laid for it stays, as plain drawing')}
            onClick={() => actions.edit(t('remove a list'), (job) => removeList(job, list.id))}
          >
            {t('Remove')}
          </Button>
        </span>
      </div>
      {isOpen && (
        <TableForm
          words={writeTable(list)}
          known={list.rows}
          button={t('Take these rows')}
          take={(words, read) => {
            setOnReading(read);
            actions.edit(t('change a list'), (job) =>
              setList(job, { ...list, columns: words.columns, rows: words.rows }),
            );
            open(false);
          }}
        />
      )}
      <FaultList
        label={t('What may not be meant')}
        faults={faults.map(({ message }) => ({ words: said(message), go: null }))}
      />
    </section>
  );
}
