import type { RunAnswer, TakenSheet } from '@lambent/contracts';
import { useQueryClient } from '@tanstack/react-query';
import { Fragment, lazy, Suspense, useState } from 'react';
import { toast } from 'sonner';
import { api, sentenceOf } from '../../../../api.ts';
import { takeRun } from '../../../../stores/live.ts';
import { setWho } from '../../../../stores/who.ts';
import { formatLength } from '../../../../ui/figures.ts';
import { OutlinePicture } from '../../../../ui/outline-picture.tsx';
import { lowered, t } from '../../../../words/words.ts';
import { useBench, useBenchActions } from '../../../context.ts';
import { unitOf } from '../../../state/document.ts';

const TakenForm = lazy(() => import('./taken-form.tsx'));

/** The sheets that a run burnt on: put back into stock where they came from it, or what is left of them kept. */
export function TakenSheets({ run }: { run: RunAnswer }) {
  return (
    <>
      {run.taken.map((sheet) => (
        <Taken key={sheet.sheetId} run={run} sheet={sheet} />
      ))}
    </>
  );
}

function Taken({ run, sheet }: { run: RunAnswer; sheet: TakenSheet }) {
  const actions = useBenchActions();
  const queries = useQueryClient();
  const unit = useBench(unitOf);
  const material = useBench((state) => state.shop.materials.find(({ id }) => id === sheet.materialId));
  const [doing, setDoing] = useState<'put-back' | 'offcut' | null>(null);
  const said = (width: number, height: number) =>
    `${formatLength(width, unit, { bare: true })} × ${formatLength(height, unit)}`;
  const name = material?.name ?? t('a material that is gone');
  const kept = sheet.keptOffcuts ?? [];
  const send = async (author: string, ask: () => Promise<RunAnswer>) => {
    setWho(author);
    try {
      takeRun(await ask());
      setDoing(null);
      // The book has another count of sheets now.
      const materials = await api.materials();
      actions.takeShop({ ...actions.get().shop, materials });
      queries.setQueryData(['materials'], materials);
    } catch (error) {
      toast.error(sentenceOf(error));
    }
  };
  return (
    <div className="mt-1 border-t border-line pt-1 text-[12px]" data-testid="taken-sheet">
      <p>
        {sheet.putBack
          ? t('Put back into stock: ')
          : sheet.stockId === null
            ? t('Burnt on a sheet of ')
            : t('Taken from stock: {{offcut}} of ', { offcut: sheet.offcut ? t('an offcut') : t('a sheet') })}
        {lowered(name)}, <span className="figures">{said(sheet.width, sheet.height)}</span>
        {kept.map((offcut, i) => (
          <Fragment key={i}>
            {t('; offcut kept,')} <span className="figures">{said(offcut.width, offcut.height)}</span>
            {offcut.outline && (
              <OutlinePicture shape={{ ...offcut, outline: offcut.outline }} className="ml-1 inline-block h-6 w-8" />
            )}
          </Fragment>
        ))}
      </p>
      {doing === null ? (
        <p className="flex gap-3">
          {!sheet.putBack && sheet.stockId !== null && (
            <button
              type="button"
              className="font-semibold text-petrol underline"
              onClick={() => setDoing('put-back')}
              title={t('It was not used up after all')}
            >
              {t('put it back')}
            </button>
          )}
          {!sheet.putBack && (
            <button type="button" className="font-semibold text-petrol underline" onClick={() => setDoing('offcut')}>
              {kept.length === 0 ? t('keep the offcut') : t('keep another offcut')}
            </button>
          )}
        </p>
      ) : (
        <Suspense>
          <TakenForm
            doing={doing}
            sheet={sheet}
            send={(author, ask) => void send(author, ask)}
            runId={run.id}
            leave={() => setDoing(null)}
          />
        </Suspense>
      )}
    </div>
  );
}
