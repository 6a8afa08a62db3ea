// Hostile files from a seed: good ones that are cut, flipped and spliced, and some that are built to break readers.
import { deflateSync, gzipSync } from 'node:zlib';
import { encodePixels, writeDxf, writePdf, writeSvg } from '@lambent/core/formats';
import { PathBuilder } from '@lambent/core/geometry';
import { randomFrom } from './random.mjs';

const page = { minX: 0, minY: 0, maxX: 200, maxY: 100 };
const path = new PathBuilder().moveTo(10, 10).lineTo(60, 12).cubicTo(80, 40, 20, 60, 10, 50).close().build();
const item = (id, paint) => ({
  id,
  name: 'part',
  shape: { kind: 'path', path },
  matrix: [1, 0, 0, 1, 0, 0],
  paint,
  fillRule: 'nonzero',
  groupId: null,
  pinned: null,
  hidden: false,
});
const outgoing = {
  page,
  layers: [
    {
      name: 'Cut',
      meant: { id: 'cut', operation: 'cut' },
      colour: '#D0481E',
      items: [item('a', { stroke: '#D0481E', strokeWidthMm: 0.1, fill: null })],
    },
    {
      name: 'Engrave',
      meant: null,
      colour: '#5B3FA0',
      items: [item('b', { stroke: null, strokeWidthMm: 0, fill: '#5B3FA0' })],
    },
  ],
  pictures: new Map(),
};
const text = (value) => new TextEncoder().encode(value);
const busy =
  '<svg xmlns="http://www.w3.org/2000/svg" width="90mm" viewBox="0 0 90 60"><style>g > .a:not(#x), path[d]{stroke:red!important;fill:url(#g)}</style>' +
  '<defs><linearGradient id="g"><stop offset="10%" stop-color="hsl(20 50% 50%)"/></linearGradient><clipPath id="c" clip-path="url(#d)"><circle r="20" cx="30" cy="20"/></clipPath><clipPath id="d"><use href="#p"/></clipPath><symbol id="s" viewBox="0 0 9 9"><path d="M0 0h9v9z"/></symbol></defs>' +
  '<g clip-path="url(#c)" transform="rotate(12 4 4)"><path id="p" class="a" stroke-dasharray="3 1 2%" d="M1 1a5 4 30 1 0 9 9q4 4 8 0t8 0S1 2 3 4z"/></g><mask id="m"><rect width="50" height="9" fill="#fff"/><use href="#p" fill="#000"/></mask><marker id="k" orient="auto" viewBox="0 0 4 4"><path d="M0 0l4 2-4 2z" fill="context-stroke"/></marker><g mask="url(#m)" style="--w:calc(2px + 3%);font:bold 9px serif"><rect style="width:var(--w);height:5px;clip-path:inset(10% 1px round 2px)"/><path d="M1 1h9v9" style="marker:url(#k)" stroke="inherit"/></g><use href="#s" x="5%" width="40" height="20"/><text x="1 2 3" dy="1em" rotate="10">Kale <tspan baseline-shift="super">2</tspan></text><switch><g systemLanguage="xx"/><rect width="50%" height="9" rx="200%"/></switch></svg>';

/** Files that are as they should be, made once. */
const good = Promise.all([
  text(writeSvg(outgoing)),
  text(busy),
  writeDxf(outgoing).then(text),
  writePdf([outgoing], 'Fuzz'),
  encodePixels({ width: 20, height: 10, rgb: new Uint8Array(600).fill(80) }),
  text(
    `solid a\n${'facet normal 0 0 1\nouter loop\nvertex 0 0 0\nvertex 9 0 3\nvertex 0 9 6\nendloop\nendfacet\n'.repeat(6)}endsolid`,
  ),
]);

