import { multiply, scaling } from '../../geometry/paths/matrix.ts';
import type { SetGlyph } from '../../text/glyphs.ts';
import type { Context } from './context.ts';
import type { Declared } from './specified.ts';
import { lengthInUserUnits } from './values.ts';
import type { SvgElement } from './xml.ts';

/** A character to set, with where it says it wants to stand. */
export interface Letter {
  readonly character: string;
  readonly context: Context;
  readonly own: Declared;
  readonly path: SvgElement | null;
  x?: number;
  y?: number;
  dx: number;
  dy: number;
  rotate: number;
  /** Shifted from the baseline, in user units, downwards. */
  shift: number;
}

/** A letter with its glyph and place: the start of its baseline. */
export interface SetLetter {
  readonly letter: Letter;
  readonly glyph: SetGlyph;
  x: number;
  y: number;
  readonly advance: number;
}

/** Adds the characters of a text to its letters, with what each is drawn with; spaces as CSS joins them. */
export function addCharacters(
  text: string,
  own: Declared,
  context: Context,
  path: SvgElement | null,
  shift: number,
  letters: Letter[],
): void {
  for (const character of text.replace(/[\t\n\r]/g, ' ')) {
    const last = letters.at(-1);
    const repeated = character === ' ' && !context.keepSpaces && (!last || last.character === ' ');
    if (!repeated) letters.push({ character, own, context, path, dx: 0, dy: 0, rotate: 0, shift });
  }
}

/** Drops the space that a text ends with, unless it is to be kept. */
export function trimSpaces(letters: Letter[]): void {
  const last = letters.at(-1);
  if (last?.character === ' ' && !last.context.keepSpaces) letters.pop();
}

/** How far down letters go for `baseline-shift`, in px; below 0 they are raised. */
export function baselineShift(text: string | undefined, context: Context): number {
  if (text === undefined || text === 'baseline' || text === 'inherit') return 0;
  if (text === 'sub') return context.fontSize * 0.2;
  if (text === 'super') return -context.fontSize * 0.4;
  if (text.endsWith('%')) return (-Number.parseFloat(text) / 100) * context.fontSize;
  return -(lengthInUserUnits(text, context, 'y') ?? 0);
}

/** How far below its place a text's baseline lies, as a share of its size: the middles of common faces. */
const baselines: Record<string, number> = {
  middle: 0.25,
  central: 0.35,
  hanging: 0.72,
  'text-before-edge': 0.9,
  'text-top': 0.9,
  'text-after-edge': -0.22,
  'text-bottom': -0.22,
  ideographic: -0.22,
  mathematical: 0.4,
};

/** How far letters go down for their `dominant-baseline`, in px. */
export function baselineOf(context: Context): number {
  return (baselines[context.baseline] ?? 0) * context.fontSize;
}

/** `textLength`: the letters are set further apart, or all of it is stretched. */
export function segment(element: SvgElement, set: SetLetter[], context: Context): void {
  const wanted = lengthInUserUnits(element.attributes.textLength, context, 'x');
  const last = set.at(-1);
  if (wanted === null || wanted <= 0 || !last || set.length < 2) return;
  const start = set[0].x;
  const natural = last.x + last.advance - start;
  if (element.attributes.lengthAdjust === 'spacingAndGlyphs' && natural > 0) {
    const factor = wanted / natural;
    set.forEach((letter, i) => {
      const { glyph } = letter;
      const wide: SetGlyph = {
        ...glyph,
        advance: glyph.advance * factor,
        draw: (builder, place) => glyph.draw(builder, multiply(place, scaling(factor, 1))),
      };
      set[i] = { ...letter, glyph: wide, x: start + (letter.x - start) * factor, advance: letter.advance * factor };
    });
    return;
  }
  const more = (wanted - natural) / (set.length - 1);
  set.forEach((letter, i) => {
    letter.x += more * i;
  });
}

/** Moves each segment that starts at a place of its own so that its start, middle or end is there. */
export function anchor(set: readonly SetLetter[]): void {
  let from = 0;
  for (let to = 1; to <= set.length; to++) {
    const next = set[to]?.letter;
    const starts = next && (next.x !== undefined || next.y !== undefined || next.path !== set[from].letter.path);
    if (next && !starts) continue;
    const { anchor: side } = set[from].letter.context;
    const share = side === 'middle' ? 0.5 : side === 'end' ? 1 : 0;
    const last = set[to - 1];
    const width = last.x + last.advance - set[from].x;
    for (let i = from; i < to; i++) set[i].x -= width * share;
    from = to;
  }
}
