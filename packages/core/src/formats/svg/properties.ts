/*
 * The properties that bear on where an SVG draws and in which colours, and what becomes of each. A test goes through
 * the list: one that changes neither what is read nor the notes fails it.
 */

/** How a property is followed here. */
export interface Property {
  /** Whether children take it over. */
  readonly inherited: boolean;
  /** Whether an attribute of its name sets it, too; others are set by CSS alone, or are no style as attributes. */
  readonly attribute: boolean;
  /** What it is before anything is said; null where nothing said is the same. */
  readonly initial: string | null;
  /** Why it is not followed, as the rest of a sentence; null where it is. */
  readonly unread: string | null;
}

const inherited = (initial: string): Property => ({ inherited: true, attribute: true, initial, unread: null });
const own: Property = { inherited: false, attribute: true, initial: null, unread: null };
const inCssAlone: Property = { inherited: false, attribute: false, initial: null, unread: null };
const noted = (unread: string): Property => ({ inherited: false, attribute: true, initial: null, unread });
const notSet = 'text is set without it';

export const properties: Readonly<Record<string, Property>> = {
  fill: inherited('#000000'),
  'fill-opacity': inherited('1'),
  'fill-rule': inherited('nonzero'),
  'clip-rule': inherited('nonzero'),
  stroke: inherited('none'),
  'stroke-width': inherited('1'),
  'stroke-opacity': inherited('1'),
  'stroke-dasharray': inherited('none'),
  'stroke-dashoffset': inherited('0'),
  'stroke-linejoin': inherited('miter'),
  'stroke-linecap': inherited('butt'),
  color: inherited('#000000'),
  visibility: inherited('visible'),
  'font-family': inherited(''),
  'font-size': inherited('16'),
  'font-style': inherited('normal'),
  'font-weight': inherited('normal'),
  'text-anchor': inherited('start'),
  'letter-spacing': inherited('0'),
  'word-spacing': inherited('0'),
  'dominant-baseline': inherited('auto'),
  'white-space': { ...inherited('normal'), attribute: false },
  'marker-start': inherited('none'),
  'marker-mid': inherited('none'),
  'marker-end': inherited('none'),
  opacity: own,
  display: own,
  overflow: own,
  'clip-path': own,
  mask: own,
  'vector-effect': own,
  'stop-color': own,
  'stop-opacity': own,
  'baseline-shift': own,
  'writing-mode': own,
  transform: own,
  'transform-origin': own,
  'transform-box': own,
  translate: inCssAlone,
  rotate: inCssAlone,
  scale: inCssAlone,
  // As attributes these are read where the elements that have them are.
  x: inCssAlone,
  y: inCssAlone,
  width: inCssAlone,
  height: inCssAlone,
  cx: inCssAlone,
  cy: inCssAlone,
  r: inCssAlone,
  rx: inCssAlone,
  ry: inCssAlone,
  d: inCssAlone,
  filter: noted('the part is taken without it'),
  'mix-blend-mode': noted('colours are taken as they are'),
  'stroke-miterlimit': noted('sharp corners of a wide stroke keep their points up to 4 times its width'),
  clip: noted('the part is taken whole'),
  'offset-path': noted('the part is taken where it stands'),
  zoom: noted('the part is taken at its own size'),
  'text-decoration': noted('the line is left out'),
  'text-decoration-line': noted('the line is left out'),
  'text-transform': noted('text is set as it is written'),
  'font-stretch': noted(notSet),
  'font-variant': noted(notSet),
  'font-size-adjust': noted(notSet),
  'alignment-baseline': noted(notSet),
  'glyph-orientation-vertical': noted(notSet),
  direction: noted('text is set from left to right'),
  'unicode-bidi': noted('text is set from left to right'),
  'inline-size': noted('text is set on one line'),
  'shape-inside': noted('text is set on one line'),
};

/** Attributes that style an element; others never do. */
export const presentation: ReadonlySet<string> = new Set(
  Object.keys(properties).filter((name) => properties[name].attribute),
);

/** Values of unread properties that change nothing. */
const plain = /^(?:none|normal|auto|0|1|4|ltr|baseline|inherit|initial|unset)$/i;

/** What of an element’s own properties is not followed, each as a sentence. */
export function unreadProperties(declared: Readonly<Record<string, string>>): Map<string, string> {
  const said = new Map<string, string>();
  for (const name in declared) {
    const unread = properties[name]?.unread;
    const value = declared[name].trim();
    if (unread && !plain.test(value)) said.set(name, `“${name}: ${value.slice(0, 40)}” is not followed: ${unread}`);
  }
  return said;
}
