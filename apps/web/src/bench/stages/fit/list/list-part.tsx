import { designOf } from '@lambent/core/rows';
import { useMemo, useState } from 'react';
import { Button } from '../../../../ui/button.tsx';
import { Choice } from '../../../../ui/choice.tsx';
import { t } from '../../../../words/words.ts';
import { useBench } from '../../../context.ts';
import { jobOf } from '../../../state/document.ts';
import { LayRows } from './lay-rows.tsx';
import { ListDesign } from './list-design.tsx';
import { ListRows } from './list-rows.tsx';
import { NewList } from './new-list.tsx';
import { RowPreview } from './row-preview.tsx';
import { useFilledRows } from './use-filled-rows.ts';

/** Rows of words or numbers, for each of which one design is made. */
export default function ListPart() {
  const lists = useBench((state) => jobOf(state).lists);
  const [chosenId, choose] = useState<string | null>(null);
  const [isNew, setNew] = useState(false);
  const list = lists.find(({ id }) => id === chosenId) ?? lists.at(-1) ?? null;
  if (!list || isNew) {
    return (
      <NewList
        made={(id) => {
          choose(id);
          setNew(false);
        }}
        leave={list ? () => setNew(false) : null}
      />
    );
  }
  return (
    <>
      {lists.length > 1 && (
        <Choice
          label={t('List')}
          value={list.id}
          options={lists.map(({ id, name }) => ({ value: id, text: name }))}
          choose={choose}
        />
      )}
      <OneList key={list.id} listId={list.id} />
      <Button look="quiet" className="self-start" onClick={() => setNew(true)}>
        {t('Another list')}
      </Button>
    </>
  );
}

function OneList({ listId }: { listId: string }) {
  const list = useBench((state) => jobOf(state).lists.find(({ id }) => id === listId));
  const drawing = useBench((state) => jobOf(state).drawing);
  const found = useMemo(() => (list ? designOf({ drawing }, list) : []), [drawing, list]);
  const design = useSame(found);
  const filled = useFilledRows(list ?? null, design);
  if (!list) return null;
  return (
    <>
      <ListRows list={list} />
      <ListDesign list={list} design={design} />
      {design.length > 0 && (
        <>
          <RowPreview list={list} design={design} filled={filled} />
          <LayRows list={list} design={design} filled={filled} />
        </>
      )}
    </>
  );
}

/** A list of things that stays the same one while it holds the same. */
function useSame<T>(things: readonly T[]): readonly T[] {
  const [kept, keep] = useState(things);
  const isSame = kept.length === things.length && kept.every((thing, i) => thing === things[i]);
  if (isSame) return kept;
  keep(things);
  return things;
}
