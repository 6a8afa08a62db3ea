import { type Item, polylinesOf } from '../document/item.ts';
import { isFollowing } from '../document/shape.ts';
import { fillsAreas, followsLines, separates } from '../operations/operations.ts';
import { burntItems, type Check, countOf, finding, ifAny } from './finding.ts';
import { sharedCuts } from './kerf.ts';
import { overlappingOwners } from './overlap.ts';

function hasOpen(item: Item): boolean {
  return polylinesOf(item).some((line) => !line.closed && line.points.length >= 4);
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

/** Outlines on a cut layer that do not close: the piece stays in the sheet. */
export const checkOpenCuts: Check = (prepared) => {
  const open = burntItems(prepared, separates).filter(hasOpen);
  return ifAny(open, () =>
    finding(
      'open-cut',
      'warns',
      `${countOf(open.length, 'outline to be cut does', 'outlines to be cut do')} not close, so nothing comes free there. Join the ends, or make it a score if no piece should fall out.`,
      open,
    ),
  );
};

/** Lines on an engrave layer that do not close: there is nothing to fill. */
export const checkOpenEngraves: Check = (prepared) => {
  const open = burntItems(prepared, fillsAreas).filter(hasOpen);
  return ifAny(open, () =>
    finding(
      'open-engrave',
      'warns',
      `${countOf(open.length, 'line', 'lines')} on an engrave layer enclose nothing and will not be burnt. Close them, or put them on a score layer.`,
      open,
    ),
  );
};

/** Lines that lie on each other and would be burnt more than once. */
export const checkTwice: Check = (prepared) => {
  const items = burntItems(prepared, followsLines);
  const lines = items.flatMap((item, owner) => polylinesOf(item).map((line) => ({ owner, line })));
  const { owners, lengthMm } = overlappingOwners(lines);
  // Parts that share an edge on purpose are said of their own.
  const shared = new Set(sharedCuts(prepared).items);
  if (owners.every((owner) => shared.has(items[owner]))) return [];
  return [
    finding(
      'line-drawn-twice',
      'warns',
      `${lengthMm.toFixed(1)} mm of line is drawn twice, in ${countOf(owners.length, 'item', 'items')}: it would be burnt twice, wider and deeper. Remove one of each.`,
      owners.map((owner) => items[owner]),
    ),
  ];
};
