import type { Vec3 } from '../assembly/space.ts';
import { boxOn, onPlace, type Plate, placeOf } from '../plate.ts';
import { type Label, letterName } from '../stroke-letters.ts';
import type { Dividers } from './dividers.ts';
import type { Edge } from './edges.ts';

/** Letters of parts that meet, by the plate: one for each edge, and one for each divider and where it goes into walls. */
export function boxLabels(
  edges: readonly Edge[],
  plates: readonly Plate[],
  dividers: Dividers,
  thickness: number,
): Map<string, Label[]> {
  const labels = lettersAt(edges, plates, thickness);
  dividers.plates.forEach(({ plate }, i) => {
    const words = letterName(edges.length + i);
    const own = dividers.openings.filter(({ dividerId }) => dividerId === plate.id);
    const { minX, minY, maxY } = boxOn(placeOf(plate), plate.box);
    const heightMm = Math.min(5, Math.max(1, (maxY - minY) / 6));
    const tab = own.length > 0 ? middleOf(boxOn(placeOf(plate), own[0].box)).y : 0;
    labels.set(plate.id, [{ words, x: minX + thickness + heightMm, y: tab, heightMm }]);
    for (const { wallId, box } of own) {
      const wall = plates.find(({ id }) => id === wallId) as Plate;
      const opening = boxOn(placeOf(wall), box);
      const { y } = middleOf(opening);
      labels.set(wallId, [...(labels.get(wallId) ?? []), { words, x: opening.maxX + heightMm, y, heightMm }]);
    }
  });
  return labels;
}

const middleOf = ({ minX, minY, maxX, maxY }: ReturnType<typeof boxOn>) => ({
  x: (minX + maxX) / 2,
  y: (minY + maxY) / 2,
});

/** A letter for every edge, on both of its plates beside it. */
function lettersAt(edges: readonly Edge[], plates: readonly Plate[], thickness: number): Map<string, Label[]> {
  const labels = new Map<string, Label[]>();
  edges.forEach(({ region, plateIds }, i) => {
    const middle = region.min.map((low, k) => (low + region.max[k]) / 2) as unknown as Vec3;
    for (const id of plateIds) {
      const plate = plates.find((entry) => entry.id === id) as Plate;
      const place = placeOf(plate);
      const { minX, minY, maxX, maxY } = boxOn(place, plate.box);
      const { x, y } = onPlace(place, middle);
      const narrow = Math.min(maxX - minX, maxY - minY) - 2 * thickness;
      const heightMm = Math.min(5, Math.max(1, narrow / 5));
      const inwards = thickness / 2 + heightMm;
      const onUpright = Math.abs(Math.abs(x) - (maxX - minX) / 2) < thickness;
      const moved = onUpright ? { x: x - Math.sign(x) * inwards, y } : { x, y: y - Math.sign(y) * inwards };
      labels.set(id, [...(labels.get(id) ?? []), { words: letterName(i), ...moved, heightMm }]);
    }
  });
  return labels;
}
