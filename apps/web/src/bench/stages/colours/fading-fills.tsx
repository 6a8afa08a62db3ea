import { fadingEngraved } from '@lambent/core/colours';
import { pinItems } from '@lambent/core/edits';
import { burnsPictures } from '@lambent/core/operations';
import { useMemo } from 'react';
import { Button } from '../../../ui/button.tsx';
import { Notice } from '../../../ui/notice.tsx';
import { t } from '../../../words/words.ts';
import { showItems } from '../../bed/showing.ts';
import { useBench, useBenchActions } from '../../context.ts';

/** Fills that fade and are engraved all over alike, and the way to burn their greys. */
export function FadingFills() {
  const actions = useBenchActions();
  const meaning = useBench((state) => state.prepared.meaning);
  const items = useMemo(() => fadingEngraved(meaning), [meaning]);
  const photo = meaning.layers.find(({ operation }) => burnsPictures(operation));
  if (items.length === 0) return null;
  const ids = items.map(({ id }) => id);
  const isOne = ids.length === 1;
  return (
    <Notice level="warns" title={isOne ? t('One fill fades') : t('{{ids}} fills fade', { ids: ids.length })}>
      <p>
        {t(
          isOne
            ? 'It fades or can be seen through, and is engraved all over alike. On Photo its greys burn.'
            : 'They fade or can be seen through, and are engraved all over alike. On Photo their greys burn.',
        )}
      </p>
      <div className="mt-2 flex gap-1.5">
        {photo && (
          <Button
            onClick={() =>
              actions.edit(t('put on {{name}}', { name: photo.name }), (job) => pinItems(job, new Set(ids), photo.id))
            }
          >
            {t(isOne ? 'Burn its greys' : 'Burn their greys')}
          </Button>
        )}
        <Button look="quiet" onClick={() => showItems(actions, ids)}>
          {t(isOne ? 'Show it' : 'Show them')}
        </Button>
      </div>
    </Notice>
  );
}
