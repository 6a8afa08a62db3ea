import { boundsOf, type Item, pathOf, polylinesOf } from '../document/item.ts';
import { areaOf, intersectAreas, sizeOfArea, subtractAreas } from '../geometry/areas/area.ts';
import { type Box, boxOf, growBox } from '../geometry/paths/box.ts';
import { indexBoxes } from '../geometry/paths/box-index.ts';
import { Components } from '../geometry/questions/components.ts';

/*
 * Closed outlines of items that cross those of others.
 */

/** More places than these are not named. */
const mostPlaces = 200;

/** Items that cross each other, and where. */
export interface Crossing {
  readonly items: readonly Item[];
  readonly places: readonly Box[];
}

/** The items that cross others of them, and where they do. */
export function crossingItems(items: readonly Item[]): Crossing {
  const clusters = crossingClusters(items);
  const all = new Set(clusters.flatMap((cluster) => cluster.items));
  return {
    items: items.filter((item) => all.has(item)),
    places: clusters.flatMap(({ places }) => places).slice(0, mostPlaces),
  };
}

/** Items by which of them cross each other, directly or by way of others; what crosses none is left out. */
export function crossingClusters(items: readonly Item[]): Crossing[] {
  const near = nearOthers(items);
  const edges = new Edges(near);
  const index = indexBoxes(edges.boxes());
  const sets = new Components(near.length);
  const found: { owner: number; place: Box }[] = [];
  const crossing = new Set<string>();
  const touching = new Set<string>();
  for (let i = 0; i < edges.count; i++) {
    const { minX, minY, maxX, maxY } = edges.boxOf(i);
    for (const j of index?.search(minX, minY, maxX, maxY) ?? []) {
      const [a, b] = [edges.owners[i], edges.owners[j]];
      if (j <= i || a === b) continue;
      const [edge, other] = [edges.edge(i), edges.edge(j)];
      const place = crossingOf(edge, other);
      if (!place) {
        if (doTouch(edge, other)) touching.add(`${a} ${b}`);
        continue;
      }
      sets.join(a, b);
      crossing.add(`${a} ${b}`);
      found.push({ owner: a, place: growBox(boxOf(place.x, place.y, 0, 0), 0.5) });
    }
  }
  // Outlines whose edges run along each other may overlap without one that goes through another.
  for (const pair of touching) {
    const [a, b] = pair.split(' ').map(Number);
    if (crossing.has(pair)) continue;
    const place = overlapOf(near[a], near[b]);
    if (!place) continue;
    sets.join(a, b);
    found.push({ owner: a, place });
  }
  return sets.list().flatMap((members) => {
    if (members.length === 1) return [];
    const own = new Set(members);
    const places = found.filter(({ owner }) => own.has(owner)).map(({ place }) => place);
    return [{ items: members.map((i) => near[i]), places: places.slice(0, mostPlaces) }];
  });
}

/** The items whose bounds meet those of another: of a great many that lie apart, the edges are not looked at. */
function nearOthers(items: readonly Item[]): Item[] {
  const boxes = items.map(boundsOf);
  const index = indexBoxes(boxes);
  return items.filter((_, i) => {
    const { minX, minY, maxX, maxY } = boxes[i];
    let others = 0;
    index?.search(minX, minY, maxX, maxY, () => {
      others++;
      return false;
    });
    return others > 1;
  });
}

/** An edge of a closed outline. */
interface Edge {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
}

/** The edges of the closed outlines of items, in flat arrays: there may be a million. */
class Edges {
  readonly count: number;
  /** By edge, the item that it is of, by its place in the list. */
  readonly owners: Int32Array;
  /** Four numbers an edge: x and y of its ends, in mm. */
  private readonly ends: Float64Array;

