import { areaOf, growArea, linesOfArea } from '../geometry/areas/area.ts';
import { pathOfRings, simplifyRing } from '../geometry/areas/rings.ts';
import { flatten, polylineContains, signedArea } from '../geometry/paths/flatten.ts';
import { type Path, Verb } from '../geometry/paths/path.ts';
import { ringsOutside } from './around.ts';
import { areaOfRings, type Rings, shapeOf } from './edges.ts';
import type { Turned } from './layout.ts';
import type { PackWish, Turning } from './wish.ts';

/** A way in which a piece may lie. */
export interface Turn {
  /** In degrees, clockwise on the screen. */
  readonly angle: number;
  readonly isMirrored: boolean;
}

/** How far the lines that stand for a curve stray from it, in mm, before they are made fewer. */
const curveTolerance = 0.002;
/** How much farther they may stray when they are fewer, in mm, and as a share of how large the piece is. */
const [leastStray, mostStray, strayShare] = [0.02, 0.6, 1 / 150];
/** Corners that turn by less than this, in degrees, are parts of a curve. */
const leastCorner = 30;
/** So many corners of a piece are put into corners that others leave, the sharpest ones. */
const mostCorners = 12;
/** Points within a piece by which it is seen that it lies over something. */
const innerPoints = 24;
/** Angles of a piece that may be turned any way, in degrees, beside those at which its longest edge lies straight. */
const freeStep = 30;

/**
 * The lines that a piece is laid by: they lie outside of its outline, so that where they are apart, it is.
 *
 * @param distance how far outside it, at least, in mm
 */
export function ringsAround(outline: Path, distance: number, fillsHoles: boolean): Rings {
  const isCurved = outline.verbs.includes(Verb.cubic);
  const lines = flatten(outline, curveTolerance).filter(({ closed }) => closed);
  const size = Math.sqrt(Math.max(0, ...lines.map((line) => Math.abs(signedArea(line)))));
  // Straight lines are taken as they are. Of curves, the fewer the better.
  const strays = isCurved ? Math.min(mostStray, Math.max(leastStray, size * strayShare)) : 1e-6;
  const simple = isCurved
    ? ringsOutside(lines, strays, curveTolerance)
    : lines.map(({ points }) => simplifyRing(points, strays));
  const rings = distance > 0 ? grownBy(simple, distance) : normal(simple);
  return fillsHoles ? rings : outermost(rings);
}

/** The area of rings, even-odd, grown by a distance; corners stay sharp, but for very sharp ones, which are cut off farther out. */
export function grownBy(rings: Rings, distance: number): Rings {
  const grown = growArea(areaOf(pathOfRings(rings), 'evenodd'), distance);
  return normal(linesOfArea(grown).map(({ points }) => points));
}

/** Rings of which outer ones turn clockwise on the screen, and holes the other way. */
function normal(rings: Rings): Rings {
  return areaOfRings(rings) >= 0 ? rings : rings.map(reversedRing);
}

function outermost(rings: Rings): Rings {
  return rings.filter((ring) => areaOfRings([ring]) > 0);
}

function reversedRing(ring: Float64Array): Float64Array {
  const out = new Float64Array(ring.length);
  for (let i = 0; i < ring.length; i += 2) {
    out[i] = ring[ring.length - 2 - i];
    out[i + 1] = ring[ring.length - 1 - i];
  }
  return out;
}

/** The ways in which a piece of such rings may lie. */
export function turnsOf(rings: Rings, { turning, mirror }: Pick<PackWish, 'turning' | 'mirror'>): Turn[] {
  const angles = anglesOf(rings, turning);
  const turns = angles.map((angle) => ({ angle, isMirrored: false }));
  return mirror ? [...turns, ...angles.map((angle) => ({ angle, isMirrored: true }))] : turns;
}

function anglesOf(rings: Rings, turning: Turning): number[] {
  if (turning === 'none') return [0];
  if (turning === 'half') return [0, 180];
  if (turning === 'quarter') return [0, 90, 180, 270];
  const straight = ((longestEdgeAngle(rings) % 90) + 90) % 90;
  const angles = [0, 1, 2, 3].map((quarter) => (quarter * 90 - straight + 360) % 360);
  for (let angle = 0; angle < 360; angle += freeStep)
    if (angles.every((known) => Math.abs(((known - angle + 540) % 360) - 180) > 1)) angles.push(angle);
  return angles;
}

function longestEdgeAngle(rings: Rings): number {
  let [longest, angle] = [0, 0];
  for (const ring of rings) {
    for (let i = 0; i < ring.length; i += 2) {
      const next = (i + 2) % ring.length;
      const [dx, dy] = [ring[next] - ring[i], ring[next + 1] - ring[i + 1]];
      const length = Math.hypot(dx, dy);
      if (length > longest + 1e-9) [longest, angle] = [length, (Math.atan2(dy, dx) * 180) / Math.PI];
    }
  }
  return angle;
}

