import { describe, expect, test } from '@jest/globals';
import { idFor, testFonts } from '../../fixtures/files.ts';
import { properties } from './properties.ts';
import { readSvg } from './read.ts';

const page = 'xmlns="http://www.w3.org/2000/svg" width="100mm" height="100mm" viewBox="0 0 100 100"';
const defs = `<defs>
  <clipPath id="c"><rect width="15" height="15"/></clipPath>
  <mask id="m"><rect width="15" height="15" fill="#fff"/></mask>
  <marker id="k" markerWidth="4" markerHeight="4"><rect width="2" height="2" fill="red"/></marker>
  <linearGradient id="g"><stop offset="0" stop-color="red"/><stop offset="1" stop-color="blue" style="STOP"/></linearGradient>
</defs>`;

/** Elements that a property may change, each with a style of its own. */
const elements: Record<string, (style: string) => string> = {
  rect: (style) => `<rect width="40" height="20" fill="red" stroke="blue" stroke-width="2" style="${style}"/>`,
  plain: (style) => `<rect width="40" height="20" style="${style}"/>`,
  circle: (style) => `<circle r="10" cx="20" cy="20" style="${style}"/>`,
  path: (style) => `<path d="M0 0h9v9l9 9" fill="none" stroke="red" style="${style}"/>`,
  ring: (style) => `<path d="M0 0h9v9h-9zM2 2h5v5h-5z" style="${style}"/>`,
  dashed: (style) => `<path d="M0 0h9" stroke="red" stroke-dasharray="3 1" style="${style}"/>`,
  text: (style) => `<text x="10" y="20" font-size="8" style="${style}">A  b</text>`,
  span: (style) => `<text x="10" y="20" font-size="8"><tspan style="${style}">A  b</tspan></text>`,
  clipped: (style) =>
    `<clipPath id="q"><path d="M0 0h9v9h-9zM2 2h5v5h-5z" style="${style}"/></clipPath><rect width="30" height="30" clip-path="url(#q)"/>`,
  nested: (style) => `<svg width="10" height="10" style="${style}"><rect width="20" height="20"/></svg>`,
  coloured: (style) => `<g style="${style}"><rect width="9" height="9" fill="currentColor"/></g>`,
  turned: (style) => `<rect width="40" height="20" transform="rotate(30)" style="${style}"/>`,
  scaled: (style) => `<path d="M0 0h9" stroke="red" transform="scale(3)" style="${style}"/>`,
  gradient: (style) => `<rect width="9" height="9" fill="url(#g)" data-x="${style}"/>`,
};

/** What each property is set to, and on what, to see whether it is followed or noted. */
const samples: Record<string, [on: keyof typeof elements, value: string]> = {
  fill: ['plain', 'lime'],
  'fill-opacity': ['plain', '0'],
  'fill-rule': ['ring', 'evenodd'],
  'clip-rule': ['clipped', 'evenodd'],
  stroke: ['plain', 'lime'],
  'stroke-width': ['rect', '5'],
  'stroke-opacity': ['rect', '0'],
  'stroke-dasharray': ['rect', '3 1'],
  'stroke-dashoffset': ['dashed', '2'],
  'stroke-linejoin': ['rect', 'round'],
  'stroke-linecap': ['rect', 'round'],
  color: ['coloured', 'lime'],
  visibility: ['plain', 'hidden'],
  'font-family': ['text', 'Bitter'],
  'font-size': ['text', '20px'],
  'font-style': ['text', 'italic'],
  'font-weight': ['text', 'bold'],
  'text-anchor': ['text', 'end'],
  'letter-spacing': ['text', '3px'],
  'word-spacing': ['text', '3px'],
  'dominant-baseline': ['text', 'middle'],
  'white-space': ['text', 'pre'],
  'marker-start': ['path', 'url(#k)'],
  'marker-mid': ['path', 'url(#k)'],
  'marker-end': ['path', 'url(#k)'],
  opacity: ['plain', '0'],
  display: ['plain', 'none'],
  overflow: ['nested', 'visible'],
  'clip-path': ['plain', 'url(#c)'],
  mask: ['plain', 'url(#m)'],
  'vector-effect': ['scaled', 'non-scaling-stroke'],
  'stop-color': ['gradient', 'lime'],
  'stop-opacity': ['gradient', '0.5'],
  'baseline-shift': ['span', 'super'],
  'writing-mode': ['text', 'vertical-rl'],
  transform: ['plain', 'rotate(20deg)'],
  'transform-origin': ['turned', '50% 50%'],
  'transform-box': ['turned', 'fill-box'],
  translate: ['plain', '5px 3px'],
  rotate: ['plain', '20deg'],
  scale: ['plain', '2'],
  x: ['plain', '5px'],
  y: ['plain', '5px'],
  width: ['plain', '5px'],
  height: ['plain', '5px'],
  cx: ['circle', '5px'],
  cy: ['circle', '5px'],
  r: ['circle', '5px'],
  rx: ['plain', '5px'],
  ry: ['plain', '5px'],
  d: ['path', "path('M0 0h50')"],
  filter: ['plain', 'blur(3px)'],
  'mix-blend-mode': ['plain', 'multiply'],
  'stroke-miterlimit': ['rect', '1.1'],
  clip: ['plain', 'rect(0 0 1px 1px)'],
  'offset-path': ['plain', "path('M5 5h9')"],
  zoom: ['plain', '2'],
  'text-decoration': ['text', 'underline'],
  'text-decoration-line': ['text', 'underline'],
  'text-transform': ['text', 'uppercase'],
  'font-stretch': ['text', 'condensed'],
  'font-variant': ['text', 'small-caps'],
  'font-size-adjust': ['text', '0.5'],
  'alignment-baseline': ['text', 'middle'],
  'glyph-orientation-vertical': ['text', '90deg'],
  direction: ['text', 'rtl'],
  'unicode-bidi': ['text', 'bidi-override'],
  'inline-size': ['text', '20px'],
  'shape-inside': ['text', 'url(#c)'],
};
// What stands for several properties at once.
const shorthands: typeof samples = { font: ['text', 'bold 20px/1.2 Bitter, serif'], marker: ['path', 'url(#k)'] };

function outcome(on: keyof typeof elements, style: string, stop = '') {
  const body = `${defs.replace('STOP', stop)}${elements[on](style)}`;
  const { drawing, notes } = readSvg(`<svg ${page}>${body}</svg>`, idFor, testFonts, { dashes: 'dashed' });
  return { drawing, notes: notes.map(({ code, message }) => `${code} ${message}`) };
}

describe('every property that bears on what is drawn has an effect, or a note', () => {
  test.each(Object.entries({ ...samples, ...shorthands }))('%s', (name, [on, value]) => {
    const isStop = name.startsWith('stop-');
    const changed = isStop ? outcome(on, '', `${name}:${value}`) : outcome(on, `${name}:${value}`);
    expect(changed).not.toEqual(outcome(on, ''));
  });
  test('the list and the samples are the same', () => {
    expect(Object.keys(samples).sort()).toEqual(Object.keys(properties).sort());
  });
  test('what is followed says nothing, what is not has one note by its name', () => {
    const notes = (name: string) => outcome(samples[name][0], `${name}:${samples[name][1]}`).notes;
    for (const [name, { unread }] of Object.entries(properties)) {
      const said = notes(name).filter((note) => note.startsWith('property-not-followed'));
      expect([name, said.length]).toEqual([name, unread === null ? 0 : 1]);
      if (unread !== null) expect(said[0]).toContain(`“${name}: ${samples[name][1].slice(0, 40)}” is not followed`);
    }
  });
});
