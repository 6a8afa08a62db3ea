import { anchorPoint, boundsAmong, type Drawing } from '@lambent/core/document';
import { boxHeight, boxWidth, isEmpty } from '@lambent/core/geometry';
import { type Machine, toMachine } from '@lambent/core/machine';
import type { LengthUnit } from '@lambent/core/units';
import { useMemo } from 'react';
import { formatLength } from '../ui/figures.ts';
import { t } from '../words/words.ts';
import { useBench, useBenchLater } from './context.ts';
import { jobOf, machineOf, unitOf } from './state/document.ts';
import { zeroAnchor } from './state/hand.ts';
import { nameOfSelection } from './thing-names.ts';

/** How large things are and where they lie, by the machine's zero: `60 × 40 at 20, 100`, without a unit. Null for nothing. */
export function sizeAndPlace(
  drawing: Drawing,
  ids: ReadonlySet<string>,
  machine: Machine,
  unit: LengthUnit,
): string | null {
  const bounds = boundsAmong(drawing, ids);
  if (isEmpty(bounds)) return null;
  const point = anchorPoint(bounds, zeroAnchor(machine));
  const place = toMachine(machine, point.x, point.y);
  const said = (mm: number) => formatLength(mm, unit, { bare: true, decimals: unit === 'mm' ? 1 : 2 });
  return t('{{bounds}} × {{bounds2}} at {{x}}, {{y}}', {
    bounds: said(boxWidth(bounds)),
    bounds2: said(boxHeight(bounds)),
    x: said(place.x),
    y: said(place.y),
  });
}

/** Says in words what is selected on the bed, how large it is and where it lies; it follows edits. */
export function BedTwin() {
  const selection = useBenchLater((state) => state.selection);
  const drawing = useBenchLater((state) => jobOf(state).drawing);
  const machine = useBench(machineOf);
  const unit = useBench(unitOf);
  const words = useMemo(() => {
    const { name, usual } = nameOfSelection(drawing, selection);
    const place = sizeAndPlace(drawing, selection, machine, unit);
    return place === null
      ? t('Nothing is selected.')
      : t('{{name}} selected, in {{unit}}: {{place}}.', { name: name ?? usual, unit, place });
  }, [drawing, selection, machine, unit]);
  return (
    <p role="status" className="sr-only" data-testid="bed-twin">
      {words}
    </p>
  );
}
