import type { ReadingChoices } from '../../document/arrival.ts';
import { type Group, unpainted } from '../../document/item.ts';
import type { Shape } from '../../document/shape.ts';
import { outlineOf } from '../../document/shapes.ts';
import { type Area, areaOf, emptyArea, uniteAreas } from '../../geometry/areas/area.ts';
import { boxOf } from '../../geometry/paths/box.ts';
import { type Matrix, multiply, translation } from '../../geometry/paths/matrix.ts';
import { pathBounds, transformPath } from '../../geometry/paths/path.ts';
import { FontBook } from '../../text/fonts.ts';
import { bytesOfDataUrl, describePicture, type PictureFacts } from '../picture/describe.ts';
import { fitPicture, pictureFile } from '../picture/file.ts';
import { Notes, type PictureFile, type Reading } from '../reading.ts';
import { FileRefused } from '../refusal.ts';
import { noteNoFonts, noteText } from '../text-notes.ts';
import { ClipReader, viewportArea } from './clip.ts';
import { type Context, enter, ownTransform, startContext } from './context.ts';
import { dashedPath, dashLengths } from './dashes.ts';
import { noteEffects } from './effects.ts';
import { drawn, holders, isForUs, isWithin, nameOf, silent } from './elements.ts';
import { SvgItems } from './items.ts';
import { readShape } from './outline.ts';
import { fitViewBox, readPage, readViewBox } from './page.ts';
import { PaintReader } from './paint.ts';
import { type Declared, StyleSheet } from './style.ts';
import { TextReader } from './text.ts';
import { type Axis, lengthInUserUnits } from './values.ts';
import { readSvgTree, type SvgElement } from './xml.ts';

/** More elements than this are not made by `use`; files that ask for more multiply themselves without end. */
const mostInstances = 100_000;

/**
 * Reads a drawing from SVG: its outlines in mm with the paint they came with, at the size the file
 * declares (1 unit = 1/96 inch where it declares none). What was not taken as drawn is in `notes`; parts
 * that the file does not show are in the drawing, hidden.
 *
 * @param text the whole file
 * @param idFor gives an id for a part of the file by its place there, which is the same at every reading
 * @param fonts the faces that text is set in
 * @throws FileRefused when the file cannot be used at all
 */
export function readSvg(
  text: string,
  idFor: (place: string) => string,
  fonts: FontBook = new FontBook([]),
  choices: ReadingChoices = {},
): Reading {
  if (text.trim() === '') throw new FileRefused('The file is empty. Save or send it again.');
  if (!/^\uFEFF?\s*</.test(text)) {
    throw new FileRefused('The file is not an SVG drawing. Save the drawing as SVG and choose that file.');
  }
  return new SvgReader(idFor, fonts, choices).read(text);
}

class SvgReader {
  private readonly groups: Group[] = [];
  private readonly pictures = new Map<string, PictureFile>();
  private readonly notes = new Notes();
  private readonly byId = new Map<string, SvgElement>();
  private sheet!: StyleSheet;
  private out!: SvgItems;
  private clips!: ClipReader;
  private texts!: TextReader;
  private instances = 0;

  constructor(
    private readonly idFor: (place: string) => string,
    private readonly fonts: FontBook,
    private readonly choices: ReadingChoices,
  ) {}

