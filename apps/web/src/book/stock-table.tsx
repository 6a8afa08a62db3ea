import type { Material, StockedSheet } from '@lambent/core/recipes';
import { useQuery } from '@tanstack/react-query';
import { createColumnHelper } from '@tanstack/react-table';
import { Plus, Trash2 } from 'lucide-react';
import { createContext, useContext } from 'react';
import { api } from '../api.ts';
import { Button, IconButton } from '../ui/button.tsx';
import { type CellOf, DataTable, type tableParts } from '../ui/data-table.tsx';
import { formatLength } from '../ui/figures.ts';
import { LengthField } from '../ui/length-field.tsx';
import { NumberField } from '../ui/number-field.tsx';
import { OutlinePicture } from '../ui/outline-picture.tsx';
import { parsePlain } from '../ui/plain-number.ts';
import { TypedField } from '../ui/typed-field.tsx';
import { t } from '../words/words.ts';
import type { BookHold } from './use-book.ts';

type Cell = CellOf<StockedSheet>;

/** How a size is changed and taken out, and what it is priced in. */
const Stock = createContext<{
  set: (id: string, part: Partial<StockedSheet>) => undefined;
  remove: (id: string) => void;
  currency: string;
}>({ set: () => undefined, remove: () => {}, currency: '' });

/** A side of the sheet; the column’s id is the field. That of an outline follows from it. */
function SideCell({ row: { original }, column }: Cell) {
  const { set } = useContext(Stock);
  const side = column.id as 'width' | 'height';
  if (original.outline) return <span className="figures">{formatLength(original[side], 'mm')}</span>;
  return (
    <LengthField
      bare
      label={side === 'width' ? t('Width') : t('Height')}
      unit="mm"
      value={original[side]}
      takes="more-than-0"
      commit={(mm) => set(original.id, { [side]: mm })}
    />
  );
}

function CountCell({ row: { original } }: Cell) {
  const { set } = useContext(Stock);
  return (
    <NumberField
      bare
      label={t('Sheets')}
      layout="stack"
      value={original.count}
      least={0}
      most={100_000}
      whole
      commit={(count) => set(original.id, { count })}
    />
  );
}

function PriceCell({ row: { original } }: Cell) {
  const { set, currency } = useContext(Stock);
  const { id, price } = original;
  return (
    <TypedField
      bare
      label={t('Price of one')}
      unit={currency}
      text={price === null ? '' : price.toFixed(2)}
      parse={(text) =>
        text.trim() === ''
          ? { ok: true, value: Number.NaN }
          : parsePlain(text, currency, t('Type an amount, or nothing to charge by the area.'))
      }
      commit={(typed) => {
        if (typed < 0 || typed > 1_000_000) return t('From 0 to a million.');
        return set(id, { price: Number.isNaN(typed) ? null : typed });
      }}
    />
  );
}

/** Whether it is whole or an offcut; the outline of one that is no rectangle. */
function KindCell({ row: { original } }: Cell) {
  return (
    <span className="flex items-center gap-1.5">
      {original.offcut ? t('offcut') : t('whole')}
      {original.outline && <OutlinePicture shape={original} className="h-7 w-10" />}
    </span>
  );
}

function RemoveCell({ row: { original } }: Cell) {
  const { remove } = useContext(Stock);
  return (
    <IconButton
      label={t('Take the size {{width}} × {{height}} mm out', { width: original.width, height: original.height })}
      onClick={() => remove(original.id)}
    >
      <Trash2 size={14} aria-hidden />
    </IconButton>
  );
}

const helper = createColumnHelper<typeof tableParts, StockedSheet>();
const wide = { head: 'pr-2 py-1 w-[160px]', cell: 'pr-2 py-1' };
const columns = [
  helper.display({ id: 'width', header: t('Width'), cell: SideCell, meta: wide }),
  helper.display({ id: 'height', header: t('Height'), cell: SideCell, meta: wide }),
  helper.display({ id: 'count', header: t('Sheets'), cell: CountCell, meta: { ...wide, head: 'pr-2 py-1 w-[120px]' } }),
  helper.display({ id: 'price', header: t('Price of one'), cell: PriceCell, meta: wide }),
  helper.display({
    id: 'kind',
    header: t('Kind'),
    cell: KindCell,
    meta: { head: 'py-1 w-[96px]', cell: 'text-[12px] text-quiet' },
  }),
  helper.display({
    id: 'remove',
    header: () => <span className="sr-only">{t('What can be done')}</span>,
    cell: RemoveCell,
  }),
];

/** The sheets of a material that the shop has: counted, priced, changed where they stand. */
export function StockTable({ material, book }: { material: Material; book: BookHold }) {
  const currency = useQuery({ queryKey: ['settings'], queryFn: api.settings }).data?.pricing?.currency ?? '';
  const stock = material.stock ?? [];
  const change = (next: (stock: readonly StockedSheet[]) => readonly StockedSheet[]) =>
    void book.change((author, known) => {
      const now = known(material.id) ?? material;
      return api.changeMaterial(author, { ...now, stock: next(now.stock ?? []) });
    });
  const set = (id: string, part: Partial<StockedSheet>) => {
    change((all) => all.map((entry) => (entry.id === id ? { ...entry, ...part } : entry)));
    return undefined;
  };
  const remove = (id: string) => change((all) => all.filter((entry) => entry.id !== id));
  const add = () => {
    const { sheetWidth: width, sheetHeight: height } = material;
    change((all) => [...all, { id: crypto.randomUUID(), width, height, count: 1, price: null }]);
  };
  return (
    <section aria-label={t('Sheets in stock')} className="mt-4">
      <div className="flex items-center gap-2">
        <h3 className="font-bold">{t('Sheets in stock')}</h3>
        <Button look="quiet" onClick={add}>
          <Plus size={14} aria-hidden />
          {t('Add a size')}
        </Button>
      </div>
      {stock.length === 0 ? (
        <p className="text-quiet">
          {t('None are counted. With a size added, runs take their sheets from it, and the price can go by the sheet.')}
        </p>
      ) : (
        <Stock.Provider value={{ set, remove, currency }}>
          <DataTable
            className="max-w-[720px] table-fixed"
            columns={columns}
            lines={stock}
            idOf={({ id }) => id}
            row={({ width, height }) => ({ label: t('{{width}} × {{height}} mm', { width, height }) })}
          />
        </Stock.Provider>
      )}
    </section>
  );
}
