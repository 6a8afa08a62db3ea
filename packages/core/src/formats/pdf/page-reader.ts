import { encode as encodePng } from 'fast-png';
import type { PDFPageProxy } from 'pdfjs-dist';
import type { ReadingChoices } from '../../drawing/arrival.ts';
import { type Colour, type Group, type Item, type Paint, unpainted } from '../../drawing/item.ts';
import { type Area, areaOf, intersectAreas } from '../../geometry/area.ts';
import { dashPath } from '../../geometry/dash.ts';
import { identity, type Matrix, meanScale, multiply, scaling, translation } from '../../geometry/matrix.ts';
import { type Path, PathBuilder, transformPath } from '../../geometry/path.ts';
import { outlineOf, rectangleOf } from '../../geometry/shapes.ts';
import { clipItems } from '../clipping.ts';
import { pictureFile } from '../picture/file.ts';
import type { Notes, PictureFile } from '../reading.ts';
import {
  addData,
  colourOf,
  type Engine,
  type Operators,
  type PathPainting,
  type PdfFont,
  type PdfGlyph,
  type PdfImage,
  pathOfData,
  pathPaintings,
  rasterOf,
} from './packed.ts';

/** What optional content marks: the layer it is on, and whether that is shown. */
type LayerOf = (props: { id: string }) => { group: Group | null; shown: boolean };

interface State {
  matrix: Matrix;
  clip: Area | null;
  fill: Colour | null;
  stroke: Colour | null;
  lineWidth: number;
  cap: number;
  join: number;
  dashes: readonly number[];
  dashOffset: number;
  fillAlpha: number;
  strokeAlpha: number;
  font: PdfFont | null;
  fontSize: number;
  charSpacing: number;
  wordSpacing: number;
  stretch: number;
  rise: number;
  leading: number;
  mode: number;
}

const start: State = {
  matrix: identity,
  clip: null,
  fill: '#000000',
  stroke: '#000000',
  lineWidth: 1,
  cap: 0,
  join: 0,
  dashes: [],
  dashOffset: 0,
  fillAlpha: 1,
  strokeAlpha: 1,
  font: null,
  fontSize: 0,
  charSpacing: 0,
  wordSpacing: 0,
  stretch: 1,
  rise: 0,
  leading: 0,
  mode: 0,
};

/** Follows a page's operators, as the PDF package resolved them, and gathers what they draw, in mm. */
export class PageReader {
  readonly items: Item[] = [];
  private readonly files = new Map<string, PictureFile>();
  private state: State = start;
  private readonly kept: State[] = [];
  private textMatrix: Matrix = identity;
  private x = 0;
  private y = 0;
  private lineX = 0;
  private lineY = 0;
  private pendingClip: 'nonzero' | 'evenodd' | null = null;
  private readonly marked: { group: Group | null; shown: boolean }[] = [];
  private count = 0;
  private readonly paintings: ReadonlyMap<number, PathPainting>;

  constructor(
    private readonly page: PDFPageProxy,
    private readonly engine: Engine,
    private readonly idFor: (place: string) => string,
    private readonly notes: Notes,
    private readonly choices: ReadingChoices,
    private readonly layerOf: LayerOf,
  ) {
    this.paintings = pathPaintings(engine);
  }

  get pictures(): PictureFile[] {
    return [...this.files.values()];
  }

  async run(operators: Operators, matrix: Matrix): Promise<void> {
    await this.arrived(operators);
    this.state = { ...start, matrix };
    this.follow(operators);
  }

  /** Waits for the fonts and pictures that the operators name, which come after them. */
  private async arrived({ fnArray, argsArray }: Operators): Promise<void> {
    const { OPS } = this.engine;
    const names = new Set<string>();
    fnArray.forEach((op, i) => {
      const args = (argsArray[i] ?? []) as string[];
      if (op === OPS.dependency) for (const name of args) names.add(name);
      if (op === OPS.paintImageXObject) names.add(args[0]);
    });
    await Promise.all([...names].map((name) => new Promise((resolve) => this.pool(name).get(name, resolve))));
  }

