import { outlineOf } from '../../document/shapes.ts';
import { type Area, areaOf, emptyArea, uniteAreas } from '../../geometry/areas/area.ts';
import { flatten } from '../../geometry/paths/flatten.ts';
import { type Matrix, multiply, rotation, translation } from '../../geometry/paths/matrix.ts';
import { type Path, PathBuilder, transformPath } from '../../geometry/paths/path.ts';
import { Walk } from '../../geometry/paths/walk.ts';
import type { Face, FontBook } from '../../text/fonts.ts';
import { kerning, setGlyph } from '../../text/glyphs.ts';
import { noteSubstitution } from '../text-notes.ts';
import { type Context, enter } from './context.ts';
import {
  addCharacters,
  anchor,
  baselineOf,
  baselineShift,
  type Letter,
  type SetLetter,
  segment,
  trimSpaces,
} from './letters.ts';
import { readShape } from './outline.ts';
import type { Declared } from './specified.ts';
import type { StyleSheet } from './style.ts';
import { lengthInUserUnits, readLength, readTransform } from './values.ts';
import type { SvgElement } from './xml.ts';

/** A segment of text with one look, as outlines in the text element's user units. */
export interface TextRun {
  readonly text: string;
  readonly path: Path;
  readonly context: Context;
  readonly own: Declared;
}

export interface TextReading {
  readonly runs: readonly TextRun[];
  /** Families that were wanted and what was taken instead. */
  readonly substituted: ReadonlyMap<string, string>;
  /** Characters that no face has. */
  readonly unknown: string;
  /** What of the text could not be followed, as the end of a sentence. */
  readonly troubles: readonly string[];
}

/** Sets `text` elements in faces from a book, by SVG 1.1, chapter 10; writing runs from left to right. */
export class TextReader {
  constructor(
    private readonly byId: ReadonlyMap<string, SvgElement>,
    private readonly sheet: StyleSheet,
    private readonly fonts: FontBook,
  ) {}

  read(element: SvgElement, own: Declared, context: Context): TextReading {
    const letters: Letter[] = [];
    const troubles = new Set<string>();
    this.collect(element, own, context, null, 0, letters, troubles);
    trimSpaces(letters);
    const substituted = new Map<string, string>();
    const unknown = new Set<string>();
    const set = this.set(letters, substituted, unknown);
    segment(element, set, context);
    anchor(set);
    return { runs: this.runs(set, troubles), substituted, unknown: [...unknown].join(''), troubles: [...troubles] };
  }

  /** What a text covers, in mm. */
  area(element: SvgElement, context: Context): Area {
    const { runs } = this.read(element, this.sheet.declarationsOf(element, context.variables), context);
    const areas = runs.map((run) => areaOf(transformPath(run.path, context.matrix), 'nonzero'));
    return areas.length > 0 ? uniteAreas(areas) : emptyArea;
  }

  private collect(
    element: SvgElement,
    own: Declared,
    context: Context,
    path: SvgElement | null,
    shift: number,
    letters: Letter[],
    troubles: Set<string>,
  ): void {
    const first = letters.length;
    if (/^(?:vertical|tb)/.test(own['writing-mode'] ?? ''))
      troubles.add('runs from top to bottom, and is set from left to right');
    for (const part of element.content ?? []) {
      if (typeof part === 'string') {
        addCharacters(part, own, context, path, shift, letters);
      } else if (part.name === 'tspan' || part.name === 'a' || part.name === 'textPath') {
        const declared = this.sheet.declarationsOf(part, context.variables);
        const inside = enter(part, declared, context, null);
        if (inside.hidden) continue;
        const lowered = shift + baselineShift(declared['baseline-shift'], inside);
        this.collect(part, declared, inside, part.name === 'textPath' ? part : path, lowered, letters, troubles);
      }
    }
    const lists = (name: string, axis: 'x' | 'y', apply: (letter: Letter, value: number) => void) => {
      const said = element.attributes[name]?.trim().split(/[\s,]+/) ?? [];
      said.slice(0, letters.length - first).forEach((text, i) => {
        const value = lengthInUserUnits(text, context, axis);
        if (value !== null) apply(letters[first + i], value);
      });
    };
    lists('x', 'x', (letter, value) => {
      letter.x ??= value;
    });
    lists('y', 'y', (letter, value) => {
      letter.y ??= value;
    });
    lists('dx', 'x', (letter, value) => {
      letter.dx ||= value;
    });
    lists('dy', 'y', (letter, value) => {
      letter.dy ||= value;
    });
    const turns =
      element.attributes.rotate
        ?.trim()
        .split(/[\s,]+/)
        .map(Number) ?? [];
    if (turns.length > 0 && turns.every(Number.isFinite)) {
      for (let i = first; i < letters.length; i++) letters[i].rotate ||= turns[Math.min(i - first, turns.length - 1)];
    }
  }

