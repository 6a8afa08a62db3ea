import type { BookTaken } from '@lambent/contracts';
import { gather } from '@lambent/core/lists';
import type { Material } from '@lambent/core/recipes';
import { useQueryClient } from '@tanstack/react-query';
import { Ban, Download, FileUp, Plus, Search } from 'lucide-react';
import { useMemo, useState } from 'react';
import { NavLink, useNavigate } from 'react-router';
import { toast } from 'sonner';
import { api, sentenceOf } from '../api.ts';
import { askWho } from '../stores/who.ts';
import { Button } from '../ui/button.tsx';
import { counted } from '../ui/counted.ts';
import { asLength } from '../ui/figures.ts';
import { FileButton } from '../ui/file-button.tsx';
import { Tick } from '../ui/tick.tsx';
import { t } from '../words/words.ts';
import type { BookHold } from './use-book.ts';

const others = t('Others');

/** Materials as the list shows them: by family, those of no family last. */
function byFamily(materials: readonly Material[], looked: string, archived: boolean): [string, Material[]][] {
  const words = looked.toLowerCase().split(/\s+/).filter(Boolean);
  const families = new Map<string, Material[]>();
  for (const material of materials) {
    if (material.archived && !archived) continue;
    const text =
      `${material.name} ${material.family ?? ''} ${material.thicknessMm} ${material.colour ?? ''}`.toLowerCase();
    if (!words.every((word) => text.includes(word))) continue;
    gather(families, material.family || others, material);
  }
  return [...families]
    .sort(([a], [b]) => Number(a === others) - Number(b === others) || a.localeCompare(b))
    .map(([family, members]) => [
      family,
      members.toSorted((a, b) => a.name.localeCompare(b.name) || a.thicknessMm - b.thicknessMm),
    ]);
}

/** The materials of the shop by family, to be looked through; a book can be brought in and taken out. */
export function MaterialList({
  materials,
  chosen,
  book,
}: {
  materials: readonly Material[];
  chosen: string | undefined;
  book: BookHold;
}) {
  const navigate = useNavigate();
  const [looked, setLooked] = useState('');
  const [archived, setArchived] = useState(false);
  const families = useMemo(() => byFamily(materials, looked, archived), [materials, looked, archived]);
  const make = async () => {
    const plain = { name: t('New material'), thicknessMm: 3, tone: '#D8CFBA', sheetWidth: 600, sheetHeight: 400 };
    const count = materials.filter(({ name }) => name.startsWith(plain.name)).length;
    const material = { ...plain, name: count === 0 ? plain.name : `${plain.name} ${count + 1}` };
    const made = await book.change((author) => api.addMaterial(author, material));
    if (made) navigate(`/book/${made.id}`);
  };
  return (
    <aside className="flex w-[260px] shrink-0 flex-col border-r border-line bg-paper" aria-label={t('Materials')}>
      <div className="px-4 pb-2 pt-4">
        <h1 className="text-[16px] font-bold">{t('Recipe book')}</h1>
        <p className="text-quiet">{t('What the shop has learnt, by material.')}</p>
        <label className="mt-2 flex h-8 items-center gap-2 rounded-lg border border-line bg-raised px-2 focus-within:border-petrol">
          <Search size={14} className="text-quiet" aria-hidden />
          <input
            aria-label={t('Look for a material')}
            placeholder={t('Name, family or thickness')}
            value={looked}
            onChange={(event) => setLooked(event.target.value)}
            className="min-w-0 flex-1 bg-transparent outline-none"
          />
        </label>
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto px-2">
        {families.length === 0 && <p className="px-2.5 py-2 text-quiet">{t('Nothing in the book is called that.')}</p>}
        {families.map(([family, members]) => (
          <section key={family} aria-label={family} className="mb-2">
            <h2 className="px-2.5 pb-0.5 pt-1 text-[12px] font-semibold text-quiet">{family}</h2>
            <ul>
              {members.map((material) => (
                <li key={material.id}>
                  <NavLink
                    to={`/book/${material.id}`}
                    aria-current={material.id === chosen ? 'page' : undefined}
                    className="flex items-center gap-2 rounded-lg px-2.5 py-1.5 hover:bg-table aria-[current=page]:bg-petrol-soft"
                  >
                    <span
                      className="size-3.5 shrink-0 rounded border border-line"
                      style={{ background: material.tone }}
                      aria-hidden
                    />
                    <span className={`min-w-0 flex-1 truncate ${material.archived ? 'text-quiet line-through' : ''}`}>
                      {material.name}
                    </span>
                    {material.forbidden && (
                      <Ban size={14} className="shrink-0 text-stop" aria-label={t('never to be lasered')} />
                    )}
                    <span className="figures shrink-0 text-[12px] text-quiet">{asLength(material.thicknessMm)}</span>
                  </NavLink>
                </li>
              ))}
            </ul>
          </section>
        ))}
      </div>
      <div className="flex flex-wrap gap-1.5 border-t border-line p-3">
        <Tick checked={archived} set={setArchived}>
          {t('Show what was put away')}
        </Tick>
        <Button onClick={() => void make()}>
          <Plus size={15} aria-hidden />
          {t('New material')}
        </Button>
        <TakeIn />
        {(['json', 'csv'] as const).map((kind) => (
          <a
            key={kind}
            href={`/api/book/recipe-book.${kind}`}
            download={`recipe-book.${kind}`}
            title={kind === 'json' ? t('The whole book as JSON') : t('The recipes as a table (CSV)')}
            className="inline-flex h-8 items-center gap-1.5 rounded-lg border border-line bg-raised px-3 hover:border-petrol"
          >
            <Download size={15} aria-hidden />
            {kind === 'json' ? 'JSON' : t('Table, CSV')}
          </a>
        ))}
      </div>
    </aside>
  );
}

