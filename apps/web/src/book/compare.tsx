import type { Machine } from '@lambent/core/machine';
import { burntOperations, followsLines, operationOf } from '@lambent/core/operations';
import { type Material, type Recipe, relatedBurns } from '@lambent/core/recipes';
import { X } from 'lucide-react';
import { lazy, Suspense, useMemo, useState } from 'react';
import { Choice } from '../ui/choice.tsx';
import { asLength } from '../ui/figures.ts';
import { said, t } from '../words/words.ts';
import { SideBySide } from './side-by-side.tsx';

// The chart's library is large, and not needed before one looks at a chart.
const EnergyChart = lazy(() => import('./energy-chart.tsx'));

interface Props {
  material: Material;
  materials: readonly Material[];
  machines: readonly Machine[];
}

/** The recipes of a material side by side with those of its family, and of others that are chosen, on all machines. */
export function Compare({ material, materials, machines }: Props) {
  const [operation, setOperation] = useState<Recipe['operation']>('cut');
  const [others, setOthers] = useState<readonly string[]>([]);
  const burns = useMemo(() => {
    const book = { materials, machines };
    const family = relatedBurns(book, material, operation);
    const known = new Set(family.map((burn) => burn.material));
    const chosen = materials.filter((entry) => others.includes(entry.id) && !known.has(entry));
    return [...family, ...chosen.flatMap((entry) => relatedBurns({ ...book, materials: [entry] }, entry, operation))];
  }, [material, materials, machines, operation, others]);
  return (
    <section aria-label={t('Compared')} className="mt-5 rounded-[10px] border border-line bg-paper p-4">
      <div className="mb-2 flex flex-wrap items-center gap-2">
        <h3 className="font-bold">
          {t('Compared with its family{{family}}', { family: material.family ? `: ${material.family}` : '' })}
        </h3>
        <Choice
          label={t('Compared for')}
          look="chip"
          value={operation}
          options={burntOperations.map((burntOperation) => ({
            value: burntOperation,
            text: said(operationOf(burntOperation).plural),
          }))}
          choose={setOperation}
        />
        <Choice
          label={t('Compare another material')}
          look="chip"
          value={null}
          empty={t('And with…')}
          options={materials
            .filter(
              ({ id, archived, forbidden }) => id !== material.id && !archived && !forbidden && !others.includes(id),
            )
            .map(({ id, name, thicknessMm }) => ({ value: id, text: name, aside: asLength(thicknessMm) }))}
          choose={(id) => setOthers([...others, id])}
        />
        {others.map((id) => (
          <button
            key={id}
            type="button"
            aria-label={t('Leave {{name}} out', { name: materials.find((entry) => entry.id === id)?.name ?? id })}
            onClick={() => setOthers(others.filter((other) => other !== id))}
            className="flex h-7 items-center gap-1 rounded-lg border border-line bg-table px-2 hover:border-petrol"
          >
            {materials.find((entry) => entry.id === id)?.name ?? id}
            <X size={12} aria-hidden />
          </button>
        ))}
      </div>
      {followsLines(operation) && (
        <>
          <Suspense fallback={<p className="h-[280px] text-quiet">{t('Drawing…')}</p>}>
            <EnergyChart material={material} burns={burns} machines={machines} />
          </Suspense>
          <p className="mb-2 text-[12px] text-quiet">{t('Along a dashed line the energy per length is one.')}</p>
        </>
      )}
      <SideBySide burns={burns} chosen={material} />
    </section>
  );
}
