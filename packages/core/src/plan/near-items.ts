import { boundsOfEach, type Item, perItems } from '../document/item.ts';
import { forEachMeeting, numbersOfBoxes } from '../geometry/questions/meeting-boxes.ts';

/** Items by whether their bounds meet those of another. */
export interface NearItems {
  readonly near: readonly Item[];
  readonly alone: readonly Item[];
}

/** How far bounds may lie apart and meet, in mm: what lies on each other for the beam. */
const within = 0.02;

/** Sorts items by whether others are near: of a great many that lie apart, the edges are not compared. */
export const nearItems: (items: readonly Item[]) => NearItems = perItems((items) => {
  const boxes = numbersOfBoxes(boundsOfEach(items), (box) => box);
  const isNear = new Uint8Array(items.length);
  forEachMeeting(boxes, within, (a, b) => {
    isNear[a] = isNear[b] = 1;
  });
  return { near: items.filter((_, i) => isNear[i] === 1), alone: items.filter((_, i) => isNear[i] === 0) };
});
