import { boundsOfAll, type Item, polylinesOf } from '../document/item.ts';
import { isEmpty } from '../geometry/paths/box.ts';
import type { Point } from '../geometry/paths/matrix.ts';
import { convexHull } from '../geometry/questions/convex-hull.ts';
import type { WalkShape } from '../machine/walk-shapes.ts';
import { isBurnt } from '../operations/operations.ts';
import { toProgramGrid } from './moves.ts';
import type { PreparedJob } from './prepare.ts';
import { findRoute } from './route.ts';

/**
 * The ways of the head, unlit, around what burns in a run, where the run burns it: in bed mm on the grid of programs,
 * each from its first point to its last; closed ones end where they began. Layers that have no settings yet count too.
 *
 * @returns no way where nothing burns
 */
export function walkAround({ layers }: Pick<PreparedJob, 'layers'>, shape: WalkShape): Point[][] {
  const items = layers.flatMap(({ layer, on, placed }) =>
    on && isBurnt(layer.operation) ? placed.map(({ item }) => item) : [],
  );
  const bounds = boundsOfAll(items);
  if (isEmpty(bounds)) return [];
  if (shape === 'outlines') return outlinesOf(items);
  const { minX, minY, maxX, maxY } = bounds;
  const corners: [number, number][] =
    shape === 'rectangle'
      ? [
          [minX, minY],
          [maxX, minY],
          [maxX, maxY],
          [minX, maxY],
        ]
      : convexHull(items.flatMap((item) => polylinesOf(item).flatMap(({ points }) => [...points])));
  return [onGrid([...corners, corners[0]])];
}

/** Every outline once, in an order that goes little between them. */
function outlinesOf(items: readonly Item[]): Point[][] {
  const lines = [...new Set(items)].flatMap((item) => polylinesOf(item));
  const legs = findRoute(
    lines.map((line) => ({ line, entries: null })),
    { x: 0, y: 0 },
    true,
    0,
  );
  return legs.map(({ index, node }) => {
    const { points, closed } = lines[index];
    const count = points.length / 2;
    const nth = (i: number): [number, number] => [points[2 * (i % count)], points[2 * (i % count) + 1]];
    if (closed) return onGrid(Array.from({ length: count + 1 }, (_, i) => nth(node + i)));
    return onGrid(Array.from({ length: count }, (_, i) => nth(node === 0 ? i : count - 1 - i)));
  });
}

function onGrid(places: readonly (readonly [number, number])[]): Point[] {
  return places.map(([x, y]) => ({ x: toProgramGrid(x), y: toProgramGrid(y) }));
}
