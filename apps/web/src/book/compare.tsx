import type { Machine, Material } from '@lambent/core';
import { lazy, Suspense, useState } from 'react';
import { Choice } from '../ui/choice.tsx';

// The chart's library is large, and not needed before one looks at a chart.
const EnergyChart = lazy(() => import('./energy-chart.tsx'));

/** The recipes of a material beside those of its family, on all machines. */
export function Compare({
  material,
  materials,
  machines,
}: {
  material: Material;
  materials: readonly Material[];
  machines: readonly Machine[];
}) {
  const [operation, setOperation] = useState<'cut' | 'score'>('cut');
  return (
    <section aria-label="Compared" className="mt-5 rounded-[10px] border border-line bg-paper p-4">
      <div className="mb-2 flex items-center gap-3">
        <h3 className="font-bold">Compared with its family{material.family ? `: ${material.family}` : ''}</h3>
        <Choice
          label="Compared for"
          look="chip"
          value={operation}
          options={[
            { value: 'cut' as const, text: 'Cuts' },
            { value: 'score' as const, text: 'Scores' },
          ]}
          choose={setOperation}
        />
        <span className="text-[12px] text-quiet">Along a dashed line the energy per length is one.</span>
      </div>
      <Suspense fallback={<p className="h-[280px] text-quiet">Drawing…</p>}>
        <EnergyChart material={material} materials={materials} machines={machines} operation={operation} />
      </Suspense>
    </section>
  );
}
