import { type Item, polylinesOf } from '../document/item.ts';
import { type Box, boxOf, growBox } from '../geometry/paths/box.ts';
import { indexBoxes } from '../geometry/paths/box-index.ts';
import { fillsAreas } from '../operations/operations.ts';
import { type Check, finding, withMends } from './finding.ts';
import { uniteOverlaps } from './offers.ts';

/** More places than these are not named. */
const mostPlaces = 200;

/** An edge of an item's closed outline. */
interface Edge {
  readonly item: Item;
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
}

/** Engravings whose outlines cross: where two of them overlap, neither burns. What lies whole in another is a hole of it. */
export const checkCrossingFills: Check = ({ layers }) =>
  layers.flatMap(({ layer, on, placed, burning }) => {
    if (!fillsAreas(layer.operation) || !on || burning.overlaps === 'unite' || placed.length < 2) return [];
    const { items, places } = crossings(placed.map(({ item }) => item));
    if (items.length === 0) return [];
    return [
      withMends(
        finding(
          'fills-cross',
          'warns',
          `${items.length} engravings on ${layer.name} cross, and where they overlap neither burns. If they are meant to be one, have overlaps on ${layer.name} unite.`,
          items,
          layer.id,
          places,
        ),
        uniteOverlaps(layer),
      ),
    ];
  });

/** The items that cross others of them, and where they do. */
function crossings(items: readonly Item[]): { items: Item[]; places: Box[] } {
  const edges = items.flatMap(edgesOf);
  const index = indexBoxes(edges.map(boxOfEdge));
  const crossing = new Set<Item>();
  const places: Box[] = [];
  edges.forEach((edge, i) => {
    const { minX, minY, maxX, maxY } = boxOfEdge(edge);
    for (const j of index?.search(minX, minY, maxX, maxY) ?? []) {
      const other = edges[j];
      if (j <= i || other.item === edge.item) continue;
      const place = crossingOf(edge, other);
      if (!place) continue;
      crossing.add(edge.item);
      crossing.add(other.item);
      if (places.length < mostPlaces) places.push(growBox(boxOf(place.x, place.y, 0, 0), 0.5));
    }
  });
  return { items: items.filter((item) => crossing.has(item)), places };
}

function edgesOf(item: Item): Edge[] {
  return polylinesOf(item).flatMap(({ points, closed }) => {
    const count = points.length / 2;
    if (!closed) return [];
    return Array.from({ length: count }, (_, i) => {
      const next = (i + 1) % count;
      return { item, x0: points[2 * i], y0: points[2 * i + 1], x1: points[2 * next], y1: points[2 * next + 1] };
    });
  });
}

function boxOfEdge({ x0, y0, x1, y1 }: Edge): Box {
  return { minX: Math.min(x0, x1), minY: Math.min(y0, y1), maxX: Math.max(x0, x1), maxY: Math.max(y0, y1) };
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