  private set(letters: readonly Letter[], substituted: Map<string, string>, unknown: Set<string>): SetLetter[] {
    const out: SetLetter[] = [];
    let x = 0;
    let y = 0;
    let before = null as { face: Face; character: string } | null;
    let path: SvgElement | null = null;
    for (const letter of letters) {
      const { context, character } = letter;
      const face = this.face(context, substituted);
      if (!face) break;
      const size = context.fontSize;
      const glyph = setGlyph(face, character, size);
      if (!glyph.known && character.trim() !== '') unknown.add(character);
      // Text on a path is measured from the start of the path.
      if (letter.path && letter.path !== path) {
        x = 0;
        y = 0;
        before = null;
      }
      path = letter.path;
      if (letter.x !== undefined) x = letter.x;
      // Along a path, where it is level with the path is not for the text to say.
      if (letter.y !== undefined && !letter.path) y = letter.y;
      x += letter.dx;
      y += letter.dy;
      if (before?.face === face && letter.x === undefined) x += kerning(face, before.character, character, size);
      const spacing = context.letterSpacing + (character === ' ' ? context.wordSpacing : 0);
      out.push({ letter, glyph, x, y, advance: glyph.advance + spacing });
      x += glyph.advance + spacing;
      before = { face, character };
    }
    return out;
  }

  private face(context: Context, substituted: Map<string, string>): Face | null {
    const families = context.fontFamily.split(',').map((family) => family.trim().replace(/^["']|["']$/g, ''));
    const wanted = families.filter((family) => family !== '');
    const found = this.fonts.find(wanted, context.bold, context.italic);
    if (found) noteSubstitution(found, wanted[0], context, substituted);
    return found?.face ?? null;
  }

  private runs(set: readonly SetLetter[], troubles: Set<string>): TextRun[] {
    const runs: TextRun[] = [];
    let index = 0;
    while (index < set.length) {
      const { own, context, path } = set[index].letter;
      const builder = new PathBuilder();
      let text = '';
      const guide = path ? this.guide(path, context, troubles) : null;
      for (; index < set.length && set[index].letter.context === context; index++) {
        const { letter, glyph, x, y } = set[index];
        text += letter.character;
        const place = guide ? guide(x, y, glyph.advance) : translation(x, y);
        if (!place) {
          troubles.add('runs off the end of its path, where it does not show');
          continue;
        }
        const down = letter.shift + baselineOf(context);
        glyph.draw(builder, multiply(multiply(place, rotation(letter.rotate)), translation(0, down)));
      }
      runs.push({ text: text.trim(), path: builder.build(), context, own });
    }
    return runs;
  }

  /** Where along a path a glyph stands: its middle over the path's point, turned as the path runs there. */
  private guide(
    element: SvgElement,
    context: Context,
    troubles: Set<string>,
  ): ((x: number, y: number, advance: number) => Matrix | null) | null {
    const target = this.byId.get((element.attributes.href ?? '').replace(/^#/, ''));
    const own = target && this.sheet.declarationsOf(target);
    const read = own ? readShape(target, own, context) : null;
    if (!read || !own) {
      troubles.add('is to run along a path that is not there');
      return null;
    }
    const transform = own.transform === undefined ? null : readTransform(own.transform, context);
    const outline = outlineOf(read.shape);
    const line = new Walk(flatten(transform ? transformPath(outline, transform) : outline, context.fontSize / 2000)[0]);
    const start = readLength(element.attributes.startOffset);
    const offset = !start
      ? 0
      : start.unit === '%'
        ? (start.number / 100) * line.total
        : (lengthInUserUnits(element.attributes.startOffset, context, 'x') ?? 0);
    return (x, y, advance) => line.frameAt(offset + x + advance / 2, advance / 2, y);
  }
}
