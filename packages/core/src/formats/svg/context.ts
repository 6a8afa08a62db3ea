import type { FillRule } from '../../document/item.ts';
import { type Matrix, multiply, translation } from '../../geometry/paths/matrix.ts';
import type { ViewBox } from './page.ts';
import { type Declared, ownVariables } from './specified.ts';
import { type LengthContext, lengthInUserUnits, readTransform } from './values.ts';
import type { SvgElement } from './xml.ts';

/** What children take over from what they are in. */
export interface Context extends LengthContext {
  /** User units to mm. */
  readonly matrix: Matrix;
  readonly viewBox: ViewBox;
  readonly groupId: string | null;
  /** Whether something above is not shown. */
  readonly hidden: boolean;
  readonly visible: boolean;
  /** How solid all that is drawn is, by groups and elements together. */
  readonly opacity: number;
  readonly fill: string;
  readonly fillOpacity: number;
  readonly fillRule: FillRule;
  readonly clipRule: FillRule;
  readonly stroke: string;
  readonly strokeOpacity: number;
  readonly strokeWidth: number;
  readonly cap: string;
  readonly join: string;
  readonly dashes: string;
  readonly dashOffset: number;
  readonly color: string;
  readonly fontFamily: string;
  readonly bold: boolean;
  readonly italic: boolean;
  readonly anchor: string;
  readonly letterSpacing: number;
  readonly wordSpacing: number;
  readonly baseline: string;
  readonly keepSpaces: boolean;
  /** Markers at the first, the middle and the last vertices, as references. */
  readonly markerStart: string;
  readonly markerMid: string;
  readonly markerEnd: string;
  /** In a marker, what the line it stands on is painted with. */
  readonly contextFill: string;
  readonly contextStroke: string;
  /** Custom properties by name. */
  readonly variables: Declared;
}

/** What holds at the root of an SVG, before anything is said. */
export function startContext(matrix: Matrix, viewBox: ViewBox): Context {
  return {
    matrix,
    viewBox,
    viewportWidth: viewBox.width,
    viewportHeight: viewBox.height,
    groupId: null,
    hidden: false,
    visible: true,
    opacity: 1,
    fill: '#000000',
    fillOpacity: 1,
    fillRule: 'nonzero',
    clipRule: 'nonzero',
    stroke: 'none',
    strokeOpacity: 1,
    strokeWidth: 1,
    cap: 'butt',
    join: 'miter',
    dashes: 'none',
    dashOffset: 0,
    color: '#000000',
    fontSize: 16,
    rootFontSize: 16,
    fontFamily: '',
    bold: false,
    italic: false,
    anchor: 'start',
    letterSpacing: 0,
    wordSpacing: 0,
    baseline: 'auto',
    keepSpaces: false,
    markerStart: 'none',
    markerMid: 'none',
    markerEnd: 'none',
    contextFill: 'none',
    contextStroke: 'none',
    variables: {},
  };
}

/** A number or per cent, such as an opacity. */
export function readShare(text: string | undefined, otherwise: number): number {
  if (text === undefined) return otherwise;
  const value = text.trim().endsWith('%') ? Number.parseFloat(text) / 100 : Number(text);
  return Number.isFinite(value) ? Math.min(1, Math.max(0, value)) : otherwise;
}

const fontSizes: Record<string, number> = {
  'xx-small': 9,
  'x-small': 10,
  small: 13,
  medium: 16,
  large: 18,
  'x-large': 24,
  'xx-large': 32,
};

type Inside = { -readonly [K in keyof Context]: Context[K] };
type Apply = (value: string, inside: Inside, parent: Context) => void;

const fillRule = (value: string) => (value === 'evenodd' || value === 'nonzero' ? value : null);

/** What each inherited property does to the context, which starts as its parent's. */
const appliers: Record<string, Apply> = {
  fill: (value, inside) => {
    inside.fill = value;
  },
  'fill-opacity': (value, inside, parent) => {
    inside.fillOpacity = readShare(value, parent.fillOpacity);
  },
  'fill-rule': (value, inside, parent) => {
    inside.fillRule = fillRule(value) ?? parent.fillRule;
  },
  'clip-rule': (value, inside, parent) => {
    inside.clipRule = fillRule(value) ?? parent.clipRule;
  },
  stroke: (value, inside) => {
    inside.stroke = value;
  },
  'stroke-opacity': (value, inside, parent) => {
    inside.strokeOpacity = readShare(value, parent.strokeOpacity);
  },
  'stroke-width': (value, inside, parent) => {
    inside.strokeWidth = lengthInUserUnits(value, inside, 'diagonal') ?? parent.strokeWidth;
  },
  'stroke-linecap': (value, inside) => {
    inside.cap = value;
  },
  'stroke-linejoin': (value, inside) => {
    inside.join = value;
  },
  'stroke-dasharray': (value, inside) => {
    inside.dashes = value;
  },
  'stroke-dashoffset': (value, inside, parent) => {
    inside.dashOffset = lengthInUserUnits(value, inside, 'diagonal') ?? parent.dashOffset;
  },
  color: (value, inside, parent) => {
    inside.color = value.toLowerCase() === 'currentcolor' ? parent.color : value;
  },
  visibility: (value, inside) => {
    inside.visible = value === 'visible';
  },
  'font-family': (value, inside) => {
    inside.fontFamily = value;
  },
  'font-weight': (value, inside) => {
    inside.bold = /^(?:bold|bolder)$/.test(value) || Number(value) >= 600;
  },
  'font-style': (value, inside) => {
    inside.italic = value.startsWith('italic') || value.startsWith('oblique');
  },
  'text-anchor': (value, inside) => {
    inside.anchor = value;
  },
  'letter-spacing': (value, inside) => {
    inside.letterSpacing = lengthInUserUnits(value, inside, 'x') ?? 0;
  },
  'word-spacing': (value, inside) => {
    inside.wordSpacing = lengthInUserUnits(value, inside, 'x') ?? 0;
  },
  'dominant-baseline': (value, inside) => {
    inside.baseline = value;
  },
  'white-space': (value, inside) => {
    inside.keepSpaces = value.startsWith('pre') || value === 'break-spaces';
  },
  'marker-start': (value, inside) => {
    inside.markerStart = value;
  },
  'marker-mid': (value, inside) => {
    inside.markerMid = value;
  },
  'marker-end': (value, inside) => {
    inside.markerEnd = value;
  },
};

