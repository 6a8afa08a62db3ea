import { fadingEngraved } from '@lambent/core/colours';
import { pinItems } from '@lambent/core/edits';
import { burnsPictures } from '@lambent/core/operations';
import { useMemo } from 'react';
import { Button } from '../../../ui/button.tsx';
import { Notice } from '../../../ui/notice.tsx';
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
    <Notice level="warns" title={isOne ? 'One fill fades' : `${ids.length} fills fade`}>
      <p>
        {isOne ? 'It fades or can be seen through, and is' : 'They fade or can be seen through, and are'} engraved all
        over alike. On Photo {isOne ? 'its' : 'their'} greys burn.
      </p>
      <div className="mt-2 flex gap-1.5">
        {photo && (
          <Button onClick={() => actions.edit(`put on ${photo.name}`, (job) => pinItems(job, new Set(ids), photo.id))}>
            Burn {isOne ? 'its' : 'their'} greys
          </Button>
        )}
        <Button look="quiet" onClick={() => showItems(actions, ids)}>
          Show {isOne ? 'it' : 'them'}
        </Button>
      </div>
    </Notice>
  );
}
