import { areaOf, growArea, linesOfArea } from '../geometry/areas/area.ts';
import { pathOfRings, simplifyRing } from '../geometry/areas/rings.ts';
import { flatten, signedArea } from '../geometry/paths/flatten.ts';
import type { Point } from '../geometry/paths/matrix.ts';
import { type Path, Verb } from '../geometry/paths/path.ts';
import { ringsOutside } from './around.ts';
import { areaOfRings, type Rings, type Shape, shapeOf } from './edges.ts';
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
/** So many points along each side of a grid they are chosen from. */
const gridPoints = 20;
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

/** A piece as it lies each way it may. @param isCurved whether its outline is */
export function turnedPieces(rings: Rings, turns: readonly Turn[], isCurved: boolean): Turned[] {
  const piece = new Unturned(rings, isCurved);
  return turns.map((turn) => new TurnedPiece(piece, turn));
}

/** What of a piece is the same however it is turned. What is not needed for a first packing is worked out when it is asked for. */
class Unturned {
  readonly area: number;
  readonly play: number;
  private knownGrown: Rings | null = null;
  private knownCorners: Float64Array | null = null;
  private knownInner: Float64Array | null = null;

  constructor(
    readonly rings: Rings,
    isCurved: boolean,
  ) {
    this.area = Math.abs(areaOfRings(rings));
    this.play = isCurved ? Math.max(leastStray, Math.sqrt(this.area) * strayShare) : 0;
  }

  get grown(): Rings {
    this.knownGrown ??= grownBy(this.rings, Math.max(0.2, Math.sqrt(this.area) / 100));
    return this.knownGrown;
  }

  get corners(): Float64Array {
    this.knownCorners ??= cornersOf(this.rings);
    return this.knownCorners;
  }

  get inner(): Float64Array {
    this.knownInner ??= pointsWithin(this.rings);
    return this.knownInner;
  }
}

class TurnedPiece implements Turned {
  readonly shape: Shape;
  readonly rings: Rings;
  readonly play: number;
  private knownGrown: Shape | null = null;
  private knownCorners: Float64Array | null = null;
  private knownInner: Float64Array | null = null;

  constructor(
    private readonly piece: Unturned,
    private readonly turn: Turn,
  ) {
    this.rings = ringsTurned(piece.rings, turn);
    this.shape = shapeOf(this.rings);
    this.play = piece.play;
  }

  get grown(): Shape {
    this.knownGrown ??= shapeOf(ringsTurned(this.piece.grown, this.turn));
    return this.knownGrown;
  }

  get corners(): Float64Array {
    this.knownCorners ??= this.cornersHere();
    return this.knownCorners;
  }

  get inner(): Float64Array {
    this.knownInner ??= ringsTurned([this.piece.inner], this.turn)[0];
    return this.knownInner;
  }

  /** Its corners, and those of its bounds, which stand for what is rounded. */
  private cornersHere(): Float64Array {
    const { minX, minY, maxX, maxY } = this.shape.box;
    const [corners] = ringsTurned([this.piece.corners], this.turn);
    return Float64Array.of(...corners, minX, minY, maxX, minY, maxX, maxY, minX, maxY);
  }
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
  const found = gridWithin(rings);
  // Each is the one farthest from those before it.
  const away = found.map(() => Infinity);
  const out: number[] = [];
  for (let next = Math.floor(found.length / 2); out.length < 2 * Math.min(innerPoints, found.length); ) {
    const { x, y } = found[next];
    out.push(x, y);
    let most = -1;
    for (let i = 0; i < found.length; i++) {
      away[i] = Math.min(away[i], Math.hypot(found[i].x - x, found[i].y - y));
      if (away[i] > most) [most, next] = [away[i], i];
    }
  }
  return Float64Array.from(out);
}

/** The points of a grid over the bounds of rings that lie within them: row by row, between each two of their edges. */
function gridWithin(rings: Rings): Point[] {
  const { box } = shapeOf(rings);
  const [width, height] = [(box.maxX - box.minX) / gridPoints, (box.maxY - box.minY) / gridPoints];
  const found: Point[] = [];
  for (let row = 0; row < gridPoints; row++) {
    const y = box.minY + (row + 0.5) * height;
    const crossings = rings.flatMap((ring) => crossingsAt(ring, y)).sort((a, b) => a - b);
    for (let i = 0; i + 1 < crossings.length; i += 2) {
      const first = Math.ceil((crossings[i] - box.minX) / width - 0.5);
      for (let x = box.minX + (first + 0.5) * width; x < crossings[i + 1]; x += width) found.push({ x, y });
    }
  }
  return found;
}

/** Where the edges of a ring are at a height. */
function crossingsAt(ring: Float64Array, y: number): number[] {
  const found: number[] = [];
  for (let i = 0; i < ring.length; i += 2) {
    const next = (i + 2) % ring.length;
    const [x0, y0, x1, y1] = [ring[i], ring[i + 1], ring[next], ring[next + 1]];
    if (y0 < y !== y1 < y) found.push(x0 + ((y - y0) / (y1 - y0)) * (x1 - x0));
  }
  return found;
}
