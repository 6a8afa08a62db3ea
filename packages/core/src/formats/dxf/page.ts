import type { Item } from '../../document/item.ts';
import { boxContains, boxHeight, boxOf, boxWidth, emptyBox, isEmpty, uniteBoxes } from '../../geometry/paths/box.ts';
import { type Matrix, multiply, translation } from '../../geometry/paths/matrix.ts';
import { pathBounds } from '../../geometry/paths/path.ts';
import { FileRefused } from '../refusal.ts';
import { finite, type readSections } from './groups.ts';
import { placedOutline } from './join-loose.ts';

type Header = ReturnType<typeof readSections>['header'];

/**
 * Puts items on the file's own page where it has one that holds them; else with their corner at the corner.
 *
 * @param mm how long a unit of the file is
 * @throws FileRefused where they have no finite size
 */
export function placeOnPage(
  items: Item[],
  header: Header,
  mm: number,
): { items: Item[]; page: { width: number; height: number } | null } {
  const corner = (name: string) => {
    const groups = header.get(name) ?? [];
    const value = (code: number) => finite(groups.find(([known]) => known === code)?.[1] ?? '') * mm;
    return groups.length > 0 ? { x: value(10), y: value(20) } : null;
  };
  const bounds = items.map((item) => pathBounds(placedOutline(item))).reduce(uniteBoxes, emptyBox);
  if (isEmpty(bounds)) return { items, page: null };
  const [low, high] = [corner('$LIMMIN'), corner('$LIMMAX')];
  const sane = low && high && high.x > low.x && high.y > low.y;
  const limits = sane ? boxOf(low.x, -high.y, high.x - low.x, high.y - low.y) : null;
  const page = limits && boxContains(limits, bounds, 1e-6) ? limits : null;
  if (!Number.isFinite(bounds.maxX - bounds.minX))
    throw new FileRefused('The drawing has no finite size. Save it again as ASCII DXF.');
  const move = translation(-(page ?? bounds).minX, -(page ?? bounds).minY);
  const places = new Map<Matrix, Matrix>();
  const moved = items.map((item) => {
    const matrix = places.get(item.matrix) ?? multiply(move, item.matrix);
    places.set(item.matrix, matrix);
    return { ...item, matrix };
  });
  return { items: moved, page: page && { width: boxWidth(page), height: boxHeight(page) } };
}
