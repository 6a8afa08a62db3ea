import type { Field } from './contours.ts';
import { crossingsAround, stepsAround, thin } from './thinning.ts';

/** A line along the middle of a stroke, in pixels from the picture's top left corner. */
export interface MiddleLine {
  /** x and y in turn. */
  readonly points: Float64Array;
  readonly closed: boolean;
  /** How wide the stroke is, at the median of its points. */
  readonly width: number;
}

/** The direction of a line is taken over so many pixels each way. */
const reach = 4;
/** A branch that ends free within so many half widths of its joint is a spur: a wrinkle of the edge. */
const spurHalves = 1.6;
/** Nearer to a joint than so many half widths, the edges beside a line are those of other strokes. */
const jointHalves = 1;
/** A point is moved by no more than such a share of the stroke's width: thinning goes no further wrong. */
const mostShift = 0.2;

/** A line of pixels between two joints or ends, by the numbers of those; -1 for both where it closes. */
interface Branch {
  readonly pixels: readonly number[];
  readonly from: number;
  readonly to: number;
}

/**
 * Single lines along the middle of what a field shows, joined where strokes are: thinned to pixels, spurs taken away, and
 * each point put in the middle between the edges beside it, which lie where the field is 0.
 *
 * @param field above 0 in the strokes.
 */
export function middleLinesOf(field: Field): MiddleLine[] {
  const raster = new Raster(field);
  let graph = graphOf(raster.skeleton());
  for (;;) {
    const degrees = degreesOf(graph.nodes, graph.branches);
    const kept = graph.branches.filter((branch) => !isSpur(raster, graph, degrees, branch));
    if (kept.length === graph.branches.length) {
      return kept.map((branch) => lineOf(raster, graph, degrees, branch)).filter(({ points }) => points.length > 2);
    }
    graph = graphOf(skeletonOf(raster, graph, kept));
  }
}

/** Lines of one pixel: a mask that is 1 on them, and their pixels. */
interface Skeleton {
  readonly mask: Uint8Array;
  readonly pixels: readonly number[];
  readonly width: number;
}

/** The field in a frame of ground, by pixel numbers. */
class Raster {
  readonly width: number;
  readonly values: Float32Array;

  constructor({ width, height, values }: Field) {
    this.width = width + 2;
    this.values = new Float32Array(this.width * (height + 2)).fill(-1);
    for (let y = 0; y < height; y++) {
      this.values.set(values.subarray(y * width, (y + 1) * width), (y + 1) * this.width + 1);
    }
  }

  /** The pixels of the middle lines. */
  skeleton(): Skeleton {
    const mask = Uint8Array.from(this.values, (value) => (value > 0 ? 1 : 0));
    return { mask, pixels: thin(mask, this.width), width: this.width };
  }

  x(pixel: number): number {
    return pixel % this.width;
  }

  y(pixel: number): number {
    return Math.floor(pixel / this.width);
  }

  /** The field between the middles of pixels, evenly; ground beyond the edge. */
  valueAt(x: number, y: number): number {
    const [left, top] = [Math.floor(x), Math.floor(y)];
    if (left < 0 || top < 0 || left + 1 >= this.width || (top + 1) * this.width >= this.values.length) return -1;
    const [u, v] = [x - left, y - top];
    const i = top * this.width + left;
    const above = this.values[i] * (1 - u) + this.values[i + 1] * u;
    const below = this.values[i + this.width] * (1 - u) + this.values[i + this.width + 1] * u;
    return above * (1 - v) + below * v;
  }

  /** How far it is from a place in the figure to its edge, in a direction. */
  toEdge(x: number, y: number, dx: number, dy: number): number {
    let [near, value] = [0, this.valueAt(x, y)];
    if (value <= 0) return 0;
    for (let far = 0.5; ; far += 0.5) {
      const next = this.valueAt(x + far * dx, y + far * dy);
      if (next <= 0) return near + ((far - near) * value) / (value - next);
      [near, value] = [far, next];
    }
  }
}

interface Graph {
  readonly branches: readonly Branch[];
  /** The pixels of each joint or end. */
  readonly nodes: readonly (readonly number[])[];
}

