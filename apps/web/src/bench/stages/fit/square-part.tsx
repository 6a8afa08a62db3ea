import { drawnPaint } from '@lambent/core/colours';
import { type Item, rectangleOf } from '@lambent/core/document';
import { addItems } from '@lambent/core/edits';
import { boxHeight, boxWidth, translation } from '@lambent/core/geometry';
import { axesOfSquare, type Machine, type MeasuredSquare } from '@lambent/core/machine';
import { labelOperation } from '@lambent/core/operations';
import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../../../ui/button.tsx';
import { LengthField } from '../../../ui/length-field.tsx';
import { t } from '../../../words/words.ts';
import { showItems } from '../../bed/showing.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { freeOnSheet, roomOn } from '../../lay-on-sheet.ts';
import { newId } from '../../new-id.ts';
import type { BenchActions } from '../../state/bench-state.ts';
import { jobOf, machineOf, unitOf } from '../../state/document.ts';
import { useKeepingMachine } from '../keeping.ts';

/** As long a side is offered, in mm, where there is room. */
const usualSide = 200;

/** A square that is burnt and measured: it tells whether the axes are true to scale, and square to each other. */
export default function SquarePart() {
  const actions = useBenchActions();
  const unit = useBench(unitOf);
  const machine = useBench(machineOf);
  const sheet = useBench((state) => jobOf(state).sheets[0] ?? null);
  const [wanted, setWanted] = useState<number | null>(null);
  if (!sheet) return <p className="text-quiet">{t('Lay a sheet first: the square is scored on it.')}</p>;
  const room = roomOn(sheet, machine);
  const most = Math.floor(Math.min(boxWidth(room), boxHeight(room)));
  const side = Math.min(wanted ?? usualSide, most);
  return (
    <>
      <p className="text-[12px] text-quiet">
        {t(
          'A scored square tells whether the axes are true to scale and square to each other. The larger it is, the better.',
        )}
      </p>
      <LengthField
        label={t('Side')}
        unit={unit}
        value={side}
        commit={(mm) => (mm >= 20 && mm <= most ? void setWanted(mm) : t('From 20 to {{most}} mm.', { most }))}
      />
      <Button look="main" className="self-start" disabled={most < 20} onClick={() => layOnSheet(actions, side)}>
        {t('Lay it on the sheet')}
      </Button>
      <ReadSquare key={side} side={side} machine={machine} />
    </>
  );
}

function ReadSquare({ side, machine }: { side: number; machine: Machine }) {
  const unit = useBench(unitOf);
  const keep = useKeepingMachine();
  const drawn: MeasuredSquare = {
    drawn: side,
    alongX: side,
    alongY: side,
    rising: side * Math.SQRT2,
    falling: side * Math.SQRT2,
  };
  const [square, setSquare] = useState(drawn);
  const isMeasured = JSON.stringify(square) !== JSON.stringify(drawn);
  const axes = axesOfSquare(machine, square);
  const corner = machine.origin === 'top-left' ? 'back' : 'front';
  const field = (label: string, name: keyof MeasuredSquare) => (
    <LengthField
      label={label}
      unit={unit}
      value={square[name]}
      takes="more-than-0"
      commit={(mm) => setSquare({ ...square, [name]: mm })}
    />
  );
  return (
    <section aria-label={t('Measure the square')} className="flex flex-col gap-1.5 border-t border-line pt-2">
      <h3 className="text-quiet">{t('Measured on the burnt square')}</h3>
      <div className="grid grid-cols-2 items-end gap-1.5">
        {field(t('Along X'), 'alongX')}
        {field(t('Along Y'), 'alongY')}
        {field(t('Diagonal from the {{corner}} left', { corner }), 'rising')}
        {field(t('The other diagonal'), 'falling')}
      </div>
      {!axes && (
        <p role="alert" className="text-stop">
          {t('Sides and diagonals are not those of a square of this side. Measure once more.')}
        </p>
      )}
      <Button
        className="self-start"
        disabled={!axes || !isMeasured}
        onClick={async () => {
          const isKept = await keep(
            machine,
            (stored) => ({ axes: axesOfSquare(stored, square) ?? stored.axes }),
            t('The axes of {{name}} are kept. Programs are true to scale and square from now on.', {
              name: machine.name,
            }),
          );
          // What was measured was burnt before.
          if (isKept) setSquare(drawn);
        }}
      >
        {t('Keep with {{name}}', { name: machine.name })}
      </Button>
    </section>
  );
}

function layOnSheet(actions: BenchActions, side: number): void {
  const state = actions.get();
  const place = freeOnSheet(jobOf(state), machineOf(state), side, side);
  if (!place) {
    toast.error(t('There is no room for the square on the sheet. Make it smaller, or move things.'));
    return;
  }
  const square: Item = {
    ...drawnPaint(state.prepared.key, labelOperation),
    id: newId(),
    name: t('Measured square'),
    groupId: null,
    hidden: false,
    fillRule: 'nonzero',
    shape: rectangleOf({ minX: 0, minY: 0, maxX: side, maxY: side }),
    matrix: translation(place.x, place.y),
  };
  actions.edit(t('lay a square to be measured'), (job) => addItems(job, [square]));
  showItems(actions, [square.id]);
}
