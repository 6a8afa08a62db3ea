import type { ArrivalPlace } from '@lambent/core/formats';
import { type Box, boxContains, boxHeight, boxOf, boxWidth, isEmpty } from '@lambent/core/geometry';
import { fromMachine, toMachine } from '@lambent/core/machine';
import type { LengthUnit } from '@lambent/core/units';
import { Choice } from '../../ui/choice.tsx';
import { formatLength } from '../../ui/figures.ts';
import { LengthField } from '../../ui/length-field.tsx';
import { NinePoints, pointName } from '../../ui/nine-points.tsx';
import { Notice } from '../../ui/notice.tsx';
import { t } from '../../words/words.ts';
import { useBench, useBenchActions } from '../context.ts';
import { Part } from '../stages/drawer.tsx';
import type { Arriving } from '../state/arriving.ts';
import { jobOf, machineOf, unitOf } from '../state/document.ts';
import { choosePlace, placedBounds } from './arriving.ts';

/** Where an arriving drawing goes on the bed. */
export function PlacePart({ arriving }: { arriving: Arriving }) {
  const actions = useBenchActions();
  const unit = useBench(unitOf);
  const machine = useBench(machineOf);
  const hasSheet = useBench((state) => jobOf(state).sheets.length > 0);
  const over = useBench((state) => overBed(machineOf(state), placedBounds(state, arriving), unitOf(state)));
  const point = toMachine(machine, arriving.point.x, arriving.point.y);
  const setPoint = (x: number, y: number) => {
    actions.adjustArriving({ point: fromMachine(machine, x, y) });
    return undefined;
  };
  return (
    <Part title={t('Place')}>
      <Choice<ArrivalPlace['kind']>
        label={t('Place')}
        value={arriving.place}
        options={[
          { value: 'as-in-file', text: t('As in the file') },
          { value: 'within', text: hasSheet ? t('On the sheet, at its') : t('On the bed, at its') },
          { value: 'point', text: t('At a marked point, by its') },
        ]}
        choose={(place) => choosePlace(actions, place)}
      />
      {arriving.place !== 'as-in-file' && (
        <div className="flex items-center gap-3">
          <NinePoints
            label={arriving.place === 'point' ? t('By its') : t('At the')}
            value={arriving.anchor}
            choose={(anchor) => actions.adjustArriving({ anchor })}
          />
          <p className="text-quiet">{pointName(arriving.anchor)}</p>
        </div>
      )}
      {arriving.place === 'point' && (
        <>
          <p className="text-[12px] text-quiet">{t('Click on the bed to mark the point, or type it.')}</p>
          <div className="grid grid-cols-2 gap-2">
            <LengthField
              label={t('Point X')}
              layout="stack"
              unit={unit}
              value={point.x}
              commit={(x) => setPoint(x, point.y)}
            />
            <LengthField
              label={t('Point Y')}
              layout="stack"
              unit={unit}
              value={point.y}
              commit={(y) => setPoint(point.x, y)}
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
    ...(wider > 0.001 ? [t('{{wider}} wider', { wider: formatLength(wider, unit) })] : []),
    ...(higher > 0.001 ? [t('{{higher}} higher', { higher: formatLength(higher, unit) })] : []),
  ];
  if (overhangs.length > 0)
    return t('It is {{overhangs}} than {{name}}’s bed.', { overhangs: overhangs.join(' and '), name });
  return boxContains(bed, box, 0.001) ? null : t('Some of it would lie off {{name}}’s bed there.', { name });
}
