// Reading 20 MB of SVG, as ratios to the XML package parsing the same text alone, and what stays in memory of it.
import { readFileSync } from 'node:fs';
import { Worker } from 'node:worker_threads';
import { readSvg } from '@lambent/core/formats/svg';

const size = 20e6;
const rounds = 7;
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

/**
 * Every reading is measured in a thread of its own, as the application reads each file in one: code that has
 * run a dozen times is another thing than code that meets its file.
 */
function once(text, whole) {
  return new Promise((resolve, reject) => {
    const worker = new Worker(new URL('reading-once.mjs', import.meta.url), { workerData: { text, whole } });
    worker.once('message', resolve);
    worker.once('error', reject);
  });
}

const median = (times) => times.sort((a, b) => a - b)[times.length >> 1];

/** @returns for each kind of drawing: seconds, and the memory its reading keeps as a multiple of its size */
export async function benchReading() {
  const out = [];
  for (const { name, unit } of kinds) {
    const text = `${head}${unit.repeat(Math.ceil(size / unit.length))}</svg>`;
    const [parsing, reading] = [[], []];
    for (let round = 0; round < rounds; round++) {
      parsing.push(await once(text, false));
      reading.push(await once(text, true));
    }
    const used = () => {
      collect();
      const { heapUsed, arrayBuffers } = process.memoryUsage();
      return heapUsed + arrayBuffers;
    };
    const before = used();
    const { drawing } = readSvg(text, (place) => place);
    const kept = (used() - before) / text.length;
    const items = drawing.items.length;
    out.push({ name, mb: text.length / 1e6, items, parseMs: median(parsing), readMs: median(reading), kept });
  }
  return out;
}
