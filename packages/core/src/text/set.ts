import type { Shape, TextSetting } from '../document/shape.ts';
import { flatten } from '../geometry/paths/flatten.ts';
import { scaling, translation } from '../geometry/paths/matrix.ts';
import { type Path, PathBuilder, transformPath } from '../geometry/paths/path.ts';
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
  /** How high its capitals came out, where they were made smaller to fit. */
  readonly madeHeight: number | null;
  /** By how many mm it is wider or higher than its frame all the same; 0 where it fits. */
  readonly over: number;
}

/** A text as the shape of an item. */
export function textShape(text: TextSetting, { path, madeHeight, over }: SetText): Extract<Shape, { kind: 'text' }> {
  return { kind: 'text', text, path, ...(madeHeight === null ? {} : { madeHeight }), ...(over > 0 ? { over } : {}) };
}

/** From line to line, as a multiple of the height of capitals, at a leading of 1. */
const lineStep = 1.75;
const mostLetters = 5000;
/** Letters that are set narrower than this are hard to read. */
const narrowest = 0.6;
/** What sticks out by less than this, in mm, fits. */
const fitSlack = 0.005;

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
  let widest = 0;
  lines.forEach((line, i) => {
    const letters = placed(line, face, size, setting.spacing);
    widest = Math.max(widest, letters.width);
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
  const { sx, sy, over } = fitIntoFrame(setting, widest, lines.length);
  const path = builder.build();
  return {
    path: sx === 1 && sy === 1 ? path : transformPath(path, scaling(sx, sy)),
    missing: [...missing].filter((character) => character.trim() !== ''),
    substitute: found.exact ? null : face.family,
    singleLine: face.singleLine,
    beyond,
    madeHeight: sy === 1 ? null : height * sy,
    over,
  };
}

/** How letters are scaled so that lines fit into the frame of a text, and by how many mm they are too large even so. */
function fitIntoFrame(setting: TextSetting, widest: number, lines: number) {
  const { height, leading, width, depth, fit, leastHeight = 0, along } = setting;
  if (width === null || along) return { sx: 1, sy: 1, over: 0 };
  const high = height * (1 + (lines - 1) * lineStep * leading);
  const shareOfWidth = widest > width ? width / widest : 1;
  const shareOfDepth = depth !== undefined && high > depth ? depth / high : 1;
  const least = Math.min(1, leastHeight / height);
  const sy = fit === 'smaller' ? Math.max(least, Math.min(shareOfWidth, shareOfDepth)) : 1;
  const sx = fit === 'narrower' ? Math.max(narrowest, shareOfWidth) : sy;
  const over = Math.max(widest * sx - width, depth === undefined ? 0 : high * sy - depth);
  return { sx, sy, over: over > fitSlack ? over : 0 };
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
function broken(line: string, face: Face, size: number, { width, spacing, fit }: TextSetting): string[] {
  if (width === null || fit) return [line];
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
