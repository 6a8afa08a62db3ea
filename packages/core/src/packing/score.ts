import { boxesMeet, growBox } from '../geometry/paths/box.ts';
import { edgeNumbers, type Shape } from './edges.ts';
import type { Laid, Place, Room, Search } from './layout.ts';
import type { Rank } from './wish.ts';

/** How good a layout is. What only counts where all else is as good is worked out when it is asked for. */
export class Score implements Rank {
  /** What found no place, in mm². */
  readonly left: number;
  readonly sheets: number;
  /** How full the rooms are, as shares of each; those before count more. */
  readonly filled: number;
  /** Whether nothing can be gained any more. */
  readonly isPerfect: boolean;
  private knownRest: number | null = null;
  private knownWay: number | null = null;

  constructor(
    private readonly search: Search,
    private readonly laid: Laid,
  ) {
    const { places, left } = laid;
    const areaOf = (piece: number) => search.turned[piece][0].shape.area;
    let [sheets, filled, isFull] = [0, 0, true];
    places.forEach((there, room) => {
      if (there.length === 0) return;
      sheets++;
      let covered = 0;
      for (const { piece } of there) covered += areaOf(piece);
      const share = covered / roomArea(search.rooms[room]);
      filled += share / (1 + room);
      if (share <= 1 - 1e-6) isFull = false;
    });
    this.left = left.reduce((sum, piece) => sum + areaOf(piece), 0);
    this.sheets = sheets;
    this.filled = filled;
    this.isPerfect = left.length === 0 && isFull;
  }

  /** The largest rectangle that is left of the last sheet, in mm². */
  get rest(): number {
    this.knownRest ??= this.restOfLast();
    return this.knownRest;
  }

  /** How far the head goes from piece to piece at least, by the nearest next one, less what it need not cut, in mm. */
  get way(): number {
    this.knownWay ??= this.laid.left.length > 0 ? 0 : this.wayOfAll();
    return this.knownWay;
  }

  private wayOfAll(): number {
    const { search } = this;
    return this.laid.places.reduce((sum, there) => {
      const shared = search.sharesEdges ? sharedEdges(search, there) : 0;
      return sum + travelOf(search, there) - cutPerTravel * shared;
    }, 0);
  }

  private restOfLast(): number {
    const { places, left } = this.laid;
    const last = places.length - 1;
    return left.length > 0 || last < 0 ? 0 : largestRest(this.search, this.search.rooms[last], places[last]);
  }
}

/** What is as good, in mm²; shares; and mm. */
const [sameArea, sameShare, sameWay] = [1e-3, 1e-9, 1];
/** What is cut takes about so many times as long as a way unlit. */
const cutPerTravel = 10;

/** Sheets first, then what is left of the last one, then the way of the head. */
export function isBetterRank(a: Rank, b: Rank): boolean {
  if (Math.abs(a.left - b.left) > sameArea) return a.left < b.left;
  if (a.sheets !== b.sheets) return a.sheets < b.sheets;
  if (Math.abs(a.filled - b.filled) > sameShare) return a.filled > b.filled;
  if (Math.abs(a.rest - b.rest) > sameArea) return a.rest > b.rest;
  return a.way < b.way - sameWay;
}

/** How large a room is, in mm². */
export function roomArea({ box, free }: Room): number {
  return free ? free.area : (box.maxX - box.minX) * (box.maxY - box.minY);
}

/**
 * The largest upright rectangle of a room in which nothing lies, in mm²; pieces are taken as their bounds. Over the lines on
 * which bounds begin and end, row by row, as the largest rectangle under a histogram.
 */
