import type { Drawing, FillRule, Group, Item, Paint } from '../../drawing/item.ts';
import { type Matrix, meanScale, multiply } from '../../geometry/matrix.ts';
import { FileRefused, type ReadingWarning } from '../refusal.ts';
import { readShape } from './outline.ts';
import { readPage } from './page.ts';
import { type OwnStyle, ownStyle, readStyleSheet, type StyleSheet } from './style.ts';
import { readColour, readTransform, userUnits } from './values.ts';
import { WarningList } from './warnings.ts';
import { readSvgTree, type SvgElement } from './xml.ts';

export interface SvgReading {
  readonly drawing: Drawing;
  /** The page size the file gives, in mm; null where it gives none. */
  readonly declaredWidthMm: number | null;
  readonly declaredHeightMm: number | null;
  readonly warnings: readonly ReadingWarning[];
}

/** Drawing files larger than this are refused, in bytes. */
export const largestFile = 40 * 1024 * 1024;

const drawn = new Set(['path', 'rect', 'circle', 'ellipse', 'line', 'polyline', 'polygon']);
/** Elements that draw nothing by themselves. */
const silent = new Set([
  'title',
  'desc',
  'metadata',
  'style',
  'defs',
  'script',
  'linearGradient',
  'radialGradient',
  'pattern',
  'clipPath',
  'mask',
  'marker',
  'symbol',
  'filter',
  'view',
  'cursor',
  'font',
  'font-face',
  'color-profile',
]);

/** What children take over from what they are in. */
interface Inherited {
  readonly matrix: Matrix;
  readonly groupId: string | null;
  readonly fill: string;
  readonly stroke: string;
  readonly strokeWidth: number;
  readonly fillRule: FillRule;
  readonly color: string;
  readonly visible: boolean;
}

/**
 * Reads a drawing from SVG: its outlines in mm with the paint they came with, at the size the file
 * declares (1 unit = 1/96 inch where it declares none). What is not taken is in `warnings`.
 *
 * @param text the whole file
 * @param newId gives ids that are new to the job, one a call
 * @throws FileRefused when the file cannot be used at all
 */
export function readSvg(text: string, newId: () => string): SvgReading {
  if (text.trim() === '') throw new FileRefused('The file is empty. Save or send it again.');
  if (text.length > largestFile) {
    const size = Math.round(text.length / 1024 / 1024);
    throw new FileRefused(
      `The file is ${size} MB; Lambent takes drawings up to ${largestFile / 1024 / 1024} MB. Leave pictures out, or split it.`,
    );
  }
  if (!/^\uFEFF?\s*</.test(text)) {
    throw new FileRefused('The file is not an SVG drawing. Save the drawing as SVG and choose that file.');
  }
  return new SvgReader(newId).read(text);
}

class SvgReader {
  private readonly items: Item[] = [];
  private readonly groups: Group[] = [];
  private readonly warnings = new WarningList();
  private sheet: StyleSheet = { rules: [], unread: [] };

  constructor(private readonly newId: () => string) {}

  read(text: string): SvgReading {
    const { root, unknownEntities } = readSvgTree(text);
    for (const [name, count] of unknownEntities) {
      this.warnings.add(
        'entity-not-followed',
        `&${name}; is an entity of the file’s own, which is not followed`,
        count,
      );
    }
    this.sheet = readStyleSheet(styleText(root));
    for (const selector of this.sheet.unread) {
      this.warnings.add('style-not-read', `the style rule “${selector}” is of a kind not read yet`);
    }
    const page = readPage(root);
    if (page.declaredWidthMm === null && page.declaredHeightMm === null) {
      this.warnings.add(
        'no-physical-size',
        'the file gives no size in mm, cm or inches; 96 units are taken for an inch',
      );
    }
    this.children(root, this.styled(root, ownStyle(root, this.sheet), startWith(page.toMm)));
    if (this.items.length === 0) this.warnings.add('nothing-drawn', 'the file holds nothing that can be burnt');
    return {
      drawing: { items: this.items, groups: this.groups },
      declaredWidthMm: page.declaredWidthMm,
      declaredHeightMm: page.declaredHeightMm,
      warnings: this.warnings.list(),
    };
  }

  private children(parent: SvgElement, inherited: Inherited): void {
    for (const element of parent.children) this.element(element, inherited);
  }

  private element(element: SvgElement, inherited: Inherited): void {
    const { name } = element;
    if (silent.has(name)) return;
    if (!drawn.has(name) && name !== 'g' && name !== 'a') {
      this.warnings.add(`${name}-not-read`, `<${name}> is not taken yet and was left out (line ${element.line})`);
      return;
    }
    const own = ownStyle(element, this.sheet);
    if (isHidden(own)) {
      this.warnings.add('hidden-left-out', 'a hidden part was left out');
      return;
    }
    const context = this.styled(element, own, inherited);
    this.reportEffects(own);
    if (name === 'g' || name === 'a') {
      const before = this.items.length;
      const group: Group = { id: this.newId(), name: nameOf(element), parentId: inherited.groupId };
      this.groups.push(group);
      this.children(element, { ...context, groupId: group.id });
      if (this.items.length === before) this.groups.splice(this.groups.indexOf(group));
      return;
    }
    this.shape(element, context);
  }