const crafted = [
  ['deep svg', () => text(`<svg xmlns="http://www.w3.org/2000/svg">${'<g>'.repeat(1e5)}`)],
  [
    'use upon use',
    () =>
      text(
        `<svg xmlns="http://www.w3.org/2000/svg"><path id="u0" d="M0 0h1" stroke="red"/>${Array.from({ length: 30 }, (_, i) => `<g id="u${i + 1}">${`<use href="#u${i}"/>`.repeat(10)}</g>`).join('')}</svg>`,
      ),
  ],
  [
    'markers, masks and variables that lead to themselves',
    () =>
      text(
        '<svg xmlns="http://www.w3.org/2000/svg"><marker id="a"><path d="M0 0h9v9" marker-mid="url(#b)"/></marker><marker id="b"><path d="M0 0h9v9" marker-mid="url(#a)"/></marker><mask id="m"><rect width="9" height="9" fill="#fff" mask="url(#n)"/></mask><mask id="n"><rect width="9" height="9" fill="#fff" mask="url(#m)"/></mask><g style="--a:var(--b) var(--b);--b:var(--a) var(--a)"><path d="M0 0h9v9h9" marker-mid="url(#a)" mask="url(#m)" style="stroke:var(--a)"/></g></svg>',
      ),
  ],
  [
    'texts of the file’s own that grow without end',
    () =>
      text(
        `<!DOCTYPE svg [${Array.from({ length: 30 }, (_, i) => `<!ENTITY e${i} "${i === 0 ? 'x'.repeat(100) : `&e${i - 1};&e${i - 1};`}">`).join('')}<!ENTITY long "${'y'.repeat(1e5)}">]><svg xmlns="http://www.w3.org/2000/svg"><title>&e29;</title>${'<text>&long;</text>'.repeat(200)}</svg>`,
      ),
  ],
  ['a compressed file of a great size', () => gzipSync(new Uint8Array(60 * 1024 * 1024))],
  ['a compressed file that is cut short', () => gzipSync(text(busy)).subarray(0, 200)],
  [
    'clips that clip each other',
    () =>
      text(
        '<svg xmlns="http://www.w3.org/2000/svg"><clipPath id="a" clip-path="url(#b)"><rect width="9" height="9"/></clipPath><clipPath id="b" clip-path="url(#a)"><use href="#r"/></clipPath><rect id="r" width="5" height="5" clip-path="url(#a)"/></svg>',
      ),
  ],
  [
    'gradients in a ring',
    () =>
      text(
        '<svg xmlns="http://www.w3.org/2000/svg"><linearGradient id="a" href="#b"/><linearGradient id="b" href="#a"/><rect width="9" height="9" fill="url(#a)"/></svg>',
      ),
  ],
  [
    'huge numbers',
    () =>
      text(
        '<svg xmlns="http://www.w3.org/2000/svg" width="1e300mm" viewBox="0 0 1e-300 1"><path d="M1e308 1e308L-1e308 9e999 NaN" stroke="red" stroke-dasharray="1e-300"/><rect width="1e30" height="1e30" rx="1e300"/></svg>',
      ),
  ],
  [
    'a million dashes',
    () =>
      text(
        '<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0h1e6" stroke="red" fill="none" stroke-dasharray="1e-5"/></svg>',
      ),
  ],
  [
    'a long path',
    () => text(`<svg xmlns="http://www.w3.org/2000/svg"><path stroke="red" d="M0 0${'l1 1-1 2'.repeat(4e5)}"/></svg>`),
  ],
  [
    'many selectors',
    () =>
      text(
        `<svg xmlns="http://www.w3.org/2000/svg"><style>${Array.from({ length: 400 }, (_, i) => `g g g rect:not(.a${i}){fill:red}`).join('')}</style>${'<g>'.repeat(60)}${'<rect width="1" height="1"/>'.repeat(300)}${'</g>'.repeat(60)}</svg>`,
      ),
  ],
  [
    'blocks in blocks',
    () =>
      text(
        `0\nSECTION\n2\nBLOCKS\n${Array.from({ length: 12 }, (_, i) => `0\nBLOCK\n2\nB${i}\n${i === 0 ? '0\nLINE\n10\n0\n20\n0\n11\n1\n21\n1\n' : `0\nINSERT\n2\nB${i - 1}\n70\n30\n71\n30\n44\n1\n45\n1\n`}0\nENDBLK\n`).join('')}0\nENDSEC\n0\nSECTION\n2\nENTITIES\n0\nINSERT\n2\nB11\n0\nENDSEC\n0\nEOF\n`,
      ),
  ],
  [
    'a million entities',
    () => text(`0\nSECTION\n2\nENTITIES\n${'0\nLINE\n10\n0\n20\n0\n11\n1\n21\n1\n'.repeat(1e6)}0\nENDSEC\n0\nEOF\n`),
  ],
  [
    'a million shapes',
    () => text(`<svg xmlns="http://www.w3.org/2000/svg" stroke="red">${'<path d="M0 0h1"/>'.repeat(1e6)}</svg>`),
  ],
  [
    'a hatch of untruths',
    () =>
      text(
        '0\nSECTION\n2\nENTITIES\n0\nHATCH\n91\n999999999\n92\n2\n93\n999999999\n72\n1\n10\n1\n0\nSPLINE\n71\n25\n40\n1\n10\n3\n0\nENDSEC\n0\nEOF\n',
      ),
  ],
  [
    'a picture that unpacks to much',
    async () => {
      const bytes = await encodePixels({ width: 2, height: 2, rgb: new Uint8Array(12) });
      const view = new DataView(bytes.buffer, bytes.byteOffset);
      view.setUint32(16, 10_000);
      view.setUint32(20, 10_000);
      return bytes;
    },
  ],
  [
    'a PDF stream of zeros',
    () => {
      const packed = deflateSync(Buffer.alloc(60e6, 32)).toString('latin1');
      const body = `%PDF-1.4\n1 0 obj<</Type/Catalog/Pages 2 0 R>>endobj\n2 0 obj<</Type/Pages/Kids[3 0 R]/Count 1>>endobj\n3 0 obj<</Type/Page/Parent 2 0 R/MediaBox[0 0 99 99]/Contents 4 0 R>>endobj\n4 0 obj<</Filter/FlateDecode/Length ${packed.length}>>stream\n${packed}\nendstream endobj\ntrailer<</Root 1 0 R>>`;
      return new Uint8Array(Buffer.from(body, 'latin1'));
    },
  ],
  [
    'a solid of one point',
    () => text(`solid a\n${'outer loop\nvertex 1 1 1\nvertex 1 1 1\nvertex 1 1 1\nendloop\n'.repeat(50)}endsolid`),
  ],
];

