import {
  concatTransformationMatrix,
  PDFDocument,
  PDFOperator,
  type PDFPage,
  popGraphicsState,
  pushGraphicsState,
  setFillingRgbColor,
  setLineWidth,
  setStrokingRgbColor,
  stroke,
} from '@cantoo/pdf-lib';
import { makeCode } from '../../codes/make-code.ts';
import type { Matrix, Point } from '../../geometry/paths/matrix.ts';
import { type Path, PathBuilder, transformPath } from '../../geometry/paths/path.ts';
import type { FontBook } from '../../text/fonts.ts';
import type { Paper, SheetPicture, SheetTable } from '../paper.ts';
import { roundLength } from './round-length.ts';
import { SheetText, type TextLook } from './sheet-text.ts';
import { channels, outlineOperators } from './write.ts';

const pointsPerMm = 72 / 25.4;
/** A4, upright, in mm. */
const a4 = { width: 210, height: 297 };
const edge = 15;
const inner = a4.width - 2 * edge;
/** The picture of the bed is no higher than this, in mm. */
const highestPicture = 88;
/** The scale bar is no longer than this on the paper, in mm. */
const longestBar = 50;
/** How wide a code is with what is free around it, in mm. */
const codeMm = 28;
const hairline = 0.2;
/** Tables up to this high stand on one page, in mm. */
const longestWhole = 110;

const plain: TextLook = { size: 9 };
const quiet: TextLook = { size: 9, grey: 0.4 };
const strong: TextLook = { size: 9, bold: true };
const heading: TextLook = { size: 11, bold: true };
const lineHeight = 4.4;

/** What stands on paper as PDF, A4 upright. @param book fonts for characters that the PDF's own lack. */
export async function writePaper(paper: Paper, book: FontBook): Promise<Uint8Array> {
  const { title, kind, facts, code, picture, tables, lists } = paper;
  const file = await PDFDocument.create();
  file.setTitle(`${title}, ${kind.toLowerCase()}`);
  const writer = new Writer(file, await SheetText.of(file, book), title);
  writer.title(title, kind);
  const codeEnd = code === null ? 0 : writer.code(code);
  writer.facts(facts, codeEnd);
  if (picture) writer.picture(picture);
  for (const table of tables) writer.table(table);
  for (const list of lists) writer.list(list.title, list.lines);
  writer.numberPages();
  return file.save();
}

/** Writes from the top of the paper down, and goes on on another page where there is no more room. */
class Writer {
  private page: PDFPage;
  private readonly pages: PDFPage[] = [];
  /** How far down the paper the next thing begins, in mm. */
  private y = edge;

  constructor(
    private readonly file: PDFDocument,
    private readonly text: SheetText,
    private readonly name: string,
  ) {
    this.page = this.newPage();
  }

  private newPage(): PDFPage {
    this.page = this.file.addPage([a4.width * pointsPerMm, a4.height * pointsPerMm]);
    this.pages.push(this.page);
    this.y = edge;
    return this.page;
  }

  /** Goes on on another page where so much does not fit on this one. */
  private makeRoom(mm: number): void {
    if (this.y + mm > a4.height - edge - 6) this.newPage();
  }

  private write(line: string, x: number, look: TextLook = plain): void {
    this.text.draw(this.page, line, x, this.y, look);
  }

  title(title: string, kind: string): void {
    const look: TextLook = { size: 17, bold: true };
    this.y += 5;
    const [first = '', ...others] = this.text.wrap(title, inner - 30, look);
    this.write(first, edge, look);
    this.write(kind, a4.width - edge - this.text.width(kind, quiet), quiet);
    for (const line of others) {
      this.y += 7;
      this.write(line, edge, look);
    }
    this.y += 3;
  }

  /** A QR code at the right, below what kind of paper it is. @returns how far down it goes, in mm */
  code(words: string): number {
    const top = edge + 8;
    const { path } = makeCode({ symbology: 'qr', words, width: codeMm, height: codeMm });
    // It stands on white, which is free around it as well.
    const [left, up] = [(a4.width - edge - codeMm) * pointsPerMm, (a4.height - top) * pointsPerMm];
    const toPage: Matrix = [pointsPerMm, 0, 0, -pointsPerMm, left, up];
    this.outline(transformPath(path, toPage), '#000000', true, hairline);
    return top + codeMm;
  }

  /** @param codeEnd how far down a code stands beside them, in mm; 0 where there is none */
  facts(facts: Paper['facts'], codeEnd: number): void {
    const room = inner - 28 - (codeEnd > 0 ? codeMm + 4 : 0);
    for (const { name, value } of facts) {
      for (const [i, line] of this.text.wrap(value, room, plain).entries()) {
        this.makeRoom(lineHeight);
        this.y += lineHeight;
        if (i === 0) this.write(name, edge, quiet);
        this.write(line, edge + 28);
      }
    }
    this.y = Math.max(this.y, codeEnd) + 4;
  }