  private pool(name: string): PDFPageProxy['objs'] {
    return name.startsWith('g_') ? this.page.commonObjs : this.page.objs;
  }

  private follow({ fnArray, argsArray }: Operators): void {
    for (let i = 0; i < fnArray.length; i++) this.operator(fnArray[i], (argsArray[i] ?? []) as never[]);
  }

  private operator(op: number, args: never[]): void {
    const { OPS } = this.engine;
    const [first] = args as unknown[];
    const number = first as number;
    const { state } = this;
    switch (op) {
      case OPS.save:
        this.kept.push({ ...state });
        break;
      case OPS.restore:
      case OPS.paintFormXObjectEnd:
      case OPS.endGroup:
        this.state = this.kept.pop() ?? state;
        break;
      case OPS.transform:
        state.matrix = multiply(state.matrix, args as unknown as Matrix);
        break;
      case OPS.setLineWidth:
        state.lineWidth = number;
        break;
      case OPS.setLineCap:
        state.cap = number;
        break;
      case OPS.setLineJoin:
        state.join = number;
        break;
      case OPS.setDash:
        state.dashes = args[0];
        state.dashOffset = args[1];
        break;
      case OPS.setGState:
        this.graphicsState(args[0]);
        break;
      case OPS.setFillRGBColor:
        state.fill = colourOf(first);
        break;
      case OPS.setStrokeRGBColor:
        state.stroke = colourOf(first);
        break;
      case OPS.setFillTransparent:
        state.fill = null;
        break;
      case OPS.setStrokeTransparent:
        state.stroke = null;
        break;
      case OPS.setFillColorN:
        state.fill = this.pattern();
        break;
      case OPS.setStrokeColorN:
        state.stroke = this.pattern();
        break;
      case OPS.shadingFill:
        this.notes.add('left-out', 'gradient-left-out', 'a gradient over a whole area was left out');
        break;
      case OPS.clip:
        this.pendingClip = 'nonzero';
        break;
      case OPS.eoClip:
        this.pendingClip = 'evenodd';
        break;
      case OPS.constructPath:
        this.path(args[0], (args[1] as (ArrayLike<number> | null)[])[0]);
        break;
      case OPS.paintFormXObjectBegin:
        this.enterForm(args[0], args[1]);
        break;
      case OPS.beginGroup: {
        const { matrix, bbox } = args[0] as { matrix: Matrix | null; bbox: number[] | null };
        this.enterForm(matrix, bbox);
        break;
      }
      case OPS.beginMarkedContentProps: {
        const props = args[1] as { id: string } | null;
        this.marked.push(first === 'OC' && props ? this.layerOf(props) : { group: null, shown: true });
        break;
      }
      case OPS.beginMarkedContent:
        this.marked.push({ group: null, shown: true });
        break;
      case OPS.endMarkedContent:
        this.marked.pop();
        break;
      case OPS.paintImageXObject:
        this.picture(this.object(first as string) as PdfImage | null);
        break;
      case OPS.paintInlineImageXObject:
        this.picture(first as PdfImage);
        break;
      case OPS.paintImageXObjectRepeat:
      case OPS.paintImageMaskXObject:
      case OPS.paintImageMaskXObjectGroup:
      case OPS.paintImageMaskXObjectRepeat:
      case OPS.paintInlineImageXObjectGroup:
      case OPS.paintSolidColorImageMask:
        this.notes.add('left-out', 'picture-mask', 'a picture that is only a mask was left out');
        break;
      default:
        this.textOperator(op, args);
    }
  }

  /** A part with a frame of its own: what lies outside it does not show. */
  private enterForm(matrix: Matrix | null, bbox: readonly number[] | null): void {
    this.kept.push({ ...this.state });
    if (matrix) this.state.matrix = multiply(this.state.matrix, matrix);
    if (bbox) {
      const [minX, minY, maxX, maxY] = bbox;
      this.clipTo(outlineOf(rectangleOf({ minX, minY, maxX, maxY })), 'nonzero');
    }
  }

