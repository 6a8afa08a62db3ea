import type { Notes } from '../reading.ts';
import { type Fields, finite, type Raw } from './groups.ts';

/*
 * Group codes that bear on where an entity lies or in which colour, and that are not followed: each is noted. Those
 * that are followed are read in `entities.ts`, `text.ts`, `plane.ts` and `read.ts`; a test goes through both.
 */

interface UnreadCode {
  /** The entities that have it; null for all. */
  readonly types: readonly string[] | null;
  /** Whether an entity says anything by it. */
  readonly says: (fields: Fields, layer: Layer) => boolean;
  readonly note: string;
  readonly message: string;
}

/** What a file says of its layers that bears on their entities. */
interface Layer {
  /** Whether its lines are dashed where they say nothing themselves. */
  readonly dashed: boolean;
  /** Whether it is not to be printed. */
  readonly unplotted: boolean;
}

/** Whether the name of a type of line is that of a solid one. */
export function isSolidLine(type: string | null): boolean {
  return /^(?:continuous|byblock|)$/i.test(type ?? '');
}

const isByLayer = (type: string | null) => type === null || /^(?:bylayer|)$/i.test(type);

export const unreadCodes: readonly UnreadCode[] = [
  {
    types: null,
    says: (fields, { dashed }) => (isByLayer(fields.text(6)) ? dashed : !isSolidLine(fields.text(6))),
    note: 'dashes-as-solid',
    message: 'a line of a dashed type is taken as a solid line',
  },
  {
    types: null,
    says: (fields) => {
      const value = fields.number(440, 0);
      return ((value >>> 24) & 2) === 2 && (value & 255) < 255;
    },
    note: 'see-through',
    message: 'a see-through colour is taken as solid',
  },
  {
    types: null,
    says: (_, { unplotted }) => unplotted,
    note: 'unplotted',
    message: 'a part on a layer that is not for print is taken too',
  },
  {
    types: ['LWPOLYLINE', 'POLYLINE'],
    says: (fields) => [40, 41, 43].some((code) => fields.all(code).some((width) => finite(width) > 0)),
    note: 'wide-line',
    message: 'a line with a width of its own is taken as its middle line',
  },
  {
    types: ['HATCH'],
    says: (fields) => fields.number(75, 0) !== 0,
    note: 'hatch-style',
    message: 'a hatch that is to pass over islands is filled between them in turn',
  },
  {
    types: ['HATCH'],
    says: (fields) => fields.number(450, 0) === 1,
    note: 'gradient-as-mean',
    message: 'a gradient is taken as one colour',
  },
  {
    types: ['3DFACE'],
    says: (fields) => (fields.number(70, 0) & 15) !== 0,
    note: 'hidden-edge',
    message: 'an edge of a face that the file hides is taken too',
  },
  {
    types: ['MTEXT'],
    says: (fields) => fields.number(72, 1) === 3,
    note: 'text-trouble',
    message: 'a text that runs from top to bottom is set from left to right',
  },
  {
    types: ['MTEXT'],
    says: (fields) => /\\[ACFHQTWf][^;\\]*;/.test([...fields.all(3), ...fields.all(1)].join('')),
    note: 'text-formatting',
    message: 'a change of font, size or colour within a text is not followed',
  },
];

/** Notes what an entity says by codes that are not followed. */
export function noteCodes({ type }: Raw, fields: Fields, layer: Layer, notes: Notes): void {
  for (const { types, says, note, message } of unreadCodes) {
    if ((types === null || types.includes(type)) && says(fields, layer)) notes.add('changed', note, message);
  }
}

/** Characters written by their number, as files do in a code page that does not have them. */
export function plainName(text: string): string {
  if (!text.includes('\\')) return text;
  return text.replace(/\\U\+(000[0-9A-F]{5}|0010[0-9A-F]{4}|[0-9A-F]{4})/gi, (_, code: string) =>
    String.fromCodePoint(Number.parseInt(code, 16)),
  );
}
