import type { Item } from '../document/item.ts';
import { boxesMeet } from '../geometry/paths/box.ts';
import { forEachMeeting, numbersOfBoxes } from '../geometry/questions/meeting-boxes.ts';
import { separates } from '../operations/operations.ts';
import { cutLayers, nestedLines } from '../plan/cut-steps.ts';
import type { PreparedJob, PreparedLayer } from '../plan/prepare.ts';
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
  const cuts = cutLayers(prepared);
  const lines = nestedLines(prepared, cuts).filter(({ layerIndex }) => cuts[layerIndex] === layer);
  const boxes = numbersOfBoxes(lines, ({ bounds }) => bounds);
  const isOpen = ({ line }: (typeof lines)[number]) => !line.line.closed;
  const isBeside = new Uint8Array(lines.length);
  forEachMeeting(boxes, mm, (a, b) => {
    if (!boxesMeet(lines[a].bounds, lines[b].bounds) || (isOpen(lines[a]) && isOpen(lines[b])))
      isBeside[a] = isBeside[b] = 1;
  });
  const items: Item[] = [];
  let count = 0;
  for (const [i, { line }] of lines.entries()) {
    if (isBeside[i] === 0) continue;
    count++;
    // The lines of an item follow each other.
    if (items.at(-1) !== line.item) items.push(line.item);
  }
  return { items, count };
}
