import type { Item } from '../document/item.ts';
import { doBoxesMeet } from '../geometry/questions/meeting-boxes.ts';
import { MeetingCounts } from '../geometry/questions/meeting-counts.ts';
import { separates } from '../operations/operations.ts';
import { cutLayers, nestedLines } from '../plan/nested-lines.ts';
import type { PreparedJob, PreparedLayer } from '../plan/prepare.ts';
import { thicknessOf } from '../recipes/book/material.ts';
import { type Check, countOf, finding, itemsOfLines, withMends } from './finding.ts';

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
function crowded(prepared: PreparedJob, layer: PreparedLayer, mm: number): { items: readonly Item[]; count: number } {
  const cuts = cutLayers(prepared);
  const { items, layerIndices, boxes, closed } = nestedLines(prepared, cuts);
  // The lines of a layer follow each other.
  const from = layerIndices.indexOf(cuts.indexOf(layer));
  if (from < 0) return { items: [], count: 0 };
  const to = layerIndices.lastIndexOf(layerIndices[from]) + 1;
  const counts = besideWithin(mm).countsOf(boxes.subarray(4 * from, 4 * to), closed.subarray(from, to));
  const found = items.slice(from, to).filter((_, i) => counts[i] > 0);
  return { items: itemsOfLines(found), count: found.length };
}

/** By distance: the lines that come within it of others are counted. As many distances as a shop has thicknesses. */
const meetings = new Map<number, MeetingCounts>();

function besideWithin(mm: number): MeetingCounts {
  const known =
    meetings.get(mm) ??
    new MeetingCounts(
      mm,
      ({ boxes, marks }, a, b) => !doBoxesMeet(boxes, a, b, 0) || (marks[a] === 0 && marks[b] === 0),
    );
  meetings.set(mm, known);
  return known;
}
