import { Clipper, type Path64 } from 'clipper2-ts';

/*
 * Ways out and back along the same line, which cover nothing: those that the polygon arithmetic must not be given, and
 * those that its rounding leaves.
 */

type GridPoint = Path64[number];

/**
 * A ring without the places where it turns back along the very line that it came by, and without points that stand
 * twice; empty where nothing else is left of it. The library does not end on some rings that do so along a scan line.
 */
export function withoutTurnbacks(ring: Path64): Path64 {
  const out: Path64 = [];
  for (const point of ring) {
    out.push(point);
    while (out.length >= 3 && turnsBack(out[out.length - 3], out[out.length - 2], out[out.length - 1]))
      out.splice(-2, 1);
  }
  // The ring may begin or end on such a place.
  let start = 0;
  while (out.length - start >= 3) {
    const last = out[out.length - 1];
    if (turnsBack(out[out.length - 2], last, out[start])) out.pop();
    else if (turnsBack(last, out[start], out[start + 1])) start++;
    else return start === 0 ? out : out.slice(start);
  }
  return [];
}

/** Whether anything is left of a ring: the library takes none that is empty. */
export function hasExtent(ring: Path64): boolean {
  return ring.length > 2;
}

function turnsBack(a: GridPoint, b: GridPoint, c: GridPoint): boolean {
  const [ux, uy, vx, vy] = [b.x - a.x, b.y - a.y, c.x - b.x, c.y - b.y];
  return ux * vy === uy * vx && ux * vx + uy * vy <= 0;
}

/** Outlines that cover less, in mm², are rounding. */
const leastArea = 1e-4;
/** A way out and back that is no wider than this, in steps of the raster, is rounding. */
const widestSpike = 6;
/** One no longer than this may be wider: where curves touch, that is left of the chords they were taken for. */
const shortSpike = { length: 500, widest: 40 };
/** A spike is cut by so many steps of the raster at least; what is no further apart is in one place. */
const leastCut = 2;
/** So many points on both sides of a ring's beginning may be of one spike. */
const seamPoints = 200;

/** A ring of an answer without the ways out and back that are left where edges lay over each other but for rounding. */
export function withoutSpikes(ring: Path64): Path64 {
  const kept = cutAlong(ring);
  // The ring may begin on a spike.
  const half = Math.min(seamPoints, kept.length >> 1);
  const seam = cutAlong([...kept.slice(kept.length - half), ...kept.slice(0, half)]);
  return [...kept.slice(half, kept.length - half), ...seam];
}

/** Some points, one after the other, without spikes between them. */
function cutAlong(points: Path64): Path64 {
  const out: Path64 = [];
  for (const point of points) {
    out.push(point);
    while (cutBack(out));
  }
  return out;
}

/**
 * Cuts a spike off that some points end with: across where its shorter side begins, so that both sides stay on their lines.
 * @returns whether there was one
 */
function cutBack(points: Path64): boolean {
  const count = points.length;
  const c = points[count - 1];
  const tip = points[count - 2];
  // The way turns back at one point, or across a flat tip.
  for (const flat of [0, 1]) {
    if (count < 3 + flat) return false;
    const [a, b] = [points[count - 3 - flat], points[count - 2 - flat]];
    if (flat === 1 && distance(b, tip) > widestSpike) return false;
    const [there, back] = [distance(a, b), distance(tip, c)];
    const isOut = there <= back;
    const foot = isOut ? footOn(a, tip, c) : footOn(c, a, b);
    const widest = Math.min(there, back) <= shortSpike.length ? shortSpike.widest : widestSpike;
    const goesBack = (b.x - a.x) * (c.x - tip.x) + (b.y - a.y) * (c.y - tip.y) < 0;
    const across = distance(foot, isOut ? a : c);
    if (!goesBack || across > widest) continue;
    // Where the shorter side begins all but on the longer one, it begins on it.
    const isOn = across <= leastCut;
    if (!isOn && distance(foot, isOut ? tip : b) < leastCut) continue;
    points.length = count - 2 - flat - (isOn && isOut ? 1 : 0);
    for (const point of isOn && !isOut ? [foot] : [foot, c]) {
      const last = points[points.length - 1];
      if (!last || distance(point, last) > 0) points.push(point);
    }
    return true;
  }
  return false;
}

/** The point of the raster nearest to where the line from one point to another is nearest to a third. */
function footOn({ x, y }: GridPoint, from: GridPoint, to: GridPoint): GridPoint {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const square = dx * dx + dy * dy;
  const t = square === 0 ? 0 : ((x - from.x) * dx + (y - from.y) * dy) / square;
  return { x: Math.round(from.x + t * dx), y: Math.round(from.y + t * dy) };
}

function distance(a: GridPoint, b: GridPoint): number {
  return Math.hypot(b.x - a.x, b.y - a.y);
}

/**
 * Whether a ring is no more than what rounding leaves between edges that lay over each other.
 * @param grid the raster, in mm
 */
export function isSliver(ring: Path64, grid: number): boolean {
  const area = Math.abs(Clipper.area(ring));
  if (area * grid * grid < leastArea) return true;
  const around = ring.reduce((sum, point, i) => sum + distance(point, ring[(i + 1) % ring.length]), 0);
  return (2 * area) / around <= widestSpike;
}
