import { type Item, pathOf } from '../document/item.ts';
import { areaOf, intersectAreas, sizeOfArea } from '../geometry/areas/area.ts';
import { boxesMeet } from '../geometry/paths/box.ts';
import { indexBoxes } from '../geometry/paths/box-index.ts';
import { identity } from '../geometry/paths/matrix.ts';
import { appendPath, PathBuilder } from '../geometry/paths/path.ts';
import { Components } from '../geometry/questions/components.ts';
import { engravedFills, engravedPath, hasOwnFill } from '../plan/fill.ts';
import type { PreparedJob, PreparedLayer } from '../plan/prepare.ts';

/** Fills that cover each other by less than this, in mm², touch. */
const leastOverlap = 1e-4;

/**
 * The items of an engraved layer so that what they fill, drawn one over the other, is what burns. Where they overlap and
 * neither burns, they are one path that is filled even-odd; where figure and ground are swapped, the ground.
 *
 * @param items what goes out of the layer, where it lies and in the paint it goes out with.
 * @param whole whether that is all that is on it.
 */
export function fillsAsBurnt(
  prepared: PreparedJob,
  layer: PreparedLayer,
  items: readonly Item[],
  whole: boolean,
): readonly Item[] {
  const { burning } = layer;
  const ruled = items.map(
    (item): Item =>
      burning.fillRule === 'even-odd' && item.shape.kind !== 'picture' ? { ...item, fillRule: 'evenodd' } : item,
  );
  const own = hasOwnFill(prepared, layer);
  const flipped = own && prepared.job.flips.some(({ itemIds }) => items.some(({ id }) => itemIds.includes(id)));
  if (!flipped && burning.overlaps === 'unite') return ruled;
  const clusters = overlapping(ruled);
  if (!flipped && clusters.every(({ length }) => length === 1)) return ruled;
  if (!own) return clusters.map(together);
  return whole ? engraved(prepared, layer, ruled) : ruled;
}

/** Items that are filled, by whether they overlap, in the order of the first of each; others stand alone. */
function overlapping(items: readonly Item[]): Item[][] {
  const filled = items.flatMap((item, i) => (item.paint.fill === null ? [] : [{ i, path: pathOf(item) }]));
  const areas = filled.map(({ i, path }) => areaOf(path, items[i].fillRule));
  const boxes = areas.map(({ bounds }) => bounds);
  const index = indexBoxes(boxes);
  const sets = new Components(items.length);
  areas.forEach((area, a) => {
    const { minX, minY, maxX, maxY } = boxes[a];
    for (const b of index?.search(minX, minY, maxX, maxY) ?? []) {
      if (b <= a || !boxesMeet(boxes[a], boxes[b])) continue;
      if (sizeOfArea(intersectAreas(area, areas[b])) > leastOverlap) sets.join(filled[a].i, filled[b].i);
    }
  });
  return sets.list().map((members) => members.map((i) => items[i]));
}

/** Several items as one that is filled where an odd number of them is, painted as the first. */
function together(members: readonly Item[]): Item {
  const [first] = members;
  if (members.length === 1) return first;
  const builder = new PathBuilder();
  for (const item of members) appendPath(builder, pathOf(item), true);
  return { ...first, shape: { kind: 'path', path: builder.build() }, matrix: identity, fillRule: 'evenodd' };
}

/** What a layer engraves, as items for each power. */
function engraved(prepared: PreparedJob, layer: PreparedLayer, items: readonly Item[]): Item[] {
  const [first] = items;
  const fill = items.find((item) => item.paint.fill !== null)?.paint.fill ?? first.paint.stroke;
  const pictures = items.filter((item) => item.shape.kind === 'picture');
  const fills = engravedFills(prepared, layer).map(
    (filled, i): Item => ({
      ...first,
      id: i === 0 ? first.id : `${first.id}.${i}`,
      shape: { kind: 'path', path: engravedPath(filled) },
      matrix: identity,
      paint: { stroke: null, strokeWidthMm: 0, fill },
      fillRule: 'evenodd',
    }),
  );
  return [...fills, ...pictures];
}
