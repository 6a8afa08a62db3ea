import { type Item, pathOf, reshaped } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import type { Shape } from '../document/shape.ts';
import { type ArcsFound, findArcs } from '../geometry/paths/find-arcs.ts';
import { nodeCount, type Path } from '../geometry/paths/path.ts';
import { simplifyPath } from '../geometry/paths/refit.ts';
import { subpathsOf } from '../geometry/paths/segments.ts';

/*
 * The same outlines, drawn with fewer points or with arcs.
 */

/**
 * Makes arcs of what lies on circles within a tolerance in mm: a whole circle or a single arc gets its numbers
 * back, runs within longer lines are drawn as arcs.
 * @returns the job and how many arcs were found
 */
export function arcsBack(
  job: JobDocument,
  ids: ReadonlySet<string>,
  tolerance: number,
): { job: JobDocument; found: number } {
  let found = 0;
  const items = job.drawing.items.map((item): Item => {
    if (!ids.has(item.id) || item.shape.kind !== 'path' || item.shape.corners) return item;
    const { path, arcs } = findArcs(pathOf(item), tolerance);
    if (arcs.length === 0) return item;
    found += arcs.length;
    return reshaped(item, shapeOfArcs(arcs, pathOf(item)) ?? { kind: 'path', path });
  });
  return { job: found > 0 ? { ...job, drawing: { ...job.drawing, items } } : job, found };
}

/** The circle or arc that a path is nothing but. */
function shapeOfArcs([arc, ...more]: ArcsFound['arcs'], path: Path): Shape | null {
  if (more.length > 0 || !arc.whole || [...subpathsOf(path)].length > 1) return null;
  const { cx, cy, radius, from, span } = arc;
  if (Math.abs(Math.abs(span) - 2 * Math.PI) < 1e-3) return { kind: 'ellipse', cx, cy, rx: radius, ry: radius };
  return { kind: 'arc', cx, cy, radius, from: (from * 180) / Math.PI, sweep: (span * 180) / Math.PI };
}

/** Fewer nodes for the same outlines, within a tolerance in mm. */
export function simplifyItems(
  job: JobDocument,
  ids: ReadonlySet<string>,
  tolerance: number,
): { job: JobDocument; before: number; after: number } {
  let [before, after] = [0, 0];
  const items = job.drawing.items.map((item): Item => {
    if (!ids.has(item.id) || item.shape.kind !== 'path') return item;
    const path = pathOf(item);
    const simple = simplifyPath(path, tolerance);
    before += nodeCount(path);
    after += Math.min(nodeCount(path), nodeCount(simple));
    return nodeCount(simple) < nodeCount(path) ? reshaped(item, { kind: 'path', path: simple }) : item;
  });
  return { job: after < before ? { ...job, drawing: { ...job.drawing, items } } : job, before, after };
}
