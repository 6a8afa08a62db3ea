import type { Pixels } from '../../document/pixels.ts';
import { PathBuilder } from '../../geometry/paths/path.ts';
import { reversedSubpath, type Segment, type Subpath, subpathsOf } from '../../geometry/paths/segments.ts';
import { type Labels, mixOf, outside } from './colour-labels.ts';
import { addFittedArc, addFittedRing, type RingFit } from './fit-ring.ts';
import type { Rgb } from './palette.ts';

/*
 * The borders between areas of different labels, each found and fitted once: areas that share one share its very curve,
 * so that nothing lies between them and nothing on both.
 */

/** East, south, west, north: where a border goes from one corner of pixels to the next. */
const steps = [
  [1, 0],
  [0, 1],
  [-1, 0],
  [0, -1],
] as const;
/** From a corner, the pixels on the left and on the right of each way. */
const besides = [
  { left: [0, -1], right: [0, 0] },
  { left: [0, 0], right: [-1, 0] },
  { left: [-1, 0], right: [-1, -1] },
  { left: [-1, -1], right: [0, -1] },
] as const;

/** The bits of all ways, and that of the first as passed; how many ways there are by their bits. */
const allWays = 15;
const passed = 16;
const countOf = Uint8Array.from({ length: 16 }, (_, ways) => [1, 2, 4, 8].filter((way) => ways & way).length);

/** A border between two labels, from one place where three meet to the next, or closed. */
interface Border {
  readonly left: number;
  readonly right: number;
  /** The corners that it begins and ends at, and the ways in which it leaves and arrives; those of a closed one do not count. */
  readonly from: number;
  readonly to: number;
  readonly leaves: number;
  readonly arrives: number;
  readonly closed: boolean;
  readonly segments: readonly Segment[];
}

/** A border as an area goes along it, its inside on the right. */
interface Way {
  readonly border: Border;
  readonly isBack: boolean;
}

export class Borders {
  /** How many nodes they have in all. */
  nodes = 0;
  private readonly borders: Border[] = [];
  /** By corner, the ways in which borders leave it, and in the upper bits those that were passed. */
  private readonly ways: Uint8Array;
  private readonly across: number;

  /** @param palette the colour of each label: mixes of two show where the border between them is */
  constructor(
    private readonly labels: Labels,
    private readonly pixels: Pixels,
    private readonly palette: readonly Rgb[],
    private readonly fit: RingFit,
    private readonly mostNodes: number,
  ) {
    this.across = labels.width + 1;
    this.ways = waysOf(labels);
    this.follow((x, y) => this.isJunction(x, y));
    this.follow(() => true);
  }

  /** The outlines of all that has one of some labels, clockwise as seen on the screen, holes the other way round. */
  around(isInside: (label: number) => boolean): Subpath[] {
    const rings: Subpath[] = [];
    const leaving = new Map<number, Way[]>();
    const open: Way[] = [];
    for (const border of this.borders) {
      const isRight = isInside(border.right);
      if (isRight === isInside(border.left)) continue;
      const way = { border, isBack: !isRight };
      if (border.closed) rings.push({ segments: segmentsAlong(way), closed: true });
      else {
        open.push(way);
        const corner = startOf(way);
        const others = leaving.get(corner);
        if (others) others.push(way);
        else leaving.set(corner, [way]);
      }
    }
    const used = new Set<Way>();
    for (const first of open) {
      if (used.has(first)) continue;
      const segments: Segment[] = [];
      for (
        let way: Way | null = first;
        way && !used.has(way);
        way = onwards(way, leaving.get(endOf(way)) ?? [], used)
      ) {
        used.add(way);
        segments.push(...segmentsAlong(way));
      }
      rings.push({ segments, closed: true });
    }
    return rings;
  }

  private labelAt(x: number, y: number): number {
    const { width, height, of: labels } = this.labels;
    return x < 0 || y < 0 || x >= width || y >= height ? outside : labels[y * width + x];
  }

  private beside(x: number, y: number, way: number, side: 'left' | 'right'): number {
    const [dx, dy] = besides[way][side];
    return this.labelAt(x + dx, y + dy);
  }

  private isBorder(x: number, y: number, way: number): boolean {
    return (this.ways[y * this.across + x] & (1 << way)) !== 0;
  }

  /** Whether borders end at a corner: more than two meet there, or it is one of the picture's own. */
  private isJunction(x: number, y: number): boolean {
    const { width, height } = this.labels;
    const ways = this.ways[y * this.across + x] & allWays;
    return countOf[ways] > 2 || (ways > 0 && (x === 0 || x === width) && (y === 0 || y === height));
  }

  /** Follows the borders that begin at some corners, and that nobody has passed. */
  private follow(isStart: (x: number, y: number) => boolean): void {
    const { ways, across } = this;
    for (let corner = 0; corner < ways.length; corner++) {
      if (ways[corner] === 0) continue;
      const x = corner % across;
      const y = (corner - x) / across;
      if (!isStart(x, y)) continue;
      for (let way = 0; way < 4; way++) {
        if (this.isBorder(x, y, way) && !(ways[corner] & (passed << way))) this.add(x, y, way);
      }
    }
  }

