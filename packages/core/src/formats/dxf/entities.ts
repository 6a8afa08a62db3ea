import { determinant, type Matrix } from '../../geometry/paths/matrix.ts';
import { appendPath, type Path, PathBuilder, transformPath } from '../../geometry/paths/path.ts';
import { isSound, type Spline } from '../../geometry/paths/spline.ts';
import { Fields, finite, type Group, type Raw } from './groups.ts';
import { loopOf } from './hatch-loop.ts';
import {
  arc,
  bulged,
  curveThrough,
  type Dot,
  type Drawn,
  lineThrough,
  outline,
  splinePath,
  turn,
  type Vertex,
  wrapped,
} from './outlines.ts';

/** The shape of a simple entity; null when it is damaged or draws nothing, `undefined` when it is of another kind. */
export function drawEntity(
  type: string,
  fields: Fields,
  vertices: readonly Raw[],
  tolerance: number,
): Drawn | null | undefined {
  switch (type) {
    case 'LINE':
      return outline(lineThrough([fields.point(10), fields.point(11)], false));
    case 'CIRCLE': {
      const radius = fields.number(40, 0);
      const { x, y } = fields.point(10);
      return radius > 0 ? { shape: { kind: 'ellipse', cx: x, cy: y, rx: radius, ry: radius }, filled: false } : null;
    }
    case 'ARC': {
      const from = fields.number(50, 0) * turn;
      const span = wrapped(fields.number(51, 0) * turn - from);
      const radius = fields.number(40, 0);
      return radius > 0 ? outline(arc(fields.point(10), radius, radius, 0, from, span)) : null;
    }
    case 'ELLIPSE':
      return ellipse(fields);
    case 'LWPOLYLINE':
      return outline(bulged(lightVertices(fields.groups), (fields.number(70, 0) & 1) === 1));
    case 'POLYLINE':
      return polyline(fields, vertices);
    case 'SPLINE':
      return spline(fields, tolerance);
    case 'HATCH':
      return hatch(fields, tolerance);
    case 'SOLID':
    case 'TRACE': {
      const [a, b, c] = [fields.point(10), fields.point(11), fields.point(12)];
      const d = fields.text(13) === null ? c : fields.point(13);
      // Its third and fourth corners stand crosswise.
      const path = lineThrough([a, b, d, c], true);
      return path && { shape: { kind: 'path', path }, filled: true };
    }
    case '3DFACE': {
      const corners = [10, 11, 12, 13].filter((code) => fields.text(code) !== null).map((code) => fields.point(code));
      return outline(lineThrough(corners, true));
    }
    case 'LEADER':
      return outline(lineThrough(fields.points(10), false));
    default:
      return undefined;
  }
}

/** An ellipse lies in the drawing's own space; the plane it stands in says which way round its angles count. */
function ellipse(fields: Fields): Drawn | null {
  const major = fields.point(11);
  const ratio = fields.number(40, 1);
  const { x, y, z } = fields.text(210) === null ? { x: 0, y: 0, z: 1 } : fields.point(210);
  const size = Math.hypot(x, y, z) || 1;
  // The minor axis is the normal times the major one, seen from above.
  const minor = {
    x: ((y * major.z - z * major.y) / size) * ratio,
    y: ((z * major.x - x * major.z) / size) * ratio,
  };
  const centre = fields.point(10);
  const axes: Matrix = [major.x, major.y, minor.x, minor.y, centre.x, centre.y];
  if (Math.abs(determinant(axes)) < 1e-18) return null;
  const from = fields.number(41, 0);
  const span = wrapped(fields.number(42, 2 * Math.PI) - from);
  return outline(transformPath(arc({ x: 0, y: 0 }, 1, 1, 0, from, span), axes));
}

function lightVertices(groups: readonly Group[]): Vertex[] {
  const out: { x: number; y: number; bulge: number }[] = [];
  for (const [code, value] of groups) {
    if (code === 10) out.push({ x: finite(value), y: 0, bulge: 0 });
    else if (code === 20 && out.length > 0) out[out.length - 1].y = finite(value);
    else if (code === 42 && out.length > 0) out[out.length - 1].bulge = finite(value);
  }
  return out;
}

function polyline(fields: Fields, vertices: readonly Raw[]): Drawn | null {
  const flags = fields.number(70, 0);
  // Meshes are no outlines.
  if (flags & (16 | 64)) return null;
  const read = vertices.map((raw) => {
    const vertex = new Fields(raw);
    const { x, y } = vertex.point(10);
    return { x, y, bulge: vertex.number(42, 0), flags: vertex.number(70, 0) };
  });
  // Of a splined or fitted polyline, the frame of control points is not drawn.
  return outline(
    bulged(
      read.filter((vertex) => (vertex.flags & 16) === 0),
      (flags & 1) === 1,
    ),
  );
}

