import { doBoxesMeet, forEachMeeting } from './meeting-boxes.ts';

/** Boxes whose meetings are counted, four numbers each: minX, minY, maxX, maxY; and a mark on each, 0 or 1. */
interface Marked {
  readonly boxes: Float64Array;
  readonly marks: Uint8Array;
}

interface Counted extends Marked {
  readonly counts: Int32Array;
}

/** Of so many boxes that are others, each is held against all; of more, all are counted anew. */
const mostOthers = 32;
/** As many lists of boxes are kept: those of one job's layers. */
const mostKept = 4;

/**
 * Counts how many others each of some boxes comes near to. The boxes that were counted last are kept: after an edit only
 * those that are others are compared.
 */
export class MeetingCounts {
  readonly #within: number;
  readonly #isMeeting: (marked: Marked, a: number, b: number) => boolean;
  #kept: Counted[] = [];

  /**
   * @param within how far boxes may lie apart, in mm.
   * @param isMeeting whether two boxes that come within that count.
   */
  constructor(within: number, isMeeting: (marked: Marked, a: number, b: number) => boolean = () => true) {
    this.#within = within;
    this.#isMeeting = isMeeting;
  }

  /** How many others each box meets, by its place. */
  countsOf(boxes: Float64Array, marks: Uint8Array = new Uint8Array(boxes.length / 4)): Int32Array {
    const marked = { boxes, marks };
    const counts = this.#countsAfter(marked) ?? this.#countAll(marked);
    this.#kept = [{ ...marked, counts }, ...this.#kept].slice(0, mostKept);
    return counts;
  }

  #countAll(marked: Marked): Int32Array {
    const counts = new Int32Array(marked.marks.length);
    forEachMeeting(marked.boxes, this.#within, (a, b) => {
      if (!this.#isMeeting(marked, a, b)) return;
      counts[a]++;
      counts[b]++;
    });
    return counts;
  }

  /** The counts after those of a list that is nearly the same; null where none is. */
  #countsAfter(marked: Marked): Int32Array | null {
    for (const kept of this.#kept) {
      const others = otherPlaces(kept, marked);
      if (others) return this.#recounted(kept, marked, others);
    }
    return null;
  }

  #recounted(before: Counted, after: Marked, others: readonly number[]): Int32Array {
    const counts = before.counts.slice();
    const done = new Uint8Array(counts.length);
    const within = this.#within;
    for (const a of others) {
      done[a] = 1;
      for (let b = 0; b < counts.length; b++) {
        // Most are near neither to where it is nor to where it was.
        const isFar = !doBoxesMeet(after.boxes, a, b, within) && !doBoxesMeet(before.boxes, a, b, within);
        if (isFar || done[b] === 1) continue;
        const change = Number(this.#doMeet(after, a, b)) - Number(this.#doMeet(before, a, b));
        counts[a] += change;
        counts[b] += change;
      }
    }
    return counts;
  }

  #doMeet(marked: Marked, a: number, b: number): boolean {
    return doBoxesMeet(marked.boxes, a, b, this.#within) && this.#isMeeting(marked, Math.min(a, b), Math.max(a, b));
  }
}

/** The places where boxes or their marks are others; null where they are too many, or the lists are of other lengths. */
function otherPlaces(before: Marked, after: Marked): number[] | null {
  if (before.marks.length !== after.marks.length) return null;
  const places: number[] = [];
  for (let i = 0; i < after.marks.length; i++) {
    const b = 4 * i;
    const isSame =
      before.boxes[b] === after.boxes[b] &&
      before.boxes[b + 1] === after.boxes[b + 1] &&
      before.boxes[b + 2] === after.boxes[b + 2] &&
      before.boxes[b + 3] === after.boxes[b + 3] &&
      before.marks[i] === after.marks[i];
    if (!isSame && places.push(i) > mostOthers) return null;
  }
  return places;
}
