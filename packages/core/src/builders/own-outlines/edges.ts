import { type Area, areaOf } from '../../geometry/areas/area.ts';
import { straightened } from '../../geometry/areas/trace.ts';
import { flatten, polylineContains } from '../../geometry/paths/flatten.ts';
import type { Matrix, Point } from '../../geometry/paths/matrix.ts';
import { type Path, transformPath } from '../../geometry/paths/path.ts';
import {
  isLine,
  lineSegment,
  pathOfSubpaths,
  type Segment,
  type Subpath,
  subpathsOf,
} from '../../geometry/paths/segments.ts';

/** A straight edge of a closed line, as that goes round, in mm. */
export interface StraightEdge {
  /** From 1, in the order of the outline. */
  readonly number: number;
  /** Which line of the outline, and which of its segments. */
  readonly line: number;
  readonly segment: number;
  readonly from: Point;
  readonly to: Point;
  readonly lengthMm: number;
  /** Unit vectors along it, and from it into the stock. */
  readonly along: Point;
  readonly inward: Point;
}

/** An outline's lines, without nodes on straight stretches: edges are whole. */
export function linesOf(path: Path): Subpath[] {
  return [...subpathsOf(path)].map(({ segments, closed }) => ({ segments: straightened(segments, closed), closed }));
}

/** Edges that are shorter are parts of curves, in mm. */
const shortest = 1;
/** So far beside an edge it is seen on which side the stock is, in mm. */
const beside = 1e-3;

/** The straight edges of an outline, 1 mm or longer, in its order. */
export function straightEdges(path: Path): StraightEdge[] {
  const rings = flatten(path).filter(({ closed }) => closed);
  const isIn = (x: number, y: number) => rings.filter((ring) => polylineContains(ring, x, y)).length % 2 === 1;
  let number = 0;
  return linesOf(path).flatMap(({ segments, closed }, line) =>
    segments.flatMap((segment, i): StraightEdge[] => {
      if (!closed || !isLine(segment)) return [];
      const [from, to] = [
        { x: segment[0], y: segment[1] },
        { x: segment[6], y: segment[7] },
      ];
      const lengthMm = Math.hypot(to.x - from.x, to.y - from.y);
      if (lengthMm < shortest) return [];
      const along = { x: (to.x - from.x) / lengthMm, y: (to.y - from.y) / lengthMm };
      const [x, y] = [(from.x + to.x) / 2, (from.y + to.y) / 2];
      const side = isIn(x - along.y * beside, y + along.x * beside) ? 1 : -1;
      const inward = { x: -side * along.y, y: side * along.x };
      return [{ number: ++number, line, segment: i, from, to, lengthMm, along, inward }];
    }),
  );
}

/** The edge of a number, or the longest for 0. @returns undefined where there is none */
export function edgeNumbered(edges: readonly StraightEdge[], number: number): StraightEdge | undefined {
  if (number !== 0) return edges.find((edge) => edge.number === number);
  return edges.reduce<StraightEdge | undefined>(
    (longest, edge) => (longest && longest.lengthMm >= edge.lengthMm ? longest : edge),
    undefined,
  );
}

/** Takes an outline's frame to its edge's: along it from its middle, and into the stock from it. */
export function toEdge({ from, to, along, inward }: StraightEdge): Matrix {
  const [x, y] = [(from.x + to.x) / 2, (from.y + to.y) / 2];
  return [
    ...([along.x, inward.x, along.y, inward.y] as const),
    ...([-(along.x * x + along.y * y), -(inward.x * x + inward.y * y)] as const),
  ];
}

/** A place in an edge's frame, in the outline's. */
export function fromEdge({ from, to, along, inward }: StraightEdge, [place, depth]: Place): Point {
  return {
    x: (from.x + to.x) / 2 + place * along.x + depth * inward.x,
    y: (from.y + to.y) / 2 + place * along.y + depth * inward.y,
  };
}

/** A place by an edge: along it from its middle, and into the stock from it, in mm. */
export type Place = readonly [place: number, depth: number];

/**
 * An outline with other points instead of an edge, from its start to its end. Where these begin or end beside the edge,
 * its straight neighbours end there.
 */
export function withEdge(path: Path, edge: StraightEdge, places: readonly Place[]): Path {
  const points = places.map((place) => fromEdge(edge, place));
  const lines = linesOf(path).map((line, i): Subpath => {
    if (i !== edge.line) return line;
    const { segments } = line;
    const count = segments.length;
    const [before, after] = [(edge.segment + count - 1) % count, (edge.segment + 1) % count];
    const [first, last] = [points[0], points[points.length - 1]];
    const ends = (segment: Segment, index: number): Segment => {
      if (!isLine(segment)) return segment;
      const [x0, y0, , , , , x1, y1] = segment;
      const start = index === after ? last : { x: x0, y: y0 };
      const end = index === before ? first : { x: x1, y: y1 };
      return lineSegment(start.x, start.y, end.x, end.y);
    };
    const made = segments.flatMap((segment, index): Segment[] => {
      if (index !== edge.segment) return [ends(segment, index)];
      return points.slice(1).map(({ x, y }, k) => lineSegment(points[k].x, points[k].y, x, y));
    });
    const whole = made.filter(([x0, y0, , , , , x1, y1]) => Math.hypot(x1 - x0, y1 - y0) > 1e-9);
    return { segments: straightened(whole, true), closed: true };
  });
  return pathOfSubpaths(lines);
}

/** What an outline fills, in the frame of one of its edges. */
export const stockAt = (path: Path, edge: StraightEdge): Area => areaOf(transformPath(path, toEdge(edge)), 'evenodd');
