import type { ReadingChoices } from '../../document/arrival.ts';
import { type Group, unpainted } from '../../document/item.ts';
import { multiply, translation } from '../../geometry/paths/matrix.ts';
import { FontBook } from '../../text/fonts.ts';
import { noteLayers } from '../named-layers.ts';
import { Notes, type PictureFile, type Reading } from '../reading.ts';
import { FileRefused } from '../refusal.ts';
import { noteNoFonts, noteText } from '../text-notes.ts';
import { viewportArea } from './clip.ts';
import { type Context, enter, startContext } from './context.ts';
import { dashesOf } from './dashes.ts';
import { noteEffects, noteUnread } from './effects.ts';
import { drawn, holders, isForUs, isWithin, nameOf, silent } from './elements.ts';
import type { Host } from './host.ts';
import { readImage } from './image.ts';
import { SvgItems } from './items.ts';
import { LayersSaid } from './layers-said.ts';
import { Limits } from './limits.ts';
import { MarkerReader } from './markers.ts';
import { readShape } from './outline.ts';
import { readPage } from './page.ts';
import { PaintReader } from './paint.ts';
import { placing } from './placed-by.ts';
import type { Declared } from './specified.ts';
import { StyleSheet } from './style.ts';
import { TextReader } from './text.ts';
import { pageTransform, transformOf } from './transform.ts';
import { type Styled, viewportOf } from './viewport.ts';
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

class SvgReader implements Host {
  private readonly groups: Group[] = [];
  private readonly layers: LayersSaid;
  private readonly pictures = new Map<string, PictureFile>();
  readonly notes = new Notes();
  byId!: ReadonlyMap<string, SvgElement>;
  sheet!: StyleSheet;
  out!: SvgItems;
  private limits!: Limits;
  private texts!: TextReader;
  private readonly markers = new MarkerReader(this);
  private instances = 0;

  constructor(
    private readonly idFor: (place: string) => string,
    private readonly fonts: FontBook,
    private readonly choices: ReadingChoices,
  ) {
    this.layers = new LayersSaid(choices);
  }

  read(text: string): Reading {
    const tree = readSvgTree(text);
    const { root, elements, remarks } = tree;
    noteUnread(tree, this.notes);
    this.byId = tree.byId;
    this.sheet = new StyleSheet(elements, {
      variables: text.includes('var('),
      keywords: /\b(?:inherit|initial|unset|revert)\b/.test(text),
    });
    for (const selector of this.sheet.unread) {
      this.notes.add('left-out', 'style-not-read', `the style rule “${selector}” is not followed`);
    }
    const paints = new PaintReader(this.byId, this.sheet);
    this.out = new SvgItems(this.idFor, paints, this.notes, this.choices);
    this.texts = new TextReader(this.byId, this.sheet, this.fonts);
    this.limits = new Limits(this, (element, context) => this.texts.area(element, context));
    const own = this.sheet.declarationsOf(root);
    const page = readPage(root, own, remarks);
    if (!page.size.sure) {
      this.notes.add(
        'changed',
        'no-physical-size',
        'the file gives no size in mm, cm or inches; 96 units are taken for an inch',
      );
    }
    const start = startContext(pageTransform(own, page), page.viewBox);
    const inside = enter(root, own, start, null);
    this.children(root, { ...inside, rootFontSize: inside.fontSize });
    noteEffects(own, this.notes);
    noteLayers(this.layers.named, this.notes);
    this.out.noteOutside(page.size.pageWidthMm, page.size.pageHeightMm);
    if (this.out.items.length === 0)
      this.notes.add('left-out', 'nothing-drawn', 'the file holds nothing that can be burnt');
    return {
      format: 'svg',
      drawing: { items: this.out.items, groups: this.groups },
      pictures: [...this.pictures.values()],
      size: page.size,
      notes: this.notes.list(),
      layers: this.layers.named,
      pageCount: 1,
    };
  }

  children(parent: SvgElement, context: Context): void {
    for (const element of parent.children) this.element(element, context);
  }

