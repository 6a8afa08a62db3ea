import { flatten } from '../../geometry/paths/flatten.ts';
import { type Path, transformPath } from '../../geometry/paths/path.ts';
import type { Solid, Vec3 } from '../assembly/space.ts';
import { formPath } from '../forms.ts';
import { onPlace, type Plate, placeOf, thicknessOf } from '../plate.ts';

/** Which walls have a hole to hold the box by. */
export type Handle = 'none' | 'sides' | 'front';

/** A hole in a wall, in the wall's frame, and what it leaves free. */
interface HandleHole {
  readonly plateId: string;
  readonly path: Path;
  readonly space: Omit<Solid, 'partId'>;
}

const holed: Readonly<Record<Handle, readonly string[]>> = {
  none: [],
  sides: ['left', 'right', 'inner-left', 'inner-right'],
  front: ['front'],
};

/** Holes with round ends in walls, about the middle of these. @param centreZ how high above the floor their middle is, in mm */
export function handleHoles(
  handle: Handle,
  plates: readonly Plate[],
  [widthMm, heightMm]: readonly [number, number],
  centreZ: number,
): HandleHole[] {
  return plates
    .filter(({ id }) => holed[handle].includes(id))
    .map((plate) => {
      const { min, max } = plate.box;
      const centre: Vec3 = [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2, centreZ];
      const { x, y } = onPlace(placeOf(plate), centre);
      const corner = Math.min(widthMm, heightMm) / 2;
      const form = formPath({ kind: 'rectangle', halfX: widthMm / 2, halfY: heightMm / 2, corner }, 0);
      const path = transformPath(form, [1, 0, 0, 1, x, y]);
      return {
        plateId: plate.id,
        path,
        space: { outlines: flatten(path), place: placeOf(plate), depth: thicknessOf(plate) },
      };
    });
}
