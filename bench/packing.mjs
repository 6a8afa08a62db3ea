// How full packing gets sheets that were cut into pieces, so that all of them would go onto one: by how the sheet was cut.
// Each in a worker thread of its own, or two, which look on their own with seeds of their own, as the page has them look.
import { cpus } from 'node:os';
import { isMainThread, parentPort, Worker, workerData } from 'node:worker_threads';
import { PathBuilder } from '@lambent/core/geometry';
import { packed, sheetUses } from '@lambent/core/packing';
import { numbersFrom } from './numbers.mjs';

const [wide, high] = [300, 200];
const seconds = 20;

/** An outline about its own first point, of points or of points with handles. */
function outline(points) {
  const [[ox, oy]] = points;
  const builder = new PathBuilder().moveTo(0, 0);
  for (const [x, y, ...more] of points.slice(1)) {
    if (more.length === 0) builder.lineTo(x - ox, y - oy);
    else builder.cubicTo(x - ox, y - oy, more[0] - ox, more[1] - oy, more[2] - ox, more[3] - oy);
  }
  return builder.close().build();
}

const box = (x, y, w, h) => [
  [x, y],
  [x + w, y],
  [x + w, y + h],
  [x, y + h],
];

/** From edge to edge, again and again one of the largest third is cut in two. */
function rectangles(random, count) {
  let all = [[0, 0, wide, high]];
  while (all.length < count) {
    all = all.sort((a, b) => b[2] * b[3] - a[2] * a[3]);
    const [[x, y, w, h]] = all.splice(Math.floor(random() * Math.ceil(all.length / 3)), 1);
    const share = 0.25 + 0.5 * random();
    if (w * (0.6 + 0.8 * random()) > h) all.push([x, y, w * share, h], [x + w * share, y, w * (1 - share), h]);
    else all.push([x, y, w, h * share], [x, y + h * share, w, h * (1 - share)]);
  }
  return all.map((one) => outline(box(...one)));
}

const twiceArea = (points) =>
  points.reduce((sum, [x, y], i) => {
    const [nx, ny] = points[(i + 1) % points.length];
    return sum + x * ny - nx * y;
  }, 0);

/** The same by lines at any angle, near the middle of what is cut. */
function polygons(random, count) {
  let all = [box(0, 0, wide, high)];
  while (all.length < count) {
    all = all.sort((a, b) => twiceArea(b) - twiceArea(a));
    const [points] = all.splice(Math.floor(random() * Math.ceil(all.length / 3)), 1);
    const middle = [0, 1].map((axis) => points.reduce((sum, point) => sum + point[axis], 0) / points.length);
    const angle = random() * Math.PI;
    const ahead = ([x, y]) => (x - middle[0]) * Math.cos(angle) + (y - middle[1]) * Math.sin(angle);
    const parts = [[], []];
    points.forEach((point, i) => {
      const next = points[(i + 1) % points.length];
      const [here, there] = [ahead(point), ahead(next)];
      parts[here >= 0 ? 0 : 1].push(point);
      if (here * there >= 0) return;
      const share = here / (here - there);
      const cut = [0, 1].map((axis) => point[axis] + share * (next[axis] - point[axis]));
      for (const part of parts) part.push(cut);
    });
    all.push(...parts);
  }
  return all.map(outline);
}