  read(text: string): Reading {
    const { root, elements, unknownEntities, remarks } = readSvgTree(text);
    for (const [name, count] of unknownEntities) {
      const said = `&${name}; is an entity of the file’s own, which is not followed`;
      this.notes.add('left-out', `entity-not-followed:${name}`, said, [], count);
    }
    for (const element of elements) {
      const { id } = element.attributes;
      if (id !== undefined && !this.byId.has(id)) this.byId.set(id, element);
    }
    this.sheet = new StyleSheet(elements);
    for (const selector of this.sheet.unread) {
      this.notes.add('left-out', 'style-not-read', `the style rule “${selector}” is not followed`);
    }
    const paints = new PaintReader(this.byId, this.sheet);
    this.out = new SvgItems(this.idFor, paints, this.notes, this.choices);
    this.texts = new TextReader(this.byId, this.sheet, this.fonts);
    this.clips = new ClipReader(this.byId, this.sheet, (element, context) => this.textArea(element, context));
    const page = readPage(root, remarks);
    if (!page.size.sure) {
      this.notes.add(
        'changed',
        'no-physical-size',
        'the file gives no size in mm, cm or inches; 96 units are taken for an inch',
      );
    }
    const start = startContext(page.toMm, page.viewBox);
    const own = this.sheet.declarationsOf(root);
    this.children(root, enter(root, own, start, null));
    this.out.noteOutside(page.size.pageWidthMm, page.size.pageHeightMm);
    if (this.out.items.length === 0)
      this.notes.add('left-out', 'nothing-drawn', 'the file holds nothing that can be burnt');
    return {
      format: 'svg',
      drawing: { items: this.out.items, groups: this.groups },
      pictures: [...this.pictures.values()],
      size: page.size,
      notes: this.notes.list(),
      pageCount: 1,
    };
  }

  private children(parent: SvgElement, context: Context): void {
    for (const element of parent.children) this.element(element, context);
  }

  private element(element: SvgElement, parent: Context): void {
    const { name } = element;
    if (silent.has(name)) return;
    if (this.out.uses.length > 0 && ++this.instances > mostInstances) {
      this.notes.add(
        'left-out',
        'use-without-end',
        `<use> repeats parts more than ${mostInstances} times; what goes beyond was left out`,
      );
      return;
    }
    const read = this.readerOf(name);
    if (!read) {
      this.notes.add(
        'left-out',
        `${name}-not-read:${name}`,
        `<${name}> is not taken and was left out (line ${element.line})`,
      );
      return;
    }
    const own = this.sheet.declarationsOf(element);
    const context = this.inside(element, own, parent);
    const before = this.out.items.length;
    read.call(this, element, own, context);
    noteEffects(own, this.notes);
    const clip = own['clip-path'];
    if (clip !== undefined && clip.trim() !== 'none') this.clip(clip, before, parent, context.matrix);
  }

  /** What reads an element of this name; null when none does. */
  private readerOf(name: string): ((element: SvgElement, own: Declared, context: Context) => void) | null {
    if (drawn.has(name)) return this.shape;
    if (name === 'text') return this.text;
    if (name === 'image') return this.picture;
    return holders.has(name) ? this.holder : null;
  }

  /** The context inside an element, its own transform applied. */
  private inside(element: SvgElement, own: Declared, parent: Context): Context {
    return enter(element, own, parent, this.transform(element, own, parent));
  }

  private transform(element: SvgElement, own: Declared, parent: Context): Matrix | null {
    if (own.transform === undefined) return null;
    const frame = () => {
      const read = drawn.has(element.name) ? readShape(element, parent) : null;
      if (!read) {
        this.notes.add(
          'changed',
          'origin-not-found',
          'a part that is turned about its own middle is turned about its corner',
        );
        return null;
      }
      const box = pathBounds(outlineOf(read.shape));
      return { x: box.minX, y: box.minY, width: box.maxX - box.minX, height: box.maxY - box.minY };
    };
    const transform = ownTransform(own, parent, frame);
    if (transform !== undefined) return transform;
    const said = own.transform.slice(0, 40);
    this.notes.add(
      'changed',
      'transform-not-read',
      `the transform “${said}” at line ${element.line} makes no sense and was not applied`,
    );
    return null;
  }

  private holder(element: SvgElement, own: Declared, outer: Context): void {
    const before = this.out.items.length;
    const group: Group = { id: this.out.id(element), name: nameOf(element), parentId: outer.groupId };
    const at = this.groups.push(group) - 1;
    const context = { ...outer, groupId: group.id };
    if (element.name === 'switch') {
      const chosen = element.children.find((child) => !silent.has(child.name) && isForUs(child));
      if (chosen) this.element(chosen, context);
    } else if (element.name === 'use') {
      this.use(element, context);
    } else if (element.name === 'svg' || element.name === 'symbol') {
      this.viewport(element, own, context, element);
    } else {
      this.children(element, context);
    }
    if (this.out.items.length === before) this.groups.splice(at);
  }

