import { boundsOf, type Item } from '../document/item.ts';
import { forEachMeeting, numbersOfBoxes } from '../geometry/questions/meeting-boxes.ts';

/** Items by whether their bounds meet those of another. */
export interface NearItems {
  readonly near: readonly Item[];
  readonly alone: readonly Item[];
}

/** As many lists are kept: those of the checks of one job. */
const mostKept = 6;
let kept: { items: readonly Item[]; found: NearItems }[] = [];

/** How far bounds may lie apart and meet, in mm: what lies on each other for the beam. */
const within = 0.02;

/** Sorts items by whether others are near: of a great many that lie apart, the edges are not compared. */
export function nearItems(items: readonly Item[]): NearItems {
  const known = kept.find(
    (entry) => entry.items.length === items.length && entry.items.every((item, i) => item === items[i]),
  );
  if (known) return known.found;
  const boxes = numbersOfBoxes(items, boundsOf);
  const isNear = new Uint8Array(items.length);
  forEachMeeting(boxes, within, (a, b) => {
    isNear[a] = isNear[b] = 1;
  });
  const found = { near: items.filter((_, i) => isNear[i] === 1), alone: items.filter((_, i) => isNear[i] === 0) };
  kept = [{ items, found }, ...kept].slice(0, mostKept);
  return found;
}