export function largestRest({ turned }: Search, { box, free }: Room, places: readonly Place[]): number {
  // The bounds of nothing have no width.
  if (free?.area === 0) return 0;
  const pieces = places.map(({ piece, turn, x, y }) => {
    const { minX, minY, maxX, maxY } = turned[piece][turn].shape.box;
    return [x + minX, y + minY, x + maxX, y + maxY];
  });
  const boxes = free ? [...pieces, ...boxesBeside(free)] : pieces;
  const cuts = (from: number, to: number, ...axes: number[]) =>
    [...new Set([from, to, ...boxes.flatMap((bounds) => axes.map((axis) => bounds[axis]))])]
      .filter((cut) => cut >= from && cut <= to)
      .sort((a, b) => a - b);
  const [xs, ys] = [cuts(box.minX, box.maxX, 0, 2), cuts(box.minY, box.maxY, 1, 3)];
  const [xAt, yAt] = [new Map(xs.map((x, i) => [x, i])), new Map(ys.map((y, i) => [y, i]))];
  const columns = xs.length - 1;
  const taken = new Uint8Array(columns * (ys.length - 1));
  for (const [minX, minY, maxX, maxY] of boxes) {
    const [left, right] = [xAt.get(minX) ?? 0, xAt.get(maxX) ?? columns];
    for (let row = yAt.get(minY) ?? 0; row < (yAt.get(maxY) ?? ys.length - 1); row++)
      taken.fill(1, row * columns + left, row * columns + right);
  }
  let most = 0;
  const heights = new Float64Array(columns);
  for (let row = 0; row + 1 < ys.length; row++) {
    for (let i = 0; i < columns; i++) heights[i] = taken[row * columns + i] ? 0 : heights[i] + ys[row + 1] - ys[row];
    most = Math.max(most, largestUnder(heights, xs));
  }
  return most;
}

/** A slanted or curved edge is taken as steps, so many over the height of the sheet. */
const stepsOver = 64;
const besideKnown = new WeakMap<Shape, readonly (readonly number[])[]>();

/**
 * Boxes that cover what of the bounds of a shape lies outside of it, and along slanted edges a little more: between its corners
 * from top to bottom, in bands in which every edge goes straight through.
 */
function boxesBeside(shape: Shape): readonly (readonly number[])[] {
  const known = besideKnown.get(shape);
  if (known) return known;
  const { overY, box } = shape;
  const ends = new Set([box.minY, box.maxY]);
  for (let i = 0; i < overY.length; i += edgeNumbers) ends.add(overY[i]).add(overY[i + 1]);
  const corners = [...ends].sort((a, b) => a - b);
  const step = (box.maxY - box.minY) / stepsOver;
  const boxes: number[][] = [];
  for (let i = 0; i + 1 < corners.length; i++) {
    const bands = Math.max(1, Math.ceil((corners[i + 1] - corners[i]) / step));
    for (let k = 0; k < bands; k++) {
      const [top, bottom] = [k, k + 1].map((n) => corners[i] + (n / bands) * (corners[i + 1] - corners[i]));
      boxes.push(...besideInBand(shape, top, bottom));
    }
  }
  besideKnown.set(shape, boxes);
  return boxes;
}

/** Of a band in which no edge begins or ends: what lies beside the shape, and what its slanted edges go through. */
function besideInBand({ overY, box }: Shape, top: number, bottom: number): number[][] {
  const edges: { readonly left: number; readonly right: number }[] = [];
  for (let i = 0; i < overY.length; i += edgeNumbers) {
    if (overY[i] > top || overY[i + 1] < bottom) continue;
    const [first, second] = [top, bottom].map((y) => overY[i + 2] + (y - overY[i]) * overY[i + 3]);
    edges.push({ left: Math.min(first, second), right: Math.max(first, second) });
  }
  edges.sort((a, b) => a.left + a.right - b.left - b.right);
  const boxes: number[][] = [];
  let from = box.minX;
  // From the first edge to the second, from the third to the fourth, and so on, it lies in the shape.
  for (let i = 0; i + 1 < edges.length; i += 2) {
    if (edges[i].right > from) boxes.push([from, top, edges[i].right, bottom]);
    from = edges[i + 1].left;
  }
  if (from < box.maxX) boxes.push([from, top, box.maxX, bottom]);
  return boxes;
}

