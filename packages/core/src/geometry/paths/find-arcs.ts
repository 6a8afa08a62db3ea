import { addEllipticArc } from './arc.ts';
import { centreThrough } from './arc-of.ts';
import type { Point } from './matrix.ts';
import { type Path, PathBuilder } from './path.ts';
import { addSegment, pointAt, type Segment, subpathsOf } from './segments.ts';

/** A part of a circle: where it is, where it starts and how far it turns, in radians, clockwise on the screen. */
export interface FoundArc {
  readonly cx: number;
  readonly cy: number;
  readonly radius: number;
  readonly from: number;
  readonly span: number;
}

/** A path with its arcs drawn as such, and each of them; `whole` where a subpath is nothing but one. */
export interface ArcsFound {
  readonly path: Path;
  readonly arcs: readonly (FoundArc & { readonly whole: boolean })[];
}

/** Arcs of fewer segments than this are left as they are drawn, and of less than this turn. */
const fewest = 3;
const leastTurn = 0.2;
/** Circles larger than this, in mm, are straight lines for the eye. */
const largestRadius = 5000;

/**
 * Finds runs of segments that lie on one circle within `tolerance` mm, and draws them as arcs: what a conversion
 * has broken into short lines or odd curves is round again. A run is taken as long as it can be, from the first
 * segment on; ends stay where they are.
 */
export function findArcs(path: Path, tolerance: number): ArcsFound {
  const builder = new PathBuilder();
  const arcs: (FoundArc & { whole: boolean })[] = [];
  for (const { segments, closed } of subpathsOf(path)) {
    builder.moveTo(segments[0][0], segments[0][1]);
    for (let i = 0; i < segments.length; ) {
      const run = longestRun(segments, i, tolerance);
      if (!run) {
        addSegment(builder, segments[i++]);
        continue;
      }
      const last = segments[run.end - 1];
      const { cx, cy, radius, from, span } = run.arc;
      addEllipticArc(builder, cx, cy, radius, radius, 0, from, span, { x: last[6], y: last[7] });
      arcs.push({ ...run.arc, whole: run.end - i === segments.length });
      i = run.end;
    }
    if (closed) builder.close();
  }
  return { path: builder.build(), arcs };
}

function longestRun(
  segments: readonly Segment[],
  start: number,
  tolerance: number,
): { end: number; arc: FoundArc } | null {
  if (segments.length - start < fewest) return null;
  let best: { end: number; arc: FoundArc } | null = null;
  // Twice as long each time, then back by halves: few circles are tried for a long run.
  let [good, step] = [start, fewest];
  while (step >= 1) {
    const end = Math.min(segments.length, good + step);
    const arc = end - start >= fewest && end > good ? arcThrough(segments.slice(start, end), tolerance) : null;
    if (arc) {
      best = { end, arc };
      good = end;
      step *= 2;
    } else step = Math.floor(step / 2);
  }
  return best && Math.abs(best.arc.span) >= leastTurn ? best : null;
}

/** The circle that all of a run lies on, going round one way; null when there is none. */
function arcThrough(run: readonly Segment[], tolerance: number): FoundArc | null {
  const points: Point[] = [{ x: run[0][0], y: run[0][1] }];
  for (const segment of run) for (const t of [0.25, 0.5, 0.75, 1]) points.push(pointAt(segment, t));
  // Chords lie inside their circle: it goes through the ends.
  const ends = points.filter((_, i) => i % 4 === 0);
  const third = Math.floor(ends.length / 3);
  const centre = centreThrough(ends[0], ends[third], ends[2 * third]);
  if (!centre) return null;
  const radii = ends.map(({ x, y }) => Math.hypot(x - centre.x, y - centre.y));
  const radius = (Math.max(...radii) + Math.min(...radii)) / 2;
  if (!(radius > tolerance && radius < largestRadius)) return null;
  const from = Math.atan2(points[0].y - centre.y, points[0].x - centre.x);
  let [span, before] = [0, from];
  for (const { x, y } of points) {
    if (Math.abs(Math.hypot(x - centre.x, y - centre.y) - radius) > tolerance) return null;
    const angle = Math.atan2(y - centre.y, x - centre.x);
    let turn = angle - before;
    if (turn > Math.PI) turn -= 2 * Math.PI;
    if (turn < -Math.PI) turn += 2 * Math.PI;
    if (turn * span < -1e-9) return null;
    span += turn;
    before = angle;
  }
  if (Math.abs(span) > 2 * Math.PI + 1e-6) return null;
  return { cx: centre.x, cy: centre.y, radius, from, span };
}