/** @returns what it is, and its bytes */
export async function hostileFile(seed) {
  const random = randomFrom(seed);
  const below = (most) => Math.floor(random() * most);
  if (seed % 10 === 0) {
    const [what, make] = crafted[(seed / 10) % crafted.length];
    return { what, bytes: await make() };
  }
  const files = await good;
  const kind = below(files.length);
  const bytes = files[kind].slice();
  const names = ['SVG', 'busy SVG', 'DXF', 'PDF', 'PNG', 'STL'];
  const how = below(4);
  if (how === 0) return { what: `${names[kind]}, cut short`, bytes: bytes.slice(0, below(bytes.length)) };
  if (how === 1) {
    for (let i = 0; i < 1 + below(8); i++) bytes[below(bytes.length)] ^= 1 << below(8);
    return { what: `${names[kind]}, bits flipped`, bytes };
  }
  if (how === 2) {
    const [from, length] = [below(bytes.length), below(200)];
    const piece = bytes.slice(from, from + length);
    const at = below(bytes.length);
    const spliced = Uint8Array.from([...bytes.slice(0, at), ...piece, ...bytes.slice(at + below(40))]);
    return { what: `${names[kind]}, spliced`, bytes: spliced };
  }
  const odd = ['NaN', '1e999', '-1', '99999999999999999999', '', '0', 'url(#p)', '%', '\u0000'];
  const whole = new TextDecoder('latin1').decode(bytes);
  const changed = whole.replace(/-?\d+(?:\.\d+)?/g, (number) => (random() < 0.05 ? odd[below(odd.length)] : number));
  return { what: `${names[kind]}, numbers changed`, bytes: Uint8Array.from(changed, (letter) => letter.charCodeAt(0)) };
}