  private shape(element: SvgElement, context: Inherited): void {
    const read = readShape(element);
    if (!read) {
      this.warnings.add(
        'nothing-to-draw',
        `a <${element.name}> has no extent and draws nothing (line ${element.line})`,
      );
      return;
    }
    if (read.problem) {
      this.warnings.add('damaged-shape', `the <${element.name}> at line ${element.line} ${read.problem}`);
    }
    if (read.shape.kind === 'path' && read.shape.path.verbs.length < 2) {
      this.warnings.add('stray-point', 'a point without extent was left out');
      return;
    }
    if (!context.visible) {
      this.warnings.add('hidden-left-out', 'a hidden part was left out');
      return;
    }
    const paint = this.paint(context);
    if (paint.stroke === null && paint.fill === null) {
      this.warnings.add('unpainted-left-out', 'an outline with neither stroke nor fill was left out');
      return;
    }
    this.items.push({
      id: this.newId(),
      name: nameOf(element),
      shape: read.shape,
      matrix: context.matrix,
      paint,
      fillRule: context.fillRule,
      groupId: context.groupId,
      pinned: null,
    });
  }

  private paint(context: Inherited): Paint {
    const strokeWidthMm = context.strokeWidth * meanScale(context.matrix);
    let stroke = this.colour(context.stroke, context.color);
    if (stroke !== null && !(strokeWidthMm > 0)) {
      this.warnings.add('zero-width-stroke', 'a stroke of width 0 does not show, and is not taken');
      stroke = null;
    }
    return {
      stroke,
      strokeWidthMm: stroke === null ? 0 : Math.round(strokeWidthMm * 1e4) / 1e4,
      fill: this.colour(context.fill, context.color),
    };
  }

  private colour(text: string, current: string): string | null {
    const said = text.trim();
    if (said === 'none' || said === 'transparent') return null;
    if (said.toLowerCase() === 'currentcolor') return this.colour(current, '#000000');
    if (said.startsWith('url(')) {
      this.warnings.add('gradient-as-grey', 'a gradient or pattern is taken as mid grey');
      return '#808080';
    }
    const read = readColour(said);
    if (!read) {
      this.warnings.add('colour-not-read', `“${said.slice(0, 40)}” is not a colour; black is taken`);
      return '#000000';
    }
    if (read.alpha === 0) return null;
    if (read.alpha < 1) this.warnings.add('see-through', 'a see-through colour is taken as solid');
    return read.colour;
  }

  private styled(element: SvgElement, own: OwnStyle, inherited: Inherited): Inherited {
    const said = (property: string) => {
      const value = own(property)?.trim();
      return value === undefined || value === '' || value === 'inherit' ? undefined : value;
    };
    let { matrix } = inherited;
    const transform = element.name === 'svg' ? undefined : element.attributes.get('transform');
    if (transform !== undefined) {
      const step = readTransform(transform);
      if (step) matrix = multiply(matrix, step);
      else {
        this.warnings.add(
          'transform-not-read',
          `the transform “${transform.slice(0, 40)}” at line ${element.line} makes no sense and was not applied`,
        );
      }
    }
    const fillRule = said('fill-rule');
    const visibility = said('visibility');
    return {
      matrix,
      groupId: inherited.groupId,
      fill: said('fill') ?? inherited.fill,
      stroke: said('stroke') ?? inherited.stroke,
      strokeWidth: userUnits(said('stroke-width')) ?? inherited.strokeWidth,
      fillRule: fillRule === 'evenodd' || fillRule === 'nonzero' ? fillRule : inherited.fillRule,
      color: said('color') ?? inherited.color,
      visible: visibility === undefined ? inherited.visible : visibility === 'visible',
    };
  }

  /** What changes how an element looks and is not applied yet. */
  private reportEffects(own: OwnStyle): void {
    const has = (property: string) => (own(property) ?? 'none').trim() !== 'none';
    if (has('clip-path')) this.warnings.add('clip-not-applied', 'a clipped part is taken whole');
    if (has('mask')) this.warnings.add('mask-not-applied', 'a masked part is taken whole');
    if (has('filter')) this.warnings.add('filter-not-applied', 'a filter is not applied');
    if (has('marker-start') || has('marker-mid') || has('marker-end')) {
      this.warnings.add('marker-not-read', 'arrowheads and other markers are left out');
    }
    if (has('stroke-dasharray')) this.warnings.add('dashes-as-solid', 'a dashed stroke is taken as a solid line');
    if (Number(own('opacity') ?? 1) < 1) this.warnings.add('see-through', 'a see-through colour is taken as solid');
  }
}

function isHidden(own: OwnStyle): boolean {
  return own('display')?.trim() === 'none' || Number(own('opacity') ?? 1) === 0;
}

function startWith(matrix: Matrix): Inherited {
  return {
    matrix,
    groupId: null,
    fill: '#000000',
    stroke: 'none',
    strokeWidth: 1,
    fillRule: 'nonzero',
    color: '#000000',
    visible: true,
  };
}

/** The text of every style element, wherever it stands. */
function styleText(root: SvgElement): string {
  const parts: string[] = [];
  const waiting = [root];
  for (let element = waiting.pop(); element; element = waiting.pop()) {
    if (element.name === 'style') parts.push(element.text);
    for (let i = element.children.length - 1; i >= 0; i--) waiting.push(element.children[i]);
  }
  return parts.join('\n');
}

/** A title, else an id that a person might have given. */
function nameOf(element: SvgElement): string | null {
  const label = element.attributes.get('aria-label') ?? element.attributes.get('id');
  return label?.trim() || null;
}
