import { type Item, polylinesOf } from '../document/item.ts';
import { leftOverOf } from '../edits/left-over.ts';
import { type Box, growBox } from '../geometry/paths/box.ts';
import type { Polyline } from '../geometry/paths/flatten.ts';
import { nearEnds } from '../geometry/questions/near-ends.ts';
import { perEach } from '../lists/per-each.ts';
import { followsLines, isBurnt, type Operation, separates } from '../operations/operations.ts';
import type { PreparedJob } from '../plan/prepare.ts';
import { type Check, countOf, eachOnce, finding, itemsOfLayers, withMends } from './finding.ts';
import { gapInWords, joinedWithin } from './offers.ts';

/*
 * What is wrong with a drawing whatever its colours mean: it is found while drawing, before they mean anything.
 */

/** Items that nothing has given a meaning yet, as far as they may come to burn. */
function undecidedItems({ meaning, parked, burntAt }: PreparedJob): Item[] {
  return meaning.undecided.flatMap((item) => (parked.has(item.id) ? [] : [burntAt(item)]));
}

/** Items on layers of an operation that burns, also of those that are switched off. */
function itemsOn({ layers }: PreparedJob, wanted: (operation: Operation) => boolean): readonly Item[] {
  return itemsOfLayers(layers.filter(({ layer }) => isBurnt(layer.operation) && wanted(layer.operation)));
}

/**
 * Items whose lines burn, or may come to: those without a meaning that are drawn with a stroke and not filled.
 * @param burnt which of those that burn along lines are asked for.
 */
export function lineItems(
  prepared: PreparedJob,
  burnt: (operation: Operation) => boolean = followsLines,
): readonly Item[] {
  const open = undecidedItems(prepared).filter(({ paint }) => paint.stroke !== null && paint.fill === null);
  return withOpen(itemsOn(prepared, burnt), open);
}

function withOpen(items: readonly Item[], open: readonly Item[]): readonly Item[] {
  return open.length === 0 ? items : eachOnce([...items, ...open]);
}

/** Ends further apart than this, in mm, are not taken to be meant as one where lines need not close. */
const tinyGapMm = 0.3;

const none: readonly Polyline[] = [];

/** By item: its lines that do not close, points alone among them. */
export const openLinesOfEach: (items: readonly Item[]) => readonly (readonly Polyline[])[] = perEach(
  (items: readonly Item[]) =>
    items.map((item) => {
      const lines = polylinesOf(item);
      return lines.every(({ closed }) => closed) ? none : lines.filter(({ closed }) => !closed);
    }),
);

/** Ends of lines that nearly meet, where what is open is no fault of itself: on scores, and before colours mean anything. */
export const checkGaps: Check = (prepared) => {
  const items = lineItems(prepared, (operation) => followsLines(operation) && !separates(operation));
  const openLines = openLinesOfEach(items);
  const lines = items.flatMap((item, i) => openLines[i].map((line) => ({ item, line })));
  const gaps = nearEnds(
    lines.map(({ line }) => line),
    tinyGapMm,
  );
  if (gaps.length === 0) return [];
  const found = [...new Set(gaps.flatMap((gap) => gap.lines.map((i) => lines[i].item)))];
  const widest = Math.max(...gaps.map(({ gapMm }) => gapMm));
  const places = gaps.map(({ x, y }) => growBox({ minX: x, minY: y, maxX: x, maxY: y }, 1));
  return [
    withMends(
      finding(
        'tiny-gap',
        'notes',
        `${countOf(gaps.length, 'pair of ends nearly meets', 'pairs of ends nearly meet')}: the widest gap is ${gapInWords(widest)}. Join them, if they are meant as one line.`,
        found,
        null,
        places,
      ),
      joinedWithin(found, widest, true),
    ),
  ];
};

const leftOverOfEach = perEach((items: readonly Item[]) => items.map(leftOverOf));

/** Points, and things too small to be a shape: a click too many leaves them. */
export const checkLeftOver: Check = (prepared) => {
  const places: Box[] = [];
  const items: Item[] = [];
  const removable: Item[] = [];
  const all = withOpen(
    itemsOn(prepared, () => true),
    undecidedItems(prepared),
  );
  const leftOvers = leftOverOfEach(all);
  for (const [i, left] of leftOvers.entries()) {
    if (left.places.length === 0) continue;
    const item = all[i];
    places.push(...left.places);
    items.push(item);
    if (left.isAll || item.shape.kind === 'path') removable.push(item);
  }
  if (items.length === 0) return [];
  const many = countOf(places.length, 'stray point', 'stray points');
  return [
    withMends(
      finding(
        'left-over',
        'notes',
        `${many}, smaller than 0.05 mm: ${places.length === 1 ? 'it is' : 'they are'} too small to be seen, and would burn a dot or nothing at all.`,
        items,
        null,
        places.map((place) => growBox(place, 1)),
      ),
      removable.length === 0
        ? null
        : {
            words: places.length === 1 ? 'Remove it' : `Remove the ${places.length}`,
            name: `remove ${many}`,
            isSafe: true,
            step: { kind: 'remove left over', itemIds: removable.map(({ id }) => id) },
          },
    ),
  ];
};
