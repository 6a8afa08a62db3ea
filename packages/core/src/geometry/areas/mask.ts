import { type Path, PathBuilder } from '../paths/path.ts';
import { simplifyPolyline } from '../paths/simplify.ts';

/** Steps of an outline along the grid: to the right, down, to the left, up. */
const steps = [
  [1, 0],
  [0, 1],
  [-1, 0],
  [0, -1],
] as const;

/** How far an outline may stray from the cells' edges, in cells: a slanted edge comes out as one line. */
const tolerance = 0.75;

/**
 * The outlines of what is set in a grid of cells, a cell one unit wide. What is set lies on their right, as seen on the
 * screen. Cells that touch at a corner only are apart.
 *
 * @param mask row by row, not 0 where it is set
 */
export function outlineOfMask(mask: Uint8Array, width: number, height: number): Path {
  const isSet = (x: number, y: number) => x >= 0 && y >= 0 && x < width && y < height && mask[y * width + x] !== 0;
  // Of each corner of the grid, in which directions an edge leads on from it.
  const leads = new Uint8Array((width + 1) * (height + 1));
  const nodeAt = (x: number, y: number) => y * (width + 1) + x;
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      if (!isSet(x, y)) continue;
      if (!isSet(x, y - 1)) leads[nodeAt(x, y)] |= 1;
      if (!isSet(x + 1, y)) leads[nodeAt(x + 1, y)] |= 2;
      if (!isSet(x, y + 1)) leads[nodeAt(x + 1, y + 1)] |= 4;
      if (!isSet(x - 1, y)) leads[nodeAt(x, y + 1)] |= 8;
    }
  }
  const builder = new PathBuilder();
  for (let start = 0; start < leads.length; start++) {
    while (leads[start] !== 0) addRing(builder, ringFrom(leads, width, start));
  }
  return builder.build();
}

/** Follows the edges from a corner back to it, taking them away; the corners at which the path turns. */
function ringFrom(leads: Uint8Array, width: number, start: number): Float64Array {
  const points: number[] = [];
  let [x, y] = [start % (width + 1), Math.floor(start / (width + 1))];
  let direction = -1;
  for (let corner = start; leads[corner] !== 0; corner = y * (width + 1) + x) {
    // Where two paths part, to the right first: cells that touch at a corner stay apart.
    const turns = direction < 0 ? [0, 1, 2, 3] : [direction + 1, direction, direction + 3].map((turn) => turn % 4);
    const next = turns.find((turn) => leads[corner] & (1 << turn));
    if (next === undefined) break;
    if (next !== direction) points.push(x, y);
    leads[corner] &= ~(1 << next);
    direction = next;
    x += steps[next][0];
    y += steps[next][1];
  }
  return Float64Array.from(points);
}

function addRing(builder: PathBuilder, ring: Float64Array): void {
  // The ends of a run stay: a ring is thinned as two, between the corners furthest apart from its first on.
  const count = ring.length / 2;
  let far = 0;
  for (let i = 1; i < count; i++) if (squareFrom(ring, i) > squareFrom(ring, far)) far = i;
  const there = simplifyPolyline(ring.slice(0, 2 * far + 2), tolerance);
  const back = simplifyPolyline(Float64Array.from([...ring.slice(2 * far), ring[0], ring[1]]), tolerance);
  builder.ring([...there, ...back.slice(2, -2)]);
}

function squareFrom(ring: Float64Array, i: number): number {
  return (ring[2 * i] - ring[0]) ** 2 + (ring[2 * i + 1] - ring[1]) ** 2;
}