  private use(element: SvgElement, context: Context): void {
    const { href = '' } = element.attributes;
    const target = href.startsWith('#') ? this.byId.get(href.slice(1)) : undefined;
    if (!target) {
      const outside = href !== '' && !href.startsWith('#');
      const said = outside
        ? 'a <use> of another file is not followed'
        : `a <use> refers to “${href.slice(0, 40)}”, which is not in the file`;
      this.notes.add('left-out', outside ? 'outside-not-followed' : 'use-of-nothing', said);
      return;
    }
    if (this.out.uses.includes(element) || isWithin(element, target)) {
      this.notes.add('left-out', 'use-in-itself', 'a <use> that repeats itself was left out');
      return;
    }
    const moved = translation(this.length(element, 'x', context, 'x', 0), this.length(element, 'y', context, 'y', 0));
    const inside = { ...context, matrix: multiply(context.matrix, moved) };
    this.out.uses.push(element);
    if (target.name === 'symbol' || target.name === 'svg') {
      const own = this.sheet.declarationsOf(target);
      this.viewport(target, own, this.inside(target, own, inside), element);
    } else {
      this.element(target, inside);
    }
    this.out.uses.pop();
  }

  /** A nested `svg` or an instance of a `symbol`: a viewport of its own, which hides what lies outside it. */
  private viewport(element: SvgElement, own: Declared, parent: Context, sized: SvgElement): void {
    const of = (name: 'width' | 'height', axis: Axis) => {
      const whole = axis === 'x' ? parent.viewportWidth : parent.viewportHeight;
      const given = lengthInUserUnits(sized.attributes[name], parent, axis);
      return given ?? lengthInUserUnits(element.attributes[name], parent, axis) ?? whole;
    };
    const width = of('width', 'x');
    const height = of('height', 'y');
    if (!(width > 0 && height > 0)) return;
    const x = this.length(element, 'x', parent, 'x', 0);
    const y = this.length(element, 'y', parent, 'y', 0);
    const viewBox = readViewBox(element.attributes.viewBox);
    if (viewBox && !(viewBox.width > 0 && viewBox.height > 0)) return;
    let matrix = multiply(parent.matrix, translation(x, y));
    if (viewBox)
      matrix = multiply(matrix, fitViewBox(viewBox, width, height, element.attributes.preserveAspectRatio ?? ''));
    const box = viewBox ?? { x: 0, y: 0, width, height };
    const before = this.out.items.length;
    this.children(element, { ...parent, matrix, viewBox: box, viewportWidth: box.width, viewportHeight: box.height });
    const overflow = own.overflow?.trim();
    if (overflow !== 'visible' && overflow !== 'auto') {
      this.out.clip(viewportArea(boxOf(x, y, width, height), parent.matrix), before);
    }
  }

  private shape(element: SvgElement, own: Declared, context: Context): void {
    const read = readShape(element, context);
    if (!read) {
      this.notes.add(
        'left-out',
        'nothing-to-draw',
        `a <${element.name}> has no extent and draws nothing (line ${element.line})`,
      );
      return;
    }
    if (read.problem) {
      this.notes.add('changed', 'damaged-shape', `the <${element.name}> at line ${element.line} ${read.problem}`);
    }
    if (read.shape.kind === 'path' && read.shape.path.verbs.length < 2) {
      this.notes.add('left-out', 'stray-point', 'a point without extent was left out');
      return;
    }
    const name = nameOf(element);
    const dashes = this.dashes(element, read.shape, own, context);
    if (!dashes) this.out.add(element, '', name, read.shape, own, context);
    else {
      // What is filled as well keeps its fill whole, and its line becomes an item beside it.
      if (context.fill.trim() !== 'none')
        this.out.add(element, 'f', name, read.shape, own, { ...context, stroke: 'none' });
      this.out.add(element, '', name, dashes, own, { ...context, fill: 'none' });
    }
  }

