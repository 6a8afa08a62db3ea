import type { Drawing } from '../document/item.ts';
import type { Operation } from '../operations/operations.ts';

/** What became of a part of a file: taken as it is, taken otherwise than drawn, or not taken. */
export type NoteKind = 'taken' | 'changed' | 'left-out';

/** One thing a reader has to say of a file. */
export interface ReadingNote {
  readonly code: string;
  readonly kind: NoteKind;
  /** A plain sentence, said of one of them. */
  readonly message: string;
  /** How many times. */
  readonly count: number;
  /** The items concerned, where they are in the drawing, if only hidden. */
  readonly itemIds: readonly string[];
}

/** What was not taken as it was drawn, and how often. */
export function warningsOf({ notes }: Pick<Reading, 'notes'>): { code: string; message: string; count: number }[] {
  return notes.filter(({ kind }) => kind !== 'taken').map(({ code, message, count }) => ({ code, message, count }));
}

/** A size that a file may be meant at. */
export interface SizeChoice {
  /** What it rests on, such as `72 to the inch`. */
  readonly label: string;
  /** The factor from the drawing as read to that size. */
  readonly factor: number;
}

/** The size a drawing was read at. */
export interface FoundSize {
  /** The page or frame the file declares, in mm; null where it declares none. */
  readonly pageWidthMm: number | null;
  readonly pageHeightMm: number | null;
  /** What one unit of the file was taken for, in mm; of a picture a pixel. */
  readonly mmPerUnit: number;
  /** Where the scale was found, in words for the operator. */
  readonly from: string;
  /** Whether the file itself says so; otherwise it was supposed, and the operator should look. */
  readonly sure: boolean;
  /** Other sizes it may be meant at. */
  readonly others: readonly SizeChoice[];
}

/** A picture that a drawing shows, as the file it came in or was made into. */
export interface PictureFile {
  /** SHA-256 of the bytes, by which items refer to it. */
  readonly id: string;
  readonly bytes: Uint8Array;
}

export const fileFormats = ['svg', 'dxf', 'pdf', 'picture', 'stl'] as const;
export type FileFormat = (typeof fileFormats)[number];

/** A layer that a file says some of its parts are on. */
export interface NamedLayer {
  /** The id it had in the job that it went out of; null where the file does not say. */
  readonly id: string | null;
  readonly name: string;
  readonly operation: Operation;
  readonly itemIds: readonly string[];
}

/** What was read from a file. */
export interface Reading {
  readonly format: FileFormat;
  readonly drawing: Drawing;
  readonly pictures: readonly PictureFile[];
  readonly size: FoundSize;
  readonly notes: readonly ReadingNote[];
  /** The layers that the file itself names; none where it goes by colours alone. */
  readonly layers?: readonly NamedLayer[];
  /** How many pages the file has; 1 for formats without pages. */
  readonly pageCount: number;
}

/** What is said of a stroke that its map makes wider one way than the other. */
export const unevenStroke = 'a stroke that is stretched wider one way than the other is given its mean width';

/**
 * Gathers what a reader has to say: one note a code, with the first sentence and how often it came up.
 * What follows a colon in a code keeps notes of that code apart.
 */
export class Notes {
  private byCode = new Map<string, { kind: NoteKind; message: string; count: number; itemIds: string[] }>();

  /** Gathers apart what is noted while `run` runs. */
  apart(run: () => void): readonly ReadingNote[] {
    const outer = this.byCode;
    this.byCode = new Map();
    run();
    const notes = this.list();
    this.byCode = outer;
    return notes;
  }

  /** @param message a sentence without its capital and full stop */
  add(kind: NoteKind, code: string, message: string, itemIds: readonly string[] = [], count = 1): void {
    const known = this.byCode.get(code);
    if (known) {
      known.count += count;
      known.itemIds.push(...itemIds);
    } else this.byCode.set(code, { kind, message, count, itemIds: [...itemIds] });
  }

  list(): ReadingNote[] {
    return [...this.byCode].map(([code, { kind, message, count, itemIds }]) => ({
      code: code.split(':')[0],
      kind,
      message: `${message[0].toUpperCase()}${message.slice(1)}.`,
      count,
      itemIds,
    }));
  }
}
