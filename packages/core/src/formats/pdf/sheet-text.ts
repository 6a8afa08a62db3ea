import {
  type Color,
  concatTransformationMatrix,
  fill,
  type PDFDocument,
  type PDFFont,
  type PDFPage,
  popGraphicsState,
  pushGraphicsState,
  rgb,
  StandardFonts,
  setFillingRgbColor,
} from '@cantoo/pdf-lib';
import { identity } from '../../geometry/paths/matrix.ts';
import { PathBuilder } from '../../geometry/paths/path.ts';
import type { Face, FontBook, Glyph } from '../../text/fonts.ts';
import { outlineOperators } from './write.ts';

const pointsPerMm = 72 / 25.4;

/** How a piece of text looks. */
export interface TextLook {
  readonly bold?: boolean;
  /** How high an em is, in points. */
  readonly size: number;
  /** How dark it is: 0 is black, 1 white. */
  readonly grey?: number;
}

/** A piece of a line that the PDF's own font has, or a character that it has not. */
type Run = { readonly text: string } | { readonly glyph: Glyph | null };

/**
 * Words on a page, in the fonts that every reader of PDF has. Characters that these lack are drawn as outlines from the
 * fonts that there are; what none has is an empty box.
 */
export class SheetText {
  private constructor(
    private readonly fonts: { readonly plain: PDFFont; readonly bold: PDFFont },
    private readonly known: ReadonlySet<number>,
    private readonly face: Face | null,
  ) {}

  static async of(file: PDFDocument, book: FontBook): Promise<SheetText> {
    const plain = await file.embedFont(StandardFonts.Helvetica);
    const bold = await file.embedFont(StandardFonts.HelveticaBold);
    return new SheetText(
      { plain, bold },
      new Set(plain.getCharacterSet()),
      book.find(['sans-serif'], false, false)?.face ?? null,
    );
  }

  /** How wide a line is, in mm. */
  width(line: string, { bold = false, size }: TextLook): number {
    const points = this.runs(line).reduce((sum, run) => sum + this.advance(run, bold, size), 0);
    return points / pointsPerMm;
  }

  /** Draws a line on its baseline. @param x mm from the page's left, and `y` from its top */
  draw(page: PDFPage, line: string, x: number, y: number, look: TextLook): void {
    const { bold = false, size, grey = 0.1 } = look;
    const font = bold ? this.fonts.bold : this.fonts.plain;
    let left = x * pointsPerMm;
    const base = page.getHeight() - y * pointsPerMm;
    const color: Color = rgb(grey, grey, grey);
    for (const run of this.runs(line)) {
      if ('text' in run) page.drawText(run.text, { x: left, y: base, size, font, color });
      else drawGlyph(page, run.glyph, left, base, size, grey);
      left += this.advance(run, bold, size);
    }
  }

  /** A text as lines that are no wider than so many mm; words that are wider are broken. */
  wrap(text: string, widthMm: number, look: TextLook): string[] {
    return text.split('\n').flatMap((paragraph) => {
      const lines: string[] = [];
      let line = '';
      for (const word of paragraph.split(/\s+/)) {
        const longer = line === '' ? word : `${line} ${word}`;
        if (this.width(longer, look) <= widthMm) {
          line = longer;
          continue;
        }
        if (line !== '') lines.push(line);
        line = word;
        while (this.width(line, look) > widthMm && line.length > 1) {
          const fits = this.fitting(line, widthMm, look);
          lines.push(line.slice(0, fits));
          line = line.slice(fits);
        }
      }
      return [...lines, line];
    });
  }

  /** How many characters of a word are no wider than so many mm; one at least. */
  private fitting(word: string, widthMm: number, look: TextLook): number {
    let count = 1;
    while (count < word.length && this.width(word.slice(0, count + 1), look) <= widthMm) count++;
    return count;
  }

  private runs(line: string): Run[] {
    const runs: Run[] = [];
    let text = '';
    for (const character of line) {
      if (this.known.has(character.codePointAt(0) ?? 0)) {
        text += character;
        continue;
      }
      if (text !== '') runs.push({ text });
      text = '';
      const plainer = character.normalize('NFKD');
      // A small figure and the like is the plain one where no font has it.
      const glyph = this.face?.glyph(character) ?? null;
      if (!glyph && [...plainer].every((part) => this.known.has(part.codePointAt(0) ?? 0))) text = plainer;
      else runs.push({ glyph });
    }
    return text === '' ? runs : [...runs, { text }];
  }

  private advance(run: Run, bold: boolean, size: number): number {
    if ('text' in run) return (bold ? this.fonts.bold : this.fonts.plain).widthOfTextAtSize(run.text, size);
    return size * (run.glyph?.advance ?? boxAdvance);
  }
}

/** How wide the box is that stands for a character no font has, as a share of the size. */
const boxAdvance = 0.7;

function drawGlyph(page: PDFPage, glyph: Glyph | null, x: number, y: number, size: number, grey: number): void {
  const builder = new PathBuilder();
  if (glyph) glyph.draw(builder, size, identity);
  else {
    const [side, line] = [0.6 * size, 0.05 * size];
    builder.moveTo(0, 0).lineTo(side, 0).lineTo(side, -side).lineTo(0, -side).close();
    // The other way round, so that it is a hole.
    builder
      .moveTo(line, -line)
      .lineTo(line, line - side)
      .lineTo(side - line, line - side)
      .lineTo(side - line, -line)
      .close();
  }
  page.pushOperators(
    pushGraphicsState(),
    concatTransformationMatrix(1, 0, 0, -1, x, y),
    setFillingRgbColor(grey, grey, grey),
    ...outlineOperators(builder.build()),
    fill(),
    popGraphicsState(),
  );
}
