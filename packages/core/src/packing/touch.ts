import { Covered } from './covered.ts';
import { edgeNumbers, type Shape, shapeOf } from './edges.ts';
import { leastOverlap, type Place, type Room, type Turned } from './layout.ts';
import { OverlapAlong, overlapOf } from './overlap.ts';

/** A place where a piece lies over nothing. */
interface Spot {
  readonly turn: number;
  readonly x: number;
  readonly y: number;
  /** With how much of its outline it touches there, from 0 to 1. */
  touched: number;
}

/** So often a piece is pushed along an axis until it is free. */
const pushes = 4;
/** So many of the pieces that wait, the first ones, are tried at each step. */
const waitingTried = 24;

/**
 * Lays pieces one after the other where they touch most: corner to corner with what lies there or with the room, nothing
 * over anything else. Of all that wait, the one goes next that touches with most of its outline, large ones before small
 * ones. Equal pieces share what is known of their places. (The rule of the most touching edges: Lodi, Martello and Vigo,
 * “Heuristic and metaheuristic approaches for a class of two-dimensional bin packing problems”, INFORMS Journal on
 * Computing 11, 1999.)
 */
export class TouchingLayout {
  readonly places: Place[] = [];
  private readonly spots = new Map<number, Spot[]>();
  private readonly walls: Shape;
  private readonly covered: Covered;
  private readonly along = new OverlapAlong();

  constructor(
    private readonly room: Room,
    private readonly turned: readonly (readonly Turned[])[],
    private readonly random: () => number,
    /** How much chance there is in it, 0 for none. */
    private readonly fancy: number,
  ) {
    const { minX, minY, maxX, maxY } = room.box;
    this.covered = new Covered(room.box);
    this.walls = room.free ?? shapeOf([Float64Array.of(minX, minY, maxX, minY, maxX, maxY, minX, maxY)]);
  }

  /**
   * Lays what it can.
   *
   * @param waiting pieces, in the order in which they are to be tried
   * @returns those that found no place
   */
  lay(waiting: readonly number[]): number[] {
    const left = [...waiting];
    const failed: number[] = [];
    const largest = Math.max(...waiting.map((piece) => this.turned[piece][0].shape.area));
    // By how much large ones go first: somewhat, or more or less where there is chance in it.
    const power = this.fancy === 0 ? 0.5 : 0.8 * this.random();
    for (;;) {
      let best: { index: number; spot: Spot; value: number } | null = null;
      const seen = new Set<number>();
      for (let index = 0; index < left.length && seen.size < waitingTried; index++) {
        const piece = left[index];
        if (seen.has(piece)) continue;
        seen.add(piece);
        const spots = this.spotsOf(piece);
        if (spots.length === 0) {
          failed.push(piece);
          left.splice(index--, 1);
          continue;
        }
        const weight = (this.turned[piece][0].shape.area / largest) ** power;
        for (const spot of spots) {
          const value = spot.touched * weight * (1 + this.fancy * (this.random() - 0.5));
          if (!best || value > best.value) best = { index, spot, value };
        }
      }
      // Of a kind that finds no place, only one was tried.
      if (!best) return [...failed, ...left];
      const [piece] = left.splice(best.index, 1);
      this.put({ piece, turn: best.spot.turn, x: best.spot.x, y: best.spot.y });
    }
  }

  /** Puts a piece down, and keeps what is known of the others true. */
  put(place: Place): void {
    this.places.push(place);
    const there = this.turned[place.piece][place.turn];
    this.covered.cover(there.rings, place.x, place.y);
    for (const [piece, spots] of this.spots) {
      const kept = spots.filter((spot) => {
        const mine = this.turned[piece][spot.turn];
        if (!meet(mine.grown, spot.x, spot.y, there.shape, place.x, place.y)) return true;
        if (isOver(mine.shape, spot.x, spot.y, there.shape, place.x, place.y)) return false;
        spot.touched += this.touch(mine, spot.x, spot.y, there.shape, place.x, place.y);
        return true;
      });
      this.addAt(piece, there.corners, place.x, place.y, kept);
      this.spots.set(piece, kept);
    }
  }

  private spotsOf(piece: number): Spot[] {
    const known = this.spots.get(piece);
    if (known) return known;
    const spots: Spot[] = [];
    this.addAt(piece, cornersOf(this.walls), 0, 0, spots);
    for (const { piece: other, turn, x, y } of this.places)
      this.addAt(piece, this.turned[other][turn].corners, x, y, spots);
    this.spots.set(piece, spots);
    return spots;
  }

  /** Adds the places where a corner of a piece lies at one of those corners. */
  private addAt(piece: number, corners: Float64Array, x: number, y: number, spots: Spot[]): void {
    this.turned[piece].forEach((mine, turn) => {
      for (let i = 0; i < corners.length; i += 2) {
        for (let k = 0; k < mine.corners.length; k += 2) {
          const [atX, atY] = [x + corners[i] - mine.corners[k], y + corners[i + 1] - mine.corners[k + 1]];
          if (this.isTaken(mine, atX, atY)) continue;
          const touched = this.fits(mine, atX, atY);
          if (touched !== null) spots.push({ turn, x: atX, y: atY, touched });
          else this.addPushed(mine, turn, atX, atY, spots);
        }
      }
    });
  }

