import { boundsOf, type Item, polylinesOf } from '../document/item.ts';
import { boxCentre, boxContains, isEmpty } from '../geometry/paths/box.ts';
import { indexBoxes } from '../geometry/paths/box-index.ts';
import { type Polyline, polylineContains } from '../geometry/paths/flatten.ts';
import type { Point } from '../geometry/paths/matrix.ts';
import { nearestOnLine } from '../geometry/questions/distance.ts';
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

/** What lies nearer to an outline than this, in mm, lies on it. */
const onOutline = 0.01;

/** A thing that is burnt: a line, or an engraving. */
interface Burnt {
  readonly item: Item;
  /** As it is drawn; null for an engraving. */
  readonly drawn: Polyline | null;
  readonly isCut: boolean;
  /** In which place of the order. */
  readonly when: number;
}

/**
 * What burns after the cut outline that holds it, among steps in the order they burn. Outlines are taken as they are
 * drawn: paths of beams cross where outlines only touch.
 */
export function outOfOrder(
  steps: readonly { readonly layer: PreparedLayer; readonly burnt: readonly BurnLine[] }[],
): OutOfOrder[] {
  const things: Burnt[] = [];
  let when = 0;
  for (const { layer, burnt } of steps) {
    if (fillsAreas(layer.layer.operation)) {
      when++;
      for (const { item } of layer.placed) {
        if (!isEmpty(boundsOf(item))) things.push({ item, drawn: null, isCut: false, when });
      }
    }
    const isCut = separates(layer.layer.operation);
    for (const { item, nth } of burnt) {
      when++;
      things.push({ item, drawn: polylinesOf(item)[nth] ?? null, isCut, when });
    }
  }
  const cuts = things.flatMap(({ item, drawn, isCut, when: cutWhen }) =>
    isCut && drawn?.closed ? [{ item, outline: drawn, when: cutWhen }] : [],
  );
  const index = indexBoxes(cuts.map(({ outline }) => polylineBounds(outline)));
  const found = new Map<string, OutOfOrder>();
  for (const thing of things) {
    if (found.size >= mostNamed) break;
    const { x, y } = placeOf(thing);
    for (const i of index?.search(x, y, x, y) ?? []) {
      const cut = cuts[i];
      if (cut.when >= thing.when || found.has(thing.item.id) || sameLine(cut.outline, thing.drawn)) continue;
      if (liesIn(thing, cut.outline)) found.set(thing.item.id, { itemId: thing.item.id, cutItemId: cut.item.id });
    }
  }
  return [...found.values()];
}

/** Where a thing is looked for: the first point of a line, the middle of an engraving. */
function placeOf({ item, drawn }: Burnt): Point {
  return drawn ? { x: drawn.points[0], y: drawn.points[1] } : boxCentre(boundsOf(item));
}

/** Whether a thing lies in a cut outline; a cut that crosses it, or lies beside it, does not. */
function liesIn(thing: Burnt, outline: Polyline): boolean {
  const { drawn, isCut } = thing;
  const { x, y } = placeOf(thing);
  if (!drawn || !isCut) return polylineContains(outline, x, y);
  if (!boxContains(polylineBounds(outline), polylineBounds(drawn), onOutline)) return false;
  for (let i = 0; i < drawn.points.length; i += 2) {
    const [px, py] = [drawn.points[i], drawn.points[i + 1]];
    if (!polylineContains(outline, px, py) && nearestOnLine(outline, px, py).distance > onOutline) return false;
  }
  return true;
}

/** Whether two lines are the same outline drawn twice: neither lies in the other. */
function sameLine(a: Polyline, b: Polyline | null): boolean {
  if (!b || a.points.length !== b.points.length) return false;
  const [p, q] = [polylineBounds(a), polylineBounds(b)];
  const near = (u: number, v: number) => Math.abs(u - v) < 1e-6;
  return near(p.minX, q.minX) && near(p.minY, q.minY) && near(p.maxX, q.maxX) && near(p.maxY, q.maxY);
}
