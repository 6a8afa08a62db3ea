import type { PDFPageProxy } from 'pdfjs-dist';
import type { ReadingChoices } from '../../document/arrival.ts';
import type { Colour, Group, Item } from '../../document/item.ts';
import { outlineOf, rectangleOf } from '../../document/shapes.ts';
import { type Area, areaOf, intersectAreas, pathOfArea } from '../../geometry/areas/area.ts';
import { identity, type Matrix, multiply } from '../../geometry/paths/matrix.ts';
import { type Path, transformPath } from '../../geometry/paths/path.ts';
import type { Notes, PictureFile } from '../reading.ts';
import { type State, startState } from './graphics-state.ts';
import { operatorKinds, unreadStates } from './operators.ts';
import {
  colourOf,
  type Engine,
  fadeOfShading,
  meanOfShading,
  meanOfTile,
  type Operators,
  type PathPainting,
  type PdfFont,
  type PdfImage,
  pathOfData,
  pathPaintings,
} from './packed.ts';
import { PageItems } from './page-items.ts';
import { type TextPage, TextReader } from './page-text.ts';

/** What optional content marks: the layer it is on, and whether that is shown. */
type LayerOf = (props: { id: string }) => { group: Group | null; shown: boolean };

/** Follows a page's operators, as the PDF package resolved them, and gathers what they draw, in mm. `whole` is the page. */
export class PageReader implements TextPage {
  private readonly out: PageItems;
  state: State = startState;
  private readonly kept: State[] = [];
  private pendingClip: 'nonzero' | 'evenodd' | null = null;
  private readonly paintings: ReadonlyMap<number, PathPainting>;
  private readonly text: TextReader;

  constructor(
    private readonly page: PDFPageProxy,
    private readonly engine: Engine,
    idFor: (place: string) => string,
    readonly notes: Notes,
    choices: ReadingChoices,
    private readonly layerOf: LayerOf,
    private readonly whole: Area,
  ) {
    this.out = new PageItems(idFor, notes, choices);
    this.paintings = pathPaintings(engine);
    this.text = new TextReader(engine, this, page.commonObjs);
  }

  get items(): readonly Item[] {
    return this.out.items;
  }

  get pictures(): PictureFile[] {
    return [...this.out.files.values()];
  }

  async run(operators: Operators, matrix: Matrix): Promise<void> {
    await this.arrived(operators);
    this.state = { ...startState, matrix, base: matrix };
    this.follow(operators);
  }

  /** Waits for the fonts and pictures that the operators name, which come after them. */
  private async arrived({ fnArray, argsArray }: Operators): Promise<void> {
    const { OPS } = this.engine;
    const names = new Set<string>();
    fnArray.forEach((op, i) => {
      const args = (argsArray[i] ?? []) as string[];
      if (op === OPS.dependency) for (const name of args) names.add(name);
      if (op === OPS.paintImageXObject || op === OPS.shadingFill) names.add(args[0]);
      if (args[0] === 'Shading') names.add(args[1]);
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
        state.fade = null;
        break;
      case OPS.setStrokeRGBColor:
        state.stroke = colourOf(first);
        break;
      case OPS.setFillTransparent:
        state.fill = null;
        state.fade = null;
        break;
      case OPS.setStrokeTransparent:
        state.stroke = null;
        break;
      case OPS.setFillColorN:
        this.fillPattern(args);
        break;
      case OPS.setStrokeColorN:
        state.stroke = this.pattern(args);
        break;
      case OPS.shadingFill:
        this.shading(args[0]);
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
        this.out.marked.push(first === 'OC' && props ? this.layerOf(props) : { group: null, shown: true });
        break;
      }
      case OPS.beginMarkedContent:
        this.out.marked.push({ group: null, shown: true });
        break;
      case OPS.endMarkedContent:
        this.out.marked.pop();
        break;
      case OPS.paintImageXObject:
        this.out.picture(this.state, this.object(first as string) as PdfImage | null);
        break;
      case OPS.paintInlineImageXObject:
        this.out.picture(this.state, first as PdfImage);
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
        if (!this.text.operator(op, args)) this.noteUnread(op, number);
    }
  }

