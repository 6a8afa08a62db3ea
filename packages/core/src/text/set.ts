import type { TextSetting } from '../document/shape.ts';
import { flatten } from '../geometry/paths/flatten.ts';
import { translation } from '../geometry/paths/matrix.ts';
import { type Path, PathBuilder } from '../geometry/paths/path.ts';
import { Walk } from '../geometry/paths/walk.ts';
import type { Face, FontBook } from './fonts.ts';
import { capHeight, kerning, setGlyph } from './glyphs.ts';

/** A text set in a face. */
export interface SetText {
  readonly path: Path;
  /** Characters that the face does not have, each once. */
  readonly missing: readonly string[];
  /** The family it is set in, where that is not the one asked for. */
  readonly substitute: string | null;
  /** Whether it is drawn by single lines, to be scored and not filled. */
  readonly singleLine: boolean;
  /** How many letters found no room on the line it runs along, and are left out. */
  readonly beyond: number;
}

/** From line to line, as a multiple of the height of capitals, at a leading of 1. */
const lineStep = 1.75;
const mostLetters = 5000;

export const usualText: TextSetting = {
  words: '',
  family: 'Atkinson Hyperlegible Next',
  bold: false,
  italic: false,
  height: 8,
  align: 'left',
  spacing: 0,
  leading: 1,
  width: null,
};

/**
 * Sets a text: its first baseline runs through (0, 0), from there to the right, around it, or to the left,
 * as it is aligned. Capitals are exactly `height` mm high. A text that runs along a line stands on it, from its
 * start, around its middle or to its end.
 *
 * @throws RangeError when there is no font at all, or the numbers make no sense
 */
export function setText(setting: TextSetting, book: FontBook): SetText {
  const { words, family, bold, italic, height, align, leading } = setting;
  if (!(height > 0 && height <= 1000)) throw new RangeError('Letters are between 0 and 1000 mm high.');
  const found = book.find([family], bold, italic);
  if (!found) throw new RangeError('There is no font to set the text in.');
  const { face } = found;
  const size = height / capHeight(face);
  const missing = new Set<string>();
  const builder = new PathBuilder();
  const walk = setting.along ? new Walk(flatten(setting.along, 0.001)[0]) : null;
  const lines = words
    .slice(0, mostLetters)
    .split('\n')
    .flatMap((line) => broken(line, face, size, setting));
  let beyond = 0;
  lines.forEach((line, i) => {
    const letters = placed(line, face, size, setting.spacing);
    const share = { left: 0, centre: 0.5, right: 1 }[align];
    const below = i * height * lineStep * leading;
    const start = ((walk?.total ?? 0) - letters.width) * share;
    for (const { glyph, x } of letters.glyphs) {
      if (!glyph.known) missing.add(glyph.character);
      const half = glyph.advance / 2;
      const place = walk ? walk.frameAt(start + x + half, half, below) : translation(x - letters.width * share, below);
      if (place) glyph.draw(builder, place);
      else beyond++;
    }
  });
  return {
    path: builder.build(),
    missing: [...missing].filter((character) => character.trim() !== ''),
    substitute: found.exact ? null : face.family,
    singleLine: face.singleLine,
    beyond,
  };
}

/** A line's glyphs and where each stands, and how wide they are together. */
function placed(line: string, face: Face, size: number, spacing: number) {
  const glyphs: { glyph: ReturnType<typeof setGlyph>; x: number }[] = [];
  let x = 0;
  let before = '';
  for (const character of line) {
    const glyph = setGlyph(face, character, size);
    if (before !== '') x += kerning(face, before, character, size);
    glyphs.push({ glyph, x });
    x += glyph.advance + spacing;
    before = character;
  }
  return { glyphs, width: glyphs.length === 0 ? 0 : x - spacing };
}

/** A line broken between words where it is wider than the setting allows. */
function broken(line: string, face: Face, size: number, { width, spacing }: TextSetting): string[] {
  if (width === null) return [line];
  const out: string[] = [];
  let sofar = '';
  for (const word of line.split(' ')) {
    const longer = sofar === '' ? word : `${sofar} ${word}`;
    if (sofar !== '' && placed(longer, face, size, spacing).width > width) {
      out.push(sofar);
      sofar = word;
    } else sofar = longer;
  }
  return [...out, sofar];
}
