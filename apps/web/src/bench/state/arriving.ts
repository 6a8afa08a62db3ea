import type { Anchor, Arrival, ReadingChoices } from '@lambent/core/document';
import type { ArrivalPlace, Reading } from '@lambent/core/formats';
import type { Point } from '@lambent/core/geometry';
import type { Change, Read } from './slice.ts';

export type PlaceKind = ArrivalPlace['kind'];

/** A file on its way in: read, shown, and not yet part of the job. */
export interface Arriving {
  readonly id: string;
  readonly file: File;
  readonly reading: Reading;
  readonly choices: ReadingChoices;
  /** How much larger than read. */
  readonly factor: number;
  readonly place: PlaceKind;
  /** Which point of its frame it is placed by: its middle, a corner, the middle of a side. */
  readonly anchor: Anchor;
  /** Where that point goes, in bed mm, when it is placed at a point. */
  readonly point: Point;
  /** The part that a known dimension is typed of; null for the whole. */
  readonly measured: string | null;
  /** What is being read again, and how it was read before; null for a file that is new. */
  readonly again: { readonly arrival: Arrival; readonly before: Reading } | null;
  /** It is being put into the job. */
  readonly taking: boolean;
}

/** A file that is being read: which, with what choices, and a way to end it. Each has an id of its own. */
export interface ReadingTurn {
  readonly id: number;
  readonly file: string;
  readonly choices: ReadingChoices;
  readonly stop: AbortController;
}

/** What the Art stage shows of files coming in. */
export interface Incoming {
  readonly arriving: Arriving | null;
  readonly waiting: readonly File[];
  /** What is being read; null while nothing is. */
  readonly reading: ReadingTurn | null;
  /** How many parts have been found in it so far. */
  readonly parts: number;
  readonly refused: { readonly file: string; readonly why: string } | null;
}

export interface ArrivingState {
  incoming: Incoming;
}

export const nothingIncoming: ArrivingState = {
  incoming: { arriving: null, waiting: [], reading: null, parts: 0, refused: null },
};

let turns = 0;

/** What changes the slice of the drawing that arrives. */
export function arrivingActions(get: Read<ArrivingState>, change: Change<ArrivingState>) {
  const update = (part: Partial<Incoming>) => change({ incoming: { ...get().incoming, ...part } });
  const adjustArriving = (part: Partial<Omit<Arriving, 'id' | 'file'>>) => {
    const { arriving } = get().incoming;
    if (arriving) update({ arriving: { ...arriving, ...part } });
  };
  return {
    queueFiles: (files: readonly File[]) => update({ waiting: [...get().incoming.waiting, ...files], refused: null }),
    /** Ends what is being read and what is shown. @returns the file that is next, which waits no longer */
    nextFile(): File | undefined {
      const { reading, waiting } = get().incoming;
      reading?.stop.abort();
      update({ arriving: null, reading: null, waiting: waiting.slice(1) });
      return waiting[0];
    },
    /** Begins to read a file; what was being read before is not wanted any more. */
    beginReading(file: string, choices: ReadingChoices): ReadingTurn {
      get().incoming.reading?.stop.abort();
      const reading: ReadingTurn = { id: ++turns, file, choices, stop: new AbortController() };
      update({ reading, parts: 0, refused: null });
      return reading;
    },
    countParts: (parts: number) => update({ parts }),
    showArriving: (arriving: Arriving) => update({ arriving, reading: null }),
    /** Changes how the arriving file is sized and placed, and says that it is being taken. */
    adjustArriving,
    hideArriving: () => update({ arriving: null }),
    refuseFile: (file: string, why: string) => update({ reading: null, refused: { file, why } }),
    dismissRefusal: () => update({ refused: null }),
    /** Stops reading, and leaves what waits. */
    stopReading(): void {
      get().incoming.reading?.stop.abort();
      update({ reading: null, waiting: [] });
    },
  };
}