  /** Notes an operator that nothing follows, unless it bears on nothing. */
  private noteUnread(op: number, value: unknown): void {
    const name = Object.entries(this.engine.OPS).find(([, code]) => code === op)?.[0] ?? `operator ${op}`;
    const kind = operatorKinds[name] ?? 'resolved';
    if (kind === 'followed' || kind === 'no bearing') return;
    // A limit that is the usual one, or ours, says nothing.
    if (name === 'setMiterLimit' && unreadStates.ML.usual.includes(value)) return;
    const said = kind === 'resolved' ? 'what it draws was left out' : kind;
    const what = kind === 'resolved' ? 'left-out' : 'changed';
    this.notes.add(what, `operator-not-read:${name}`, `the instruction “${name}” is not followed: ${said}`);
  }

  /** A part with a frame of its own: what lies outside it does not show. */
  private enterForm(matrix: Matrix | null, bbox: readonly number[] | null): void {
    this.kept.push({ ...this.state });
    if (matrix) this.state.matrix = multiply(this.state.matrix, matrix);
    this.state.base = this.state.matrix;
    if (bbox) {
      const [minX, minY, maxX, maxY] = bbox;
      this.clipTo(outlineOf(rectangleOf({ minX, minY, maxX, maxY })), 'nonzero');
    }
  }

  /** From the PDF package's pool of fonts and pictures, or the page's own. */
  object(name: string): unknown {
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
      else if (unreadStates[name] && !unreadStates[name].usual.includes(value))
        this.notes.add('changed', `state-not-read:${name}`, unreadStates[name].said);
      else if (name === 'SMask' && value) this.notes.add('changed', 'mask-not-applied', 'a masked part is taken whole');
      else if (name === 'Font') {
        const [font, size] = value as [string, number];
        this.state.font = this.object(font) as PdfFont | null;
        this.state.fontSize = size;
      }
    }
  }

  /** A gradient that is to fill with, or a pattern's mean colour. */
  private fillPattern(args: readonly unknown[]): void {
    const [kind, name, matrix] = args;
    const { state } = this;
    const base = matrix ? multiply(state.base, matrix as Matrix) : state.base;
    const shading = kind === 'Shading' ? this.object(name as string) : null;
    state.fade = fadeOfShading(shading, base);
    state.fill = state.fade ? meanOfShading(shading) : this.pattern(args);
  }

  /** The mean colour of a gradient or a pattern that is to paint with. */
  private pattern([kind, what, how]: readonly unknown[]): Colour {
    this.notes.add('changed', 'gradient-as-mean', 'a gradient or pattern is taken as its mean colour');
    if (kind === 'Shading') return meanOfShading(this.object(what as string));
    return meanOfTile(this.engine, what, how as Operators);
  }

  /** A gradient over all that is not clipped away. */
  private shading(name: string): void {
    const area = this.state.clip ?? this.whole;
    this.kept.push({ ...this.state });
    this.state = { ...this.state, base: this.state.matrix, clip: null };
    this.fillPattern(['Shading', name]);
    this.draw(pathOfArea(area), identity, { stroked: false, filled: true, rule: 'nonzero' }, null);
    this.state = this.kept.pop() ?? this.state;
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

  draw(path: Path, matrix: Matrix, painting: PathPainting, name: string | null): string | null {
    return this.out.draw(path, matrix, painting, name, this.state);
  }

  drawnGlyph(operators: Operators, matrix: Matrix): void {
    const { state } = this;
    const depth = this.kept.length;
    this.kept.push(state);
    this.state = { ...state, matrix };
    this.follow(operators);
    this.kept.length = depth + 1;
    this.state = this.kept.pop() ?? state;
  }
}
