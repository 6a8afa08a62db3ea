import type { ArrivalPlace } from '@lambent/core/formats';
import { type Box, boxContains, boxHeight, boxOf, boxWidth, isEmpty } from '@lambent/core/geometry';
import { fromMachine, toMachine } from '@lambent/core/machine';
import type { LengthUnit } from '@lambent/core/units';
import { Choice } from '../../ui/choice.tsx';
import { formatLength } from '../../ui/figures.ts';
import { LengthField } from '../../ui/length-field.tsx';
import { Notice } from '../../ui/notice.tsx';
import { useBench, useBenchActions } from '../context.ts';
import { Part } from '../stages/drawer.tsx';
import type { Arriving } from '../state/arriving.ts';
import { jobOf, machineOf, unitOf } from '../state/document.ts';
import { placedBounds } from './arriving.ts';

/** Where an arriving drawing goes on the bed. */
export function PlacePart({ arriving }: { arriving: Arriving }) {
  const actions = useBenchActions();
  const unit = useBench(unitOf);
  const machine = useBench(machineOf);
  const hasSheet = useBench((state) => jobOf(state).sheets.length > 0);
  const over = useBench((state) => overBed(machineOf(state), placedBounds(state, arriving), unitOf(state)));
  const corner = toMachine(machine, arriving.corner.x, arriving.corner.y);
  const setCorner = (x: number, y: number) => {
    actions.adjustArriving({ corner: fromMachine(machine, x, y) });
    return undefined;
  };
  return (
    <Part title="Place">
      <Choice<ArrivalPlace['kind']>
        label="Place"
        value={arriving.place}
        options={[
          { value: 'as-in-file', text: 'As in the file' },
          { value: 'centred', text: hasSheet ? 'Centred on the sheet' : 'Centred on the bed' },
          { value: 'corner', text: 'Top left at a marked point' },
        ]}
        choose={(place) => actions.adjustArriving({ place })}
      />
      {arriving.place === 'corner' && (
        <>
          <p className="text-[12px] text-quiet">Click on the bed to mark the point, or type it.</p>
          <div className="grid grid-cols-2 gap-2">
            <LengthField
              label="Corner X"
              layout="stack"
              unit={unit}
              value={corner.x}
              commit={(x) => setCorner(x, corner.y)}
            />
            <LengthField
              label="Corner Y"
              layout="stack"
              unit={unit}
              value={corner.y}
              commit={(y) => setCorner(corner.x, y)}
            />
          </div>
        </>
      )}
      {over && (
        <Notice level="warns">
          <p data-testid="arrival-over">{over}</p>
        </Notice>
      )}
    </Part>
  );
}

/** By how much what arrives is larger than the bed, or that it hangs over its edge; null when it lies on it. */
function overBed(
  { name, bedWidth, bedHeight }: { name: string; bedWidth: number; bedHeight: number },
  box: Box,
  unit: LengthUnit,
): string | null {
  if (isEmpty(box)) return null;
  const bed = boxOf(0, 0, bedWidth, bedHeight);
  const wider = boxWidth(box) - bedWidth;
  const higher = boxHeight(box) - bedHeight;
  const overhangs = [
    ...(wider > 0.001 ? [`${formatLength(wider, unit)} wider`] : []),
    ...(higher > 0.001 ? [`${formatLength(higher, unit)} higher`] : []),
  ];
  if (overhangs.length > 0) return `It is ${overhangs.join(' and ')} than ${name}’s bed.`;
  return boxContains(bed, box, 0.001) ? null : `Some of it would lie off ${name}’s bed there.`;
}
