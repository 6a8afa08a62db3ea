import type { PDFPageProxy } from 'pdfjs-dist';
import { identity, type Matrix, multiply, scaling, translation } from '../../geometry/paths/matrix.ts';
import { type Path, PathBuilder } from '../../geometry/paths/path.ts';
import type { Notes } from '../reading.ts';
import type { State } from './graphics-state.ts';
import { addData, type Engine, type Operators, type PathPainting, type PdfFont, type PdfGlyph } from './packed.ts';

/** What text needs of the page it stands on. */
export interface TextPage {
  readonly state: State;
  readonly notes: Notes;
  /** A font by the name that operators use; null where there is none. */
  object(name: string): unknown;
  /** @returns the id of what was drawn; null for nothing */
  draw(path: Path, matrix: Matrix, painting: PathPainting, name: string | null): string | null;
  /** Draws a glyph that is a drawing of its own. */
  drawnGlyph(operators: Operators, matrix: Matrix): void;
}

/** Follows the operators that set text, and draws each run of it as outlines. */
export class TextReader {
  private textMatrix: Matrix = identity;
  private x = 0;
  private y = 0;
  private lineX = 0;
  private lineY = 0;

  /** @param glyphs the PDF package's pool of outlines */
  constructor(
    private readonly engine: Engine,
    private readonly page: TextPage,
    private readonly glyphs: PDFPageProxy['commonObjs'],
  ) {}

  /** Follows one operator. @returns whether it is one of text */
  operator(op: number, args: never[]): boolean {
    const { OPS } = this.engine;
    const { state } = this.page;
    const [number] = args as number[];
    switch (op) {
      case OPS.beginText:
        this.textMatrix = identity;
        this.x = this.y = this.lineX = this.lineY = 0;
        break;
      case OPS.setCharSpacing:
        state.charSpacing = number;
        break;
      case OPS.setWordSpacing:
        state.wordSpacing = number;
        break;
      case OPS.setHScale:
        state.segment = number / 100;
        break;
      case OPS.setLeading:
        state.leading = -number;
        break;
      case OPS.setTextRenderingMode:
        state.mode = number;
        if (number >= 4) this.page.notes.add('changed', 'clip-not-read', 'what a text clips is taken whole');
        break;
      case OPS.setTextRise:
        state.rise = number;
        break;
      case OPS.setFont:
        state.font = this.page.object(args[0]) as PdfFont | null;
        state.fontSize = args[1];
        break;
      case OPS.moveText:
        this.moveText(args[0], args[1]);
        break;
      case OPS.setLeadingMoveText:
        state.leading = args[1];
        this.moveText(args[0], args[1]);
        break;
      case OPS.nextLine:
        this.moveText(0, state.leading);
        break;
      case OPS.setTextMatrix:
        this.textMatrix = Array.from(args[0] as ArrayLike<number>) as unknown as Matrix;
        this.x = this.y = this.lineX = this.lineY = 0;
        break;
      case OPS.showText:
        this.showText(args[0]);
        break;
      default:
        return false;
    }
    return true;
  }

  private moveText(x: number, y: number): void {
    this.x = this.lineX += x;
    this.y = this.lineY += y;
  }

  private showText(glyphs: readonly (PdfGlyph | number)[]): void {
    const { state } = this.page;
    const { font, fontSize } = state;
    if (!font || fontSize === 0) return;
    if (font.vertical)
      this.page.notes.add('changed', 'text-trouble', 'a text that runs from top to bottom is set from left to right');
    const base = multiply(state.matrix, this.textMatrix);
    const builder = new PathBuilder();
    const across = state.segment;
    let text = '';
    for (const glyph of glyphs) {
      if (typeof glyph === 'number') {
        this.x -= (glyph * fontSize * across) / 1000;
        continue;
      }
      text += glyph.unicode;
      const spacing = (glyph.isSpace ? state.wordSpacing : 0) + state.charSpacing;
      const place = multiply(translation(this.x, this.y + state.rise), scaling(across, 1));
      if (font.isType3Font) {
        const fontMatrix = font.fontMatrix ?? [0.001, 0, 0, 0.001, 0, 0];
        const operators = font.charProcOperatorList?.[glyph.operatorListId ?? ''];
        if (operators)
          this.page.drawnGlyph(
            operators,
            multiply(multiply(multiply(base, place), scaling(fontSize, fontSize)), fontMatrix),
          );
        this.x += (glyph.width * fontMatrix[0] * fontSize + spacing) * across;
      } else {
        this.outlineGlyph(builder, font, glyph, multiply(place, scaling(fontSize, fontSize)));
        this.x += (glyph.width * fontSize * (font.fontMatrix?.[0] ?? 0.001) + spacing) * across;
      }
    }
    const path = builder.build();
    if (path.verbs.length === 0) return;
    const kind = state.mode & 3;
    const painting = { stroked: kind === 1 || kind === 2, filled: kind === 0 || kind === 2, rule: 'nonzero' } as const;
    const id = this.page.draw(path, base, painting, text.trim() || null);
    if (id) this.page.notes.add('taken', 'text-as-outlines', 'a text is taken as its outlines', [id]);
  }

  private outlineGlyph(builder: PathBuilder, font: PdfFont, glyph: PdfGlyph, place: Matrix): void {
    const name = `${font.loadedName}_path_${glyph.fontChar}`;
    const pool = this.glyphs;
    const data = pool.has(name) ? (pool.get(name) as { path?: ArrayLike<number> }).path : null;
    // The fonts that stand in for those a file names draw a box where a space is.
    if (glyph.isSpace && glyph.unicode.trim() === '') return;
    if (data) addData(builder, data, place);
    else if (glyph.unicode.trim() !== '') {
      this.page.notes.add(
        'left-out',
        'characters-missing',
        `the file’s font “${font.name ?? '?'}” gives no outline for some characters, which were left out`,
      );
    }
  }
}
