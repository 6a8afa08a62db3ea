import opentype from 'opentype.js';
import { applyTo, type Matrix } from '../geometry/paths/matrix.ts';
import type { PathBuilder } from '../geometry/paths/path.ts';
import { isStrokeFont, parseStrokeFont, type StrokeFont } from './strokes.ts';

/** A file with glyphs of a face. Several files may share a face, each with other characters. */
export interface FontFile {
  readonly family: string;
  readonly bold: boolean;
  readonly italic: boolean;
  /** The plain kind it stands for where a file only asks for a kind, such as `serif`; null for none. */
  readonly generic: 'sans-serif' | 'serif' | 'monospace' | null;
  readonly bytes: Uint8Array;
}

/** A font file that cannot be used. Its message is one plain sentence. */
export class FontRefused extends Error {
  override readonly name = 'FontRefused';
}

/** One face, ready to give glyphs. */
export interface Face {
  readonly family: string;
  readonly bold: boolean;
  readonly italic: boolean;
  /** Whether its letters are single lines, without an inside. */
  readonly singleLine: boolean;
  /** The glyph of a character, from the first of the face's files that has it; null when none has. */
  glyph(character: string): Glyph | null;
}

/** A letter's drawing; lengths as shares of the font's size, how high an em is. */
export interface Glyph {
  readonly advance: number;
  /** How high it reaches above the baseline. */
  readonly top: number;
  /** Adds its outline at a size, on the baseline at (0, 0), y down, mapped by `place`. */
  draw(builder: PathBuilder, size: number, place: Matrix): void;
  /** How much nearer the next letter stands than the advance says; 0 from another font. */
  kernTo(next: Glyph): number;
}

/** What a text asked for and what it gets. */
export interface FoundFace {
  readonly face: Face;
  /** Whether the family that was asked for is the one given. */
  readonly exact: boolean;
}

/** The faces there are: those that ship with the product and those that the shop loaded. */
export class FontBook {
  private readonly faces: LazyFace[] = [];

  constructor(files: readonly FontFile[]) {
    for (const file of files) {
      const known = this.faces.find(
        ({ family, bold, italic }) => family === file.family && bold === file.bold && italic === file.italic,
      );
      if (known) known.files.push(file);
      else this.faces.push(new LazyFace(file));
    }
  }

  get families(): string[] {
    return [...new Set(this.faces.map(({ family }) => family))];
  }

  /**
   * The face for a list of families in the order they are wanted. A family that is not there is
   * replaced by one of its kind, as far as its name or the rest of the list tells.
   *
   * @returns null only when the book is empty
   */
  find(families: readonly string[], bold: boolean, italic: boolean): FoundFace | null {
    for (const wanted of families) {
      const faces = this.faces.filter(({ family }) => plain(family) === plain(wanted));
      if (faces.length > 0) return { face: nearest(faces, bold, italic), exact: true };
    }
    const kind = families.map(kindOf).find((found) => found !== null) ?? 'sans-serif';
    const faces = this.faces.filter(({ generic }) => generic === kind);
    const any = faces.length > 0 ? faces : this.faces;
    if (any.length === 0) return null;
    // A file that asks for a kind only, and gets it, is not given anything else than it asked for.
    return { face: nearest(any, bold, italic), exact: families.every((family) => generics.has(plain(family))) };
  }
}

const generics = new Set([
  'sans-serif',
  'serif',
  'monospace',
  'sans',
  'mono',
  'system-ui',
  'ui-sans-serif',
  'ui-serif',
]);

