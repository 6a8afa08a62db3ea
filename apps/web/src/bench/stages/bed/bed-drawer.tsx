import { Radio, RadioGroup } from '@headlessui/react';
import type { Sheet } from '@lambent/core/document';
import { removeSheet, setSheet, setUnit } from '@lambent/core/edits';
import { beamOf, countsDown, type Machine } from '@lambent/core/machine';
import { type StockedSheet, sheetAsStocked, stockOf } from '@lambent/core/recipes';
import { type LengthUnit, lengthUnits } from '@lambent/core/units';
import { Layers } from 'lucide-react';
import { Button } from '../../../ui/button.tsx';
import { Choice } from '../../../ui/choice.tsx';
import { asLength, formatLength } from '../../../ui/figures.ts';
import { LengthField } from '../../../ui/length-field.tsx';
import { OutlinePicture } from '../../../ui/outline-picture.tsx';
import { parseAngle } from '../../../ui/plain-number.ts';
import { TypedField } from '../../../ui/typed-field.tsx';
import { t } from '../../../words/words.ts';
import { showBed } from '../../bed/showing.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { changeMachine, offeredMachines } from '../../machine-choice.ts';
import { addSheet, chooseMaterial, offeredMaterials, sheetName } from '../../sheet-choice.ts';
import { sheetCorner } from '../../sheet-corner.ts';
import { jobOf, machineOf, unitOf } from '../../state/document.ts';
import { Drawer, Part } from '../drawer.tsx';
import { SheetOutline } from './sheet-outline.tsx';
import { SheetThickness } from './sheet-thickness.tsx';

const originWords = {
  'top-left': t('top left, Y downwards'),
  'bottom-left': t('bottom left, Y upwards'),
  centre: 'centre, Y upwards',
};

/** The machine, the units, and the sheet that lies on the bed. */
export function BedDrawer() {
  const actions = useBenchActions();
  const machine = useBench(machineOf);
  const machines = useBench((state) => state.shop.machines);
  const unit = useBench(unitOf);
  const sheets = useBench((state) => jobOf(state).sheets);
  const materials = useBench((state) => state.shop.materials);
  const length = (mm: number) => formatLength(mm, unit);
  return (
    <Drawer title={t('Bed')} aside={`${length(machine.bedWidth)} × ${length(machine.bedHeight)}`}>
      <Part title={t('Machine')}>
        <Choice
          label={t('Machine')}
          bare
          value={machine.id}
          options={offeredMachines(machines, machine.id).map((offered) => ({
            value: offered.id,
            text: offered.name,
            aside: beamOf(offered),
          }))}
          choose={(id) => {
            changeMachine(actions, id);
            showBed(actions);
          }}
        />
        <p className="text-[12px] text-quiet">
          {t('Zero {{originWords}}.', { originWords: originWords[machine.origin] })}
        </p>
      </Part>
      <Part title={t('Lengths in')}>
        <RadioGroup
          value={unit}
          onChange={(next: LengthUnit) => actions.edit(t('lengths in {{next}}', { next }), (job) => setUnit(job, next))}
          aria-label={t('Lengths in')}
          className="grid grid-cols-3 gap-1 rounded-lg bg-table p-1"
        >
          {lengthUnits.map((known) => (
            <Radio
              key={known}
              value={known}
              className="figures cursor-pointer rounded-md py-1 text-center data-checked:bg-raised data-checked:font-bold data-checked:text-petrol data-checked:shadow-sm"
            >
              {known}
            </Radio>
          ))}
        </RadioGroup>
      </Part>
      {sheets.map((sheet, i) => (
        <SheetPart
          key={sheet.id}
          sheet={sheet}
          title={
            sheets.length === 1
              ? t('Sheet')
              : t('Sheet {{i}}: {{sheets}}', { i: i + 1, sheets: sheetName(sheets, sheet, materials) })
          }
          folds={sheets.length > 1}
          shut={sheets.length > 2 && i > 0}
          machine={machine}
          unit={unit}
        />
      ))}
      <Part title={sheets.length === 0 ? t('Sheet') : t('Another sheet')}>
        <MaterialChoice
          value={null}
          choose={(id) => (sheets.length === 0 ? chooseMaterial(actions, id) : addSheet(actions, id))}
        />
        {sheets.length === 0 && (
          <p className="text-[12px] text-quiet">{t('Choose what lies on the bed; its recipes come with it.')}</p>
        )}
      </Part>
    </Drawer>
  );
}

/** The materials of the shop. */
export function MaterialChoice({ value, choose }: { value: string | null; choose: (id: string) => void }) {
  const materials = useBench((state) => state.shop.materials);
  const unit = useBench(unitOf);
  return (
    <Choice
      label={t('Material')}
      value={value}
      empty={t('Choose the material')}
      icon={<Layers size={15} className="shrink-0 text-petrol" aria-hidden />}
      options={offeredMaterials(materials, value).map(({ id, name, thicknessMm, tone }) => ({
        value: id,
        text: name,
        aside: asLength(thicknessMm, unit),
        mark: <span className="size-4 shrink-0 rounded border border-line" style={{ background: tone }} aria-hidden />,
      }))}
      choose={choose}
    />
  );
}

