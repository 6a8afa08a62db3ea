import { type Builder, familyFromText, familyToJson, type NumberFamily } from '@lambent/core/builders';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Download, Trash2 } from 'lucide-react';
import { useId, useState } from 'react';
import { toast } from 'sonner';
import { api, sentenceOf } from '../../../../api.ts';
import { Button, IconButton } from '../../../../ui/button.tsx';
import { downloadJson } from '../../../../ui/download.ts';
import { FileButton } from '../../../../ui/file-button.tsx';
import { t } from '../../../../words/words.ts';
import type { Numbers } from './built-fields.tsx';

interface Props {
  builder: Builder;
  numbers: Numbers;
  /** Puts kept numbers into the fields. */
  take: (numbers: Numbers) => void;
  /** Whether the numbers in the fields can be built. */
  isGood: boolean;
}

const queryKey = ['number-families'];

/** Numbers that the shop keeps under names: taken into the fields, kept, taken in and out as files. */
export function KeptNumbers({ builder, numbers, take, isGood }: Props) {
  const queries = useQueryClient();
  const kept = useQuery({ queryKey, queryFn: api.families });
  const [name, setName] = useState('');
  const id = useId();
  const families = kept.data?.filter((family) => family.builder === builder.id) ?? [];
  const attempt = async (failed: string, work: () => Promise<unknown>) => {
    try {
      await work();
      await queries.invalidateQueries({ queryKey });
    } catch (error) {
      toast.error(`${failed} ${sentenceOf(error)}`);
    }
  };
  const keep = () =>
    attempt(t('The numbers were not kept.'), async () => {
      await api.addFamily({ id: '', name: name.trim(), builder: builder.id, numbers: split(builder, numbers).others });
      setName('');
    });
  const takeIn = (picked: File) =>
    attempt(t('{{name}} was not taken in.', { name: picked.name }), async () => {
      const family = await api.addFamily(familyFromText(await picked.text(), ''));
      if (family.builder !== builder.id)
        toast.message(t('“{{name}}” is kept with what it is built by.', { name: family.name }));
    });
  return (
    <details className="col-span-2 border-t border-line pt-2">
      <summary className="cursor-pointer text-quiet">
        {t('Kept numbers')}
        {families.length > 0 && ` (${families.length})`}
      </summary>
      {kept.isError && <p className="mt-1 text-stop">{sentenceOf(kept.error)}</p>}
      <ul className="mt-1">
        {families.map((family) => (
          <FamilyRow
            key={family.id}
            family={family}
            take={() => take({ ...split(builder, numbers).edges, ...family.numbers })}
            remove={() =>
              attempt(t('“{{name}}” was not deleted.', { name: family.name }), () => api.removeFamily(family.id))
            }
          />
        ))}
      </ul>
      <form
        className="mt-1 flex items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          void keep();
        }}
      >
        <label htmlFor={id} className="flex min-w-0 flex-1 flex-col gap-1 text-quiet">
          {t('Keep these numbers as')}
          <input
            id={id}
            value={name}
            maxLength={80}
            onChange={(event) => setName(event.target.value)}
            className="h-8 w-full rounded-lg border border-line bg-raised px-2 text-ink outline-none focus-visible:border-petrol focus-visible:ring-1 focus-visible:ring-petrol"
          />
        </label>
        <Button type="submit" disabled={name.trim() === '' || !isGood}>
          {t('Keep')}
        </Button>
      </form>
      <FileButton
        look="quiet"
        className="-ml-3"
        accept=".json,application/json"
        testId="numbers-file"
        take={(picked) => void takeIn(picked)}
      >
        {t('Take in a file…')}
      </FileButton>
    </details>
  );
}

/** Edges are of the outlines that are there, and are not kept. */
function split({ fields }: Builder, numbers: Numbers): { edges: Numbers; others: Numbers } {
  const [edges, others] = [true, false].map((isEdge) =>
    Object.fromEntries(Object.entries(numbers).filter(([name]) => (fields[name]?.kind === 'edge') === isEdge)),
  );
  return { edges, others };
}

function FamilyRow({ family, take, remove }: { family: NumberFamily; take: () => void; remove: () => void }) {
  return (
    <li className="flex items-center gap-1">
      <Button look="quiet" className="-ml-3 min-w-0 flex-1 justify-start" onClick={take}>
        <span className="truncate" title={family.name}>
          {family.name}
        </span>
      </Button>
      <IconButton
        label={t('Take {{name}} out as a file', { name: family.name })}
        onClick={() => downloadJson(familyToJson(family), family.name)}
      >
        <Download size={15} aria-hidden />
      </IconButton>
      <IconButton label={t('Delete {{name}}', { name: family.name })} onClick={remove}>
        <Trash2 size={15} aria-hidden />
      </IconButton>
    </li>
  );
}
