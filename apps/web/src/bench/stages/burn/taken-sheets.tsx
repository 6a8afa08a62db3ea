import type { RunAnswer, TakenSheet } from '@lambent/contracts';
import { boundsOfAll, sheetUnder } from '@lambent/core/document';
import { isEmpty } from '@lambent/core/geometry';
import { offcutLeft } from '@lambent/core/recipes';
import { formatLength } from '@lambent/core/units';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { api, sentenceOf } from '../../../api.ts';
import { takeRun } from '../../../stores/live.ts';
import { Button } from '../../../ui/button.tsx';
import { LengthField } from '../../../ui/length-field.tsx';
import { useBench, useBenchActions } from '../../context.ts';
import type { BenchState } from '../../state/bench-state.ts';
import { jobOf, unitOf } from '../../state/document.ts';
import { ByField, useWitness } from '../keep-figure.tsx';

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
  const [{ by }, setWitness] = useWitness('measured');
  const said = (width: number, height: number) =>
    `${formatLength(width, unit, { bare: true })} × ${formatLength(height, unit)}`;
  const name = material?.name ?? 'a material that is gone';
  const kept = sheet.keptOffcut;
  const { width, height } = size ?? { width: sheet.width, height: sheet.height / 2 };
  const send = async (ask: () => Promise<RunAnswer>) => {
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
  const who = { by: by.trim(), sheetId: sheet.sheetId };
  return (
    <div className="mt-1 border-t border-line pt-1 text-[12px]" data-testid="taken-sheet">
      <p>
        {sheet.putBack ? 'Put back into stock: ' : `Taken from stock: ${sheet.offcut ? 'an offcut' : 'a sheet'} of `}
        {name.toLowerCase()}, <span className="figures">{said(sheet.width, sheet.height)}</span>
        {kept && (
          <>
            ; offcut kept, <span className="figures">{said(kept.width, kept.height)}</span>
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
              title="It was not used up after all"
            >
              put it back
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
              keep the offcut
            </button>
          )}
        </p>
      ) : (
        <div className="mt-1 flex flex-col gap-1.5 text-[13px]">
          {doing === 'offcut' && (
            <div className="grid grid-cols-2 gap-1.5">
              <LengthField
                label="Offcut’s width"
                unit={unit}
                value={width}
                takes="more-than-0"
                commit={(mm) => setSize({ width: mm, height })}
              />
              <LengthField
                label="Its height"
                unit={unit}
                value={height}
                takes="more-than-0"
                commit={(mm) => setSize({ width, height: mm })}
              />
            </div>
          )}
          <ByField label="You are" by={by} set={(value) => setWitness({ by: value })} />
          <div className="flex gap-1.5">
            <Button
              disabled={who.by === ''}
              onClick={() =>
                void send(() =>
                  doing === 'offcut'
                    ? api.keepOffcut(run.id, { ...who, width, height })
                    : api.putSheetBack(run.id, who),
                )
              }
            >
              {doing === 'offcut' ? 'Keep the offcut' : 'Put it back'}
            </Button>
            <Button look="quiet" onClick={() => setDoing(null)}>
              Never mind
            </Button>
          </div>
        </div>
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
