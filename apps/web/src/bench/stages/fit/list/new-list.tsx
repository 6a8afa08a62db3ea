import type { RowList } from '@lambent/core/document';
import { setList } from '@lambent/core/edits';
import { type ListWords, numberRows, TableRefused } from '@lambent/core/rows';
import { useState } from 'react';
import { Button } from '../../../../ui/button.tsx';
import { Choice } from '../../../../ui/choice.tsx';
import { NumberField } from '../../../../ui/number-field.tsx';
import { said, t } from '../../../../words/words.ts';
import { useBenchActions } from '../../../context.ts';
import { newId } from '../../../new-id.ts';
import { jobOf } from '../../../state/document.ts';
import { Trouble } from '../placing-fields.tsx';
import { TableForm } from './table-form.tsx';

interface Props {
  made: (listId: string) => void;
  /** Goes back to the lists there are; null where there are none. */
  leave: (() => void) | null;
}

/** Makes a list: from rows that are typed or copied, from a file, or from numbers. */
export function NewList({ made, leave }: Props) {
  const actions = useBenchActions();
  const [kind, setKind] = useState<'words' | 'numbers'>('words');
  const make = (words: ListWords) => {
    const { lists } = jobOf(actions.get());
    const id = newId();
    const name = lists.length === 0 ? t('List') : t('List {{number}}', { number: lists.length + 1 });
    const list: RowList = { id, name, columns: words.columns, rows: words.rows, designId: null };
    actions.edit(t('add a list'), (job) => setList(job, list));
    made(id);
  };
  return (
    <>
      <p className="text-quiet">
        {t('One design is made for each row of a list: badges with names, tags with numbers.')}
      </p>
      <Choice
        label={t('The rows are')}
        value={kind}
        options={[
          { value: 'words', text: t('Typed, or copied from a table') },
          { value: 'numbers', text: t('Numbers from one to another') },
        ]}
        choose={setKind}
      />
      {kind === 'words' ? (
        <TableForm words="" known={[]} button={t('Make the list')} take={make} />
      ) : (
        <NumbersForm take={make} />
      )}
      {leave && (
        <Button look="quiet" className="self-start" onClick={leave}>
          {t('Leave it')}
        </Button>
      )}
    </>
  );
}

function NumbersForm({ take }: { take: (words: ListWords) => void }) {
  const [numbers, set] = useState({ from: 1, to: 24, step: 1, digits: 2 });
  const [trouble, setTrouble] = useState<string | null>(null);
  const field = (label: string, name: keyof typeof numbers, least: number, most: number, whole = false) => (
    <NumberField
      label={label}
      layout="stack"
      value={numbers[name]}
      least={least}
      most={most}
      whole={whole}
      commit={(value) => set({ ...numbers, [name]: value })}
    />
  );
  const make = () => {
    try {
      take(numberRows(numbers.from, numbers.to, numbers.step, numbers.digits));
    } catch (error) {
      if (!(error instanceof TableRefused)) throw error;
      setTrouble(said(error.message));
    }
  };
  return (
    <>
      <div className="grid grid-cols-2 gap-1.5">
        {field(t('From'), 'from', -1e6, 1e6)}
        {field(t('To'), 'to', -1e6, 1e6)}
        {field(t('Step'), 'step', 0.001, 1e6)}
        {field(t('Digits at least'), 'digits', 1, 12, true)}
      </div>
      <Trouble words={trouble} />
      <Button look="main" className="self-start" onClick={make}>
        {t('Make the list')}
      </Button>
    </>
  );
}
