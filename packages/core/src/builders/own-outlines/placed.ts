import { flatten, type Polyline } from '../../geometry/paths/flatten.ts';
import { multiply } from '../../geometry/paths/matrix.ts';
import { type Path, transformPath } from '../../geometry/paths/path.ts';
import { cross, type Solid, type Vec3 } from '../assembly/space.ts';
import { type StraightEdge, toEdge } from './edges.ts';

/** How an outline stands in space by one of its edges; all directions are unit vectors along axes. */
export interface Standing {
  readonly edge: StraightEdge;
  /** Where the middle of the edge lies, on the outer face. */
  readonly middle: Vec3;
  /** From the edge into the stock, and from the outer face into it. */
  readonly inward: Vec3;
  readonly deep: Vec3;
  readonly thicknessMm: number;
}

const handOf = ({ along, inward }: StraightEdge) => Math.sign(along.x * inward.y - along.y * inward.x);

const sum = (a: Vec3, u: Vec3, b: number, v: Vec3, c: number): Vec3 => [
  a[0] + b * u[0] + c * v[0],
  a[1] + b * u[1] + c * v[1],
  a[2] + b * u[2] + c * v[2],
];
const none: Vec3 = [0, 0, 0];

/** Which way an edge goes in space, so that one who looks at the outer face sees its part as it is drawn. */
export function alongOf({ edge, inward, deep }: Standing): Vec3 {
  return sum(none, cross(inward, deep), handOf(edge), none, 0);
}

/** What the closed lines of a path fill that is drawn in the frame of a part that stands so. */
export function spaceAt(standing: Standing, path: Path): Omit<Solid, 'partId'> {
  const { edge, middle, inward, thicknessMm: depth } = standing;
  const along = alongOf(standing);
  const [a, b] = [edge.along, edge.inward];
  const matrix = toEdge(edge);
  if (Math.abs(a.x * a.y) > 0) {
    // Places go along the axes of space: seen in the frame of the edge.
    const hand = handOf(edge);
    const turned = transformPath(path, multiply([hand, 0, 0, 1, 0, 0], matrix));
    const place = { origin: middle, u: sum(none, along, hand, none, 0), v: inward };
    return { outlines: closedOf(turned), place, depth, hasOwnFrame: true };
  }
  const place = {
    origin: sum(middle, along, matrix[4], inward, matrix[5]),
    u: sum(none, along, a.x, inward, b.x),
    v: sum(none, along, a.y, inward, b.y),
  };
  return { outlines: closedOf(path), place, depth };
}

/** The lines of a path that fill something: slits do not. */
export const closedOf = (path: Path): Polyline[] => flatten(path).filter(({ closed }) => closed);
