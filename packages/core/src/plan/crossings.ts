import { boundsOf, type Item, pathOf, perItems, polylinesOf } from '../document/item.ts';
import { areaOf, intersectAreas, sizeOfArea, subtractAreas } from '../geometry/areas/area.ts';
import { type Box, boxOf, growBox } from '../geometry/paths/box.ts';
import { Components } from '../geometry/questions/components.ts';
import { EdgeRuns } from '../geometry/questions/edge-runs.ts';
import { nearItems } from './near-items.ts';

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
export const crossingClusters: (items: readonly Item[]) => readonly Crossing[] = perItems((items) => {
  const { near } = nearItems(items);
  const runs = new EdgeRuns(
    near.flatMap((item, owner) => polylinesOf(item).flatMap((line) => (line.closed ? [{ owner, line }] : []))),
  );
  const [own, others] = [EdgeRuns.scratch(), EdgeRuns.scratch()];
  const sets = new Components(near.length);
  const found: { owner: number; place: Box }[] = [];
  const crossing = new Set<string>();
  const touching = new Set<string>();
  runs.forEachPair(0, (run, other) => {
    const [a, b] = [runs.owners[run], runs.owners[other]];
    if (a === b) return;
    const [count, otherCount] = [runs.edgesOf(run, own), runs.edgesOf(other, others)];
    for (let i = 0; i < 4 * count; i += 4) {
      for (let j = 0; j < 4 * otherCount; j += 4) {
        if (!doBoxesMeet(own, i, others, j)) continue;
        const [edge, another] = [edgeAt(own, i), edgeAt(others, j)];
        const place = crossingOf(edge, another);
        if (place) {
          sets.join(a, b);
          crossing.add(`${a} ${b}`);
          found.push({ owner: a, place: growBox(boxOf(place.x, place.y, 0, 0), 0.5) });
        } else if (doTouch(edge, another)) touching.add(`${a} ${b}`);
      }
    }
  });
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
});

/** An edge of a closed outline. */
interface Edge {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
}

function edgeAt(ends: Float64Array, i: number): Edge {
  return { x0: ends[i], y0: ends[i + 1], x1: ends[i + 2], y1: ends[i + 3] };
}

function doBoxesMeet(own: Float64Array, a: number, others: Float64Array, b: number): boolean {
  return (
    Math.max(own[a], own[a + 2]) >= Math.min(others[b], others[b + 2]) &&
    Math.max(others[b], others[b + 2]) >= Math.min(own[a], own[a + 2]) &&
    Math.max(own[a + 1], own[a + 3]) >= Math.min(others[b + 1], others[b + 3]) &&
    Math.max(others[b + 1], others[b + 3]) >= Math.min(own[a + 1], own[a + 3])
  );
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