  aside(read: () => void): ReturnType<Host['aside']> {
    const [items, groups] = [this.out.items.length, this.groups.length];
    const notes = this.notes.apart(read);
    this.groups.splice(groups);
    return { items: this.out.items.splice(items), notes };
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
    const own = this.sheet.declarationsOf(element, parent.variables);
    const context = this.inside(element, own, parent);
    const before = this.out.items.length;
    read.call(this, element, own, context);
    this.layers.take(element, this.out.items, before);
    noteEffects(own, this.notes);
    this.limits.apply(own, before, context);
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
    return enter(element, own, parent, transformOf(element, own, parent, this.notes));
  }

  private holder(element: SvgElement, own: Declared, outer: Context): void {
    const before = this.out.items.length;
    const group: Group = { id: this.out.id(element), name: nameOf(element), parentId: outer.groupId };
    const index = this.groups.push(group) - 1;
    const context = { ...outer, groupId: group.id };
    if (element.name === 'switch') {
      const chosen = element.children.find((child) => !silent.has(child.name) && isForUs(child));
      if (chosen) this.element(chosen, context);
    } else if (element.name === 'use') {
      this.use(element, own, context);
    } else if (element.name === 'svg' || element.name === 'symbol') {
      this.viewport({ element, own }, context, { element, own });
    } else {
      this.children(element, context);
    }
    if (this.out.items.length === before) this.groups.splice(index);
  }

  private use(element: SvgElement, own: Declared, context: Context): void {
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
    const side = (axis: 'x' | 'y') => placing(element, own, axis, context, axis) ?? 0;
    const moved = translation(side('x'), side('y'));
    const inside = { ...context, matrix: multiply(context.matrix, moved) };
    this.out.uses.push(element);
    if (target.name === 'symbol' || target.name === 'svg') {
      const said = this.sheet.declarationsOf(target, context.variables);
      this.viewport({ element: target, own: said }, this.inside(target, said, inside), { element, own });
    } else {
      this.element(target, inside);
    }
    this.out.uses.pop();
  }

  /** A nested `svg` or an instance of a `symbol`: a viewport of its own, which hides what lies outside it. */
  private viewport({ element, own }: Styled, parent: Context, sized: Styled): void {
    const viewport = viewportOf({ element, own }, parent, sized);
    if (!viewport) return;
    const { matrix, box, frame } = viewport;
    const before = this.out.items.length;
    this.children(element, { ...parent, matrix, viewBox: box, viewportWidth: box.width, viewportHeight: box.height });
    const overflow = own.overflow?.trim();
    if (overflow !== 'visible' && overflow !== 'auto') {
      this.out.clip(viewportArea(frame, parent.matrix), before);
    }
  }

  private shape(element: SvgElement, own: Declared, context: Context): void {
    const read = readShape(element, own, context);
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
    const asked = {
      wanted: this.choices.dashes === 'dashed',
      pathLength: element.attributes.pathLength,
      idOf: () => this.out.id(element),
      notes: this.notes,
    };
    const dashes = dashesOf(read.shape, own, context, asked);
    if (!dashes) this.out.add(element, '', name, read.shape, own, context);
    else {
      // What is filled as well keeps its fill whole, and its line becomes an item beside it.
      if (context.fill.trim() !== 'none')
        this.out.add(element, 'f', name, read.shape, own, { ...context, stroke: 'none' });
      this.out.add(element, '', name, dashes, own, { ...context, fill: 'none' });
    }
    this.markers.read(element, read.shape, context);
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

  private picture(element: SvgElement, own: Declared, context: Context): void {
    const read = readImage(element, own, context, this.notes);
    if (!read) return;
    const { file, shape, place } = read;
    this.pictures.set(file.id, file);
    const inside = { ...context, matrix: multiply(context.matrix, place) };
    const id = this.out.push(element, '', nameOf(element), shape, unpainted, inside, inside.hidden || !inside.visible);
    this.notes.add('taken', 'picture', 'a picture is taken', [id]);
    if (inside.opacity < 1) this.notes.add('changed', 'see-through', 'a see-through picture is taken as solid', [id]);
  }
}
