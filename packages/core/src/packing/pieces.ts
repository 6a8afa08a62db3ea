import { type Item, pathOf, polylinesOf } from '../document/item.ts';
import { type Box, boxesMeet } from '../geometry/paths/box.ts';
import { type Polyline, polylineContains } from '../geometry/paths/flatten.ts';
import { type Path, pathBounds } from '../geometry/paths/path.ts';
import { pathOfSubpaths, type Subpath, subpathsOf } from '../geometry/paths/segments.ts';
import { Components } from '../geometry/questions/components.ts';
import { nestOutlines, nestRoots, polylineBounds } from '../geometry/questions/nesting.ts';

/** An outermost outline with all that lies in it. */
export interface DrawnPiece {
  readonly items: readonly Item[];
  /** Its outline and its holes, on the bed, in mm. */
  readonly outline: Path;
}

/** The pieces of a drawing, and the items that lie in no outline. */
export interface DrawnPieces {
  readonly pieces: readonly DrawnPiece[];
  readonly loose: readonly Item[];
}

/**
 * What comes out of a drawing as one: each outermost closed outline with all that lies in it. Outlines that are one item, or
 * of one group where groups are kept, are one piece.
 *
 * @param edges the items whose outlines are the edges of pieces and of holes in them, such as those that are cut
 * @param groupOf a name of the group that is to stay whole; null where there is none
 */
export function drawnPieces(
  items: readonly Item[],
  edges: ReadonlySet<Item> = new Set(items),
  groupOf: (item: Item) => string | null = () => null,
): DrawnPieces {
  const lines = items.flatMap((item, i) =>
    edges.has(item) ? polylinesOf(item).flatMap((line, nth) => (line.closed ? [{ item: i, nth, line }] : [])) : [],
  );
  const nesting = nestOutlines(lines.map(({ line }) => line));
  const roots = nestRoots(nesting);
  // Whatever is one item, in one group, or in one outline, is one piece.
  const joined = new Components(items.length + lines.length);
  const groups = new Map<string, number>();
  items.forEach((item, i) => {
    const group = groupOf(item);
    if (group === null) return;
    const first = groups.get(group);
    if (first === undefined) groups.set(group, i);
    else joined.join(first, i);
  });
  lines.forEach(({ item }, i) => {
    joined.join(item, items.length + i);
    joined.join(items.length + roots[i], items.length + i);
  });
  const withLines = new Set(lines.map(({ item }) => item));
  const outer = lines.flatMap(({ line }, i) => (roots[i] === i ? [{ i, line, box: polylineBounds(line) }] : []));
  items.forEach((item, i) => {
    if (withLines.has(i)) return;
    const holder = outer.find(({ line, box }) => polylinesOf(item).some((inner) => liesIn(inner, line, box)));
    if (holder) joined.join(i, items.length + holder.i);
  });
  const known = new Map<Item, readonly Subpath[]>();
  const subpaths = (item: Item) => {
    const found = known.get(item) ?? [...subpathsOf(pathOf(item))];
    known.set(item, found);
    return found;
  };
  const pieces: DrawnPiece[] = [];
  const loose: Item[] = [];
  for (const members of joined.list()) {
    const own = members.filter((i) => i < items.length);
    const outlines = members.filter((i) => i >= items.length).map((i) => lines[i - items.length]);
    if (outlines.length === 0) loose.push(...own.map((i) => items[i]));
    else
      pieces.push({
        items: own.map((i) => items[i]),
        outline: pathOfSubpaths(outlines.map(({ item, nth }) => subpaths(items[item])[nth])),
      });
  }
  return { pieces, loose };
}

/** Whether most of the edges of a line lie in an outline, by their middles: its ends may lie on the edge of it. */
function liesIn(line: Polyline, outline: Polyline, box: Box): boolean {
  const { points } = line;
  if (!boxesMeet(box, polylineBounds(line))) return false;
  let inside = 0;
  for (let i = 0; i < points.length; i += 2) {
    const next = Math.min(i + 2, points.length - 2);
    if (polylineContains(outline, (points[i] + points[next]) / 2, (points[i + 1] + points[next + 1]) / 2)) inside++;
  }
  return inside * 2 >= points.length / 2;
}

/** What a piece is called: as its outline is named, or any of what lies in it; else by its size in mm. */
export function nameOfPiece({ items, outline }: DrawnPiece): string {
  const named = items.find(({ name }) => name !== null)?.name;
  const { minX, minY, maxX, maxY } = pathBounds(outline);
  const whole = (mm: number) => String(Math.round(mm * 10) / 10);
  return named ?? `${whole(maxX - minX)} × ${whole(maxY - minY)} mm`;
}
