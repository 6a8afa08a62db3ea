import { boundsOf, pathOf } from '@lambent/core/document';
import { readSvg } from '@lambent/core/formats/svg';
import { distanceToLines, flatten } from '@lambent/core/geometry';
import { expect, test } from '@playwright/test';
import { demoDrawing } from './bench.ts';

const mmPerPx = 25.4 / 96;
const bound = 0.01;

/** What Chromium says of an element: points along it and its bounds' corners, in px of the page's top left. */
interface Measured {
  readonly id: string;
  readonly points: readonly (readonly [number, number])[];
  readonly box: readonly (readonly [number, number])[];
}

const shapes = [
  '<path id="commands" d="M10 10h15v12H5V30l6 6q8 0 9 9t9 4c0 6 6 6 6 0s6-7 8 0a12 7 30 1 1 9 14z"/>',
  '<path id="relative" d="m60 12 8-4 6 9-3 .5.5-.5-1e1 3z m20,0 c1,8 7,-9 9,3 S 95 30 99 12 T 110 20 t 8-9"/>',
  '<path id="arcs" d="M20 60a10 20 45 0 1 24 3 5 5 0 1030 9A1 1 0 01100 70"/>',
  '<path id="flags" d="M120 60a8 8 0 0120 0a8 8 0 11-4 7z"/>',
  '<rect id="rounded" x="5" y="80" width="30" height="18" rx="9" ry="4"/>',
  '<rect id="overround" x="45" y="80" width="20" height="10" rx="40"/>',
  '<circle id="circle" cx="90" cy="90" r="9.3"/>',
  '<ellipse id="ellipse" cx="120" cy="90" rx="13" ry="5"/>',
  '<line id="line" x1="140" y1="80" x2="150" y2="99"/>',
  '<polyline id="polyline" points="155,80 160,99 165 80-170,99"/>',
  '<polygon id="polygon" points="10 105 20 105 15 115"/>',
].join('');

const files: readonly (readonly [name: string, svg: string])[] = [
  ['plain', `<svg width="200mm" height="120mm" viewBox="0 0 200 120">${shapes}</svg>`],
  ['no viewBox', `<svg width="200" height="120">${shapes}</svg>`],
  ['another aspect', `<svg width="90mm" height="120mm" viewBox="-10 -20 200 120">${shapes}</svg>`],
  [
    'sliced to a corner',
    `<svg width="9cm" height="120mm" viewBox="0 0 200 120" preserveAspectRatio="xMaxYMin slice">${shapes}</svg>`,
  ],
  ['stretched', `<svg width="5in" height="72pt" viewBox="0 0 200 120" preserveAspectRatio="none">${shapes}</svg>`],
  [
    'transforms within transforms',
    `<svg width="200mm" height="120mm" viewBox="0 0 200 120"><g transform="translate(30,5) rotate(20 50 50)"><g transform="scale(.6,-.8) skewX(12)"><g transform="matrix(.9 .2 -.1 1.1 4 -90) skewY(-7)">${shapes}</g></g></g></svg>`,
  ],
  [
    'transforms in style, about origins',
    `<svg width="200mm" height="120mm" viewBox="0 0 200 120"><style>#group { transform: rotate(0.1turn) translate(4px, 2mm); transform-origin: 25% bottom } #circle, #rounded { transform: scale(1.5) rotate(30deg); transform-box: fill-box; transform-origin: center }</style><g id="group">${shapes}</g></svg>`,
  ],
  [
    'viewports within viewports',
    `<svg width="200mm" height="120mm" viewBox="0 0 200 120"><svg x="10%" y="5" width="50%" height="60" viewBox="0 0 200 100" preserveAspectRatio="xMinYMax" overflow="visible"><g transform="scale(.8)">${shapes}</g></svg></svg>`,
  ],
  [
    'lengths in every unit',
    '<svg width="200mm" height="120mm" viewBox="0 0 400 240" font-size="20"><rect id="a" x="1cm" y="2em" width="25%" height="10%"/><circle id="b" cx="2in" cy="50pt" r="5%"/><ellipse id="c" cx="80%" cy="20mm" rx="1.5em" ry="2pc"/><line id="d" x1="8Q" y1="100%" x2="50%" y2="1in"/></svg>',
  ],
  ['row markers', demoDrawing('row-markers.svg')],
  ['seed packet', demoDrawing('seed-packet.svg')],
];

for (const [name, text] of files) {
  test(`read as Chromium draws it: ${name}`, async ({ page }) => {
    const svg = text.includes('xmlns=') ? text : text.replace('<svg', '<svg xmlns="http://www.w3.org/2000/svg"');
    await page.goto('about:blank');
    const measured = await page.evaluate((source): Measured[] => {
      document.body.style.margin = '0';
      document.body.innerHTML = source.replace(/^<\?xml[^>]*>/, '');
      const root = document.querySelector('svg') as SVGSVGElement;
      root.style.display = 'block';
      root.style.maxWidth = 'none';
      const frame = root.getBoundingClientRect();
      return Array.from(root.querySelectorAll<SVGGeometryElement>('path,rect,circle,ellipse,line,polyline,polygon'))
        .filter((element) => element.id !== '')
        .map((element) => {
          const map = element.getScreenCTM() as DOMMatrix;
          const placed = (x: number, y: number): [number, number] => {
            const point = new DOMPoint(x, y).matrixTransform(map);
            return [point.x - frame.x, point.y - frame.y];
          };
          const length = element.getTotalLength();
          const points = Array.from({ length: 25 }, (_, i) => {
            const { x, y } = element.getPointAtLength((length * i) / 24);
            return placed(x, y);
          });
          const { x, y, width, height } = element.getBBox();
          const box = [placed(x, y), placed(x + width, y), placed(x + width, y + height), placed(x, y + height)];
          return { id: element.id, points, box };
        });
    }, svg);
    const items = readSvg(svg, (place) => place).drawing.items;
    expect(measured.length).toBeGreaterThan(3);
    for (const { id, points, box } of measured) {
      const item = items.find((one) => one.name === id);
      if (!item) throw new Error(`${id} was not read`);
      const lines = flatten(pathOf(item), 0.0005);
      for (const [x, y] of points) {
        const off = distanceToLines(lines, x * mmPerPx, y * mmPerPx);
        expect(off, `${id}: a point is ${off} mm off`).toBeLessThan(bound);
      }
      // The box of what is drawn lies in the box that Chromium gives, turned as that is.
      const around = boundsOf(item);
      const [xs, ys] = [box.map(([x]) => x * mmPerPx), box.map(([, y]) => y * mmPerPx)];
      expect(around.minX).toBeGreaterThan(Math.min(...xs) - bound);
      expect(around.maxX).toBeLessThan(Math.max(...xs) + bound);
      expect(around.minY).toBeGreaterThan(Math.min(...ys) - bound);
      expect(around.maxY).toBeLessThan(Math.max(...ys) + bound);
    }
  });
}