function SheetPart(props: {
  sheet: Sheet;
  title: string;
  folds: boolean;
  shut: boolean;
  machine: Machine;
  unit: LengthUnit;
}) {
  const { sheet, title, folds, shut, machine, unit } = props;
  const actions = useBenchActions();
  const { place, movedTo } = sheetCorner(machine, sheet);
  const change = (name: string, change: Partial<Sheet>) => {
    actions.edit(name, (job) => setSheet(job, { ...sheet, ...change }));
    return undefined;
  };
  const size = (side: 'width' | 'height') => (mm: number) => {
    if (!(mm > 0)) return t('A sheet is larger than 0.');
    if (mm > 10_000) return t('No sheet is that large.');
    const y = side === 'height' && countsDown(machine) < 0 ? sheet.y + sheet.height - mm : sheet.y;
    // Cut to another size, it is still of the same sheet in stock.
    return change(t('size of the sheet'), { [side]: mm, y });
  };
  const margin = (mm: number) => {
    if (mm < 0) return t('A margin is not below 0.');
    if (mm * 2 >= Math.min(sheet.width, sheet.height)) return t('That leaves nothing of the sheet.');
    return change(t('margin of the sheet'), { margin: mm });
  };
  return (
    <Part title={title} folds={folds} shut={shut}>
      <MaterialChoice value={sheet.materialId} choose={(id) => chooseMaterial(actions, id, sheet.id)} />
      <StockChoice sheet={sheet} machine={machine} unit={unit} />
      <div className="grid grid-cols-2 gap-2">
        {sheet.outline ? (
          <p className="figures col-span-2">
            {t('{{size}}, with an outline of its own', {
              size: `${formatLength(sheet.width, unit, { bare: true })} × ${formatLength(sheet.height, unit)}`,
            })}
          </p>
        ) : (
          <>
            <LengthField label={t('Width')} unit={unit} value={sheet.width} commit={size('width')} />
            <LengthField label={t('Height')} unit={unit} value={sheet.height} commit={size('height')} />
          </>
        )}
        <LengthField
          label={t('X of its corner')}
          unit={unit}
          value={place.x}
          commit={(x) => change(t('move the sheet'), movedTo({ x }))}
        />
        <LengthField
          label={t('Y of its corner')}
          unit={unit}
          value={place.y}
          commit={(y) => change(t('move the sheet'), movedTo({ y }))}
        />
        <SheetThickness sheet={sheet} alone />
        <LengthField label={t('Safe margin')} unit={unit} value={sheet.margin} commit={margin} />
        <TypedField
          label={t('Turned')}
          unit="°"
          text={String(-(sheet.angle ?? 0) || 0)}
          parse={parseAngle}
          commit={(degrees) => change(t('turn the sheet'), { angle: -degrees % 360 })}
        />
      </div>
      <SheetOutline sheet={sheet} />
      <Button
        className="mt-1 self-start"
        onClick={() => actions.edit(t('take the sheet away'), (job) => removeSheet(job, sheet.id))}
      >
        {t('Take the sheet away')}
      </Button>
    </Part>
  );
}

/** Which of the material's sheets in stock lies there: its size comes with it, cut to what the bed holds. */
function StockChoice({ sheet, machine, unit }: { sheet: Sheet; machine: Machine; unit: LengthUnit }) {
  const actions = useBenchActions();
  const material = useBench((state) => state.shop.materials.find(({ id }) => id === sheet.materialId));
  if (!material?.stock || material.stock.length === 0) return null;
  const taken = stockOf(material.stock, sheet);
  const size = ({ width, height }: StockedSheet) =>
    `${formatLength(width, unit, { bare: true })} × ${formatLength(height, unit)}`;
  return (
    <Choice
      label={t('From stock')}
      value={taken?.id ?? null}
      empty={t('Not from stock')}
      options={material.stock.map((entry) => ({
        value: entry.id,
        text: `${size(entry)}${entry.offcut ? t(', offcut') : ''}`,
        ...(entry.outline ? { mark: <OutlinePicture shape={entry} className="size-6 shrink-0" /> } : {}),
        aside: t('{{count}} left', { count: entry.count }),
      }))}
      choose={(stockId) => {
        const { x: _, y: __, margin: ___, ...stocked } = sheetAsStocked(sheet.id, material, machine, stockId);
        const y = machine.origin === 'top-left' ? sheet.y : sheet.y + sheet.height - stocked.height;
        const { outline: ____, ...plain } = sheet;
        actions.edit(t('sheet from stock'), (job) => setSheet(job, { ...plain, ...stocked, y }));
      }}
    />
  );
}
