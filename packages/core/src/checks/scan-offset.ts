import type { Machine } from '../machine/machine.ts';
import { scanOffsetAt, scanOffsetMeasuredTo } from '../machine/scan-offset.ts';
import { fillsAreas } from '../operations/operations.ts';
import { type PlanStep, stepTitle } from '../plan/plan.ts';
import { turnedFrom } from '../plan/raster.ts';
import { type Check, type Finding, finding } from './finding.ts';

/** Offsets below this, in mm, are not worth a word. */
const leastMm = 0.005;

/** Says by how much scan lines are taken back that would burn apart, and where that is guessed. */
export const checkScanOffset: Check = ({ machine, layers }, { steps }) =>
  steps.flatMap((step) => {
    const { operation, preparedId, settings } = step;
    if (!fillsAreas(operation)) return [];
    const isTurned = layers.find(({ id }) => id === preparedId)?.burning.scanTurns === 'sooner';
    const angles = isTurned ? [settings.scanAngle, turnedFrom(settings.scanAngle)] : [settings.scanAngle];
    return angles.flatMap((angle) => offsetAt(machine, step, angle, isTurned));
  });

/** What is said of lines at one angle, in degrees. @param isNamed whether the angle is named, as one of two */
function offsetAt(machine: Machine, step: PlanStep, scanAngle: number, isNamed: boolean): Finding[] {
  const {
    settings: { speedMmPerS },
    layerId,
  } = step;
  const [ux, uy] = [Math.cos((scanAngle * Math.PI) / 180), Math.sin((scanAngle * Math.PI) / 180)];
  const mm = scanOffsetAt(machine, speedMmPerS, ux, uy);
  if (Math.abs(mm) < leastMm) return [];
  const measured = scanOffsetMeasuredTo(machine, Math.abs(ux) >= Math.abs(uy) ? 'x' : 'y');
  const guessed = speedMmPerS > measured ? ` It was measured up to ${measured} mm/s, and is guessed beyond that.` : '';
  const words = `${stepTitle(step)}: the scan offset of ${mm.toFixed(2)} mm at ${speedMmPerS} mm/s${isNamed ? `, with lines at ${scanAngle}°,` : ''} is taken back, half there and half back.${guessed}`;
  return [finding('scan-offset', guessed ? 'warns' : 'notes', words, [], layerId)];
}
