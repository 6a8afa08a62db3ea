import type { Item, RowList } from '@lambent/core/document';
import { changeItems, chooseDesign } from '@lambent/core/edits';
import { wordsOf } from '@lambent/core/rows';
import { Button } from '../../../../ui/button.tsx';
import { Choice } from '../../../../ui/choice.tsx';
import { counted } from '../../../../ui/counted.ts';
import { Labelled } from '../../../../ui/labelled.tsx';
import { t } from '../../../../words/words.ts';
import { showItems } from '../../../bed/showing.ts';
import { useBench, useBenchActions } from '../../../context.ts';
import { newId } from '../../../new-id.ts';

/** What is made for each row: a group of the drawing, in whose texts and codes fields stand for columns. */
export function ListDesign({ list, design }: { list: RowList; design: readonly Item[] }) {
  const actions = useBenchActions();
  const selection = useBench((state) => state.selection);
  const ids = design.map(({ id }) => id);
  const isSelected = ids.length === selection.size && ids.every((id) => selection.has(id));
  const take = () =>
    actions.edit(t('choose the design of a list'), (job) => {
      const now = job.lists.find(({ id }) => id === list.id) ?? list;
      return chooseDesign(job, now, actions.get().selection, newId());
    });
  const hasFields = design.some((item) => item.choice !== undefined || /\{[^{}\n]+\}/.test(wordsOf(item) ?? ''));
  return (
    <section aria-label={t('Design')} className="flex flex-col gap-1.5 border-t border-line pt-2">
      <p>
        {design.length === 0
          ? t('Draw one piece, with these fields in its texts and codes, select it, and take it as the design:')
          : t('The design: {{items}}. Fields for its texts and codes:', { items: counted(design.length, 'item') })}
      </p>
      <p className="figures text-[12.5px] text-petrol">
        {[...list.columns, 'row', 'date'].map((field) => `{${field}}`).join('  ')}
      </p>
      {design.length > 0 && <ChosenBy list={list} design={design} />}
      {design.length > 0 && !hasFields && (
        <p className="text-warn">{t('None of its texts and codes holds a field: all pieces will be alike.')}</p>
      )}
      <div className="flex flex-wrap gap-1.5">
        {(design.length === 0 || (!isSelected && selection.size > 0)) && (
          <Button look={design.length === 0 ? 'main' : 'plain'} disabled={selection.size === 0} onClick={take}>
            {t('Take the selection as the design')}
          </Button>
        )}
        {design.length > 0 && !isSelected && (
          <Button look="quiet" onClick={() => showItems(actions, ids)}>
            {t('Show it')}
          </Button>
        )}
      </div>
    </section>
  );
}

/** Of one part of the design that is selected: whether it is as drawn, or what came with a file that a column names. */
function ChosenBy({ list, design }: { list: RowList; design: readonly Item[] }) {
  const actions = useBenchActions();
  const selection = useBench((state) => state.selection);
  const [part, ...more] = design.filter(({ id }) => selection.has(id));
  if (!part || more.length > 0) {
    return (
      <p className="text-[12px] text-quiet">
        {t(
          'A part of it may be a file that a column names: bring the files in, double click the design, and select that part.',
        )}
      </p>
    );
  }
  if (wordsOf(part) !== null) return null;
  const choose = (column: string) =>
    actions.edit(t('choose a part by a column'), (job) =>
      changeItems(job, new Set([part.id]), ({ choice: _, ...item }) =>
        column === '' ? item : { ...item, choice: column },
      ),
    );
  return (
    <Labelled label={t('The selected part is')}>
      <Choice
        label={t('The selected part is')}
        look="slim"
        value={part.choice ?? ''}
        options={[
          { value: '', text: t('as it is drawn') },
          ...list.columns.map((column) => ({ value: column, text: t('the file named in {{column}}', { column }) })),
        ]}
        choose={choose}
      />
    </Labelled>
  );
}
