import type { RunAnswer, TakenSheet } from '@lambent/contracts';
import { boundsOfAll, sheetUnder } from '@lambent/core/document';
import { isEmpty } from '@lambent/core/geometry';
import { offcutLeft } from '@lambent/core/recipes';
import { useQueryClient } from '@tanstack/react-query';
import { lazy, Suspense, useState } from 'react';
import { toast } from 'sonner';
import { api, sentenceOf } from '../../../../api.ts';
import { takeRun } from '../../../../stores/live.ts';
import { setWho } from '../../../../stores/who.ts';
import { formatLength } from '../../../../ui/figures.ts';
import { lowered, t } from '../../../../words/words.ts';
import { useBench, useBenchActions } from '../../../context.ts';
import type { BenchState } from '../../../state/bench-state.ts';
import { jobOf, unitOf } from '../../../state/document.ts';

const TakenForm = lazy(() => import('./taken-form.tsx'));

/** The sheets that a run took from stock: put back, or what is left of them kept. */
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
  const [size, setSize] = useState<{ width: number; height: number } | null>(null);
  const said = (width: number, height: number) =>
    `${formatLength(width, unit, { bare: true })} × ${formatLength(height, unit)}`;
  const name = material?.name ?? t('a material that is gone');
  const kept = sheet.keptOffcut;
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
          : t('Taken from stock: {{offcut}} of ', { offcut: sheet.offcut ? t('an offcut') : t('a sheet') })}
        {lowered(name)}, <span className="figures">{said(sheet.width, sheet.height)}</span>
        {kept && (
          <>
            {t('; offcut kept,')} <span className="figures">{said(kept.width, kept.height)}</span>
          </>
        )}
      </p>
      {doing === null ? (
        <p className="flex gap-3">
          {!sheet.putBack && (
            <button
              type="button"
              className="font-semibold text-petrol underline"
              onClick={() => setDoing('put-back')}
              title={t('It was not used up after all')}
            >
              {t('put it back')}
            </button>
          )}
          {!kept && !sheet.putBack && (
            <button
              type="button"
              className="font-semibold text-petrol underline"
              onClick={() => {
                setSize(leftOf(actions.get(), sheet));
                setDoing('offcut');
              }}
            >
              {t('keep the offcut')}
            </button>
          )}
        </p>
      ) : (
        <Suspense>
          <TakenForm
            doing={doing}
            sheet={sheet}
            left={size}
            send={(author, ask) => void send(author, ask)}
            runId={run.id}
            leave={() => setDoing(null)}
          />
        </Suspense>
      )}
    </div>
  );
}

/** What is likely to be left of a sheet, beside everything that burns on it in any run; null where that is hardly anything. */
function leftOf(state: BenchState, { sheetId }: TakenSheet): { width: number; height: number } | null {
  const job = jobOf(state);
  const sheet = job.sheets.find(({ id }) => id === sheetId);
  if (!sheet || sheet.angle) return null;
  const burnt = new Set(state.prepared.layers.filter(({ burns }) => burns).map(({ layer }) => layer.id));
  const items = [...state.prepared.meaning.placed]
    .filter(([layerId]) => burnt.has(layerId))
    .flatMap(([, placed]) => placed.map(({ item }) => item))
    .filter((item) => sheetUnder(job.sheets, item) === sheet);
  const bounds = boundsOfAll(items);
  return isEmpty(bounds) ? null : offcutLeft(sheet, bounds);
}