/** The lines of a skeleton between its joints and ends. */
function graphOf({ mask, pixels, width }: Skeleton): Graph {
  const steps = stepsAround(width);
  // Those straight beside come first, so that no line cuts a corner.
  const ordered = [0, 2, 4, 6, 1, 3, 5, 7].map((k) => steps[k]);
  const nodeOf = new Map<number, number>();
  const nodes: number[][] = [];
  const isNode = (i: number) => crossingsAround(mask, steps, i) !== 2;
  for (const start of pixels) {
    if (nodeOf.has(start) || !isNode(start)) continue;
    const members = [start];
    nodeOf.set(start, nodes.length);
    for (const i of members) {
      for (const step of ordered) {
        if (mask[i + step] === 0 || nodeOf.has(i + step) || !isNode(i + step)) continue;
        nodeOf.set(i + step, nodes.length);
        members.push(i + step);
      }
    }
    nodes.push(members);
  }
  const passed = new Uint8Array(mask.length);
  const branches: Branch[] = [];
  const walk = (first: number, from: number): void => {
    const line = [first];
    passed[first] = 1;
    for (let last = first; ; ) {
      const ahead = ordered.map((step) => last + step).filter((i) => mask[i] === 1);
      const node = ahead.find((i) => nodeOf.has(i) && (line.length > 3 || nodeOf.get(i) !== from));
      if (node !== undefined) {
        branches.push({ pixels: line, from, to: nodeOf.get(node) as number });
        return;
      }
      const next = ahead.find((i) => passed[i] === 0 && !nodeOf.has(i));
      if (next === undefined) {
        branches.push({ pixels: line, from, to: -1 });
        return;
      }
      passed[next] = 1;
      line.push(next);
      last = next;
    }
  };
  for (const [node, members] of nodes.entries()) {
    for (const i of members) {
      for (const step of ordered)
        if (mask[i + step] === 1 && passed[i + step] === 0 && !nodeOf.has(i + step)) walk(i + step, node);
    }
  }
  for (const i of pixels) if (passed[i] === 0 && !nodeOf.has(i)) walk(i, -1);
  return joinedThrough(nodes, branches);
}

/** Where just two lines meet they are one; where the two are the ends of one line, that closes. */
function joinedThrough(nodes: readonly (readonly number[])[], all: readonly Branch[]): Graph {
  let branches = [...all];
  const degrees = degreesOf(nodes, branches);
  for (const [node, members] of nodes.entries()) {
    if (degrees[node] !== 2) continue;
    const [first, second] = branches.filter(({ from, to }) => from === node || to === node);
    const into = first.to === node ? first : turned(first);
    const pixels = [...into.pixels, ...members];
    if (!second) branches = branches.with(branches.indexOf(first), { pixels, from: -1, to: -1 });
    else {
      const on = second.from === node ? second : turned(second);
      const joined = { pixels: [...pixels, ...on.pixels], from: into.from, to: on.to };
      branches = [...branches.filter((branch) => branch !== first && branch !== second), joined];
    }
  }
  return { nodes, branches };
}

const turned = ({ pixels, from, to }: Branch): Branch => ({ pixels: pixels.toReversed(), from: to, to: from });

/** How many lines meet at each joint or end. */
function degreesOf(nodes: Graph['nodes'], branches: readonly Branch[]): Uint32Array {
  const degrees = new Uint32Array(nodes.length);
  for (const { from, to } of branches) for (const node of [from, to]) if (node >= 0) degrees[node]++;
  return degrees;
}

/** The mean of a joint's pixels. */
function placeOf(raster: Raster, members: readonly number[]): [number, number] {
  const mean = (axis: (pixel: number) => number) => members.reduce((sum, i) => sum + axis(i), 0) / members.length;
  return [mean((i) => raster.x(i)), mean((i) => raster.y(i))];
}

/** How far the nearest edge is from a place, by sixteen directions. */
function halfWidthAt(raster: Raster, x: number, y: number): number {
  let least = Number.POSITIVE_INFINITY;
  for (let k = 0; k < 16; k++) {
    const angle = (k * Math.PI) / 8;
    least = Math.min(least, raster.toEdge(x, y, Math.cos(angle), Math.sin(angle)));
  }
  return least;
}

function isSpur(raster: Raster, graph: Graph, degrees: Uint32Array, { pixels, from, to }: Branch): boolean {
  if (from < 0 || to < 0) return false;
  const isFree = (node: number) => degrees[node] === 1 && graph.nodes[node].length === 1;
  if (isFree(from) === isFree(to)) return false;
  const [x, y] = placeOf(raster, graph.nodes[isFree(from) ? to : from]);
  return pixels.length < spurHalves * halfWidthAt(raster, x, y);
}

