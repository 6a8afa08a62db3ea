import fitCurve from 'fit-curve';
import { flatten, type Polyline } from './flatten.ts';
import { type Path, PathBuilder } from './path.ts';

/** A turn sharper than this, in radians, is a corner that stays one. */
const cornerTurn = 0.5;

/**
 * A path of fewer curves that strays no further than `tolerance` mm from the one given: its points are fitted
 * with cubics between corners (Schneider, "An Algorithm for Automatically Fitting Digitized Curves").
 */
export function simplifyPath(path: Path, tolerance: number): Path {
  const builder = new PathBuilder();
  for (const line of flatten(path, tolerance / 4)) addFitted(builder, line, tolerance / 2);
  return builder.build();
}

/** A smooth path through the points that a pen left, x and y one after another, straying no further than `tolerance`. */
export function fitPoints(points: Float64Array, closed: boolean, tolerance: number): Path {
  const builder = new PathBuilder();
  addFitted(builder, { points, closed }, tolerance);
  return builder.build();
}

function addFitted(builder: PathBuilder, { points, closed }: Polyline, tolerance: number): void {
  const count = points.length / 2;
  if (count < 2) return;
  const pointAt = (i: number): [number, number] => [points[(i % count) * 2], points[(i % count) * 2 + 1]];
  const turnsAt = (i: number) => {
    const [[ax, ay], [bx, by], [cx, cy]] = [pointAt(i - 1 + count), pointAt(i), pointAt(i + 1)];
    const [ux, uy, vx, vy] = [bx - ax, by - ay, cx - bx, cy - by];
    return Math.abs(Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy)) > cornerTurn;
  };
  const corners: number[] = [];
  for (let i = closed ? 0 : 1; i < (closed ? count : count - 1); i++) if (turnsAt(i)) corners.push(i);
  const start = closed ? (corners[0] ?? 0) : 0;
  const stops = closed ? [...(corners.length > 0 ? corners : [0]), start + count] : [0, ...corners, count - 1];
  const [x, y] = pointAt(stops[0]);
  builder.moveTo(x, y);
  for (let k = 1; k < stops.length; k++) {
    const run: [number, number][] = [];
    for (let i = stops[k - 1]; i <= stops[k]; i++) run.push(pointAt(i));
    if (run.length === 2) builder.lineTo(...run[1]);
    else if (isStraight(run, tolerance)) builder.lineTo(...run[run.length - 1]);
    // The package measures by the square of the distance.
    else
      for (const [, p, q, end] of fitCurve(run, tolerance * tolerance))
        builder.cubicTo(p[0], p[1], q[0], q[1], end[0], end[1]);
  }
  if (closed) builder.close();
}

function isStraight(run: readonly [number, number][], tolerance: number): boolean {
  const [ax, ay] = run[0];
  const [bx, by] = run[run.length - 1];
  const length = Math.hypot(bx - ax, by - ay);
  if (length < 1e-9) return false;
  return run.every(([x, y]) => Math.abs((x - ax) * (by - ay) - (y - ay) * (bx - ax)) / length <= tolerance);
}
