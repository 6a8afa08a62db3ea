import { growBox } from '../geometry/paths/box.ts';
import { bedBox } from '../machine/machine.ts';
import { type Check, countOf, finding, withMends } from './finding.ts';
import { movedInto } from './offers.ts';

/** What is parked beside the bed: it stays there, and does not burn. */
export const checkParked: Check = (prepared) => {
  const { machine, parked, job } = prepared;
  if (parked.size === 0) return [];
  const items = job.drawing.items.filter(({ id }) => parked.has(id));
  const said = `${countOf(items.length, 'item is', 'items are')} parked beside the bed of ${machine.name}, and ${items.length === 1 ? 'does' : 'do'} not burn.`;
  const safe = growBox(bedBox(machine), -machine.margin);
  const back = movedInto(prepared, items, safe, () => 'Move onto the bed');
  return [withMends(finding('parked', 'notes', said, items), back && { ...back, isSafe: false })];
};
