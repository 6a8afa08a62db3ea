// How closely what Lambent reads of a folder of SVGs looks like what Chromium makes of the files themselves.
// Usage: npm run bench:formats -- FOLDER [--limit N] [--every N] [--keep FOLDER]
import { mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { basename, join, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { pathOf } from '@lambent/core/document';
import { FileRefused } from '@lambent/core/formats';
import { readSvg } from '@lambent/core/formats/svg';
import { pathData } from '@lambent/core/geometry';
import { FontBook } from '@lambent/core/text';
import { shippedFonts } from '@lambent/fonts';
import { chromium } from '@playwright/test';
import config from '../playwright.config.mjs';

const side = 480;
/** A pixel counts as inked from this much ink on, of 255. */
const inkedFrom = 8;
const bound = 0.005;
const slow = 10_000;

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: { limit: { type: 'string' }, every: { type: 'string' }, keep: { type: 'string' } },
});
const folder = positionals[0];
if (!folder) {
  console.error('Which folder? npm run bench:formats -- FOLDER');
  process.exit(2);
}
const every = Number(values.every ?? 1);
const files = [...filesUnder(resolve(folder))]
  .filter((_, i) => i % every === 0)
  .slice(0, Number(values.limit ?? Infinity));
const fonts = new FontBook(shippedFonts());
const browser = await chromium.launch(config.use.launchOptions);
const page = await browser.newPage({ viewport: { width: side, height: side } });
await page.setContent('<canvas></canvas>');

const tally = { same: 0, within: 0, beyond: 0, refused: 0, blank: 0, unseen: 0, slow: 0, crashed: 0 };
const worst = [];
const reasons = new Map();
for (const file of files) {
  const text = readFileSync(file, 'utf8');
  const started = performance.now();
  let reading;
  try {
    reading = readSvg(text, (place) => place, fonts, { dashes: 'dashed' });
  } catch (error) {
    if (error instanceof FileRefused) tally.refused++;
    else {
      tally.crashed++;
      console.log(`CRASH ${basename(file)}: ${error.stack}`);
    }
    continue;
  }
  const ms = performance.now() - started;
  if (ms > slow) {
    tally.slow++;
    console.log(`SLOW ${basename(file)}: ${Math.round(ms)} ms`);
  }
  const frame = frameOf(text, reading);
  if (!frame) {
    tally.unseen++;
    if (values.keep) console.log(`UNFRAMED ${file}`);
    continue;
  }
  const ours = asSvg(reading.drawing.items, frame);
  const theirs = framed(text, frame);
  const share = await page.evaluate(compare, { ours, theirs, side, inkedFrom });
  if (share === null) tally.blank++;
  else if (share < 0) {
    tally.unseen++;
    if (values.keep) console.log(`UNSEEN ${file}`);
  } else {
    if (share === 0) tally.same++;
    if (share < bound) tally.within++;
    else {
      tally.beyond++;
      const codes = reading.notes.filter(({ kind }) => kind !== 'taken').map(({ code }) => code);
      for (const code of codes.length > 0 ? codes : ['(nothing reported)'])
        reasons.set(code, (reasons.get(code) ?? 0) + 1);
      worst.push({ file, share, codes });
      if (values.keep) {
        mkdirSync(values.keep, { recursive: true });
        writeFileSync(join(values.keep, `${basename(file, '.svg')}.ours.svg`), ours);
        writeFileSync(join(values.keep, `${basename(file, '.svg')}.theirs.svg`), theirs);
      }
    }
  }
}
await browser.close();

const compared = tally.within + tally.beyond;
console.log(
  `${files.length} files: ${compared} compared, ${tally.refused} refused with a sentence, ${tally.blank} blank in both,`,
);
console.log(
  `${tally.unseen} that Chromium does not draw, ${tally.crashed} crashes, ${tally.slow} over ${slow / 1000} s.`,
);
console.log(
  `${((100 * tally.within) / Math.max(1, compared)).toFixed(1)} % differ in under ${bound * 100} % of inked pixels (${tally.same} in none).`,
);
console.log('Reported of the others, by how many files:');
for (const [code, count] of [...reasons].sort((a, b) => b[1] - a[1]))
  console.log(`  ${String(count).padStart(5)}  ${code}`);