const plain = (family: string) => family.trim().toLowerCase().replace(/["']/g, '');

function kindOf(family: string): FontFile['generic'] {
  const name = plain(family);
  if (/mono|courier|code|typewriter|console/.test(name)) return 'monospace';
  if (/sans|grotesk|gothic|system-ui/.test(name)) return 'sans-serif';
  if (/serif|roman|times|slab|antiqua|book/.test(name)) return 'serif';
  return null;
}

function nearest(faces: readonly LazyFace[], bold: boolean, italic: boolean): LazyFace {
  const misses = (face: LazyFace) => Number(face.bold !== bold) + Number(face.italic !== italic);
  return faces.reduce((best, face) => (misses(face) < misses(best) ? face : best));
}

class LazyFace implements Face {
  readonly family: string;
  readonly bold: boolean;
  readonly italic: boolean;
  readonly generic: FontFile['generic'];
  readonly files: FontFile[];
  private fonts: ((character: string) => Glyph | null)[] | null = null;

  constructor(first: FontFile) {
    this.family = first.family;
    this.bold = first.bold;
    this.italic = first.italic;
    this.generic = first.generic;
    this.files = [first];
  }

  get singleLine(): boolean {
    return isStrokeFont(this.files[0].bytes);
  }

  glyph(character: string): Glyph | null {
    this.fonts ??= this.files.map(({ bytes }) => {
      if (isStrokeFont(bytes)) {
        const font = parseStrokeFont(bytes);
        return (letter) => strokeGlyph(font, letter);
      }
      const font = parseFont(bytes);
      return (letter) => outlineGlyph(font, letter);
    });
    for (const glyphOf of this.fonts) {
      const glyph = glyphOf(character);
      if (glyph) return glyph;
    }
    return null;
  }
}

/** Strokes' em: capitals are seven tenths of it, as in most faces. */
const strokeCapitals = 0.7;

function strokeGlyph({ capitals, glyphs }: StrokeFont, character: string): Glyph | null {
  const glyph = Object.hasOwn(glyphs, character) ? glyphs[character] : null;
  if (!glyph) return null;
  const unit = strokeCapitals / capitals;
  return {
    advance: glyph.advance * unit,
    top: strokeCapitals,
    kernTo: () => 0,
    draw(builder, size, place) {
      for (const line of glyph.lines) {
        for (let i = 0; i < line.length; i += 2) {
          const { x, y } = applyTo(place, line[i] * unit * size, -line[i + 1] * unit * size);
          if (i === 0) builder.moveTo(x, y);
          else builder.lineTo(x, y);
        }
      }
    },
  };
}

/** A letter of an OpenType font. */
class OutlineGlyph implements Glyph {
  constructor(
    private readonly font: opentype.Font,
    private readonly glyph: opentype.Glyph,
  ) {}

  get advance(): number {
    return (this.glyph.advanceWidth ?? 0) / this.font.unitsPerEm;
  }

  get top(): number {
    return this.glyph.getBoundingBox().y2 / this.font.unitsPerEm;
  }

  kernTo(next: Glyph): number {
    if (!(next instanceof OutlineGlyph) || next.font !== this.font) return 0;
    return this.font.getKerningValue(this.glyph, next.glyph) / this.font.unitsPerEm;
  }

  draw(builder: PathBuilder, size: number, place: Matrix): void {
    const to = (x = 0, y = 0) => applyTo(place, x, y);
    for (const step of this.glyph.getPath(0, 0, size).commands) {
      if (step.type === 'Z') {
        builder.close();
        continue;
      }
      const { x, y } = to(step.x, step.y);
      if (step.type === 'M') builder.moveTo(x, y);
      else if (step.type === 'L') builder.lineTo(x, y);
      else if (step.type === 'Q') {
        const q = to(step.x1, step.y1);
        builder.quadraticTo(q.x, q.y, x, y);
      } else {
        const p = to(step.x1, step.y1);
        const q = to(step.x2, step.y2);
        builder.cubicTo(p.x, p.y, q.x, q.y, x, y);
      }
    }
  }
}

function outlineGlyph(font: opentype.Font, character: string): Glyph | null {
  return font.charToGlyphIndex(character) > 0 ? new OutlineGlyph(font, font.charToGlyph(character)) : null;
}

/**
 * Reads a font from TTF, OTF or WOFF.
 * @throws FontRefused when it is none
 */
export function parseFont(bytes: Uint8Array): opentype.Font {
  const signature = String.fromCharCode(...bytes.subarray(0, 4));
  if (signature === 'wOF2') {
    throw new FontRefused('The font is WOFF2, which is not read here. Load it as TTF, OTF or WOFF.');
  }
  try {
    return opentype.parse(bytes.slice().buffer);
  } catch {
    throw new FontRefused('The file is not a font that can be read. Load a TTF, OTF or WOFF font.');
  }
}

/** What a font file says of itself: its family and whether it is bold or italic. */
export function describeFont(bytes: Uint8Array): { family: string; bold: boolean; italic: boolean } {
  const font = parseFont(bytes);
  type Names = Record<string, Record<string, string> | undefined>;
  const names = font.names as unknown as Names & Record<'windows' | 'macintosh' | 'unicode', Names | undefined>;
  // Names stand by the platform they are for, or, in other versions of the package, right there.
  const tables: Names[] = [names.windows, names.macintosh, names.unicode, names].filter((table) => table !== undefined);
  const named = (name: string) => {
    const entry = tables.map((table) => table[name]).find((found) => found !== undefined);
    return entry?.en ?? Object.values(entry ?? {})[0] ?? '';
  };
  const style = `${named('preferredSubfamily')} ${named('fontSubfamily')}`;
  const family = named('preferredFamily') || named('fontFamily') || 'Unnamed font';
  return { family, bold: /bold|black|heavy/i.test(style), italic: /italic|oblique/i.test(style) };
}