  /** A dashed stroke as its dashes, where they are wanted; null where it is to be a solid line. */
  private dashes(element: SvgElement, shape: Shape, own: Declared, context: Context): Shape | null {
    const lengths = dashLengths(context);
    if (!lengths) return null;
    const id = this.out.id(element);
    if (this.choices.dashes !== 'dashed') {
      this.notes.add('changed', 'dashes-as-solid', 'a dashed stroke is taken as a solid line', [id]);
      return null;
    }
    const path = dashedPath(shape, lengths, own, context);
    if (!path) return null;
    this.notes.add('taken', 'dashes', 'a dashed stroke is taken as its dashes', [id]);
    return { kind: 'path', path };
  }

  private text(element: SvgElement, own: Declared, context: Context): void {
    if (this.fonts.families.length === 0) {
      noteNoFonts(this.notes, element.line);
      return;
    }
    const { runs, substituted, unknown, troubles } = this.texts.read(element, own, context);
    const ids: string[] = [];
    runs.forEach((run, i) => {
      if (run.path.verbs.length === 0) return;
      const id = this.out.add(element, `t${i}`, run.text, { kind: 'path', path: run.path }, run.own, {
        ...run.context,
        matrix: context.matrix,
        fillRule: 'nonzero',
      });
      ids.push(id);
    });
    noteText(this.notes, { ids, substituted, unknown, line: element.line });
    for (const trouble of troubles)
      this.notes.add('changed', `text-trouble:${trouble}`, `a text ${trouble} (line ${element.line})`, ids);
  }

  private textArea(element: SvgElement, context: Context): Area {
    const { runs } = this.texts.read(element, this.sheet.declarationsOf(element), context);
    const areas = runs.map((run) => areaOf(transformPath(run.path, context.matrix), 'nonzero'));
    return areas.length > 0 ? uniteAreas(areas) : emptyArea;
  }

  private picture(element: SvgElement, _: Declared, context: Context): void {
    const { href = '' } = element.attributes;
    const bytes = bytesOfDataUrl(href);
    if (!bytes) {
      const said = `a linked picture (“${href.slice(0, 60)}”) was left out: embed it in the file, or bring it in by itself`;
      this.notes.add('left-out', 'linked-picture', said);
      return;
    }
    let facts: PictureFacts;
    try {
      facts = describePicture(bytes);
    } catch (error) {
      if (!(error instanceof FileRefused)) throw error;
      this.notes.add(
        'left-out',
        'picture-not-read',
        `an embedded picture at line ${element.line} cannot be read and was left out`,
      );
      return;
    }
    const [x, y] = [this.length(element, 'x', context, 'x', 0), this.length(element, 'y', context, 'y', 0)];
    const width = lengthInUserUnits(element.attributes.width, context, 'x');
    const height = lengthInUserUnits(element.attributes.height, context, 'y');
    const place = fitPicture(facts, width, height, (frame, wide, high) =>
      fitViewBox(frame, wide, high, element.attributes.preserveAspectRatio ?? ''),
    );
    if (!place) {
      this.notes.add('left-out', 'nothing-to-draw', `a <image> has no extent and draws nothing (line ${element.line})`);
      return;
    }
    const file = pictureFile(bytes);
    this.pictures.set(file.id, file);
    const inside = { ...context, matrix: multiply(multiply(context.matrix, translation(x, y)), place) };
    const shape: Shape = { kind: 'picture', pictureId: file.id, width: facts.width, height: facts.height };
    const id = this.out.push(element, '', nameOf(element), shape, unpainted, inside, inside.hidden || !inside.visible);
    this.notes.add('taken', 'picture', 'a picture is taken', [id]);
  }

  /** Applies a clip to every item added since `from`. */
  private clip(reference: string, from: number, parent: Context, matrix: Matrix): void {
    if (from === this.out.items.length) return;
    const bounds = () => this.out.boundsSince(from, matrix);
    const area = this.clips.area(reference, matrix, parent, bounds);
    if (area) this.out.clip(area, from);
  }

  private length(element: SvgElement, name: string, context: Context, axis: Axis, otherwise: number): number {
    return lengthInUserUnits(element.attributes[name], context, axis) ?? otherwise;
  }
}
