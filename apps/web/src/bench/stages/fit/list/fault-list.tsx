import { useState } from 'react';
import { Button } from '../../../../ui/button.tsx';
import { Notice } from '../../../../ui/notice.tsx';
import { t } from '../../../../words/words.ts';

/** So many are listed before one asks for more. */
const shownAtFirst = 4;

interface Fault {
  readonly words: string;
  /** Leads to where it is; null where there is no such way. */
  readonly go: (() => void) | null;
}

/** What is not as it should be in a list, row by row. */
export function FaultList({ label, faults }: { label: string; faults: readonly Fault[] }) {
  const [all, setAll] = useState(false);
  if (faults.length === 0) return null;
  const shown = all ? faults : faults.slice(0, shownAtFirst);
  return (
    <Notice level="warns" title={label}>
      <ul className="flex max-h-48 flex-col gap-0.5 overflow-y-auto text-[12.5px]" aria-label={label}>
        {shown.map(({ words, go }, i) => (
          <li key={i}>
            {go ? (
              <button type="button" className="text-left underline-offset-2 hover:underline" onClick={go}>
                {words}
              </button>
            ) : (
              words
            )}
          </li>
        ))}
      </ul>
      {faults.length > shownAtFirst && (
        <Button look="quiet" onClick={() => setAll(!all)}>
          {all ? t('Show fewer') : t('All {{count}}', { count: faults.length })}
        </Button>
      )}
    </Notice>
  );
}
