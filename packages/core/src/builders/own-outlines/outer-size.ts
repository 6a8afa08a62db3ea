import { extrusionOf } from '../assembly/extrusion.ts';
import { axes, type Solid, type Vec3 } from '../assembly/space.ts';

/** How large what solids fill is along each axis, in mm. */
export function outerSize(solids: readonly Solid[]): Vec3 {
  const boxes = solids.map((solid) => extrusionOf(solid).box);
  return axes.map(
    (axis) => Math.max(...boxes.map(({ max }) => max[axis])) - Math.min(...boxes.map(({ min }) => min[axis])),
  ) as unknown as Vec3;
}
