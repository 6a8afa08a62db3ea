import { type Item, polylinesOf } from '../document/item.ts';
import { isFollowing } from '../document/shape.ts';
import { joinEnds } from '../edits/join-ends.ts';
import type { Mend } from '../mends/mend.ts';
import { fillsAreas, separates } from '../operations/operations.ts';
import type { PreparedJob } from '../plan/prepare.ts';
import { lineItems, openLinesOfEach } from './every-layer.ts';
import { burntItems, type Check, countOf, finding, ifAny, withMends } from './finding.ts';
import { sharedCuts } from './kerf.ts';
import { cutsInTwo } from './meant.ts';
import { cutOnce, joinedWithin, scored } from './offers.ts';
import { overlappingItems } from './overlap.ts';

/** Items with a line that does not close. */
function openItems(items: readonly Item[]): Item[] {
  const openLines = openLinesOfEach(items);
  return items.filter((_, i) => openLines[i].some(({ points }) => points.length >= 4));
}

/** Outlines that follow others and are not yet what they should be: what would burn is what they were. */
export const checkWaiting: Check = (prepared) => {
  const waiting = burntItems(prepared).filter(({ shape }) => isFollowing(shape) && shape.stale === true);
  return ifAny(waiting, () =>
    finding(
      'outline-waits',
      'blocks',
      `${countOf(waiting.length, 'outline is', 'outlines are')} still being worked out after what they follow has changed. Wait a moment.`,
      waiting,
    ),
  );
};

/** Outlines on a cut layer that do not close: the piece stays in the sheet. What was built has slits that are meant so. */
export const checkOpenCuts: Check = (prepared) => {
  // What divides a piece from edge to edge is said of its own.
  const dividing = new Set(cutsInTwo(prepared));
  const open = openItems(burntItems(prepared, separates)).filter((item) => !dividing.has(item) && !item.part);
  return ifAny(open, () =>
    withMends(
      finding(
        'open-cut',
        'warns',
        `${countOf(open.length, 'outline to be cut does', 'outlines to be cut do')} not close, so nothing comes free there. Join the ends, or make it a score if no piece should fall out.`,
        open,
      ),
      joined(prepared, open),
      scored(prepared, open),
    ),
  );
};

/** Ends further apart than this, in mm, are not taken to be meant as one. */
const widestGap = 1;
/** Gaps up to this, in mm, are no part of what is meant. */
const surelyMeant = 0.3;

/** Joins the ends of lines that nearly meet; null where none do. */
function joined({ job }: PreparedJob, items: readonly Item[]): Mend | null {
  const { report } = joinEnds(job, new Set(items.map(({ id }) => id)), widestGap);
  if (report.joined === 0) return null;
  return joinedWithin(items, report.widest, report.widest <= surelyMeant);
}

/** Lines on an engrave layer that do not close: there is nothing to fill. */
export const checkOpenEngraves: Check = (prepared) => {
  const open = openItems(burntItems(prepared, fillsAreas));
  return ifAny(open, () =>
    withMends(
      finding(
        'open-engrave',
        'warns',
        `${countOf(open.length, 'line', 'lines')} on a layer that is filled enclose nothing and will not be burnt. Close them, or put them on a score layer.`,
        open,
      ),
      joined(prepared, open),
      scored(prepared, open),
    ),
  );
};

/** Lines that lie on each other and would be burnt more than once. */
export const checkTwice: Check = (prepared) => {
  const once = new Set(
    prepared.layers.flatMap(({ burning, placed }) =>
      burning.sharedEdges === 'once' ? placed.map(({ item }) => item) : [],
    ),
  );
  const all = lineItems(prepared);
  const items = once.size === 0 ? all : all.filter((item) => !once.has(item));
  const { items: twice, lengthMm } = overlappingItems(items);
  // Parts that share an edge on purpose are said of their own.
  const shared = new Set(sharedCuts(prepared).items);
  if (twice.every((item) => shared.has(item))) return [];
  const doubles = keptOnce(twice);
  return [
    withMends(
      finding(
        'line-drawn-twice',
        'warns',
        `${lengthMm.toFixed(1)} mm of line is drawn twice, in ${countOf(twice.length, 'item', 'items')}: burnt twice it comes out wider and deeper. Remove one of each, or cut what parts share once.`,
        twice,
      ),
      doubles,
      cutOnce(prepared, twice, false),
    ),
  ];
};

/** Removes items that lie on another one exactly; null where none does. */
export function keptOnce(items: readonly Item[]): Mend | null {
  const seen = new Set<string>();
  const itemIds = items.flatMap((item) => {
    const name = outlineName(item);
    if (seen.has(name)) return [item.id];
    seen.add(name);
    return [];
  });
  if (itemIds.length === 0) return null;
  const doubles = countOf(itemIds.length, 'double', 'doubles');
  return {
    words: `Remove ${doubles}`,
    name: `remove ${doubles}`,
    isSafe: true,
    step: { kind: 'remove', itemIds },
  };
}

/** The same for items whose edges are the same to 0.01 mm, whichever way round and from wherever they are drawn. */
function outlineName(item: Item): string {
  const said = (value: number) => (Math.round(value * 100) / 100 + 0).toFixed(2);
  const edges = polylinesOf(item).flatMap(({ points, closed }) => {
    const count = points.length / 2;
    return Array.from({ length: closed ? count : count - 1 }, (_, i) => {
      const next = (i + 1) % count;
      const ends = [i, next].map((node) => `${said(points[2 * node])} ${said(points[2 * node + 1])}`);
      return ends.sort().join(' ');
    });
  });
  return edges.sort().join(',');
}
