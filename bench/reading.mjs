// Reading 20 MB of SVG, as ratios to the XML package parsing the same text alone, and what stays in memory of it.
import { readFileSync } from 'node:fs';
import { readSvg } from '@lambent/core';
import { SaxesParser } from 'saxes';

const size = 20e6;
const rounds = 3;
const relief = readFileSync(new URL('../demo/drawings/estuary-relief.svg', import.meta.url), 'utf8');
const headEnd = relief.indexOf('>', relief.indexOf('<svg')) + 1;
const head = relief.slice(0, headEnd);
const small = (i) =>
  `<g transform="translate(${i} 0)"><rect x="${i}" y="3" width="4.25" height="8.5" style="fill:none;stroke:#d0481e;stroke-width:0.1"/>` +
  `<circle cx="${i}" cy="9" r="3.25" fill="#5b3fa0" stroke="none"/><path d="M${i} 4L${i + 3} 8C1 2 3 4 5 6Z" stroke="#00806a" fill="none"/></g>\n`;

const kinds = [
  { name: 'few, long paths', unit: relief.slice(headEnd, relief.lastIndexOf('</svg>')) },
  { name: 'many small shapes', unit: Array.from({ length: 200 }, (_, i) => small(i)).join('') },
];

const collect = globalThis.gc ?? (() => undefined);

function median(work) {
  const times = Array.from({ length: rounds }, () => {
    collect();
    const start = performance.now();
    work();
    return performance.now() - start;
  });
  return times.sort((a, b) => a - b)[rounds >> 1];
}

/** @returns for each kind of drawing: seconds, and the memory its reading keeps as a multiple of its size */
export function benchReading() {
  return kinds.map(({ name, unit }) => {
    const text = `${head}${unit.repeat(Math.ceil(size / unit.length))}</svg>`;
    const parseMs = median(() => {
      const parser = new SaxesParser({ xmlns: true, position: true });
      parser.on('error', (error) => {
        throw error;
      });
      parser.write(text).close();
    });
    const readMs = median(() => readSvg(text, (place) => place));
    const used = () => {
      collect();
      const { heapUsed, arrayBuffers } = process.memoryUsage();
      return heapUsed + arrayBuffers;
    };
    const before = used();
    const reading = readSvg(text, (place) => place);
    const kept = (used() - before) / text.length;
    return { name, mb: text.length / 1e6, items: reading.drawing.items.length, parseMs, readMs, kept };
  });
}
