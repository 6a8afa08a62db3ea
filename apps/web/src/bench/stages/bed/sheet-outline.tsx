import type { JobDocument, Sheet } from '@lambent/core/document';
import { blockPlaces, outlineSheet, outlinesAmong, straightenSheet, unblockPlaces } from '@lambent/core/edits';
import { Button } from '../../../ui/button.tsx';
import { t } from '../../../words/words.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { jobOf } from '../../state/document.ts';

/** The outline of a sheet, and places on it where nothing may burn: taken from what is drawn and selected. */
export function SheetOutline({ sheet }: { sheet: Sheet }) {
  const actions = useBenchActions();
  const selection = useBench((state) => state.selection);
  const count = useBench((state) => outlinesAmong(jobOf(state), state.selection).length);
  const { id, outline, blocked } = sheet;
  const edit = (name: string, change: (job: JobDocument) => JobDocument) => actions.edit(name, change);
  return (
    <div className="mt-1 flex flex-col gap-1.5">
      <p className="text-[12px] text-quiet">
        {count === 0
          ? t('Draw and select closed outlines to give the sheet their shape, or to block places of it.')
          : t('The selected outlines leave the drawing and go to the sheet.')}
      </p>
      <div className="flex flex-wrap gap-1.5">
        <Button
          disabled={count === 0}
          onClick={() => edit(t('outline of the sheet'), (job) => outlineSheet(job, id, selection))}
        >
          {t('Give it this outline')}
        </Button>
        <Button
          disabled={count === 0}
          onClick={() => edit(t('block places'), (job) => blockPlaces(job, id, selection))}
        >
          {t('Block these places')}
        </Button>
      </div>
      {(outline || blocked) && (
        <div className="flex flex-wrap gap-1.5">
          {outline && (
            <Button look="quiet" onClick={() => edit(t('straight sheet'), (job) => straightenSheet(job, id))}>
              {t('Make it a rectangle')}
            </Button>
          )}
          {blocked && (
            <Button look="quiet" onClick={() => edit(t('unblock places'), (job) => unblockPlaces(job, id))}>
              {blocked.length === 1 ? t('Unblock 1 place') : t('Unblock {{count}} places', { count: blocked.length })}
            </Button>
          )}
        </div>
      )}
    </div>
  );
}