/** The context inside an element: what it says itself over what it takes over, its transform applied. */
export function enter(element: SvgElement, own: Declared, parent: Context, transform: Matrix | null): Context {
  // Every context has its fields in the same order, which keeps the engine's reading of them fast.
  const inside: Inside = { ...parent, variables: ownVariables(own, parent.variables) };
  const size = own['font-size'];
  if (size !== undefined) {
    const read = fontSizes[size] ?? lengthInFontUnits(size, parent);
    if (read !== null && read >= 0) inside.fontSize = read;
  }
  for (const property in own) {
    const apply = appliers[property];
    if (!apply) continue;
    const value = own[property].trim();
    if (value !== '') apply(value, inside, parent);
  }
  const space = element.attributes.space;
  if (space !== undefined && own['white-space'] === undefined) inside.keepSpaces = space === 'preserve';
  if (transform) inside.matrix = multiply(parent.matrix, transform);
  const opacity = readShare(own.opacity, 1);
  inside.opacity = parent.opacity * opacity;
  if (own.display?.trim() === 'none' || opacity === 0) inside.hidden = true;
  return inside;
}

/** Per cent of a font size are of the size around it. */
function lengthInFontUnits(text: string, parent: Context): number | null {
  if (text.endsWith('%')) return (Number.parseFloat(text) / 100) * parent.fontSize;
  return lengthInUserUnits(text, parent, 'y');
}

const keywords: Record<string, number> = { left: 0, top: 0, center: 0.5, right: 1, bottom: 1 };

/** A frame that `transform-origin` is measured in, in user units. */
export type OriginFrame = Readonly<{ x: number; y: number; width: number; height: number }>;

/** `translate`, `rotate`, `scale` and `transform`, in the order in which CSS applies them; '' where none is given. */
function transformText({ translate = 'none', rotate = 'none', scale = 'none', transform = '' }: Declared): string {
  const step = (name: string, said: string) =>
    said.trim() === 'none' ? '' : `${name}(${said.trim().split(/\s+/).join(',')}) `;
  const own = transform.trim() === 'none' ? '' : transform;
  return `${step('translate', translate)}${step('rotate', rotate)}${step('scale', scale)}${own}`.trim();
}

/**
 * An element's own transform about its origin, from its attribute or CSS.
 * @param frame gives the element's bounds, asked only where `transform-box` needs them; null when it has none
 * @returns `undefined` when the transform makes no sense
 */
export function ownTransform(
  own: Declared,
  context: Context,
  frame: () => OriginFrame | null,
): Matrix | null | undefined {
  const text = transformText(own);
  if (text === '') return null;
  const matrix = readTransform(text, context);
  if (!matrix) return undefined;
  const origin = own['transform-origin'];
  const box = own['transform-box']?.trim();
  const onItself = box === 'fill-box' || box === 'stroke-box' || box === 'content-box' || box === 'border-box';
  if (origin === undefined && !onItself) return matrix;
  const around = onItself ? frame() : { ...context.viewBox };
  if (!around) return matrix;
  const words = (origin ?? (onItself ? '50% 50%' : '0 0')).trim().split(/\s+/);
  const upright = words[0] === 'top' || words[0] === 'bottom' || words[1] === 'left' || words[1] === 'right';
  const [alongX, alongY = '50%'] = upright ? [words[1] ?? '50%', words[0]] : words;
  const place = (word: string, start: number, extent: number) => {
    if (keywords[word] !== undefined) return start + keywords[word] * extent;
    if (word.endsWith('%')) return start + (Number.parseFloat(word) / 100) * extent;
    return start + (lengthInUserUnits(word, context, 'x') ?? 0);
  };
  const x = place(alongX, around.x, around.width);
  const y = place(alongY, around.y, around.height);
  return multiply(translation(x, y), multiply(matrix, translation(-x, -y)));
}
