import { burntOperations, fillsAreas, operationOf, separates } from '@lambent/core/operations';
import type { Material } from '@lambent/core/recipes';
import { useState } from 'react';
import { api } from '../api.ts';
import { Button } from '../ui/button.tsx';
import { LengthField } from '../ui/length-field.tsx';
import { Tick } from '../ui/tick.tsx';
import { lowered, said, t } from '../words/words.ts';
import type { BookHold } from './use-book.ts';

/** What a material is: changed where it stands. */
export function MaterialFacts({ material, book }: { material: Material; book: BookHold }) {
  const change = (part: Partial<Material>) =>
    void book.change((author, known) => api.changeMaterial(author, { ...(known(material.id) ?? material), ...part }));
  const length = (label: string, field: 'thicknessMm' | 'measuredMm' | 'sheetWidth' | 'sheetHeight') => (
    <LengthField
      label={label}
      unit="mm"
      value={material[field] ?? material.thicknessMm}
      takes="more-than-0"
      commit={(mm) => change({ [field]: mm })}
    />
  );
  return (
    <section aria-label={t('What it is')} className="flex flex-col gap-2">
      <div className="grid grid-cols-4 gap-x-3 gap-y-2">
        <Words label={t('Name')} value={material.name} commit={(name) => name !== '' && change({ name })} />
        <Words label={t('Family')} value={material.family ?? ''} commit={(family) => change({ family })} />
        {length(t('Thickness'), 'thicknessMm')}
        {length(t('Measured'), 'measuredMm')}
        <Words label={t('Colour')} value={material.colour ?? ''} commit={(colour) => change({ colour })} />
        <Words label={t('Finish')} value={material.finish ?? ''} commit={(finish) => change({ finish })} />
        {length(t('Sheet width'), 'sheetWidth')}
        {length(t('Sheet height'), 'sheetHeight')}
      </div>
      <div className="grid grid-cols-2 gap-x-3">
        <Words label={t('Notes')} value={material.notes ?? ''} commit={(notes) => change({ notes })} />
        <Words
          label={t('Never to be lasered, because')}
          value={material.forbidden ?? ''}
          commit={(why) => change({ forbidden: why === '' ? null : why })}
        />
      </div>
      <LeastSizes material={material} change={change} />
      <div className="flex items-center gap-4">
        <Tick checked={material.isClear ?? false} set={(isClear) => change({ isClear })}>
          {t('Transparent')}
        </Tick>
        <Tick checked={material.turnsLighter ?? false} set={(turnsLighter) => change({ turnsLighter })}>
          {t('Turns lighter where it burns')}
        </Tick>
        <Tick checked={material.masked ?? false} set={(masked) => change({ masked })}>
          {t('Covered by a film')}
        </Tick>
        <Button look="quiet" onClick={() => change({ archived: !material.archived })}>
          {material.archived ? t('Bring it back') : t('Put it away')}
        </Button>
      </div>
    </section>
  );
}

/** What is fine enough to be warned of, by operation; 0 where nobody knows. */
function LeastSizes({ material, change }: { material: Material; change: (part: Partial<Material>) => void }) {
  return (
    <details>
      <summary className="cursor-pointer text-quiet">
        {t('Least sizes that hold{{leastSizes}}', { leastSizes: material.leastSizes ? '' : t(', not known yet') })}
      </summary>
      <div className="mt-2 grid grid-cols-4 gap-x-3 gap-y-2">
        {burntOperations.flatMap((operation) => {
          const known = material.leastSizes?.[operation] ?? { detailMm: 0, letterMm: 0 };
          const name = lowered(said(operationOf(operation).name));
          const field = (label: string, size: 'detailMm' | 'letterMm') => (
            <LengthField
              key={`${operation} ${size}`}
              label={`${label}, ${name}`}
              unit="mm"
              value={known[size]}
              takes="not-below-0"
              commit={(mm) => change({ leastSizes: { ...material.leastSizes, [operation]: { ...known, [size]: mm } } })}
            />
          );
          const detail = separates(operation) ? t('Walls') : fillsAreas(operation) ? t('Lines') : null;
          return [...(detail ? [field(detail, 'detailMm')] : []), field(t('Capitals'), 'letterMm')];
        })}
      </div>
    </details>
  );
}

/** A line of words: Enter and leaving it commit, Escape restores. */
export function Words({ label, value, commit }: { label: string; value: string; commit: (words: string) => void }) {
  const [draft, setDraft] = useState<string | null>(null);
  const settle = () => {
    const words = draft?.trim();
    setDraft(null);
    if (words !== undefined && words !== value) commit(words);
  };
  return (
    <label className="flex min-w-0 flex-col gap-1">
      <span className="text-quiet">{label}</span>
      <input
        value={draft ?? value}
        maxLength={300}
        onChange={(event) => setDraft(event.target.value)}
        onBlur={settle}
        onKeyDown={(event) => {
          if (event.key === 'Enter') event.currentTarget.blur();
          if (event.key === 'Escape') setDraft(null);
        }}
        className="h-8 min-w-0 rounded-lg border border-line bg-raised px-2"
      />
    </label>
  );
}