/** Into fields whose corners are moved and whose edges are curves, the same for both that they part. */
function curved(random, count) {
  const columns = Math.round(Math.sqrt((count * wide) / high));
  const rows = Math.round(count / columns);
  const jitter = (i, last) => (i > 0 && i < last ? (random() - 0.5) / 2 : 0);
  const corners = Array.from({ length: rows + 1 }, (_, row) =>
    Array.from({ length: columns + 1 }, (_, column) => [
      ((column + jitter(column, columns)) * wide) / columns,
      ((row + jitter(row, rows)) * high) / rows,
    ]),
  );
  const edge = ([x0, y0], [x1, y1], isStraight) => {
    const [dx, dy] = [x1 - x0, y1 - y0];
    const bow = () => (isStraight ? 0 : (random() - 0.5) * 0.6);
    const [first, second] = [bow(), bow()];
    return [
      [x0, y0],
      [x0 + dx / 3 - dy * first, y0 + dy / 3 + dx * first],
      [x0 + (2 * dx) / 3 - dy * second, y0 + (2 * dy) / 3 + dx * second],
      [x1, y1],
    ];
  };
  const across = corners.map((row, i) => row.slice(1).map((end, k) => edge(row[k], end, i === 0 || i === rows)));
  const down = corners
    .slice(1)
    .map((row, i) => row.map((end, k) => edge(corners[i][k], end, k === 0 || k === columns)));
  const fields = [];
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const ring = [
        across[row][column],
        down[row][column + 1],
        across[row + 1][column].toReversed(),
        down[row][column].toReversed(),
      ];
      fields.push(outline([ring[0][0], ...ring.map(([, a, b, end]) => [...a, ...b, ...end])]));
    }
  }
  return fields;
}

const cuts = { rectangles, polygons, curved };
const least = { rectangles: 96, polygons: 82, curved: 80 };
const sheet = (width, height) => [{ id: 'sheet', outline: outline(box(0, 0, width, height)), obstacles: [], count: 1 }];

function wishOf(outlines, more = {}) {
  return {
    pieces: outlines.map((path, i) => ({ id: `${i}`, outline: path, count: 1 })),
    sheets: sheet(wide, high),
    ...{ gapMm: 0, marginMm: 0, turning: 'none', mirror: false, fillsHoles: false },
    ...more,
  };
}

/** The radius of so many equal discs in a square of side 1, the largest that is known. */
const discRadii = { 7: 0.174457630187, 10: 0.148204322565, 13: 0.1339935135, 20: 0.111382347512, 30: 0.091671057986 };

function discs(count) {
  const [r, k] = [20, 20 * 0.5522847498];
  const disc = new PathBuilder()
    .moveTo(r, 0)
    .cubicTo(r, k, k, r, 0, r)
    .cubicTo(-k, r, -r, k, -r, 0)
    .cubicTo(-r, -k, -k, -r, 0, -r)
    .cubicTo(k, -r, r, -k, r, 0)
    .close()
    .build();
  const side = (1.02 * r) / discRadii[count];
  return wishOf([], { pieces: [{ id: 'disc', outline: disc, count }], sheets: sheet(side, side) });
}

/** Of all kinds, most of them several times, with a gap and a margin: what a shop has to lay. */
function mixed(count) {
  const random = numbersFrom(200);
  const [a, b, c] = [rectangles(random, 14), polygons(random, 14), curved(random, 12)];
  const kinds = [...a, ...b, ...c];
  return wishOf([], {
    pieces: kinds.map((path, i) => ({ id: `${i}`, outline: path, count: count / kinds.length })),
    sheets: [{ ...sheet(600, 400)[0], count: null }],
    ...{ gapMm: 2, marginMm: 5, turning: 'quarter' },
  });
}

/** Looks for so long. @returns how full the first sheet is, when the first packing came, how often it was tried, and what is left */
function look(wish, seed, ms) {
  const begun = performance.now();
  let [best, firstMs, tries] = [null, null, 0];
  for (const packing of packed(wish, seed)) {
    tries++;
    if (packing) {
      best = packing;
      firstMs ??= performance.now() - begun;
    }
    if (performance.now() - begun >= ms) break;
  }
  const left = best ? best.left.reduce((sum, count) => sum + count, 0) : null;
  const tookMs = performance.now() - begun;
  return { use: best ? sheetUses(wish, best)[0] : 0, sheets: best?.sheets.length, left, firstMs, tries, tookMs };
}

const wishes = {
  cut: ([kind, seed]) => wishOf(cuts[kind](numbersFrom(seed), 12 + Math.round((48 * (seed - 1)) / 19))),
  discs: ([count]) => discs(count),
  mixed: ([count]) => mixed(count),
};

function inWorker(what, words, seed, ms) {
  return new Promise((resolve, reject) => {
    const worker = new Worker(new URL(import.meta.url), {
      workerData: { what, words, seed, ms },
      execArgv: process.execArgv.filter((word) => word !== '--expose-gc'),
    });
    worker.once('message', resolve);
    worker.once('error', reject);
  });
}

