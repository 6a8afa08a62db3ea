import type { FoundFace } from '../text/fonts.ts';
import type { Notes } from './reading.ts';

/** What setting a text came to, for the report. */
interface SetText {
  readonly ids: readonly string[];
  /** Families that were wanted and what was taken instead. */
  readonly substituted: ReadonlyMap<string, string>;
  /** Characters that no face has. */
  readonly unknown: string;
  readonly line: number;
}

/**
 * Keeps what is taken in the stead of a font that is not there, or not there bold or italic.
 * @param wanted the family; `undefined` where any will do
 */
export function noteSubstitution(
  { face, exact }: FoundFace,
  wanted: string | undefined,
  style: { readonly bold: boolean; readonly italic: boolean },
  substituted: Map<string, string>,
): void {
  const missing = [...(style.bold && !face.bold ? ['bold'] : []), ...(style.italic && !face.italic ? ['italic'] : [])];
  if ((exact || wanted === undefined) && missing.length === 0) return;
  substituted.set([wanted ?? face.family, ...missing].join(' '), face.family);
}

/** Notes that a text came as outlines, which fonts it had to do without, and which characters. */
export function noteText(notes: Notes, { ids, substituted, unknown, line }: SetText): void {
  if (ids.length > 0) notes.add('taken', 'text-as-outlines', 'a text is taken as its outlines', ids);
  for (const [wanted, given] of substituted) {
    const said = `the font “${wanted.slice(0, 40)}” is not here; “${given}” is used instead. Load the font in the shop to have the text as drawn`;
    notes.add('changed', `font-substituted:${wanted}`, said, ids);
  }
  if (unknown !== '') {
    const said = `no font here has the characters “${unknown.slice(0, 20)}”, which were left out (line ${line})`;
    notes.add('left-out', 'characters-missing', said, ids);
  }
}

/** Notes that a text was left out, as nothing is there to set it in. @param line of the file */
export function noteNoFonts(notes: Notes, line: number): void {
  notes.add('left-out', 'text-not-read', `a text was left out, as there are no fonts to set it in (line ${line})`);
}
