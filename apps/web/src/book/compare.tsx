import { type Machine, wattsOf } from '@lambent/core/machine';
import { burntOperations, fillsAreas, followsLines, operationOf } from '@lambent/core/operations';
import { type Burn, energyPerMm, type Material, type Recipe, relatedBurns } from '@lambent/core/recipes';
import { formatSpeed } from '@lambent/core/units';
import { X } from 'lucide-react';
import { lazy, Suspense, useMemo, useState } from 'react';
import { useSpeedUnit } from '../stores/speed-unit.ts';
import { Choice } from '../ui/choice.tsx';

// The chart's library is large, and not needed before one looks at a chart.
const EnergyChart = lazy(() => import('./energy-chart.tsx'));

interface Props {
  material: Material;
  materials: readonly Material[];
  machines: readonly Machine[];
}

/** More recipes than this are not told apart by looking at them. */
const mostRows = 60;

/** The recipes of a material side by side with those of its family, and of others that are chosen, on all machines. */
export function Compare({ material, materials, machines }: Props) {
  const [operation, setOperation] = useState<Recipe['operation']>('cut');
  const [others, setOthers] = useState<readonly string[]>([]);
  const burns = useMemo(() => {
    const book = { materials, machines };
    const family = relatedBurns(book, material, operation);
    const known = new Set(family.map((burn) => burn.material));
    const chosen = materials.filter((one) => others.includes(one.id) && !known.has(one));
    return [...family, ...chosen.flatMap((one) => relatedBurns({ ...book, materials: [one] }, one, operation))];
  }, [material, materials, machines, operation, others]);
  return (
    <section aria-label="Compared" className="mt-5 rounded-[10px] border border-line bg-paper p-4">
      <div className="mb-2 flex flex-wrap items-center gap-2">
        <h3 className="font-bold">Compared with its family{material.family ? `: ${material.family}` : ''}</h3>
        <Choice
          label="Compared for"
          look="chip"
          value={operation}
          options={burntOperations.map((one) => ({ value: one, text: operationOf(one).plural }))}
          choose={setOperation}
        />
        <Choice
          label="Compare another material"
          look="chip"
          value={null}
          empty="And with…"
          options={materials
            .filter(
              ({ id, archived, forbidden }) => id !== material.id && !archived && !forbidden && !others.includes(id),
            )
            .map(({ id, name, thicknessMm }) => ({ value: id, text: name, aside: `${thicknessMm} mm` }))}
          choose={(id) => setOthers([...others, id])}
        />
        {others.map((id) => (
          <button
            key={id}
            type="button"
            aria-label={`Leave ${materials.find((one) => one.id === id)?.name ?? id} out`}
            onClick={() => setOthers(others.filter((one) => one !== id))}
            className="flex h-7 items-center gap-1 rounded-lg border border-line bg-table px-2 hover:border-petrol"
          >
            {materials.find((one) => one.id === id)?.name ?? id}
            <X size={12} aria-hidden />
          </button>
        ))}
      </div>
      {followsLines(operation) && (
        <>
          <Suspense fallback={<p className="h-[280px] text-quiet">Drawing…</p>}>
            <EnergyChart material={material} burns={burns} machines={machines} />
          </Suspense>
          <p className="mb-2 text-[12px] text-quiet">Along a dashed line the energy per length is one.</p>
        </>
      )}
      <SideBySide burns={burns} chosen={material} />
    </section>
  );
}

/** Recipes in a table, the thinnest stock first, each value under the other. */
function SideBySide({ burns, chosen }: { burns: readonly Burn[]; chosen: Material }) {
  const speedUnit = useSpeedUnit();
  const sorted = burns.toSorted(
    (a, b) =>
      a.material.thicknessMm - b.material.thicknessMm ||
      a.material.name.localeCompare(b.material.name) ||
      a.machine.name.localeCompare(b.machine.name),
  );
  if (sorted.length === 0) return null;
  const engraved = fillsAreas(sorted[0].recipe.operation);
  const heads = ['Material', 'Machine', 'Power', 'Speed', 'Passes', engraved ? 'Lines' : 'Kerf', 'Energy', 'Known as'];
  return (
    <table className="w-full border-collapse text-left" aria-label="Recipes side by side">
      <thead>
        <tr className="text-[12px] text-quiet">
          {heads.map((name) => (
            <th key={name} scope="col" className="px-1.5 py-1 font-normal">
              {name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody className="figures text-[12.5px]">
        {sorted.slice(0, mostRows).map(({ material, machine, recipe }) => {
          const energy = energyPerMm(recipe, wattsOf(machine));
          const across = engraved ? recipe.lineSpacingMm : recipe.kerfMm;
          return (
            <tr
              key={`${material.id} ${recipe.id}`}
              className={`border-t border-line [&>td]:px-1.5 [&>td]:py-1 ${material === chosen ? 'bg-petrol-soft' : ''}`}
            >
              <td className="font-sans">
                {material.name} <span className="figures">{material.thicknessMm} mm</span>
                {recipe.variant ? `, ${recipe.variant}` : ''}
              </td>
              <td className="font-sans">{machine.name}</td>
              <td>{recipe.powerPercent} %</td>
              <td>{formatSpeed(recipe.speedMmPerS, speedUnit, machine.topSpeed)}</td>
              <td>{recipe.passes}</td>
              <td>{across ? `${across} mm` : '–'}</td>
              <td>{energy === null ? '' : `${Number(energy.toPrecision(3))} ${engraved ? 'J/mm²' : 'J/mm'}`}</td>
              <td className="font-sans">{recipe.evidence}</td>
            </tr>
          );
        })}
      </tbody>
      {sorted.length > mostRows && (
        <caption className="caption-bottom pt-1 text-left text-[12px] text-quiet">
          {sorted.length - mostRows} more are in the chart only.
        </caption>
      )}
    </table>
  );
}
