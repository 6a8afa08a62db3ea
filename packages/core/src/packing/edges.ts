import type { Box } from '../geometry/paths/box.ts';
import { emptyBox } from '../geometry/paths/box.ts';
import { signedArea } from '../geometry/paths/flatten.ts';

/** Numbers kept of each edge: where it begins and ends on one axis, where it then is on the other, and its sign. */
export const edgeNumbers = 5;

/**
 * The edges of an area as lines over one axis, five numbers each: from where to where on that axis, the first below the
 * second; where it is on the other axis at the first of them, and by how much that grows per mm; and 1 where one comes into the area going up the other axis, -1 where one
 * leaves it. Edges that lie level are left out: they enclose nothing along the other axis. In the order of where they begin.
 */
export type Edges = Float64Array;

/** An area that is moved about without being turned: its edges over both axes, in mm from a place of its own. */
export interface Shape {
  /** Over Y: what a move along X is worked out by. */
  readonly overY: Edges;
  /** Over X: what a move along Y is worked out by. */
  readonly overX: Edges;
  readonly box: Box;
  /** In mm². */
  readonly area: number;
}

/** Closed rings as points, x and y one after another: outer ones and holes turn opposite ways. */
export type Rings = readonly Float64Array[];

/** What rings enclose, in mm²; below 0 where the outer ones turn the other way. */
export function areaOfRings(rings: Rings): number {
  return rings.reduce((sum, points) => sum + signedArea({ points, closed: true }), 0);
}

/** The shape of rings. Those that go round most decide which way is outward. */
export function shapeOf(rings: Rings): Shape {
  const area = areaOfRings(rings);
  const way = Math.sign(area) || 1;
  const [overY, overX]: [number[], number[]] = [[], []];
  let box = emptyBox;
  for (const ring of rings) {
    for (let i = 0; i < ring.length; i += 2) {
      const next = (i + 2) % ring.length;
      const [x0, y0, x1, y1] = [ring[i], ring[i + 1], ring[next], ring[next + 1]];
      box = {
        minX: Math.min(box.minX, x0),
        minY: Math.min(box.minY, y0),
        maxX: Math.max(box.maxX, x0),
        maxY: Math.max(box.maxY, y0),
      };
      pushEdge(overY, y0, y1, x0, x1, -way);
      pushEdge(overX, x0, x1, y0, y1, way);
    }
  }
  return { overY: inOrder(overY), overX: inOrder(overX), box, area: Math.abs(area) };
}

function pushEdge(edges: number[], from: number, to: number, begin: number, then: number, way: number): void {
  const slope = (then - begin) / (to - from);
  if (from < to) edges.push(from, to, begin, slope, way);
  else if (from > to) edges.push(to, from, then, slope, -way);
}

function inOrder(edges: readonly number[]): Edges {
  const count = edges.length / edgeNumbers;
  const order = Array.from({ length: count }, (_, i) => i * edgeNumbers).sort((a, b) => edges[a] - edges[b]);
  return Float64Array.from(order.flatMap((i) => edges.slice(i, i + edgeNumbers)));
}
