import type { Item } from '../document/item.ts';
import { growBox } from '../geometry/paths/box.ts';
import { bedBox } from '../machine/machine.ts';
import type { PreparedJob } from '../plan/prepare.ts';
import { designOf } from '../rows/pieces.ts';
import { type Check, countOf, finding, withMends } from './finding.ts';
import { movedInto } from './offers.ts';

/** What is parked beside the bed, but for the designs of lists: these are never burnt, and lie there for good. */
export function parkedItems({ job, parked }: Pick<PreparedJob, 'job' | 'parked'>): readonly Item[] {
  if (parked.size === 0) return [];
  const designs = new Set(job.lists.flatMap((list) => designOf(job, list)));
  return job.drawing.items.filter((item) => parked.has(item.id) && !designs.has(item));
}

/** What is parked beside the bed: it stays there, and does not burn. */
export const checkParked: Check = (prepared) => {
  const { machine } = prepared;
  const items = parkedItems(prepared);
  if (items.length === 0) return [];
  const said = `${countOf(items.length, 'item is', 'items are')} parked beside the bed of ${machine.name}, and ${items.length === 1 ? 'does' : 'do'} not burn.`;
  const safe = growBox(bedBox(machine), -machine.margin);
  const back = movedInto(prepared, items, safe, () => 'Move onto the bed');
  return [withMends(finding('parked', 'notes', said, items), back && { ...back, isSafe: false })];
};
