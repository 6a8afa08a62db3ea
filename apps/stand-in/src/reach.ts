import type { LitStretch } from './blocks.ts';
import { LineRefused } from './line.ts';
import type { Build } from './machine-status.ts';

const slack = 0.001;

/** Whether a place is on the bed. */
export function isOnBed({ minX, minY, maxX, maxY }: Build, x: number, y: number): boolean {
  return x >= minX - slack && x <= maxX + slack && y >= minY - slack && y <= maxY + slack;
}

/** @throws LineRefused where the focus does not go there */
export function expectInFocus({ lowestZ, highestZ }: Build, z: number): void {
  if (z >= lowestZ - 1e-6 && z <= highestZ + 1e-6) return;
  throw new LineRefused(`Z${z} is beyond the focus, ${lowestZ} to ${highestZ} mm`);
}

/** @throws LineRefused where a power is above all that there is */
export function expectPower({ powerScale }: Build, power: number | null): void {
  if (power !== null && power > powerScale) throw new LineRefused(`S${power} is above full power, S${powerScale}`);
}

/** Where a stretch truly burns, whose ends are those that it was told. */
export function trueStretch({ axes }: Build, stretch: LitStretch): LitStretch {
  if (!axes) return stretch;
  const { fromX, fromY, toX, toY } = stretch;
  const { x, y, lean } = axes;
  return { ...stretch, fromX: x * fromX + lean * fromY, fromY: y * fromY, toX: x * toX + lean * toY, toY: y * toY };
}
