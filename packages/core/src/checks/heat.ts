import type { Item } from '../document/item.ts';
import { indexBoxes } from '../geometry/paths/box-index.ts';
import { polylineBounds } from '../geometry/questions/nesting.ts';
import { separates } from '../operations/operations.ts';
import type { PreparedJob, PreparedLayer } from '../plan/prepare.ts';
import { linesOf } from '../plan/step-draft.ts';
import { thicknessOf } from '../recipes/book/material.ts';
import { type Check, countOf, finding, withMends } from './finding.ts';

/** Fewer lines close together than this warm nothing up. */
const leastLines = 12;
/** How close is close: a share of the thickness of the stock, and never less than so many mm. */
const closeShare = 0.5;
const closestMm = 1;

/** Many cuts close to each other that burn one after another: heat gathers, and edges char or melt. */
export const checkHeat: Check = (prepared) =>
  prepared.layers.flatMap((layer) => {
    const { order } = layer.burning;
    if (!layer.burns || !separates(layer.layer.operation) || order === 'spread' || order === 'by-hand') return [];
    const closeMm = Math.max(closestMm, closeShare * (layer.material ? thicknessOf(layer.material) : 0));
    const { items, count } = crowded(prepared, layer, closeMm);
    if (count < leastLines) return [];
    return [
      withMends(
        finding(
          'heat',
          'notes',
          `${countOf(count, 'cut lies', 'cuts lie')} within ${closeMm} mm of each other on ${layer.layer.name} and burn one after another. Spread in time, each has cooled before its neighbour burns.`,
          items,
          layer.layer.id,
        ),
        {
          words: 'Spread in time',
          name: `spread the cuts of ${layer.layer.name} in time`,
          isSafe: false,
          step: { kind: 'order', layerId: layer.layer.id, order: 'spread' },
        },
      ),
    ];
  });

/** Lines that lie side by side with another within a distance; what lies in another is not beside it. */
function crowded(prepared: PreparedJob, layer: PreparedLayer, mm: number): { items: Item[]; count: number } {
  const lines = linesOf(prepared, layer);
  const boxes = lines.map(({ line }) => polylineBounds(line));
  const index = indexBoxes(boxes);
  const near = lines.filter((line, i) => {
    const { minX, minY, maxX, maxY } = boxes[i];
    return index?.search(minX - mm, minY - mm, maxX + mm, maxY + mm).some((j) => {
      const other = boxes[j];
      const isApart = other.minX > maxX || other.maxX < minX || other.minY > maxY || other.maxY < minY;
      return j !== i && (isApart || (!line.line.closed && !lines[j].line.closed));
    });
  });
  return { items: [...new Set(near.map(({ item }) => item))], count: near.length };
}
