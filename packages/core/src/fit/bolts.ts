import type { Item } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import type { BoltTie } from '../document/ties.ts';

/** Clearance holes for a bolt, in mm. */
export interface BoltHole {
  readonly size: string;
  readonly close: number;
  readonly normal: number;
  readonly wide: number;
}

const metric = (size: string, close: number, normal: number, wide: number): BoltHole => ({ size, close, normal, wide });
const inch = (size: string, close: number, normal: number, wide: number): BoltHole =>
  metric(size, close * 25.4, normal * 25.4, wide * 25.4);

/** By nominal size: metric after ISO 273 (fine, medium, coarse), inch after ASME B18.2.8 (close, normal, loose). */
export const boltHoles: readonly BoltHole[] = [
  metric('M2', 2.2, 2.4, 2.6),
  metric('M2.5', 2.7, 2.9, 3.1),
  metric('M3', 3.2, 3.4, 3.6),
  metric('M4', 4.3, 4.5, 4.8),
  metric('M5', 5.3, 5.5, 5.8),
  metric('M6', 6.4, 6.6, 7),
  metric('M8', 8.4, 9, 10),
  metric('M10', 10.5, 11, 12),
  metric('M12', 13, 13.5, 14.5),
  inch('No. 4', 0.12, 0.1285, 0.144),
  inch('No. 6', 0.154, 0.1695, 0.185),
  inch('No. 8', 0.18, 0.1935, 0.213),
  inch('No. 10', 0.2055, 0.221, 0.238),
  inch('1/4 in', 17 / 64, 9 / 32, 19 / 64),
  inch('5/16 in', 21 / 64, 11 / 32, 23 / 64),
  inch('3/8 in', 25 / 64, 13 / 32, 27 / 64),
];

/** A hole's diameter for a bolt, in mm; null for a size that is not in the tables. */
export function boltDiameter({ size, room }: BoltTie): number | null {
  return boltHoles.find((hole) => hole.size === size)?.[room] ?? null;
}

/** Whether an item is round as it lies there, to 1e-9. */
export function isCircle({ shape, matrix: [a, b, c, d] }: Item): boolean {
  if (shape.kind !== 'ellipse' || shape.rx !== shape.ry) return false;
  return Math.abs(Math.hypot(a, b) - Math.hypot(c, d)) < 1e-9 && Math.abs(a * c + b * d) < 1e-9;
}

/** Makes circles holes for a bolt, about their own centres. */
export function fitBolts(job: JobDocument, ids: ReadonlySet<string>, bolt: BoltTie): JobDocument {
  const diameter = boltDiameter(bolt);
  if (diameter === null) return job;
  const items = job.drawing.items.map((item): Item => {
    if (!ids.has(item.id) || item.shape.kind !== 'ellipse' || !isCircle(item)) return item;
    const radius = diameter / 2 / Math.hypot(item.matrix[0], item.matrix[1]);
    return { ...item, shape: { ...item.shape, rx: radius, ry: radius, bolt } };
  });
  return items.every((item, i) => item === job.drawing.items[i]) ? job : { ...job, drawing: { ...job.drawing, items } };
}
