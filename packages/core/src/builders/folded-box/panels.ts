import { cross, type Place, type Vec3 } from '../assembly/space.ts';

/** A direction on a net: along x or along y, to either side. */
export type Direction = readonly [x: 1 | 0 | -1, y: 1 | 0 | -1];

/** How a sheet bends: how thick it is, and how far outside the inner face of a panel the line of its bend lies, in mm. */
export interface Bend {
  readonly thickness: number;
  readonly line: number;
}

/**
 * Where a panel lies that is folded inwards, by a right angle, from another one. A net is drawn from its outer face. What
 * lies `line` beyond a bend is at the inner face of the panel that it is bent from.
 *
 * @param parent where the panel lies that it hangs on, by the frame of the net
 * @param outwards from the parent to the panel, on the net
 * @param crease how far the bend lies along that direction, in mm.
 */
export function foldedFrom(parent: Place, outwards: Direction, crease: number, { thickness, line }: Bend): Place {
  const inwards = cross(parent.u, parent.v);
  const along = added(scaled(parent.u, outwards[0]), scaled(parent.v, outwards[1]));
  // On the net, the place that comes to lie at both inner faces: beyond the bend by its line.
  const reached = crease + line;
  const corner = added(added(parent.origin, scaled(along, crease - line + thickness)), scaled(inwards, thickness));
  const turned = (direction: Vec3, share: number) => (share === 0 ? direction : scaled(inwards, share));
  return {
    origin: added(corner, scaled(inwards, -reached)),
    u: turned(parent.u, outwards[0]),
    v: turned(parent.v, outwards[1]),
  };
}

const added = (a: Vec3, b: Vec3): Vec3 => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
const scaled = ([x, y, z]: Vec3, factor: number): Vec3 => [x * factor, y * factor, z * factor];