  constructor(items: readonly Item[]) {
    const outlines = items.flatMap((item, owner) =>
      polylinesOf(item).flatMap(({ points, closed }) => (closed ? [{ owner, points }] : [])),
    );
    this.count = outlines.reduce((sum, { points }) => sum + points.length / 2, 0);
    this.owners = new Int32Array(this.count);
    this.ends = new Float64Array(4 * this.count);
    let edge = 0;
    for (const { owner, points } of outlines) {
      for (let k = 0; k < points.length; k += 2) {
        const next = (k + 2) % points.length;
        this.owners[edge] = owner;
        this.ends.set([points[k], points[k + 1], points[next], points[next + 1]], 4 * edge);
        edge++;
      }
    }
  }

  edge(i: number): Edge {
    const [x0, y0, x1, y1] = this.ends.subarray(4 * i, 4 * i + 4);
    return { x0, y0, x1, y1 };
  }

  boxOf(i: number): Box {
    const { x0, y0, x1, y1 } = this.edge(i);
    return { minX: Math.min(x0, x1), minY: Math.min(y0, y1), maxX: Math.max(x0, x1), maxY: Math.max(y0, y1) };
  }

  boxes(): Box[] {
    return Array.from({ length: this.count }, (_, i) => this.boxOf(i));
  }
}

/** Whether an end of one edge lies on the other. */
function doTouch(a: Edge, b: Edge): boolean {
  const isOn = ({ x0, y0, x1, y1 }: Edge, x: number, y: number) => {
    const [dx, dy] = [x1 - x0, y1 - y0];
    const t = Math.min(1, Math.max(0, ((x - x0) * dx + (y - y0) * dy) / (dx * dx + dy * dy || 1)));
    return Math.hypot(x - x0 - dx * t, y - y0 - dy * t) <= beyond;
  };
  return isOn(b, a.x0, a.y0) || isOn(b, a.x1, a.y1) || isOn(a, b.x0, b.y0) || isOn(a, b.x1, b.y1);
}

/** Areas smaller than this, in mm², are what rounding leaves. */
const leastArea = 0.001;

/** Where two outlines overlap, each with a part beside the other; null where they do not. */
function overlapOf(a: Item, b: Item): Box | null {
  const [first, second] = [boundsOf(a), boundsOf(b)];
  const isApart = (low: number, high: number) => high - low < 2 * beyond;
  if (
    isApart(Math.max(first.minX, second.minX), Math.min(first.maxX, second.maxX)) ||
    isApart(Math.max(first.minY, second.minY), Math.min(first.maxY, second.maxY))
  )
    return null;
  const [left, right] = [areaOf(pathOf(a), 'evenodd'), areaOf(pathOf(b), 'evenodd')];
  const both = intersectAreas(left, right);
  const parts = [both, subtractAreas(left, right), subtractAreas(right, left)];
  return parts.every((part) => sizeOfArea(part) > leastArea) ? both.bounds : null;
}

/** How far an edge has to go beyond another, in mm, to cross and not only touch it. */
const beyond = 0.005;

/** Where two edges cross within both; null where they only touch. */
function crossingOf(a: Edge, b: Edge): { x: number; y: number } | null {
  const [fromA, toA] = [sideOf(b, a.x0, a.y0), sideOf(b, a.x1, a.y1)];
  const [fromB, toB] = [sideOf(a, b.x0, b.y0), sideOf(a, b.x1, b.y1)];
  const isThrough = (p: number, q: number) => p * q < 0 && Math.min(Math.abs(p), Math.abs(q)) > beyond;
  if (!isThrough(fromA, toA) || !isThrough(fromB, toB)) return null;
  const t = fromA / (fromA - toA);
  return { x: a.x0 + (a.x1 - a.x0) * t, y: a.y0 + (a.y1 - a.y0) * t };
}

/** How far a point lies to one side of an edge's line, in mm; below 0 to the other. */
function sideOf({ x0, y0, x1, y1 }: Edge, x: number, y: number): number {
  const [dx, dy] = [x1 - x0, y1 - y0];
  return (dx * (y - y0) - dy * (x - x0)) / (Math.hypot(dx, dy) || 1);
}