  /** Follows a border from a corner to where it ends, and fits it. */
  private add(startX: number, startY: number, leaves: number): void {
    const from = startY * this.across + startX;
    const isJunction = this.isJunction(startX, startY);
    const points: number[] = isJunction ? this.junction(startX, startY) : [];
    let [x, y, way] = [startX, startY, leaves];
    let isDone = false;
    while (!isDone) {
      this.pass(x, y, way);
      points.push(...this.crossing(x, y, way));
      x += steps[way][0];
      y += steps[way][1];
      const next = this.isJunction(x, y) ? null : this.wayOn(x, y, way);
      isDone = next === null || (x === startX && y === startY);
      if (next !== null && !isDone) way = next;
    }
    if (isJunction) points.push(...this.junction(x, y));
    const builder = new PathBuilder();
    const line = Float64Array.from(points);
    this.nodes += isJunction ? addFittedArc(builder, line, this.fit) : addFittedRing(builder, line, this.fit);
    if (this.nodes > this.mostNodes) return;
    const [subpath] = subpathsOf(builder.build());
    if (!subpath) return;
    this.borders.push({
      left: this.beside(startX, startY, leaves, 'left'),
      right: this.beside(startX, startY, leaves, 'right'),
      ...{ from, to: y * this.across + x, leaves, arrives: way, closed: !isJunction },
      segments: subpath.segments,
    });
  }

  /** A border is passed both ways at once. */
  private pass(x: number, y: number, way: number): void {
    const [dx, dy] = steps[way];
    this.ways[y * this.across + x] |= passed << way;
    this.ways[(y + dy) * this.across + x + dx] |= passed << ((way + 2) % 4);
  }

  /** The one other way on from a corner that two borders meet at. */
  private wayOn(x: number, y: number, arrived: number): number | null {
    for (const turn of [1, 0, 3]) {
      const way = (arrived + turn) % 4;
      if (this.isBorder(x, y, way)) return way;
    }
    return null;
  }

  /** Where between the middles of two pixels one colour gives way to the other. */
  private crossing(x: number, y: number, way: number): [number, number] {
    const [left, right] = [besides[way].left, besides[way].right];
    const [ax, ay, bx, by] = [x + left[0], y + left[1], x + right[0], y + right[1]];
    const [a, b] = [this.labelAt(ax, ay), this.labelAt(bx, by)];
    const t = a === outside || b === outside ? 0.5 : this.share(a, b, [ax, ay], [bx, by]);
    return [ax + 0.5 + t * (bx - ax), ay + 0.5 + t * (by - ay)];
  }

  private share(a: number, b: number, from: readonly [number, number], to: readonly [number, number]): number {
    const { width, rgb } = this.pixels;
    const mixAt = (px: number, py: number) => {
      const k = 3 * (py * width + px);
      return mixOf(this.palette[a], this.palette[b], rgb[k], rgb[k + 1], rgb[k + 2]);
    };
    const [before, after] = [mixAt(...from), mixAt(...to)];
    return after > before ? Math.min(1, Math.max(0, (0.5 - before) / (after - before))) : 0.5;
  }

  /** Where borders meet: each says how far beside the corner it lies. On the frame of the picture, it is on that. */
  private junction(x: number, y: number): [number, number] {
    const { width, height } = this.labels;
    const [besideX, besideY]: [number[], number[]] = [[], []];
    for (let way = 0; way < 4; way++) {
      const isFrame = this.beside(x, y, way, 'left') === outside || this.beside(x, y, way, 'right') === outside;
      if (isFrame || !this.isBorder(x, y, way)) continue;
      const [cx, cy] = this.crossing(x, y, way);
      if (way % 2 === 1) besideX.push(cx - x);
      else besideY.push(cy - y);
    }
    return [x === 0 || x === width ? x : x + meanOf(besideX), y === 0 || y === height ? y : y + meanOf(besideY)];
  }
}

/** For each corner of pixels, by the bits of `steps`, the ways that part two labels. */
function waysOf({ width, height, of: labels }: Labels): Uint8Array {
  const ways = new Uint8Array((width + 1) * (height + 1));
  for (let y = 0, corner = 0; y <= height; y++) {
    const [above, below] = [(y - 1) * width, y * width];
    let [northWest, southWest] = [outside, outside];
    for (let x = 0; x <= width; x++, corner++) {
      const northEast = x < width && y > 0 ? labels[above + x] : outside;
      const southEast = x < width && y < height ? labels[below + x] : outside;
      if (northEast !== southEast) ways[corner] |= 1;
      if (southEast !== southWest) ways[corner] |= 2;
      if (southWest !== northWest) ways[corner] |= 4;
      if (northWest !== northEast) ways[corner] |= 8;
      northWest = northEast;
      southWest = southEast;
    }
  }
  return ways;
}

function meanOf(values: readonly number[]): number {
  return values.length === 0 ? 0 : values.reduce((sum, value) => sum + value, 0) / values.length;
}

const startOf = ({ border, isBack }: Way) => (isBack ? border.to : border.from);
const endOf = ({ border, isBack }: Way) => (isBack ? border.from : border.to);
const leavesBy = ({ border, isBack }: Way) => (isBack ? (border.arrives + 2) % 4 : border.leaves);
const arrivesBy = ({ border, isBack }: Way) => (isBack ? (border.leaves + 2) % 4 : border.arrives);

/** Where an area's outline goes on: as far to the right as it can, so that areas which only touch stay apart. */
function onwards(way: Way, ways: readonly Way[], used: ReadonlySet<Way>): Way | null {
  const free = ways.filter((other) => !used.has(other));
  const turnTo = (other: Way) => (leavesBy(other) - arrivesBy(way) + 5) % 4;
  // 1 + the turn: right is 2, straight on 1, left 0.
  return free.reduce<Way | null>((best, other) => (best && turnTo(best) >= turnTo(other) ? best : other), null);
}

function segmentsAlong({ border: { segments, closed }, isBack }: Way): readonly Segment[] {
  return isBack ? reversedSubpath({ segments, closed }).segments : segments;
}
