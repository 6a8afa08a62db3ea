import { boxesOfEach, type Item, perItems } from '../document/item.ts';
import { MeetingCounts } from '../geometry/questions/meeting-counts.ts';

/** Items by whether their bounds meet those of another. */
export interface NearItems {
  readonly near: readonly Item[];
  readonly alone: readonly Item[];
}

/** How far bounds may lie apart and meet, in mm: what lies on each other for the beam. */
const within = 0.02;

const meetings = new MeetingCounts(within);

/** Sorts items by whether others are near: of a great many that lie apart, the edges are not compared. */
export const nearItems: (items: readonly Item[]) => NearItems = perItems((items) => {
  const counts = meetings.countsOf(boxesOfEach(items));
  if (!counts.some((count) => count > 0)) return { near: [], alone: items };
  return { near: items.filter((_, i) => counts[i] > 0), alone: items.filter((_, i) => counts[i] === 0) };
});
