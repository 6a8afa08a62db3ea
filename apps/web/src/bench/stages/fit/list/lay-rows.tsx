import type { Item, RowList } from '@lambent/core/document';
import {
  type FurtherSheets,
  furtherSheets,
  type LaidOut,
  type Packing,
  packOfDesign,
  usualGap,
} from '@lambent/core/packing';
import { artSources, burnsLayersOf, gridOf, groupsOfList, itemsOfGroups, layRows } from '@lambent/core/rows';
import { useMemo, useState } from 'react';
import { Button } from '../../../../ui/button.tsx';
import { Choice } from '../../../../ui/choice.tsx';
import { counted } from '../../../../ui/counted.ts';
import { Labelled } from '../../../../ui/labelled.tsx';
import { t } from '../../../../words/words.ts';
import { showSheets } from '../../../bed/showing.ts';
import { useBench, useBenchActions } from '../../../context.ts';
import { useKeptSettings } from '../../../kept-settings.ts';
import { DistanceField } from '../distance-field.tsx';
import { layingOn } from '../laying-on.ts';
import { PackResult } from '../pack-result.tsx';
import { useDistances } from '../use-distances.ts';
import { useShownPacking } from '../use-packing.ts';
import { useFiles } from './use-files.ts';
import type { Filled } from './use-filled-rows.ts';

const noFurther: FurtherSheets = { offcuts: [], whole: [] };
const firstSettings: { arranged: 'rows' | 'packed'; full: 'more' | 'again' } = { arranged: 'rows', full: 'more' };