  private textOperator(op: number, args: never[]): void {
    const { OPS } = this.engine;
    const { state } = this;
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
        state.stretch = number / 100;
        break;
      case OPS.setLeading:
        state.leading = -number;
        break;
      case OPS.setTextRenderingMode:
        state.mode = number;
        break;
      case OPS.setTextRise:
        state.rise = number;
        break;
      case OPS.setFont:
        state.font = this.object(args[0]) as PdfFont | null;
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
    }
  }

  private moveText(x: number, y: number): void {
    this.x = this.lineX += x;
    this.y = this.lineY += y;
  }

  /** From the PDF package's pool of fonts and pictures, or the page's own. */
  private object(name: string): unknown {
    const pool = this.pool(name);
    return pool.has(name) ? pool.get(name) : null;
  }

  private graphicsState(entries: readonly (readonly [string, unknown])[]): void {
    for (const [name, value] of entries) {
      if (name === 'LW') this.state.lineWidth = value as number;
      else if (name === 'LC') this.state.cap = value as number;
      else if (name === 'LJ') this.state.join = value as number;
      else if (name === 'D') [this.state.dashes, this.state.dashOffset] = value as [number[], number];
      else if (name === 'ca') this.state.fillAlpha = value as number;
      else if (name === 'CA') this.state.strokeAlpha = value as number;
      else if (name === 'SMask' && value) this.notes.add('changed', 'mask-not-applied', 'a masked part is taken whole');
      else if (name === 'Font') {
        const [font, size] = value as [string, number];
        this.state.font = this.object(font) as PdfFont | null;
        this.state.fontSize = size;
      }
    }
  }

  private pattern(): Colour {
    this.notes.add('changed', 'gradient-as-mean', 'a gradient or pattern is taken as mid grey');
    return '#808080';
  }

  private path(op: number, data: ArrayLike<number> | null): void {
    if (!data) return;
    const path = pathOfData(data);
    const painting = this.paintings.get(op);
    if (painting) this.draw(path, this.state.matrix, painting, null);
    if (this.pendingClip) {
      this.clipTo(path, this.pendingClip);
      this.pendingClip = null;
    }
  }

  private clipTo(path: Path, rule: 'nonzero' | 'evenodd'): void {
    const area = areaOf(transformPath(path, this.state.matrix), rule);
    this.state.clip = this.state.clip ? intersectAreas(this.state.clip, area) : area;
  }

  private draw(
    path: Path,
    matrix: Matrix,
    { stroked, filled, rule }: PathPainting,
    name: string | null,
  ): string | null {
    if (path.verbs.length < 2) {
      this.notes.add('left-out', 'stray-point', 'a point without extent was left out');
      return null;
    }
    const { state } = this;
    const paint = this.paint(stroked, filled);
    const id = this.idFor(`p${this.count++}`);
    const hidden = paint.stroke === null && paint.fill === null;
    if (hidden)
      this.notes.add('left-out', 'unpainted-left-out', 'an outline with neither stroke nor fill is kept hidden', [id]);
    const dashed = stroked && state.dashes.some((length) => length > 0);
    let outline = path;
    if (dashed && this.choices.dashes === 'dashed' && !filled) {
      outline = dashPath(path, state.dashes, state.dashOffset) ?? path;
      this.notes.add('taken', 'dashes', 'a dashed stroke is taken as its dashes', [id]);
    } else if (dashed) {
      this.notes.add('changed', 'dashes-as-solid', 'a dashed stroke is taken as a solid line', [id]);
    }
    this.push({
      id,
      name,
      shape: { kind: 'path', path: outline },
      matrix,
      paint,
      fillRule: rule,
      groupId: null,
      pinned: null,
      hidden,
    });
    return id;
  }

  private push(item: Item): void {
    const mark = this.marked.findLast(({ group, shown }) => group !== null || !shown);
    const off = this.marked.some(({ shown }) => !shown);
    const placed: Item = { ...item, groupId: mark?.group?.id ?? null, hidden: item.hidden || off };
    if (off) this.notes.add('left-out', 'hidden-left-out', 'a part on a layer that is off is kept hidden', [item.id]);
    const { clip } = this.state;
    this.items.push(...(clip ? clipItems([placed], clip, this.notes, this.choices) : [placed]));
  }

  private paint(stroked: boolean, filled: boolean): Paint {
    const { state } = this;
    const stroke = stroked && state.strokeAlpha > 0 ? state.stroke : null;
    const fill = filled && state.fillAlpha > 0 ? state.fill : null;
    if ((stroke !== null && state.strokeAlpha < 1) || (fill !== null && state.fillAlpha < 1)) {
      this.notes.add('changed', 'see-through', 'a see-through colour is taken as solid');
    }
    const width = state.lineWidth * meanScale(state.matrix);
    return {
      stroke,
      // A width of 0 is the thinnest line that a device can draw.
      strokeWidthMm: stroke === null ? 0 : Math.round(Math.max(0.01, width) * 1e4) / 1e4,
      fill,
      ...(stroke !== null && state.cap > 0 ? { cap: state.cap === 1 ? ('round' as const) : ('square' as const) } : {}),
      ...(stroke !== null && state.join > 0
        ? { join: state.join === 1 ? ('round' as const) : ('bevel' as const) }
        : {}),
    };
  }

  private showText(glyphs: readonly (PdfGlyph | number)[]): void {
    const { state } = this;
    const { font, fontSize } = state;
    if (!font || fontSize === 0) return;
    if (font.vertical)
      this.notes.add('changed', 'text-trouble', 'a text that runs from top to bottom is set from left to right');
    const base = multiply(state.matrix, this.textMatrix);
    const builder = new PathBuilder();
    const across = state.stretch;
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
          this.drawnGlyph(
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
    const id = this.draw(path, base, painting, text.trim() || null);
    if (id) this.notes.add('taken', 'text-as-outlines', 'a text is taken as its outlines', [id]);
  }

  private outlineGlyph(builder: PathBuilder, font: PdfFont, glyph: PdfGlyph, place: Matrix): void {
    const name = `${font.loadedName}_path_${glyph.fontChar}`;
    const pool = this.page.commonObjs;
    const data = pool.has(name) ? (pool.get(name) as { path?: ArrayLike<number> }).path : null;
    if (data) addData(builder, data, place);
    else if (!glyph.isSpace && glyph.unicode.trim() !== '') {
      this.notes.add(
        'left-out',
        'characters-missing',
        `the file’s font “${font.name ?? '?'}” gives no outline for some characters, which were left out`,
      );
    }
  }

  private drawnGlyph(operators: Operators, matrix: Matrix): void {
    const { state } = this;
    const depth = this.kept.length;
    this.kept.push(state);
    this.state = { ...state, matrix };
    this.follow(operators);
    this.kept.length = depth + 1;
    this.state = this.kept.pop() ?? state;
  }

  private picture(image: PdfImage | null): void {
    const raw = image && rasterOf(image);
    if (!image || !raw) {
      this.notes.add('left-out', 'picture-not-read', 'a picture in a form that is not read was left out');
      return;
    }
    const file = pictureFile(encodePng(raw));
    this.files.set(file.id, file);
    const id = this.idFor(`p${this.count++}`);
    this.push({
      id,
      name: 'Picture',
      shape: { kind: 'picture', pictureId: file.id, width: image.width, height: image.height },
      matrix: multiply(this.state.matrix, [1 / image.width, 0, 0, -1 / image.height, 0, 1]),
      paint: unpainted,
      fillRule: 'nonzero',
      groupId: null,
      pinned: null,
      hidden: false,
    });
    this.notes.add('taken', 'picture', 'a picture is taken', [id]);
  }
}
