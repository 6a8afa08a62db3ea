import { betterKey } from '@lambent/core/colours';
import { setKey } from '@lambent/core/edits';
import { useMemo } from 'react';
import { Button } from '../../ui/button.tsx';
import { Notice } from '../../ui/notice.tsx';
import { useBench, useBenchActions } from '../context.ts';
import type { Arriving } from '../state/arriving.ts';
import { isDrawn } from '../state/document.ts';

/** Offers the colour key that fits what arrives better than the job's own, while nothing else is in the job. */
export function KeyOffer({ arriving }: { arriving: Arriving }) {
  const actions = useBenchActions();
  const { key } = useBench((state) => state.prepared);
  const { keys } = useBench((state) => state.shop);
  const drawn = useBench(isDrawn);
  const { items } = arriving.reading.drawing;
  const fit = useMemo(() => betterKey(items, keys, key), [items, keys, key]);
  if (!fit || drawn) return null;
  const { meant, paints } = fit;
  const all = meant === paints;
  return (
    <Notice level="notes" title={all ? `All ${paints} colours mean something in “${fit.key.name}”` : undefined}>
      {!all && (
        <p>
          {meant} of {paints} colours mean something in “{fit.key.name}”.
        </p>
      )}
      <p className="text-quiet">The job goes by “{key.name}”, where fewer do.</p>
      <Button
        className="mt-2"
        onClick={() => actions.edit(`colour key ${fit.key.name}`, (job) => setKey(job, fit.key.id))}
      >
        Use “{fit.key.name}”
      </Button>
    </Notice>
  );
}