function spline(fields: Fields, tolerance: number): Drawn | null {
  const curve: Spline = {
    degree: fields.number(71, 3),
    knots: fields.all(40).map(finite),
    points: fields.points(10),
    weights: fields.all(41).map(finite),
  };
  const closed = (fields.number(70, 0) & 1) === 1;
  if (isSound(curve)) return outline(splinePath(curve, closed, tolerance));
  const through = fields.points(11);
  if (through.length < 2) return null;
  const drawn = outline(curveThrough(through, closed));
  return drawn && { ...drawn, remark: 'spline-through-points' };
}

/** Reads a hatch's boundaries, whose groups only mean something in their order. */
class BoundaryReader {
  private position = 0;

  constructor(private readonly groups: readonly Group[]) {}

  /** Goes on to the next group of this code; NaN when there is none. */
  number(code: number): number {
    while (this.position < this.groups.length) {
      const [known, value] = this.groups[this.position++];
      if (known === code) return finite(value);
    }
    return Number.NaN;
  }

  /** The next group's number when it has this code, without passing over others. */
  next(code: number): number | null {
    const group = this.groups[this.position];
    if (group?.[0] !== code) return null;
    this.position++;
    return finite(group[1]);
  }

  point(code: number): Dot {
    return { x: this.number(code), y: this.number(code + 10) };
  }
}

function hatch(fields: Fields, tolerance: number): Drawn | null {
  const reader = new BoundaryReader(fields.groups);
  const builder = new PathBuilder();
  const count = reader.number(91);
  for (let i = 0; i < count; i++) {
    const flags = reader.number(92);
    if (!Number.isFinite(flags)) break;
    if (flags & 2) {
      const hasBulge = reader.number(72) === 1;
      const closed = reader.number(73) === 1;
      const length = reader.number(93);
      const vertices: Vertex[] = [];
      for (let k = 0; k < length; k++) {
        const point = reader.point(10);
        if (!Number.isFinite(point.y)) break;
        vertices.push({ ...point, bulge: hasBulge ? (reader.next(42) ?? 0) : 0 });
      }
      const path = bulged(vertices, closed);
      if (path) appendPath(builder, path, true);
    } else {
      edges(reader, builder, tolerance);
    }
  }
  const path = builder.build();
  if (path.verbs.length < 2) return null;
  const solid = fields.number(70, 1) === 1;
  return { shape: { kind: 'path', path }, filled: true, ...(solid ? {} : { remark: 'hatch-pattern' as const }) };
}

function edges(reader: BoundaryReader, builder: PathBuilder, tolerance: number): void {
  const count = reader.number(93);
  const read: Path[] = [];
  for (let k = 0; k < count; k++) {
    const kind = reader.number(72);
    let path: Path | null = null;
    if (kind === 1) path = lineThrough([reader.point(10), reader.point(11)], false);
    else if (kind === 2 || kind === 3) {
      const centre = reader.point(10);
      const major = kind === 3 ? reader.point(11) : null;
      const size = reader.number(40);
      const [from, to] = [reader.number(50) * turn, reader.number(51) * turn];
      const forwards = reader.number(73) === 1;
      const rx = major ? Math.hypot(major.x, major.y) : size;
      const ry = major ? rx * size : size;
      const span = wrapped(to - from);
      const phi = major ? Math.atan2(major.y, major.x) : 0;
      // Backwards, angles count the other way round.
      if (Number.isFinite(rx + ry + span))
        path = arc(centre, rx, ry, phi, forwards ? from : -from, forwards ? span : -span);
    } else if (kind === 4) {
      const degree = reader.number(94);
      const rational = reader.number(73) === 1;
      reader.number(74);
      const [knotCount, pointCount] = [reader.number(95), reader.number(96)];
      const knots = Array.from({ length: Math.min(1e5, knotCount || 0) }, () => reader.number(40));
      const points: Dot[] = [];
      const weights: number[] = [];
      for (let i = 0; i < Math.min(1e5, pointCount || 0); i++) {
        points.push(reader.point(10));
        if (rational) weights.push(reader.next(42) ?? 1);
      }
      const curve = { degree, knots, points, weights };
      if (isSound(curve)) path = splinePath(curve, false, tolerance);
    } else break;
    if (path) read.push(path);
  }
  appendPath(builder, loopOf(read, 5 * tolerance), true);
}
