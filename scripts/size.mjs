// npm run size: how much the browser fetches to open a place, compressed with brotli, against its bound. Fonts, which are
// compressed already, and pictures are not counted.
import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { giveUp, root } from './lib.mjs';

const dist = join(root, 'apps/web/dist');
const manifest = JSON.parse(readFileSync(join(dist, '.vite/manifest.json'), 'utf8'));

const bounds = [
  { place: 'the Desk', chunk: 'src/routes/desk.tsx', workers: ['events.shared-worker'], kB: 210 },
  { place: 'the Bench', chunk: 'src/routes/bench.tsx', workers: ['events.shared-worker', 'bench.worker'], kB: 650 },
];

/** A chunk's files and those that it needs at once: scripts and styles. */
function filesOf(name, met = new Set()) {
  const { file, css = [], imports = [] } = manifest[name];
  if (met.has(file)) return met;
  for (const one of [file, ...css]) met.add(one);
  for (const one of imports) filesOf(one, met);
  return met;
}

/** A worker's script and those that it imports at once. */
function workerFiles(name) {
  const all = readdirSync(join(dist, 'assets'));
  const first = all.find((file) => file.startsWith(`${name}-`) && file.endsWith('.js'));
  if (!first) giveUp(`The build has no worker ${name}.`);
  const met = new Set();
  const visit = (file) => {
    if (met.has(file)) return;
    met.add(file);
    const text = readFileSync(join(dist, 'assets', file), 'utf8');
    for (const [, other] of text.matchAll(/(?:from|import)\s*"\.\/([\w.-]+\.js)"/g)) visit(other);
  };
  visit(first);
  return [...met].map((file) => `assets/${file}`);
}

/** How many bytes of a file are fetched: those that are packed, where packing it was worth while. */
function sizeOf(file) {
  const packed = statSync(join(dist, `${file}.br`), { throwIfNoEntry: false });
  return (packed ?? statSync(join(dist, file))).size;
}

const over = [];
for (const { place, chunk, workers, kB } of bounds) {
  const chunks = ['index.html', 'src/app.tsx', chunk];
  const files = new Set([
    'index.html',
    ...chunks.flatMap((name) => [...filesOf(name)]),
    ...workers.flatMap(workerFiles),
  ]);
  const bytes = [...files].reduce((sum, file) => sum + sizeOf(file), 0);
  process.stdout.write(`${place}: ${(bytes / 1000).toFixed(0)} kB in ${files.size} files, at most ${kB} kB\n`);
  if (bytes > kB * 1000) over.push(place);
}
if (over.length > 0) giveUp(`More than may be fetched at once for ${over.join(' and ')}.`);
