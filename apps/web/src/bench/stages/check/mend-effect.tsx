import { type Mend, mended } from '@lambent/core/mends';
import { countPieces } from '@lambent/core/plan';
import { formatClock } from '@lambent/core/units';
import { useEffect, useState } from 'react';
import { t } from '../../../words/words.ts';
import type { RunExtent } from '../../../workers/files-work.ts';
import { work } from '../../../workers/work.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { jobOf } from '../../state/document.ts';
import { pieceSizesOf, planOf } from '../../state/plan.ts';
import { choiceOf } from '../burn/run-choice.ts';

/** Jobs of more items are not planned anew for every button that the pointer passes. */
const mostItems = 2000;

/** What a mend would change of the run, while its button is pointed at: pieces and time, and how much more or less. */
export function MendEffect({ mend }: { mend: Mend }) {
  const actions = useBenchActions();
  const [then, setThen] = useState<RunExtent | null>(null);
  const timeS = useBench((state) => planOf(state)?.timeS ?? null);
  const sizes = useBench(pieceSizesOf);
  const { pieces } = countPieces(sizes ?? []);
  useEffect(() => {
    const state = actions.get();
    const job = jobOf(state);
    setThen(null);
    if (job.drawing.items.length > mostItems) return;
    const asked = new AbortController();
    work('runExtent', [mended(job, mend), state.shop, choiceOf(state)], { signal: asked.signal })
      .then((extent) => {
        if (!asked.signal.aborted) setThen(extent);
      })
      // What cannot be planned says nothing here; the checks say why.
      .catch(() => undefined);
    return () => asked.abort();
  }, [actions, mend]);
  // Where nothing burns as yet, there is nothing to compare.
  if (!then || timeS === null || (then.timeS === 0 && timeS === 0)) return null;
  return (
    <p role="status" className="figures w-full pt-1 text-[12px]">
      {then.pieces} {then.pieces === 1 ? t('piece') : t('pieces')}
      {more(then.pieces - pieces, String)} · {formatClock(then.timeS)}
      {more(Math.round(then.timeS) - Math.round(timeS), formatClock)}
    </p>
  );
}

/** Such as ` (+2)` or ` (−0:04)`; nothing where it stays the same. */
function more(difference: number, say: (value: number) => string): string {
  if (difference === 0) return '';
  return ` (${difference > 0 ? '+' : '−'}${say(Math.abs(difference))})`;
}