/** The skeleton of some branches alone. */
function skeletonOf(raster: Raster, { branches, nodes }: Graph, kept: readonly Branch[]): Skeleton {
  const mask = new Uint8Array(raster.values.length);
  const before = new Set(branches.flatMap(({ from, to }) => [from, to]));
  const after = new Set(kept.flatMap(({ from, to }) => [from, to]));
  for (const { pixels } of kept) for (const i of pixels) mask[i] = 1;
  for (const [node, members] of nodes.entries()) {
    if (after.has(node) || !before.has(node)) for (const i of members) mask[i] = 1;
  }
  return { mask, pixels: thin(mask, raster.width), width: raster.width };
}

/** A branch with its points in the middle between the edges. */
function lineOf(raster: Raster, { nodes }: Graph, degrees: Uint32Array, { pixels, from, to }: Branch): MiddleLine {
  const closed = from < 0;
  const ends = [from, to].map((node) => (node < 0 ? null : placeOf(raster, nodes[node])));
  const raw: [number, number][] = pixels.map((i) => [raster.x(i), raster.y(i)]);
  const chain = [...(ends[0] ? [ends[0]] : []), ...raw, ...(ends[1] ? [ends[1]] : [])];
  const chainAt = (k: number) =>
    closed ? chain[(k + chain.length) % chain.length] : chain[Math.min(chain.length - 1, Math.max(0, k))];
  const middles = chain.map(([x, y], k) => {
    const [[ax, ay], [bx, by]] = [chainAt(k - reach), chainAt(k + reach)];
    const length = Math.hypot(bx - ax, by - ay) || 1;
    const [nx, ny] = [-(by - ay) / length, (bx - ax) / length];
    const [left, right] = [raster.toEdge(x, y, nx, ny), raster.toEdge(x, y, -nx, -ny)];
    const shift = (left - right) / 2;
    // What is off by more is no middle of this stroke.
    const isOff = Math.abs(shift) > mostShift * (left + right);
    return { x: isOff ? x : x + shift * nx, y: isOff ? y : y + shift * ny, width: left + right };
  });
  const width = middles.map((middle) => middle.width).sort((a, b) => a - b)[middles.length >> 1];
  const joints = [from, to].flatMap((node, k) => (node >= 0 && degrees[node] > 2 && ends[k] ? [ends[k]] : []));
  const kept = middles.filter(({ x, y }) =>
    joints.every(([jx, jy]) => Math.hypot(x - jx, y - jy) > jointHalves * (width / 2)),
  );
  let places = kept.map(({ x, y }): [number, number] => [x, y]);
  if (!closed) {
    places = endedAt(places, degrees[from] > 2 ? ends[0] : endOf(raster, places, width / 2));
    places = endedAt(
      places.toReversed(),
      to >= 0 && degrees[to] > 2 ? ends[1] : endOf(raster, places.toReversed(), width / 2),
    );
    places.reverse();
  }
  // Pixels are told from the frame's, by their corner.
  return { points: Float64Array.from(places.flatMap(([x, y]) => [x - 0.5, y - 0.5])), closed, width };
}

/** Where a stroke that ends free has its middle: half its width before its edge, in the middle of a round end. */
function endOf(raster: Raster, places: readonly [number, number][], half: number): [number, number] | null {
  if (places.length < 2) return null;
  // The very end is rounded by thinning.
  const [x, y] = places[Math.min(reach, places.length - 2)];
  const [bx, by] = places[Math.min(3 * reach, places.length - 1)];
  const length = Math.hypot(x - bx, y - by) || 1;
  const [dx, dy] = [(x - bx) / length, (y - by) / length];
  const ahead = raster.toEdge(x, y, dx, dy) - half;
  return [x + ahead * dx, y + ahead * dy];
}

/** A line from another end on: what would lie behind that is left out. */
function endedAt(places: readonly [number, number][], end: [number, number] | null): [number, number][] {
  if (!end) return [...places];
  const [ex, ey] = end;
  const [bx, by] = places[Math.min(3 * reach, places.length - 1)] ?? end;
  const isOn = ([x, y]: [number, number]) => (x - ex) * (bx - ex) + (y - ey) * (by - ey) > 0;
  const first = places.findIndex(isOn);
  return [end, ...(first < 0 ? [] : places.slice(first))];
}
