import { boundsOf, type Item } from '../document/item.ts';
import { boxCentre, isEmpty } from '../geometry/paths/box.ts';
import { indexBoxes } from '../geometry/paths/box-index.ts';
import { polylineContains } from '../geometry/paths/flatten.ts';
import { polylineBounds } from '../geometry/questions/nesting.ts';
import { fillsAreas, separates } from '../operations/operations.ts';
import type { BurnLine } from './order.ts';
import type { PreparedLayer } from './prepare.ts';

/** Something that burns after the outline it lies in was cut, when that may have shifted or dropped. */
export interface OutOfOrder {
  readonly itemId: string;
  readonly cutItemId: string;
}

/** More than these are not named. */
const mostNamed = 200;

/** What burns after the cut outline that holds it, among steps in the order they burn. */
export function outOfOrder(
  steps: readonly { readonly layer: PreparedLayer; readonly burnt: readonly BurnLine[] }[],
): OutOfOrder[] {
  const cuts: { line: BurnLine['line']; item: Item; when: number }[] = [];
  const things: { item: Item; x: number; y: number; line: BurnLine['line'] | null; when: number }[] = [];
  let when = 0;
  for (const { layer, burnt } of steps) {
    if (fillsAreas(layer.layer.operation)) {
      when++;
      for (const { item } of layer.placed) {
        if (isEmpty(boundsOf(item))) continue;
        things.push({ item, ...boxCentre(boundsOf(item)), line: null, when });
      }
    }
    for (const { item, line } of burnt) {
      when++;
      things.push({ item, x: line.points[0], y: line.points[1], line, when });
      if (separates(layer.layer.operation) && line.closed) cuts.push({ line, item, when });
    }
  }
  const index = indexBoxes(cuts.map(({ line }) => polylineBounds(line)));
  const found = new Map<string, OutOfOrder>();
  for (const { item, x, y, line, when: burnt } of things) {
    if (found.size >= mostNamed) break;
    for (const i of index?.search(x, y, x, y) ?? []) {
      const cut = cuts[i];
      if (cut.when >= burnt || cut.line === line || sameLine(cut.line, line)) continue;
      if (!found.has(item.id) && polylineContains(cut.line, x, y))
        found.set(item.id, { itemId: item.id, cutItemId: cut.item.id });
    }
  }
  return [...found.values()];
}

/** Whether two lines are the same outline drawn twice: neither lies in the other. */
function sameLine(a: BurnLine['line'], b: BurnLine['line'] | null): boolean {
  if (!b || a.points.length !== b.points.length) return false;
  const [p, q] = [polylineBounds(a), polylineBounds(b)];
  const near = (u: number, v: number) => Math.abs(u - v) < 1e-6;
  return near(p.minX, q.minX) && near(p.minY, q.minY) && near(p.maxX, q.maxX) && near(p.maxY, q.maxY);
}
