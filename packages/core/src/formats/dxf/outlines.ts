import type { Shape } from '../../document/shape.ts';
import { addEllipticArc } from '../../geometry/paths/arc.ts';
import { type Path, PathBuilder } from '../../geometry/paths/path.ts';
import { addSpline, type Spline, splineStart } from '../../geometry/paths/spline.ts';

/** What an entity draws, in its own plane, y up. */
export interface Drawn {
  readonly shape: Shape;
  readonly filled: boolean;
  /** Something of it that was not taken as it is: the code of a note. */
  readonly remark?: 'spline-through-points' | 'hatch-pattern';
}

export const turn = Math.PI / 180;

/** A path as an outline that is not filled; null where there is nothing of it. */
export function outline(path: Path | null): Drawn | null {
  return path && path.verbs.length > 1 ? { shape: { kind: 'path', path }, filled: false } : null;
}

/** An angle brought into (0, 2π]: what lies between two equal angles is a whole turn. */
export function wrapped(span: number): number {
  const full = 2 * Math.PI;
  const rest = ((span % full) + full) % full;
  return rest < 1e-9 ? full : rest;
}

export interface Dot {
  readonly x: number;
  readonly y: number;
}

/** A polyline; null where its points are all one. */
export function lineThrough(points: readonly Dot[], close: boolean): Path | null {
  const builder = new PathBuilder();
  points.forEach(({ x, y }, i) => {
    if (i === 0) builder.moveTo(x, y);
    else if (x !== builder.x || y !== builder.y) builder.lineTo(x, y);
  });
  if (close) builder.close();
  const path = builder.build();
  return path.verbs.length > 1 ? path : null;
}

/**
 * An arc of an ellipse about a centre.
 * @param phi how its axes are turned
 * @param from where it starts
 * @param span how far it goes; all in radians
 */
export function arc({ x, y }: Dot, rx: number, ry: number, phi: number, from: number, span: number): Path {
  const pointAt = (t: number) => ({
    x: x + Math.cos(phi) * rx * Math.cos(t) - Math.sin(phi) * ry * Math.sin(t),
    y: y + Math.sin(phi) * rx * Math.cos(t) + Math.cos(phi) * ry * Math.sin(t),
  });
  const start = pointAt(from);
  const builder = new PathBuilder().moveTo(start.x, start.y);
  addEllipticArc(builder, x, y, rx, ry, phi, from, span);
  if (Math.abs(span) > 2 * Math.PI - 1e-9) builder.close();
  return builder.build();
}

export interface Vertex extends Dot {
  bulge: number;
}

/** A polyline whose segments bulge: the tangent of a quarter of the arc's angle, to the left when positive. */
export function bulged(vertices: readonly Vertex[], closed: boolean): Path | null {
  if (vertices.length < 2) return null;
  const builder = new PathBuilder().moveTo(vertices[0].x, vertices[0].y);
  const last = closed ? vertices.length : vertices.length - 1;
  for (let i = 0; i < last; i++) {
    const a = vertices[i];
    const b = vertices[(i + 1) % vertices.length];
    if (a.x === b.x && a.y === b.y) continue;
    if (Math.abs(a.bulge) < 1e-9) {
      if (i < vertices.length - 1) builder.lineTo(b.x, b.y);
      continue;
    }
    const span = 4 * Math.atan(a.bulge);
    const [dx, dy] = [b.x - a.x, b.y - a.y];
    // The centre lies on the chord's bisector, (1 − b²) / 4b chords to its left.
    const away = (1 - a.bulge * a.bulge) / (4 * a.bulge);
    const [cx, cy] = [(a.x + b.x) / 2 - dy * away, (a.y + b.y) / 2 + dx * away];
    const radius = Math.hypot(a.x - cx, a.y - cy);
    addEllipticArc(builder, cx, cy, radius, radius, 0, Math.atan2(a.y - cy, a.x - cx), span, b);
  }
  if (closed) builder.close();
  return builder.build();
}

/** A spline as cubic curves. @param tolerance in the file's units */
export function splinePath(curve: Spline, closed: boolean, tolerance: number): Path {
  const start = splineStart(curve);
  const builder = new PathBuilder().moveTo(start.x, start.y);
  addSpline(builder, curve, tolerance);
  if (closed) builder.close();
  return builder.build();
}

/** A smooth curve through points: each one's tangent is along its neighbours (Catmull and Rom, 1974). */
export function curveThrough(points: readonly Dot[], closed: boolean): Path | null {
  const pointAt = (i: number) =>
    closed ? points[(i + points.length) % points.length] : points[Math.min(points.length - 1, Math.max(0, i))];
  const builder = new PathBuilder().moveTo(points[0].x, points[0].y);
  for (let i = 0; i < (closed ? points.length : points.length - 1); i++) {
    const [before, a, b, after] = [pointAt(i - 1), pointAt(i), pointAt(i + 1), pointAt(i + 2)];
    builder.cubicTo(
      a.x + (b.x - before.x) / 6,
      a.y + (b.y - before.y) / 6,
      b.x - (after.x - a.x) / 6,
      b.y - (after.y - a.y) / 6,
      b.x,
      b.y,
    );
  }
  if (closed) builder.close();
  return builder.build();
}