interface Waiting {
  readonly file: File;
  readonly result: BookTaken;
}

/** Brings a book in; where lines cannot be taken, asks what is to become of the others. */
function TakeIn() {
  const queries = useQueryClient();
  const [waiting, setWaiting] = useState<Waiting | null>(null);
  const take = async (file: File, how: 'good' | 'all-or-nothing') => {
    const author = await askWho();
    if (author === null) return;
    try {
      const format = file.name.toLowerCase().endsWith('.csv') ? 'csv' : 'json';
      const result = await api.takeBookIn(author, format, how, file);
      if (!result.taken) {
        setWaiting({ file, result });
        return;
      }
      setWaiting(null);
      await Promise.all([
        queries.invalidateQueries({ queryKey: ['materials'] }),
        queries.invalidateQueries({ queryKey: ['book-history'] }),
      ]);
      toast.success(
        t('{{name}}: {{added}} added, {{changed}} changed, {{same}} as they were.', {
          name: file.name,
          added: result.added,
          changed: result.changed,
          same: result.same,
        }),
      );
    } catch (error) {
      toast.error(t('{{name}} was not taken. {{error}}', { name: file.name, error: sentenceOf(error) }), {
        duration: 12_000,
      });
    }
  };
  return (
    <>
      <FileButton
        accept=".json,.csv,application/json,text/csv"
        testId="book-file"
        take={(picked) => void take(picked, 'all-or-nothing')}
      >
        <FileUp size={15} aria-hidden />
        {t('From a file')}
      </FileButton>
      {waiting && (
        <section
          aria-label={t('Lines that cannot be taken')}
          className="w-full rounded-[10px] border border-warn bg-warn-soft p-2.5"
        >
          <p className="font-semibold">
            {t('{{name}}: {{lines}} cannot be taken. Nothing was changed.', {
              name: waiting.file.name,
              lines: counted(waiting.result.faults.length, 'line'),
            })}
          </p>
          <ul className="my-1.5 max-h-40 overflow-y-auto text-[12px]">
            {waiting.result.faults.map(({ line, sentence }) => (
              <li key={line}>
                <span className="figures font-semibold">{t('Line {{line}}:', { line })}</span> {sentence}
              </li>
            ))}
          </ul>
          <div className="flex flex-wrap gap-1.5">
            <Button onClick={() => void take(waiting.file, 'good')}>{t('Take the others')}</Button>
            <Button look="quiet" onClick={() => setWaiting(null)}>
              {t('Take nothing')}
            </Button>
          </div>
        </section>
      )}
    </>
  );
}
