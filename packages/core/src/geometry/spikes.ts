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

/** A ring of an answer without the ways out and back that are left where edges lay over each other but for rounding. */
export function withoutSpikes(ring: Path64): Path64 {
  const out: Path64 = [];
  const trim = () => {
    for (;;) {
      // A spike may end in a flat tip.
      const [a, b, tip, c] = out.slice(-4);
      const isFlat = c && Math.hypot(tip.x - b.x, tip.y - b.y) <= widestSpike && isSpike(a, b, c);
      if (isFlat) out.splice(-2, 1);
      if (out.length < 3 || !isSpike(out[out.length - 3], out[out.length - 2], out[out.length - 1])) return;
      const [end] = out.splice(-1);
      out.pop();
      const last = out[out.length - 1];
      if (last.x !== end.x || last.y !== end.y) out.push(end);
    }
  };
  for (const point of ring) {
    out.push(point);
    trim();
  }
  // The ring may begin on a spike.
  for (let turns = 0; turns < out.length && out.length > 2; turns++) {
    const before = out.length;
    out.push(out[0]);
    out.splice(0, 1);
    trim();
    if (out.length === before && turns >= 2) break;
  }
  return out;
}

/**
 * Whether a ring is no more than what rounding leaves between edges that lay over each other.
 * @param grid the raster, in mm
 */
export function isSliver(ring: Path64, grid: number): boolean {
  const area = Math.abs(Clipper.area(ring));
  if (area * grid * grid < leastArea) return true;
  const around = ring.reduce((sum, { x, y }, i) => {
    const next = ring[(i + 1) % ring.length];
    return sum + Math.hypot(next.x - x, next.y - y);
  }, 0);
  return (2 * area) / around <= widestSpike;
}

/** Whether a way turns back at `b` along itself. */
function isSpike(a: GridPoint, b: GridPoint, c: GridPoint): boolean {
  const [ux, uy, vx, vy] = [b.x - a.x, b.y - a.y, c.x - b.x, c.y - b.y];
  if (ux * vx + uy * vy >= 0) return false;
  const [there, back] = [Math.hypot(ux, uy), Math.hypot(vx, vy)];
  const widest = Math.min(there, back) <= shortSpike.length ? shortSpike.widest : widestSpike;
  return Math.abs(ux * vy - uy * vx) <= widest * Math.max(there, back);
}