  /** The bed with what burns on it, how much smaller it is than it, and a bar of a length that is said. */
  picture({ bedWidth, bedHeight, zero, sheets, layers }: SheetPicture): void {
    const scale = Math.min(inner / bedWidth, highestPicture / bedHeight);
    this.makeRoom(bedHeight * scale + 12);
    const [left, top] = [edge, this.y];
    const place = ({ x, y }: Point) => ({ x: left + x * scale, y: top + y * scale });
    const whole = [
      { x: 0, y: 0 },
      { x: bedWidth, y: 0 },
      { x: bedWidth, y: bedHeight },
      { x: 0, y: bedHeight },
    ];
    this.polygon(whole.map(place), '#F4F1EA', '#6B6F6E');
    for (const { corners } of sheets) this.polygon(corners.map(place), '#FFFFFF', '#B0A890');
    this.page.pushOperators(
      pushGraphicsState(),
      concatTransformationMatrix(
        scale * pointsPerMm,
        0,
        0,
        -scale * pointsPerMm,
        left * pointsPerMm,
        (a4.height - top) * pointsPerMm,
      ),
    );
    for (const { colour, path, isFilled } of layers) this.outline(path, colour, isFilled, hairline / scale);
    this.page.pushOperators(popGraphicsState());
    for (const { name, corners } of sheets) {
      const lowest = corners.reduce((low, corner) =>
        corner.y > low.y || (corner.y === low.y && corner.x < low.x) ? corner : low,
      );
      const { x, y } = place(lowest);
      this.text.draw(this.page, name, x + 1.5, y - 1.5, { size: 7, grey: 0.4 });
    }
    const origin = place(zero);
    this.polygon(
      [
        { x: origin.x - 1.6, y: origin.y },
        { x: origin.x, y: origin.y - 1.6 },
        { x: origin.x + 1.6, y: origin.y },
        { x: origin.x, y: origin.y + 1.6 },
      ],
      '#0E6570',
      '#0E6570',
    );
    this.y = top + bedHeight * scale;
    const bar = roundLength(longestBar / scale);
    const right = left + inner;
    this.y += 5;
    this.polygon(
      [
        { x: left, y: this.y - 1.2 },
        { x: left + bar * scale, y: this.y - 1.2 },
        { x: left + bar * scale, y: this.y },
        { x: left, y: this.y },
      ],
      '#1A1A1A',
      '#1A1A1A',
    );
    this.write(`${bar} mm`, left + bar * scale + 2, { size: 8 });
    const words = `scale 1 : ${(1 / scale).toFixed(2)} · the mark is the machine’s zero`;
    this.write(words, right - this.text.width(words, { size: 8 }), { size: 8, grey: 0.4 });
    this.y += 5;
  }

  private polygon(corners: readonly Point[], filling: string, line: string): void {
    const builder = new PathBuilder();
    corners.forEach(({ x, y }, i) => {
      const [px, py] = [x * pointsPerMm, (a4.height - y) * pointsPerMm];
      if (i === 0) builder.moveTo(px, py);
      else builder.lineTo(px, py);
    });
    this.page.pushOperators(
      setFillingRgbColor(...channels(filling)),
      setStrokingRgbColor(...channels(line)),
      setLineWidth(hairline * pointsPerMm),
      ...outlineOperators(builder.close().build()),
      PDFOperator.of('B' as never),
    );
  }

  private outline(path: Path, colour: string, isFilled: boolean, widthMm: number): void {
    if (path.verbs.length === 0) return;
    this.page.pushOperators(
      isFilled ? setFillingRgbColor(...channels(colour)) : setStrokingRgbColor(...channels(colour)),
      setLineWidth(widthMm),
      ...outlineOperators(path),
      isFilled ? PDFOperator.of('f*' as never) : stroke(),
    );
  }

  table({ title, columns, rows, total }: SheetTable): void {
    if (rows.length === 0) return;
    const free = inner - columns.reduce((sum, { widthMm }) => sum + widthMm, 0);
    const widths = columns.map(({ widthMm }) => (widthMm === 0 ? free : widthMm));
    // A table that fits on a page is not parted, unless it is long.
    this.makeRoom(Math.min(longestWhole, 9 + (rows.length + 2) * (lineHeight + 1.2)));
    this.sectionTitle(title);
    this.row(
      columns.map(({ name }) => name),
      columns,
      widths,
      quiet,
    );
    for (const row of rows) this.row(row, columns, widths, plain);
    if (total) this.row(total, columns, widths, strong);
    this.y += 3;
  }

  private sectionTitle(title: string): void {
    this.makeRoom(8 + 2 * lineHeight);
    this.y += 6;
    this.write(title, edge, heading);
    this.y += 1;
  }

  private row(
    cells: readonly string[],
    columns: SheetTable['columns'],
    widths: readonly number[],
    look: TextLook,
  ): void {
    const wrapped = cells.map((cell, i) => this.text.wrap(cell, widths[i] - 2, look));
    const lines = Math.max(...wrapped.map((cell) => cell.length));
    this.makeRoom(lines * lineHeight + 1.2);
    this.y += 0.6;
    for (let line = 0; line < lines; line++) {
      this.y += lineHeight;
      let x = edge;
      wrapped.forEach((cell, i) => {
        const words = cell[line];
        if (words) this.write(words, columns[i].isFigures ? x + widths[i] - this.text.width(words, look) : x, look);
        x += widths[i];
      });
    }
    this.y += 0.6;
    this.rule();
  }

  private rule(): void {
    const y = this.y + 0.6;
    this.polygon(
      [
        { x: edge, y },
        { x: a4.width - edge, y },
      ],
      '#D8D4C8',
      '#D8D4C8',
    );
  }

  list(title: string, lines: readonly string[]): void {
    if (lines.length === 0) return;
    this.sectionTitle(title);
    for (const entry of lines) {
      for (const [i, line] of this.text.wrap(entry, inner - 5, plain).entries()) {
        this.makeRoom(lineHeight);
        this.y += lineHeight;
        if (i === 0) this.write('–', edge, quiet);
        this.write(line, edge + 4);
      }
    }
    this.y += 3;
  }

  numberPages(): void {
    this.pages.forEach((page, i) => {
      const words = `${this.name} · page ${i + 1} of ${this.pages.length}`;
      const [line = ''] = this.text.wrap(words, inner, quiet);
      this.text.draw(page, line, edge, a4.height - 9, { size: 8, grey: 0.4 });
    });
  }
}