if (!isMainThread) {
  const { what, words, seed, ms } = workerData;
  parentPort.postMessage(look(wishes[what](words), seed, ms));
}

const mean = (values) => values.reduce((sum, value) => sum + value, 0) / values.length;

/**
 * @param only the name of one part, for that alone
 * @returns rows of how full sheets get, of discs, of many pieces, and of tries by how many look
 */
export async function benchPacking(only) {
  const uses = [];
  for (const kind of Object.keys(cuts)) {
    if (only && only !== kind) continue;
    const found = [];
    // Two sheets are looked at beside each other, with one worker each.
    for (let seed = 1; seed <= 20; seed += 2) {
      const pair = [seed, seed + 1].map((one) => inWorker('cut', [kind, one], 1, seconds * 1000));
      found.push(...(await Promise.all(pair)));
    }
    uses.push({
      kind,
      meanPercent: 100 * mean(found.map(({ use }) => use)),
      leastPercent: 100 * Math.min(...found.map(({ use }) => use)),
      wantedPercent: least[kind],
      firstMs: Math.max(...found.map(({ firstMs }) => firstMs)),
    });
  }
  const round = [];
  for (const count of only && only !== 'discs' ? [] : Object.keys(discRadii).map(Number)) {
    const { left } = await inWorker('discs', [count], 1, seconds * 1000);
    round.push({ count, fitted: count - left });
  }
  const many = only && only !== 'mixed' ? null : await inWorker('mixed', [200], 1, 60_000);
  const tries = [];
  if (!only || only === 'tries') {
    for (const kind of Object.keys(cuts)) {
      const counts = [1, 2].map((workers) => Array.from({ length: workers }, (_, i) => i + 1));
      const sums = [];
      for (const seeds of counts) {
        const all = await Promise.all(seeds.map((seed) => inWorker('cut', [kind, 20], seed, seconds * 1000)));
        sums.push(all.reduce((sum, one) => sum + one.tries / one.tookMs, 0));
      }
      tries.push({ kind, one: 1000 * sums[0], two: 1000 * sums[1], ratio: sums[1] / sums[0] });
    }
  }
  return { uses, round, many, tries, seconds, cores: cpus().length };
}

/** What was measured, as a section of the page on performance. @param table makes a table of its heads and rows */
export function packingSection({ uses, round, many, tries, cores }, table) {
  return `## Packing

Twenty sheets of ${wide} × ${high} mm, cut into 12 to 60 pieces each, so that all would go onto one: rectangles from edge to edge,
straight lines at any angle, curves. How much of one sheet is covered by what was laid on it after ${seconds} s by one worker,
without turning; by their areas all of it could be. Two sheets beside each other, on ${cores} cores.

${table(
  ['pieces', 'used, mean', 'used, least', 'wanted', 'first packing after, at most'],
  uses.map(({ kind, meanPercent, leastPercent, wantedPercent, firstMs }) => [
    kind,
    `${meanPercent.toFixed(1)} %`,
    `${leastPercent.toFixed(1)} %`,
    `${wantedPercent} %`,
    `${(firstMs / 1000).toFixed(2)} s`,
  ]),
)}

Equal discs in a square 2 % larger than the smallest known one, after ${seconds} s:

${table(
  ['discs', 'laid'],
  round.map(({ count, fitted }) => [count, fitted]),
)}

200 pieces of 40 kinds, rectangles, polygons and curves, with a gap of 2 mm and a margin of 5, turned by right angles, on sheets
of 600 × 400 mm: the first packing after ${(many.firstMs / 1000).toFixed(2)} s; after 60 s ${many.sheets} sheets, the first of them
${(100 * many.use).toFixed(1)} % used.

Tries in a second, of one worker and of two together:

${table(
  ['pieces', 'one', 'two', 'ratio'],
  tries.map(({ kind, one, two, ratio }) => [kind, one.toFixed(1), two.toFixed(1), ratio.toFixed(2)]),
)}
`;
}
