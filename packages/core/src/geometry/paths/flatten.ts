import { coordsOf, cubicAt, type Path, Verb } from './path.ts';

/** A run of straight lines: x and y of each point one after another. A closed one does not repeat its start. */
export interface Polyline {
  readonly points: Float64Array;
  readonly closed: boolean;
}

/** How far from the true curve flattening may stray, in mm, where nothing else is said. */
export const usualTolerance = 0.01;

/**
 * A path as polylines, one a subpath, nowhere further than `tolerance` mm from it.
 * A subpath whose end meets its start (to 1e-6 mm) counts as closed. Points without extent
 * are kept as polylines of one point, so that whoever asks can say they are there.
 *
 * Each cubic is cut into equal steps of t; their number comes from the curve's second differences
 * (Sederberg, "Computer Aided Geometric Design", section 10.6).
 */
export function flatten(path: Path, tolerance = usualTolerance): Polyline[] {
  const { verbs, coords } = path;
  const out: Polyline[] = [];
  let points: number[] = [];
  let index = 0;
  const finish = (closedByVerb: boolean) => {
    if (points.length === 0) return;
    let closed = closedByVerb;
    const last = points.length - 2;
    const meets = Math.abs(points[0] - points[last]) < 1e-6 && Math.abs(points[1] - points[last + 1]) < 1e-6;
    if (last > 2 && meets) {
      closed = true;
      points.length = last;
    }
    out.push({ points: Float64Array.from(points), closed: closed && points.length >= 4 });
    points = [];
  };
  for (const verb of verbs) {
    if (verb === Verb.move) {
      finish(false);
      points.push(coords[index], coords[index + 1]);
    } else if (verb === Verb.line) {
      pushPoint(points, coords[index], coords[index + 1]);
    } else if (verb === Verb.cubic) {
      pushCubic(points, coords, index, tolerance);
    } else {
      finish(true);
    }
    index += coordsOf[verb];
  }
  finish(false);
  return out;
}

function pushPoint(points: number[], x: number, y: number): void {
  const last = points.length - 2;
  if (points[last] !== x || points[last + 1] !== y) points.push(x, y);
}

/** Into how many equal steps of t a cubic is cut so that its chords stray no further than `tolerance` from it. */
export function cubicSteps(
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  x2: number,
  y2: number,
  x3: number,
  y3: number,
  tolerance: number,
): number {
  const secondDifference = Math.max(
    Math.hypot(x0 - 2 * x1 + x2, y0 - 2 * y1 + y2),
    Math.hypot(x1 - 2 * x2 + x3, y1 - 2 * y2 + y3),
  );
  return Math.max(1, Math.ceil(Math.sqrt((0.75 * secondDifference) / tolerance)));
}

function pushCubic(points: number[], c: Float64Array, index: number, tolerance: number): void {
  const x0 = points[points.length - 2];
  const y0 = points[points.length - 1];
  const x1 = c[index];
  const y1 = c[index + 1];
  const x2 = c[index + 2];
  const y2 = c[index + 3];
  const x3 = c[index + 4];
  const y3 = c[index + 5];
  const steps = Math.min(10_000, cubicSteps(x0, y0, x1, y1, x2, y2, x3, y3, tolerance));
  for (let i = 1; i < steps; i++) {
    const t = i / steps;
    pushPoint(points, cubicAt(x0, x1, x2, x3, t), cubicAt(y0, y1, y2, y3, t));
  }
  pushPoint(points, x3, y3);
}

/** The length of a polyline in mm, the closing edge included. */
export function polylineLength({ points, closed }: Polyline): number {
  let sum = 0;
  for (let i = 2; i < points.length; i += 2) {
    sum += Math.hypot(points[i] - points[i - 2], points[i + 1] - points[i - 1]);
  }
  if (closed) {
    const last = points.length - 2;
    sum += Math.hypot(points[0] - points[last], points[1] - points[last + 1]);
  }
  return sum;
}

/** The area a polyline encloses in mm² by the shoelace formula; more than 0 when clockwise on screen. */
export function signedArea({ points }: Polyline): number {
  let twice = 0;
  let px = points[points.length - 2];
  let py = points[points.length - 1];
  for (let i = 0; i < points.length; i += 2) {
    twice += px * points[i + 1] - points[i] * py;
    px = points[i];
    py = points[i + 1];
  }
  return twice / 2;
}

/** Whether a point lies inside a closed polyline, even-odd. */
export function polylineContains({ points }: Polyline, x: number, y: number): boolean {
  let inside = false;
  let px = points[points.length - 2];
  let py = points[points.length - 1];
  for (let i = 0; i < points.length; i += 2) {
    const qx = points[i];
    const qy = points[i + 1];
    if (py > y !== qy > y && x < ((px - qx) * (y - qy)) / (py - qy) + qx) inside = !inside;
    px = qx;
    py = qy;
  }
  return inside;
}
