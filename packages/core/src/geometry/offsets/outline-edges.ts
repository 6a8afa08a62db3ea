import type { FillRule } from '../areas/area.ts';
import { combineSubpaths } from '../areas/combine.ts';
import { areaWithin } from '../areas/trace.ts';
import { counting, type Progress, partOf } from '../paths/progress.ts';
import { type Ring, ringOf } from '../paths/ring.ts';
import { isLine, legsOf, pointAt, reversed, type Segment, type Subpath, withoutShort } from '../paths/segments.ts';
import { chordCount } from '../questions/crossings.ts';
import { nestOutlines } from '../questions/nesting.ts';
import { nearnessOf, ringsComeNear } from './near-rings.ts';

/** How far chords stray from curves where it is looked for what is near, in mm. */
const chordTolerance = 0.004;
/** Outlines nearer to each other than this, in mm, touch. */
const leastGap = 1e-3;
/** Outlines that cover less, in mm², are rounding. */
const leastArea = 1e-4;

/** A closed edge of what outlines cover. */
export interface Edge {
  /** What is covered lies to the left where its area is above 0: solid; else it is a hole. */
  readonly segments: readonly Segment[];
  /** The same as chords. */
  readonly ring: Ring;
  readonly isStraight: boolean;
  /** Whether parts of it that are not local to each other come near each other. */
  readonly nearItself: boolean;
}

type Part = { readonly subpaths: readonly Subpath[]; readonly rule: FillRule };

/**
 * The edges of what closed outlines cover together. Where none touches another they are the outlines themselves, told
 * by how often they wind round what is at their sides; else those are united.
 *
 * @param width parts of an edge that come nearer to each other than this, in mm, are near
 * @param reach so are edges that come nearer to each other than this, which is no less: those are put together
 * @param ignoreHoles takes the outermost edges alone
 * @param progress told how much of it is done, up to 1
 */
export function edgeComponents(
  parts: readonly Part[],
  width: number,
  reach: number,
  ignoreHoles: boolean,
  progress?: Progress,
): Edge[][] {
  const all =
    untouched(parts, partOf(progress, 0, 0.6)) ??
    combineSubpaths(parts, 'unite').flatMap((edge) => measured(withoutShort(edge).segments) ?? []);
  const edges = ignoreHoles ? outermost(all) : all;
  const rings = edges.map(({ ring }) => ring);
  progress?.(0.7);
  const { components, nearItself } = nearnessOf(rings, Math.max(reach, leastGap));
  // What is local within the reach may still come near itself within the width.
  const within = reach > width ? nearnessOf(rings, Math.max(width, leastGap)).nearItself : nearItself;
  return components.map((component) => component.map((i) => ({ ...edges[i], nearItself: nearItself[i] || within[i] })));
}

type Measured = Omit<Edge, 'nearItself'>;

/** The edges that outlines are where none touches itself or another; null where one does. */
function untouched(parts: readonly Part[], progress?: Progress): Measured[] | null {
  const total = parts.reduce((sum, { subpaths }) => sum + subpaths.length, 0);
  const done = counting(partOf(progress, 0, 0.5), total);
  if (parts.some(({ subpaths }) => subpaths.some(({ segments }) => mayCancel(segments)))) return null;
  const outlines = parts.flatMap(({ subpaths, rule }, part) =>
    subpaths.flatMap(({ segments }) => {
      const edge = measured(segments);
      done(1);
      return edge ? [{ ...edge, part, rule }] : [];
    }),
  );
  const rings = outlines.map(({ ring }) => ring);
  progress?.(0.5);
  if (ringsComeNear(rings, leastGap)) return null;
  const { holders } = nestOutlines(outlines.map(({ ring }) => polylineOf(ring)));
  return outlines.flatMap((outline, i) => {
    const around = new Map<number, number>();
    for (const k of holders[i])
      around.set(outlines[k].part, (around.get(outlines[k].part) ?? 0) + Math.sign(rings[k].area));
    const covers = (winding: number, rule: FillRule) => (rule === 'evenodd' ? winding % 2 !== 0 : winding !== 0);
    const covered = (extra: number) =>
      parts.some(({ rule }, part) => covers((around.get(part) ?? 0) + (part === outline.part ? extra : 0), rule));
    const inside = covered(Math.sign(outline.ring.area));
    if (covered(0) === inside) return [];
    return inside === outline.ring.area > 0 ? [outline] : (measured(outline.segments.map(reversed).reverse()) ?? []);
  });
}

/** Whether what an outline goes round one way is, but for rounding, what it goes round the other way, as in an 8. */
function mayCancel(segments: readonly Segment[]): boolean {
  if (Math.abs(areaWithin(segments)) >= leastArea) return false;
  const length = segments.reduce((sum, segment) => sum + legsOf(segment), 0);
  // Nothing of a length holds more than a circle.
  return length ** 2 / (4 * Math.PI) >= leastArea;
}

function measured(segments: readonly Segment[]): Measured | null {
  const points: number[] = [];
  let isStraight = true;
  for (const s of segments) {
    points.push(s[0], s[1]);
    if (isLine(s)) continue;
    isStraight = false;
    const steps = chordCount(s, chordTolerance);
    for (let i = 1; i < steps; i++) {
      const { x, y } = pointAt(s, i / steps);
      points.push(x, y);
    }
  }
  if (Math.abs(areaWithin(segments)) < leastArea) return null;
  const ring = ringOf(Float64Array.from(points));
  return ring && { segments, ring, isStraight };
}

function outermost(edges: readonly Measured[]): Measured[] {
  const { depths } = nestOutlines(edges.map(({ ring }) => polylineOf(ring)));
  return edges.filter((_, i) => depths[i] === 0);
}

function polylineOf({ count, xs, ys }: Ring) {
  const points = new Float64Array(2 * count);
  for (let i = 0; i < count; i++) {
    points[2 * i] = xs[i];
    points[2 * i + 1] = ys[i];
  }
  return { points, closed: true };
}
