import type { Material, StockedSheet } from '@lambent/core/recipes';
import { useQuery } from '@tanstack/react-query';
import { Plus, Trash2 } from 'lucide-react';
import { api } from '../api.ts';
import { Button, IconButton } from '../ui/button.tsx';
import { LengthField } from '../ui/length-field.tsx';
import { NumberField } from '../ui/number-field.tsx';
import { parsePlain } from '../ui/plain-number.ts';
import { TypedField } from '../ui/typed-field.tsx';
import type { BookHold } from './use-book.ts';

const grid = 'grid max-w-[720px] grid-cols-[1fr_1fr_0.8fr_1fr_52px_32px] items-center gap-2';

/** The sheets of a material that the shop has: counted, priced, changed where they stand. */
export function StockTable({ material, book }: { material: Material; book: BookHold }) {
  const currency = useQuery({ queryKey: ['settings'], queryFn: api.settings }).data?.pricing?.currency ?? '';
  const stock = material.stock ?? [];
  const change = (next: (stock: readonly StockedSheet[]) => readonly StockedSheet[]) =>
    void book.change((by, known) => {
      const now = known(material.id) ?? material;
      return api.changeMaterial(by, { ...now, stock: next(now.stock ?? []) });
    });
  const set = (id: string, part: Partial<StockedSheet>) => {
    change((all) => all.map((one) => (one.id === id ? { ...one, ...part } : one)));
    return undefined;
  };
  const add = () => {
    const { sheetWidth: width, sheetHeight: height } = material;
    change((all) => [...all, { id: crypto.randomUUID(), width, height, count: 1, price: null }]);
  };
  return (
    <section aria-label="Sheets in stock" className="mt-4">
      <div className="flex items-center gap-2">
        <h3 className="font-bold">Sheets in stock</h3>
        <Button look="quiet" onClick={add}>
          <Plus size={14} aria-hidden />
          Add a size
        </Button>
      </div>
      {stock.length === 0 ? (
        <p className="text-quiet">
          None are counted. With a size added, runs take their sheets from it, and the price can go by the sheet.
        </p>
      ) : (
        <ul className="flex flex-col gap-1.5">
          <li className={`${grid} text-quiet`} aria-hidden>
            {['Width', 'Height', 'Sheets', 'Price of one'].map((name) => (
              <span key={name}>{name}</span>
            ))}
          </li>
          {stock.map((sheet) => (
            <li key={sheet.id} aria-label={`${sheet.width} × ${sheet.height} mm`} className={grid}>
              <LengthField
                bare
                label="Width"
                unit="mm"
                value={sheet.width}
                takes="more-than-0"
                commit={(width) => set(sheet.id, { width })}
              />
              <LengthField
                bare
                label="Height"
                unit="mm"
                value={sheet.height}
                takes="more-than-0"
                commit={(height) => set(sheet.id, { height })}
              />
              <NumberField
                bare
                label="Sheets"
                layout="stack"
                value={sheet.count}
                least={0}
                most={100_000}
                whole
                commit={(count) => set(sheet.id, { count })}
              />
              <TypedField
                bare
                label="Price of one"
                unit={currency}
                text={sheet.price === null ? '' : sheet.price.toFixed(2)}
                parse={(text) =>
                  text.trim() === ''
                    ? { ok: true, value: Number.NaN }
                    : parsePlain(text, currency, 'Type an amount, or nothing to charge by the area.')
                }
                commit={(price) => {
                  if (price < 0 || price > 1_000_000) return 'From 0 to a million.';
                  return set(sheet.id, { price: Number.isNaN(price) ? null : price });
                }}
              />
              <span className="text-[12px] text-quiet">{sheet.offcut ? 'offcut' : 'whole'}</span>
              <IconButton
                label={`Take the size ${sheet.width} × ${sheet.height} mm out`}
                onClick={() => change((all) => all.filter(({ id }) => id !== sheet.id))}
              >
                <Trash2 size={14} aria-hidden />
              </IconButton>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