console.log('The worst:');
for (const { file, share, codes } of worst.sort((a, b) => b.share - a.share).slice(0, 20)) {
  console.log(`  ${(100 * share).toFixed(1).padStart(6)} %  ${file.slice(folder.length)}  ${codes.join(' ')}`);
}

function* filesUnder(path) {
  for (const name of readdirSync(path).sort()) {
    const inside = join(path, name);
    if (statSync(inside).isDirectory()) yield* filesUnder(inside);
    else if (name.endsWith('.svg')) yield inside;
  }
}

/** The page in mm; a file without one is compared on what was read. */
function frameOf(text, { size }) {
  const { pageWidthMm: width, pageHeightMm: height } = size;
  if (width && height) return { width, height };
  const viewBox = /<svg[^>]*\sviewBox\s*=\s*["']\s*([^"']+)/
    .exec(text)?.[1]
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  if (viewBox?.length === 4 && viewBox[2] > 0 && viewBox[3] > 0) {
    const [w, h] = [(viewBox[2] * 25.4) / 96, (viewBox[3] * 25.4) / 96];
    return width
      ? { width, height: (width * h) / w }
      : height
        ? { width: (height * w) / h, height }
        : { width: w, height: h };
  }
  return null;
}

function asSvg(items, { width, height }) {
  const shapes = items
    .filter((item) => !item.hidden && item.shape.kind !== 'picture')
    .map((item) => {
      const { stroke, strokeWidthMm, fill, cap = 'butt', join = 'miter' } = item.paint;
      return `<path d="${pathData(pathOf(item), 5)}" fill="${fill ? '#000' : 'none'}" fill-rule="${item.fillRule}" stroke="${stroke ? '#000' : 'none'}" stroke-width="${strokeWidthMm}" stroke-linecap="${cap}" stroke-linejoin="${join}"/>`;
    });
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="0 0 ${width} ${height}">${shapes.join('')}</svg>`;
}

/** The file with its page's size as mm, so that both are drawn at the same size. */
function framed(text, { width, height }) {
  return text.replace(/<svg\b([^>]*)>/, (_, attributes) => {
    const rest = attributes.replace(/\s(?:width|height)\s*=\s*(?:"[^"]*"|'[^']*')/g, '');
    const namespace = /\sxmlns\s*=/.test(rest) ? '' : ' xmlns="http://www.w3.org/2000/svg"';
    return `<svg width="${width}mm" height="${height}mm"${namespace}${rest}>`;
  });
}

/** In the page: the share of pixels inked in either that are inked in one only; null when both are blank. */
async function compare({ ours, theirs, side, inkedFrom }) {
  const alpha = async (svg) => {
    // A blob with a foreignObject in it would bar the canvas from being read; a data address does not.
    const url = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`;
    const image = new Image();
    image.src = url;
    try {
      await image.decode();
    } catch {
      return null;
    }
    const canvas = new OffscreenCanvas(side, side);
    const context = canvas.getContext('2d', { willReadFrequently: true });
    const grown = Math.min(side / image.width, side / image.height);
    context.drawImage(image, 0, 0, image.width * grown, image.height * grown);
    return context.getImageData(0, 0, side, side).data;
  };
  const [a, b] = [await alpha(ours), await alpha(theirs)];
  if (!a || !b) return -1;
  let inked = 0;
  let differ = 0;
  for (let i = 3; i < a.length; i += 4) {
    const p = a[i] >= inkedFrom;
    const q = b[i] >= inkedFrom;
    if (p || q) inked++;
    // An edge that falls on either side of the bound by a little is the same edge.
    if (p !== q && Math.abs(a[i] - b[i]) > 48) differ++;
  }
  return inked === 0 ? null : differ / inked;
}