/** Rings as they lie turned; where that is by right angles, exactly so. */
export function ringsTurned(rings: Rings, { angle, isMirrored }: Turn): Rings {
  const quarter = Math.round(angle / 90);
  const isStraight = Math.abs(angle - quarter * 90) < 1e-9;
  const radians = (angle * Math.PI) / 180;
  const cos = isStraight ? [1, 0, -1, 0][((quarter % 4) + 4) % 4] : Math.cos(radians);
  const sin = isStraight ? [0, 1, 0, -1][((quarter % 4) + 4) % 4] : Math.sin(radians);
  const turned = rings.map((ring) => {
    const out = new Float64Array(ring.length);
    for (let i = 0; i < ring.length; i += 2) {
      const [x, y] = [isMirrored ? -ring[i] : ring[i], ring[i + 1]];
      out[i] = cos * x - sin * y;
      out[i + 1] = sin * x + cos * y;
    }
    return out;
  });
  return isMirrored ? turned.map(reversedRing) : turned;
}

/** A piece as it lies each way it may: its shape, grown a little, and its corners. @param isCurved whether its outline is */
export function turnedPieces(rings: Rings, turns: readonly Turn[], isCurved: boolean): Turned[] {
  const area = Math.abs(areaOfRings(rings));
  const grown = grownBy(rings, Math.max(0.2, Math.sqrt(area) / 100));
  const corners = [cornersOf(rings)];
  const inner = [pointsWithin(rings)];
  return turns.map((turn) => {
    const mine = ringsTurned(rings, turn);
    const shape = shapeOf(mine);
    const { minX, minY, maxX, maxY } = shape.box;
    return {
      shape,
      rings: mine,
      grown: shapeOf(ringsTurned(grown, turn)),
      // Those of its bounds stand for what is rounded.
      corners: Float64Array.of(...ringsTurned(corners, turn)[0], minX, minY, maxX, minY, maxX, maxY, minX, maxY),
      inner: ringsTurned(inner, turn)[0],
      play: isCurved ? Math.max(leastStray, Math.sqrt(area) * strayShare) : 0,
    };
  });
}

/** The sharpest corners, at most so many; of what has none, points all around. */
export function cornersOf(rings: Rings): Float64Array {
  const found: { x: number; y: number; turn: number }[] = [];
  for (const ring of rings) {
    const count = ring.length;
    for (let i = 0; i < count; i += 2) {
      const [px, py] = [ring[(i + count - 2) % count], ring[(i + count - 1) % count]];
      const [x, y, nx, ny] = [ring[i], ring[i + 1], ring[(i + 2) % count], ring[(i + 3) % count]];
      const [ax, ay, bx, nextBy] = [x - px, y - py, nx - x, ny - y];
      found.push({ x, y, turn: Math.abs(Math.atan2(ax * nextBy - ay * bx, ax * bx + ay * nextBy)) });
    }
  }
  const sharp = found.filter(({ turn }) => turn > (leastCorner * Math.PI) / 180);
  const all = sharp.length >= 3 ? sharp.sort((a, b) => b.turn - a.turn) : spread(found);
  return Float64Array.from(all.slice(0, mostCorners).flatMap(({ x, y }) => [x, y]));
}

function spread<T>(all: readonly T[]): T[] {
  const step = Math.max(1, all.length / mostCorners);
  return Array.from({ length: Math.min(all.length, mostCorners) }, (_, i) => all[Math.floor(i * step)]);
}

/** Points that lie within rings, even-odd, spread over them. */
function pointsWithin(rings: Rings): Float64Array {
  const { box } = shapeOf(rings);
  const found: { x: number; y: number }[] = [];
  const columns = 20;
  for (let i = 0; i < columns * columns; i++) {
    const x = box.minX + (((i % columns) + 0.5) / columns) * (box.maxX - box.minX);
    const y = box.minY + ((Math.floor(i / columns) + 0.5) / columns) * (box.maxY - box.minY);
    if (rings.reduce((odd, points) => odd !== polylineContains({ points, closed: true }, x, y), false))
      found.push({ x, y });
  }
  // Each is the one farthest from those before it.
  const away = found.map(() => Infinity);
  const out: { x: number; y: number }[] = [];
  for (let next = Math.floor(found.length / 2); out.length < Math.min(innerPoints, found.length); ) {
    const { x, y } = found[next];
    out.push(found[next]);
    let most = -1;
    for (const [i, other] of found.entries()) {
      away[i] = Math.min(away[i], Math.hypot(other.x - x, other.y - y));
      if (away[i] > most) [most, next] = [away[i], i];
    }
  }
  return Float64Array.from(out.flatMap(({ x, y }) => [x, y]));
}
