import { wattsOf } from '@lambent/core/machine';
import { fillsAreas } from '@lambent/core/operations';
import { type Burn, energyPerMm, type Material } from '@lambent/core/recipes';
import { createColumnHelper } from '@tanstack/react-table';
import { useMemo } from 'react';
import { useSpeedUnit } from '../stores/speed-unit.ts';
import { type CellOf, DataTable, type tableParts } from '../ui/data-table.tsx';
import { asLength, formatSpeed } from '../ui/figures.ts';
import { t } from '../words/words.ts';
import { energyWords } from './energy-words.ts';

/** More recipes than this are not told apart by looking at them. */
const mostRows = 60;

const helper = createColumnHelper<typeof tableParts, Burn>();
const plain = { head: 'px-1.5 py-1', cell: 'px-1.5 py-1 font-sans' };
const figure = { head: 'px-1.5 py-1', cell: 'px-1.5 py-1' };

function SpeedCell({ row: { original } }: Pick<CellOf<Burn>, 'row'>) {
  return formatSpeed(original.recipe.speedMmPerS, useSpeedUnit(), original.machine.topSpeed);
}

/** @param engraved whether the recipes fill areas: their lines stand where a cut has its kerf */
const columnsOf = (engraved: boolean) => [
  helper.accessor(({ material }) => `${String(material.thicknessMm).padStart(8)} ${material.name}`, {
    id: 'material',
    header: t('Material'),
    cell: ({ row: { original } }) => (
      <>
        {original.material.name} <span className="figures">{asLength(original.material.thicknessMm)}</span>
        {original.recipe.variant ? `, ${original.recipe.variant}` : ''}
      </>
    ),
    sortFn: (a, b) =>
      a.original.material.thicknessMm - b.original.material.thicknessMm ||
      a.original.material.name.localeCompare(b.original.material.name),
    meta: plain,
  }),
  helper.accessor(({ machine }) => machine.name, {
    id: 'machine',
    header: t('Machine'),
    sortFn: 'alphanumeric',
    meta: plain,
  }),
  helper.accessor(({ recipe }) => recipe.powerPercent, {
    id: 'power',
    header: t('Power'),
    cell: ({ getValue }) => `${getValue()} %`,
    sortFn: 'basic',
    meta: figure,
  }),
  helper.accessor(({ recipe }) => recipe.speedMmPerS, {
    id: 'speed',
    header: t('Speed'),
    cell: SpeedCell,
    sortFn: 'basic',
    meta: figure,
  }),
  helper.accessor(({ recipe }) => recipe.passes, { id: 'passes', header: t('Passes'), sortFn: 'basic', meta: figure }),
  helper.accessor(({ recipe }) => (engraved ? recipe.lineSpacingMm : recipe.kerfMm) || undefined, {
    id: 'across',
    header: engraved ? 'Lines' : 'Kerf',
    cell: ({ getValue }) => (getValue() ? asLength(getValue() as number) : '–'),
    sortFn: 'basic',
    sortUndefined: 'last',
    meta: figure,
  }),
  helper.accessor(({ recipe, machine }) => energyPerMm(recipe, wattsOf(machine)), {
    id: 'energy',
    header: t('Energy'),
    cell: ({ getValue, row: { original } }) => energyWords(getValue(), original.recipe.operation),
    sortFn: 'basic',
    sortUndefined: 'last',
    meta: figure,
  }),
  helper.accessor(({ recipe }) => recipe.evidence, {
    id: 'evidence',
    header: t('Known as'),
    sortFn: 'alphanumeric',
    meta: plain,
  }),
];
const columns = { engraved: columnsOf(true), alongLines: columnsOf(false) };

/** Recipes in a table, the thinnest stock first, each value under the other. */
export function SideBySide({ burns, chosen }: { burns: readonly Burn[]; chosen: Material }) {
  const sorted = useMemo(
    () =>
      burns.toSorted(
        (a, b) =>
          a.material.thicknessMm - b.material.thicknessMm ||
          a.material.name.localeCompare(b.material.name) ||
          a.machine.name.localeCompare(b.machine.name),
      ),
    [burns],
  );
  if (sorted.length === 0) return null;
  return (
    <DataTable
      label={t('Recipes side by side')}
      columns={fillsAreas(sorted[0].recipe.operation) ? columns.engraved : columns.alongLines}
      lines={sorted}
      most={mostRows}
      idOf={({ material, recipe }) => `${material.id} ${recipe.id}`}
      row={({ material }) => ({ className: material === chosen ? 'bg-petrol-soft' : '' })}
      bodyClass="figures text-[12.5px]"
      caption={
        sorted.length > mostRows ? (
          <caption className="caption-bottom pt-1 text-left text-[12px] text-quiet">
            {t('{{sorted}} more are in the chart only.', { sorted: sorted.length - mostRows })}
          </caption>
        ) : undefined
      }
    />
  );
}
