import { betterKey } from '@lambent/core/colours';
import { setKey } from '@lambent/core/edits';
import { useMemo } from 'react';
import { Button } from '../../ui/button.tsx';
import { Notice } from '../../ui/notice.tsx';
import { t } from '../../words/words.ts';
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
    <Notice
      level="notes"
      title={all ? t('All {{paints}} colours mean something in “{{name}}”', { paints, name: fit.key.name }) : undefined}
    >
      {!all && (
        <p>
          {t('{{meant}} of {{paints}} colours mean something in “{{name}}”.', { meant, paints, name: fit.key.name })}
        </p>
      )}
      <p className="text-quiet">{t('The job goes by “{{name}}”, where fewer do.', { name: key.name })}</p>
      <Button
        className="mt-2"
        onClick={() => actions.edit(t('colour key {{name}}', { name: fit.key.name }), (job) => setKey(job, fit.key.id))}
      >
        {t('Use “{{name}}”', { name: fit.key.name })}
      </Button>
    </Notice>
  );
}
