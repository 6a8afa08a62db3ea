import { scanOffsetAt, scanOffsetMeasuredTo } from '../machine/scan-offset.ts';
import { fillsAreas } from '../operations/operations.ts';
import { stepTitle } from '../plan/plan.ts';
import { type Check, finding } from './finding.ts';

/** Offsets below this, in mm, are not worth a word. */
const leastMm = 0.005;

/** Says by how much scan lines are taken back that would burn apart, and where that is guessed. */
export const checkScanOffset: Check = ({ machine }, { steps }) =>
  steps.flatMap((step) => {
    const { operation, settings, layerId } = step;
    const { scanAngle, speedMmPerS } = settings;
    if (!fillsAreas(operation)) return [];
    const [ux, uy] = [Math.cos((scanAngle * Math.PI) / 180), Math.sin((scanAngle * Math.PI) / 180)];
    const mm = scanOffsetAt(machine, speedMmPerS, ux, uy);
    if (Math.abs(mm) < leastMm) return [];
    const measured = scanOffsetMeasuredTo(machine, Math.abs(ux) >= Math.abs(uy) ? 'x' : 'y');
    const guessed =
      speedMmPerS > measured ? ` It was measured up to ${measured} mm/s, and is guessed beyond that.` : '';
    const words = `${stepTitle(step)}: the scan offset of ${mm.toFixed(2)} mm at ${speedMmPerS} mm/s is taken back, half there and half back.${guessed}`;
    return [finding('scan-offset', guessed ? 'warns' : 'notes', words, [], layerId)];
  });