/** The largest rectangle under a histogram of bars from each place to the next. */
function largestUnder(heights: Float64Array, xs: readonly number[]): number {
  const open: { from: number; height: number }[] = [];
  let most = 0;
  for (let i = 0; i <= heights.length; i++) {
    const height = i < heights.length ? heights[i] : 0;
    let from = i;
    for (let bar = open.at(-1); bar && bar.height >= height; bar = open.at(-1)) {
      most = Math.max(most, bar.height * (xs[i] - xs[bar.from]));
      from = bar.from;
      open.pop();
    }
    open.push({ from, height });
  }
  return most;
}

/** How far it is through the middles of all pieces, each time on to the nearest, from the corner on; in mm. */
function travelOf({ turned }: Search, places: readonly Place[]): number {
  const middles = places.map(({ piece, turn, x, y }) => {
    const { minX, minY, maxX, maxY } = turned[piece][turn].shape.box;
    return { x: x + (minX + maxX) / 2, y: y + (minY + maxY) / 2 };
  });
  let [here, sum] = [{ x: 0, y: 0 }, 0];
  while (middles.length > 0) {
    let [nearest, least] = [0, Infinity];
    for (let i = 0; i < middles.length; i++) {
      const far = Math.hypot(middles[i].x - here.x, middles[i].y - here.y);
      if (far < least) [nearest, least] = [i, far];
    }
    [here] = middles.splice(nearest, 1);
    sum += least;
  }
  return sum;
}

/** Edges that lie on each other within so many mm are cut as one. */
const sameEdge = 2e-3;

/** How far edges of pieces lie along edges of others, in mm. */
export function sharedEdges({ turned }: Pick<Search, 'turned'>, places: readonly Place[]): number {
  const pieces = places.map(({ piece, turn, x, y }) => {
    const { shape, rings } = turned[piece][turn];
    const { minX, minY, maxX, maxY } = shape.box;
    return { rings, x, y, box: { minX: x + minX, minY: y + minY, maxX: x + maxX, maxY: y + maxY } };
  });
  let sum = 0;
  pieces.forEach((mine, i) => {
    for (const other of pieces.slice(i + 1)) {
      if (!boxesMeet(growBox(mine.box, sameEdge), other.box)) continue;
      for (const edge of edgesOf(mine)) for (const along of edgesOf(other)) sum += commonLength(edge, along);
    }
  });
  return sum;
}

type Line = readonly [x0: number, y0: number, x1: number, y1: number];

function edgesOf({ rings, x, y }: { rings: readonly Float64Array[]; x: number; y: number }): Line[] {
  return rings.flatMap((ring) =>
    Array.from({ length: ring.length / 2 }, (_, k): Line => {
      const [i, next] = [2 * k, (2 * k + 2) % ring.length];
      return [x + ring[i], y + ring[i + 1], x + ring[next], y + ring[next + 1]];
    }),
  );
}

/** How far one edge runs along another, in mm; 0 where they do not lie on each other. */
function commonLength([ax, ay, bx, by]: Line, [cx, cy, dx, dy]: Line): number {
  const length = Math.hypot(bx - ax, by - ay);
  if (length < sameEdge) return 0;
  const [ux, uy] = [(bx - ax) / length, (by - ay) / length];
  const beside = (x: number, y: number) => Math.abs((x - ax) * uy - (y - ay) * ux);
  if (beside(cx, cy) > sameEdge || beside(dx, dy) > sameEdge) return 0;
  const [from, to] = [(cx - ax) * ux + (cy - ay) * uy, (dx - ax) * ux + (dy - ay) * uy];
  return Math.max(0, Math.min(length, Math.max(from, to)) - Math.max(0, Math.min(from, to)));
}