  /** Adds the place nearby where a piece is free that lies over others only by what its lines stray from its outline. */
  private addPushed(mine: Turned, turn: number, x: number, y: number, spots: Spot[]): void {
    if (mine.play === 0) return;
    const near = this.places.filter(({ piece, turn, x: otherX, y: otherY }) =>
      meet(mine.grown, x, y, this.turned[piece][turn].shape, otherX, otherY),
    );
    let over = mine.shape.area - overlapOf(mine.shape, x, y, this.walls, 0, 0);
    const most = mine.play * Math.sqrt(mine.shape.area);
    for (const { piece, turn, x: otherX, y: otherY } of near) {
      over += overlapOf(mine.shape, x, y, this.turned[piece][turn].shape, otherX, otherY);
      if (over > most) return;
    }
    let [atX, atY] = [x, y];
    for (let round = 0; round < pushes; round++) {
      const isX = round % 2 === 0;
      const [place, isFree] = this.nearestFree(mine, atX, atY, near, isX);
      if (isX) atX = place;
      else atY = place;
      if (!isFree) continue;
      const touched = this.isTaken(mine, atX, atY) ? null : this.fits(mine, atX, atY);
      if (touched !== null) spots.push({ turn, x: atX, y: atY, touched });
      return;
    }
  }

  /** Along an axis, the nearest place within a piece's play where it lies over nothing, or else over least. */
  private nearestFree(mine: Turned, x: number, y: number, near: readonly Place[], isX: boolean): [number, boolean] {
    const { along } = this;
    const edges = isX ? mine.shape.overY : mine.shape.overX;
    const [now, across] = isX ? [x, y] : [y, x];
    const reach = 4 * mine.play;
    along.clear(now - reach, now + reach);
    for (const { piece, turn, x: otherX, y: otherY } of near) {
      const { overX, overY } = this.turned[piece][turn].shape;
      if (isX) along.add(edges, across, overY, otherX, otherY, 1);
      else along.add(edges, across, overX, otherY, otherX, 1);
    }
    along.addAlways(mine.shape.area);
    along.add(edges, across, isX ? this.walls.overY : this.walls.overX, 0, 0, -1);
    let [best, least, isFree] = [now, Infinity, false];
    const offer = (place: number, value: number) => {
      const free = value < leastOverlap;
      const isNearer = Math.abs(place - now) < Math.abs(best - now);
      if (free ? !isFree || isNearer : !isFree && value < least) [best, least, isFree] = [place, value, free];
    };
    along.walk((begin, length, value, slope, bend) => {
      offer(begin, value);
      offer(begin + length, value + slope * length + bend * length * length);
      return undefined;
    });
    return [best, isFree];
  }

  /** Whether it surely lies outside or over something there. */
  private isTaken({ shape: { box }, inner }: Turned, x: number, y: number): boolean {
    const room = this.room.box;
    if (x + box.minX < room.minX - 1e-9 || y + box.minY < room.minY - 1e-9) return true;
    if (x + box.maxX > room.maxX + 1e-9 || y + box.maxY > room.maxY + 1e-9) return true;
    for (let i = 0; i < inner.length; i += 2) if (this.covered.has(x + inner[i], y + inner[i + 1])) return true;
    return false;
  }

  /** With how much of its outline a piece would touch there, from 0 to 1; null where it would lie over something. */
  private fits(mine: Turned, x: number, y: number): number | null {
    const { walls } = this;
    if (this.room.free && mine.shape.area - overlapOf(mine.shape, x, y, walls, 0, 0) > leastOverlap) return null;
    let touched = 0;
    for (const { piece, turn, x: otherX, y: otherY } of this.places) {
      const other = this.turned[piece][turn].shape;
      if (!meet(mine.grown, x, y, other, otherX, otherY)) continue;
      if (isOver(mine.shape, x, y, other, otherX, otherY)) return null;
      touched += this.touch(mine, x, y, other, otherX, otherY);
    }
    const outside = mine.grown.area - overlapOf(mine.grown, x, y, walls, 0, 0);
    return touched + outside / (mine.grown.area - mine.shape.area);
  }

  private touch(mine: Turned, x: number, y: number, other: Shape, otherX: number, otherY: number): number {
    return overlapOf(mine.grown, x, y, other, otherX, otherY) / (mine.grown.area - mine.shape.area);
  }
}

function cornersOf(shape: Shape): Float64Array {
  const { overY } = shape;
  const corners: number[] = [];
  for (let i = 0; i < overY.length; i += edgeNumbers)
    corners.push(overY[i + 2], overY[i], overY[i + 2] + overY[i + 3] * (overY[i + 1] - overY[i]), overY[i + 1]);
  return Float64Array.from(corners);
}

function meet(a: Shape, x: number, y: number, b: Shape, otherX: number, otherY: number): boolean {
  return (
    x + a.box.minX < otherX + b.box.maxX &&
    x + a.box.maxX > otherX + b.box.minX &&
    y + a.box.minY < otherY + b.box.maxY &&
    y + a.box.maxY > otherY + b.box.minY
  );
}

function isOver(a: Shape, x: number, y: number, b: Shape, otherX: number, otherY: number): boolean {
  return meet(a, x, y, b, otherX, otherY) && overlapOf(a, x, y, b, otherX, otherY) > leastOverlap;
}
