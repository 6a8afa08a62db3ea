import { Clipper, FillRule as ClipperRule, EndType, JoinType, type Path64, type Paths64 } from 'clipper2-ts';
import { hasExtent, withoutTurnbacks } from '../areas/spikes.ts';
import { type Box, boxHeight, boxWidth, growBox, uniteBoxes } from '../paths/box.ts';
import type { Polyline } from '../paths/flatten.ts';
import { polylineBounds } from '../questions/nesting.ts';
import { comeNear } from './near-rings.ts';

/** Units of the clipping library to the mm. */
const scale = 1e4;
/** Whatever is left at a corner of a right angle or more is no longer than this many widths. */
const longest = 1.2;

/** A place that is thinner than was asked: the box around it, and about how thin it is there, in mm. */
export interface ThinPlace {
  readonly box: Box;
  readonly widthMm: number;
}

/**
 * Where what outlines enclose (even-odd) is thinner than a width, and where what is around and between them is: what
 * is lost by going in by half of the width and out again (a morphological opening). Corners are left out, but for
 * points so sharp that they are as thin for longer than 1.2 times the width.
 *
 * @returns the places in what is enclosed, and in what is around and between
 */
export function thinPlaces(outlines: readonly Polyline[], width: number): { walls: ThinPlace[]; gaps: ThinPlace[] } {
  const closed = outlines.filter((outline) => outline.closed && outline.points.length >= 6);
  // Where nothing comes that near to anything, nothing is that thin.
  const none = !comeNear(
    closed.map(({ points }) => points),
    width,
  );
  if (none) return { walls: [], gaps: [] };
  const rings = closed.map((line) => withoutTurnbacks(ringOf(line))).filter(hasExtent);
  const inside = Clipper.union(rings, ClipperRule.EvenOdd);
  const around = closed.map(polylineBounds).reduce(uniteBoxes);
  const outside = Clipper.difference([frameOf(growBox(around, 4 * width))], inside, ClipperRule.NonZero);
  return { walls: lostOf(inside, width), gaps: lostOf(outside, width) };
}

function ringOf({ points }: Polyline): Path64 {
  const ring: Path64 = [];
  for (let i = 0; i < points.length; i += 2) {
    ring.push({ x: Math.round(points[i] * scale), y: Math.round(points[i + 1] * scale) });
  }
  return ring;
}

function frameOf({ minX, minY, maxX, maxY }: Box): Path64 {
  return ringOf({ points: Float64Array.of(minX, minY, maxX, minY, maxX, maxY, minX, maxY), closed: true });
}

/** The larger pieces of what an opening takes away. */
function lostOf(area: Paths64, width: number): ThinPlace[] {
  const half = (width / 2) * scale;
  // A hair less, so that what is as wide as asked stays.
  const cores = Clipper.inflatePaths(area, -half * 0.999, JoinType.Miter, EndType.Polygon, 2);
  const opened = Clipper.inflatePaths(cores, half * 1.001, JoinType.Round, EndType.Polygon, 2, scale / 400);
  return Clipper.difference(area, opened, ClipperRule.NonZero).flatMap((ring) => {
    if (Clipper.area(ring) <= 0) return [];
    const { left, top, right, bottom } = Clipper.getBounds(ring);
    const box = { minX: left / scale, minY: top / scale, maxX: right / scale, maxY: bottom / scale };
    return Math.max(boxWidth(box), boxHeight(box)) > longest * width ? [{ box, widthMm: widthOf(ring) }] : [];
  });
}

/** About how wide a strip is, in mm: of a rectangle of this area and this length around it, the shorter side. */
function widthOf(ring: Path64): number {
  const area = Math.abs(Clipper.area(ring)) / scale ** 2;
  const around = ring.reduce((sum, { x, y }, i) => {
    const next = ring[(i + 1) % ring.length];
    return sum + Math.hypot(next.x - x, next.y - y) / scale;
  }, 0);
  const half = around / 2;
  return (half - Math.sqrt(Math.max(0, half ** 2 - 4 * area))) / 2;
}