/** Lays a piece for each row: in rows or packed, on as many sheets and in as many runs as it takes. */
export function LayRows({ list, design, filled }: { list: RowList; design: readonly Item[]; filled: Filled }) {
  const actions = useBenchActions();
  const prepared = useBench((state) => state.prepared);
  const materials = useBench((state) => state.shop.materials);
  const [settings, set] = useKeptSettings('list', firstSettings);
  const { job, machine } = prepared;
  const onSheets = useMemo(() => [...new Set(job.sheets.map(({ materialId }) => materialId))], [job.sheets]);
  const [chosenMaterial, chooseMaterial] = useState<string | null>(null);
  const materialId = chosenMaterial !== null && onSheets.includes(chosenMaterial) ? chosenMaterial : onSheets[0];
  const material = materials.find(({ id }) => id === materialId) ?? null;
  const laidWith = useMemo(() => layingOn(machine), [machine]);
  const isAgain = settings.full === 'again';
  const further = useMemo(
    () => (material && !isAgain ? furtherSheets(job, material, machine) : noFurther),
    [job, material, machine, isAgain],
  );
  const [distances, setDistances] = useDistances({
    gapMm: usualGap(prepared),
    marginMm: job.sheets.find((sheet) => sheet.materialId === materialId)?.margin ?? 0,
  });
  const isPacked = settings.arranged === 'packed';
  const rowCount = list.rows.length;
  const files = useFiles();
  const sourceIds = useMemo(() => artSources(design, list, files).map(({ id }) => id), [design, list, files]);
  const pack = useMemo(
    () =>
      materialId === undefined
        ? null
        : packOfDesign(prepared, {
            design: new Set(design.map(({ id }) => id)),
            earlier: new Set([...itemsOfGroups(job, groupsOfList(job, list.id)), ...sourceIds]),
            materialId,
            count: isAgain ? null : rowCount,
            ...distances,
            turning: 'quarter',
            further: { before: [], after: further.whole },
          }),
    [prepared, job, design, sourceIds, list.id, rowCount, materialId, isAgain, distances, further],
  );
  const grid = useMemo(() => (pack && !isPacked ? gridOf(pack) : null), [pack, isPacked]);
  const { shown, begin, stop, forget } = useShownPacking(isPacked ? pack : null, laidWith);
  if (!pack || materialId === undefined)
    return <p className="text-quiet">{t('Lay a sheet first: the rows are laid onto it.')}</p>;
  const rows = filled.isWorking ? null : filled.rows;
  const lay = (places: LaidOut) => {
    if (!rows) return;
    forget();
    const burnsDesign = burnsLayersOf(prepared, new Set([...design.map(({ id }) => id), ...sourceIds]));
    const nameFilling = (filling: number, run: { readonly name: string }) =>
      t('{{run}} {{filling}}', { run: run.name, filling });
    const isLaid = actions.edit(t('lay {{rows}}', { rows: counted(rowCount, 'row') }), (now) =>
      layRows(now, { list, filled: rows.rows, pack, places, burnsDesign, nameFilling }, laidWith),
    );
    if (!isLaid) return;
    actions.select([]);
    if (places.sheets.some(({ sheet }) => !pack.targets[sheet].isLaid)) showSheets(actions);
  };
  return (
    <section aria-label={t('Lay the rows')} className="flex flex-col gap-1.5 border-t border-line pt-2">
      {onSheets.length > 1 && (
        <Choice
          label={t('Onto')}
          value={materialId}
          options={onSheets.map((id) => ({ value: id, text: materials.find((known) => known.id === id)?.name ?? id }))}
          choose={chooseMaterial}
        />
      )}
      <Choice
        label={t('Arranged')}
        value={settings.arranged}
        options={[
          { value: 'rows', text: t('Side by side') },
          { value: 'packed', text: t('Packed, with little waste') },
        ]}
        choose={(arranged) => set({ arranged })}
      />
      <Labelled label={t('When the sheets are full')}>
        <Choice
          label={t('When the sheets are full')}
          look="slim"
          value={settings.full}
          options={[
            { value: 'more', text: t('More sheets, a run each') },
            { value: 'again', text: t('The same places again, run by run') },
          ]}
          choose={(full) => set({ full })}
        />
      </Labelled>
      <div className="grid grid-cols-2 gap-1.5">
        <DistanceField name="gapMm" distances={distances} setDistances={setDistances} />
        <DistanceField name="marginMm" distances={distances} setDistances={setDistances} />
      </div>
      {shown && <PackResult look={shown} laidWith={laidWith} />}
      {grid && <GridWords places={grid} rows={rowCount} isAgain={isAgain} />}
      <div className="flex flex-wrap gap-1.5">
        {grid && (
          <Button look="main" disabled={!rows || !holdsAll(grid, rowCount, isAgain)} onClick={() => lay(grid)}>
            {t('Lay {{rows}}', { rows: counted(rowCount, 'row') })}
          </Button>
        )}
        {isPacked && shown?.best && (
          <Button
            look="main"
            disabled={!rows || !holdsAll(shown.best, rowCount, isAgain)}
            onClick={() => lay(shown.best as Packing)}
          >
            {t('Lay them like this')}
          </Button>
        )}
        {isPacked &&
          (shown?.isWorking ? (
            <Button onClick={stop}>{t('Stop looking')}</Button>
          ) : (
            <Button look={shown?.best ? 'plain' : 'main'} onClick={() => begin(pack)}>
              {shown ? t('Look again') : t('Look for a packing')}
            </Button>
          ))}
      </div>
    </section>
  );
}

const placesIn = ({ sheets }: LaidOut) => sheets.reduce((sum, { pieces }) => sum + pieces.length, 0);

/** Whether there is a place for each row, or one at least where places are filled again. */
function holdsAll(places: LaidOut, rows: number, isAgain: boolean): boolean {
  const count = placesIn(places);
  return isAgain ? count > 0 : count >= rows;
}

/** What it takes to lay the rows side by side. */
function GridWords({ places, rows, isAgain }: { places: LaidOut; rows: number; isAgain: boolean }) {
  const count = placesIn(places);
  if (count === 0) return <p className="text-warn">{t('The piece does not fit on the sheet.')}</p>;
  if (isAgain) {
    const runs = Math.ceil(rows / count);
    return (
      <p className="figures text-[12.5px]" data-testid="rows-take">
        {t('{{places}}, filled in {{runs}}', { places: counted(count, 'place'), runs: counted(runs, 'run') })}
      </p>
    );
  }
  if (count < rows) {
    return (
      <p className="text-warn" data-testid="rows-take">
        {t(
          'Only {{count}} of {{rows}} find room, on all sheets that are in stock. Add sheets to the stock, or make the piece smaller.',
          {
            count,
            rows,
          },
        )}
      </p>
    );
  }
  return (
    <p className="figures text-[12.5px]" data-testid="rows-take">
      {t('{{rows}} on {{sheets}}', { rows: counted(rows, 'row'), sheets: counted(places.sheets.length, 'sheet') })}
    </p>
  );
}
