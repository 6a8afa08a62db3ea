import { type Run, runBefore, type Sheet, sheetCorners } from '@lambent/core/document';
import { toMachine } from '@lambent/core/machine';
import { sheetsUsed } from '@lambent/core/plan';
import { thicknessOf } from '@lambent/core/recipes';
import { useMemo } from 'react';
import { dayAndTimeOf } from '../../../stores/dates.ts';
import { formatLength } from '../../../ui/figures.ts';
import { Notice } from '../../../ui/notice.tsx';
import { t } from '../../../words/words.ts';
import { useBench } from '../../context.ts';
import { sheetName } from '../../sheet-choice.ts';
import { jobOf, machineOf, unitOf } from '../../state/document.ts';
import { useBurntRuns } from '../../use-runs.ts';
import { Part } from '../drawer.tsx';

/** What has to lie on the bed before the run is sent: sheets with their places, or what the run before has left. */
export function WhatToLay() {
  const runs = useBench((state) => jobOf(state).runs);
  const run = useBench((state) => state.prepared.run);
  const burnt = useBurntRuns();
  const before = runBefore(runs, run);
  return (
    <Part
      title={
        runs.length > 1
          ? t('Lay for {{name}}, {{run}} of {{runs}}', {
              name: run.name,
              run: runs.indexOf(run) + 1,
              runs: runs.length,
            })
          : t('Lay on the bed')
      }
    >
      {before && !burnt.has(before.id) && (
        <Notice level="warns" title={t('{{name}} was not burnt yet', { name: before.name })}>
          {t('{{name}} needs the stock as {{before}} leaves it. Burn {{before}} first.', {
            name: run.name,
            before: before.name,
          })}
        </Notice>
      )}
      <div className="flex flex-col gap-1.5 rounded-[10px] border border-line bg-raised p-3" data-testid="what-to-lay">
        {before ? <LeftThere run={run} before={before} burntAt={burnt.get(before.id)} /> : <Sheets />}
      </div>
    </Part>
  );
}

function LeftThere({ run, before, burntAt }: { run: Run; before: Run; burntAt: string | undefined }) {
  const when = burntAt && <span className="text-quiet"> ({dayAndTimeOf(burntAt)})</span>;
  return run.stock === 'turned over' ? (
    <p>
      <b>{t('Turn the stock of {{name}} over', { name: before.name })}</b>
      {when}
      {t(', left for right, against the same edges.')}
    </p>
  ) : (
    <p>
      <b>{t('Leave what {{name}} left on the bed', { name: before.name })}</b>
      {when}
      {t(', and do not move it.')}
    </p>
  );
}

function Sheets() {
  const prepared = useBench((state) => state.prepared);
  const used = useMemo(() => sheetsUsed(prepared), [prepared]);
  if (used.length === 0)
    return <p className="text-quiet">{t('No sheet is chosen: what burns lies on the bare bed.')}</p>;
  return (
    <ul className="flex flex-col gap-1.5">
      {used.map((sheet) => (
        <SheetLine key={sheet.id} sheet={sheet} />
      ))}
    </ul>
  );
}

function SheetLine({ sheet }: { sheet: Sheet }) {
  const machine = useBench(machineOf);
  const unit = useBench(unitOf);
  const sheets = useBench((state) => jobOf(state).sheets);
  const materials = useBench((state) => state.shop.materials);
  const isElsewhere = useBench(({ prepared: { run } }) => !['as-drawn', 'stock', 'sheet'].includes(run.landing.kind));
  const material = materials.find(({ id }) => id === sheet.materialId);
  const [corner] = sheetCorners(sheet);
  const { x, y } = toMachine(machine, corner.x, corner.y);
  const said = (mm: number) => formatLength(mm, unit, { bare: true });
  return (
    <li>
      <b>{sheetName(sheets, sheet, materials)}</b>
      {material && <>, {formatLength(sheet.thicknessMm ?? thicknessOf(material), unit)}</>}
      <span className="figures block text-[12px]">
        {said(sheet.width)} × {formatLength(sheet.height, unit)}
        {!isElsewhere &&
          t(', top left at {{x}}, {{y}}{{angle}}', {
            x: said(x),
            y: formatLength(y, unit),
            angle: sheet.angle ? t(', turned by {{angle}}°', { angle: sheet.angle.toFixed(1) }) : '',
          })}
      </span>
    </li>
  );
}
