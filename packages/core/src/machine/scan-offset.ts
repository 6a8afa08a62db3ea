import type { Machine } from './machine.ts';

/**
 * How far apart two lines burn that are scanned there and back through one place, in mm: the beam comes on and goes off a
 * little late. Read off between the speeds that were measured, straight from one to the next and from rest; beyond the
 * fastest, in proportion to it.
 *
 * @param speed in mm/s
 * @param ux the part along X of the direction that is scanned in
 * @param uy its part along Y, both together of length 1
 */
export function scanOffsetAt(
  { scanOffsets }: Pick<Machine, 'scanOffsets'>,
  speed: number,
  ux: number,
  uy: number,
): number {
  if (!scanOffsets) return 0;
  // Of a line askew, each axis has its share.
  return ux * ux * alongAxis(scanOffsets, 'x', speed) + uy * uy * alongAxis(scanOffsets, 'y', speed);
}

/** Up to which speed the offset of an axis was measured, in mm/s; 0 where it was not. */
export function scanOffsetMeasuredTo({ scanOffsets = [] }: Pick<Machine, 'scanOffsets'>, axis: 'x' | 'y'): number {
  return Math.max(0, ...scanOffsets.flatMap((entry) => (entry.axis === axis ? [entry.speed] : [])));
}

function alongAxis(all: NonNullable<Machine['scanOffsets']>, axis: 'x' | 'y', speed: number): number {
  const measured = all.filter((entry) => entry.axis === axis).toSorted((a, b) => a.speed - b.speed);
  if (measured.length === 0) return 0;
  const next = measured.findIndex((entry) => entry.speed >= speed);
  if (next < 0) {
    const fastest = measured[measured.length - 1];
    return (fastest.mm * speed) / fastest.speed;
  }
  const before = measured[next - 1] ?? { speed: 0, mm: 0 };
  const after = measured[next];
  return before.mm + ((after.mm - before.mm) * (speed - before.speed)) / (after.speed - before.speed);
}
