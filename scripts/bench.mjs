// npm run bench: measures, prints, and writes docs/performance.md. npm run bench -- gaps [55]: one part alone, or
// what of it bears a name; only prints.
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import { join } from 'node:path';
import { checkNode, ensureBuilt, ensureInstalled, root, run, startStack } from './lib.mjs';

checkNode();
ensureInstalled();
ensureBuilt();
const { benchCore, reliefJob } = await import('../bench/core.mjs');
const { benchMotion } = await import('../bench/motion.mjs');
const { benchTiming } = await import('../bench/timing.mjs');
const { benchFrames } = await import('../bench/frames.mjs');
const { benchDrawing, largeDrawing } = await import('../bench/drawing.mjs');
const { benchPicking } = await import('../bench/picking.mjs');
const { benchReading } = await import('../bench/reading.mjs');
const { benchTravel } = await import('../bench/travel.mjs');
const { benchBook } = await import('../bench/book.mjs');
const { benchOffsets } = await import('../bench/offsets.mjs');
const { benchPictures } = await import('../bench/pictures.mjs');
const { benchGaps } = await import('../bench/gaps.mjs');
const { benchBuilders } = await import('../bench/builders.mjs');
const { benchHeap } = await import('../bench/heap.mjs');
const { benchOpening } = await import('../bench/opening.mjs');
const { benchPacking, packingSection } = await import('../bench/packing.mjs');
const { benchRows, rowsSection } = await import('../bench/rows.mjs');

if (process.argv[2] === 'pictures') {
  console.log(benchPictures());
  process.exit(0);
}
if (process.argv[2] === 'builders') {
  console.table(benchBuilders());
  process.exit(0);
}
if (process.argv[2] === 'rows') {
  process.stdout.write(rowsSection(benchRows()));
  process.exit(0);
}
if (process.argv[2] === 'packing') {
  const measured = await benchPacking(process.argv[3]);
  console.dir(measured, { depth: 4 });
  if (!process.argv[3]) process.stdout.write(packingSection(measured, table));
  process.exit(0);
}
const alone = {
  opening: benchOpening,
  gaps: benchGaps,
  heap: benchHeap,
  timing: benchTiming,
  frames: benchFrames,
  drawing: benchDrawing,
}[process.argv[2]];
if (alone) {
  await onStack(async (address) => console.log(await alone(address, process.argv[3])));
  process.exit(0);
}

const packing = await benchPacking();
const reading = await benchReading();
const core = benchCore();
const offsets = benchOffsets();
const pictures = benchPictures();
const built = benchBuilders();
const rows = benchRows();
const travel = benchTravel();
const picking = benchPicking([
  ['Estuary relief', reliefJob()],
  ['20,000 items', largeDrawing()],
]);
let frames = [];
let motion = [];
let book = [];
let drawing = { rows: [], opened: [] };
let gaps = [];
let heaps = [];
let timing = [];
let opening = [];
await onStack(async (address) => {
  opening = await benchOpening(address);
  frames = await benchFrames(address);
  motion = await benchMotion(address);
  drawing = await benchDrawing(address);
  book = await benchBook(address);
  gaps = await benchGaps(address);
  heaps = await benchHeap(address);
  timing = await benchTiming(address);
});

const text = `# Performance

Written by \`npm run bench\` on ${new Date().toISOString().slice(0, 10)} (Node ${process.versions.node}, ${cpus().length} cores).
Times alone say little on another machine; the ratios compare each part with a yardstick measured in the
same run on the same data.

## Computation: Estuary relief, ${core.nodes.toLocaleString('en')} nodes

${table(
  ['part', 'ms', 'yardstick', 'ms', 'ratio'],
  core.rows.map(({ what, ms, yardstick, yardstickMs }) => [
    what,
    ms.toFixed(1),
    yardstick,
    yardstickMs.toFixed(1),
    (ms / yardstickMs).toFixed(2),
  ]),
)}

Medians of nine rounds. Reading includes the XML parsing it is compared with; planning includes the
flattening, the nesting, the order, and the timing of every move.

## Opened from a cold start

${table(
  ['place', 'shown s', 'wanted s', 'an empty page of the same weight s', 'ratio', 'longest task of the main thread ms'],
  opening.map(({ what, wantedS, ms, emptyMs, longestTaskMs }) => [
    what,
    (ms / 1000).toFixed(2),
    wantedS.toFixed(1),
    (emptyMs / 1000).toFixed(2),
    (ms / emptyMs).toFixed(2),
    longestTaskMs.toFixed(0),
  ]),
)}

In a browser that has nothing of the page; medians of five. The empty page fetches the same files and runs none of them.

## Reading 20 MB of SVG

${table(
  ['drawing', 'items', 'read s', 'XML package alone s', 'ratio', 'kept, × its size'],
  reading.map(({ name, items, readMs, parseMs, kept }) => [
    name,
    items.toLocaleString('en'),
    (readMs / 1000).toFixed(2),
    (parseMs / 1000).toFixed(2),
    (readMs / parseMs).toFixed(2),
    kept.toFixed(1),
  ]),
)}

Each reading is measured in a thread of its own, as the application reads each file in one; medians of seven. The
bounds are a ratio of 4 and 10 times its size in memory.

## Offsets

Wavy outlines of 1,000 nodes each, offset with round corners; rippled, they bend more tightly than the distance nearly
everywhere. Beside it the clipping library's own call on the same outlines, flattened; its answer is lines alone. The
bound is a ratio of 1.5 on 100,000 nodes, and 100 ms for what is shown while 2,000 are offset.

${table(
  ['outlines', 'nodes', 'by mm', 'ms', 'library ms', 'ratio'],
  offsets.map(({ kind, nodes, by, ms, libraryMs }) => [
    kind,
    nodes.toLocaleString('en'),
    by,
    ms.toFixed(0),
    libraryMs.toFixed(0),
    (ms / libraryMs).toFixed(2),
  ]),
)}

## Pictures

A photo of 300 × 200 mm in lines of 0.1 mm, diffused: 6 million dots, ${pictures.moves.toLocaleString('en')} moves, ${(pictures.size / 1e6).toFixed(1)} MB of G-code.
A test holds that no move could be said in fewer words. The diffusion of its raw dots alone takes ${pictures.diffusing.toFixed(0)} ms, measured in
turn with the plan; the bound of tone, grain and plan is twice that and a second. Of 600 MB it takes ${pictures.memoryMB.toFixed(0)} MB, the
picture with it. The other pictures are of 12 megapixels.

${table(
  ['doing', 'ms', 'bound ms'],
  [
    ['tone, grain and plan of the photo', pictures.planning, 2 * pictures.diffusing + 1000],
    ['outlines of a picture', pictures.tracing, 3000],
    ['a first look at them', pictures.looking, 200],
    ['areas of six colours', pictures.colouring, null],
    ['a sheet straightened, with what lies around it', pictures.straightening, null],
  ].map(([what, ms, bound]) => [what, ms.toFixed(0), bound?.toFixed(0) ?? '–']),
)}

## Parts from numbers

From numbers to parts, with the check that they go together, beside writing the same outlines as text; medians of
fifteen. The bound is 50 ms, and 300 ms with 40 dividers: numbers are dragged.

${table(
  ['what', 'parts', 'ms', 'bound ms', 'as text ms', 'ratio'],
  built.map(({ what, parts, ms, bound, textMs }) => [
    what,
    parts,
    ms.toFixed(1),
    bound,
    textMs.toFixed(2),
    (ms / textMs).toFixed(0),
  ]),
)}

## The recipe book

Two hundred materials with five thousand recipes.

${table(
  ['doing', 'ms'],
  book.map(({ what, ms }) => [what, ms < 10 ? ms.toFixed(1) : ms.toFixed(0)]),
)}

## The head's way unlit

Seeded closed outlines at random, each entered at any of its nodes: the way as it is planned, and the best known, by
a search many times as long. The bound is 8 %.

${table(
  ['outlines', 'as drawn m', 'planned m', 'best known m', 'above it', 'planned in s'],
  travel.rows.map(({ count, planned, best, drawn, ms }) => [
    count.toLocaleString('en'),
    (drawn / 1000).toFixed(2),
    (planned / 1000).toFixed(3),
    (best / 1000).toFixed(3),
    `${((planned / best - 1) * 100).toFixed(1)} %`,
    (ms / 1000).toFixed(2),
  ]),
)}

A round trip through ${travel.points.count.toLocaleString('en')} seeded points is ${((travel.points.length / travel.points.bound - 1) * 100).toFixed(1)} % above the Held–Karp lower bound; the bound we
keep is 6 %.

## The planner's time against the machine's

Each demo job burnt by the stand-ins at 20 times a real machine's speed. The stand-in's motion model is
written apart from the planner's; the bound is 2 %.

${table(
  ['job', 'planned s', 'taken s', 'off by'],
  motion.map(({ title, plannedS, machineS }) => [
    title,
    plannedS.toFixed(2),
    machineS.toFixed(2),
    `${(100 * (machineS / plannedS - 1)).toFixed(2)} %`,
  ]),
)}

## What a timing card finds

Each machine is one of the two stand-ins, in the clock's own time, with figures that are not what is said of it. Its timing
card is run and fitted; then 20 random drawings, which the card knows nothing of, are planned by what was found, and burnt;
so are the demo jobs on some of them. The most that any figure is off, and any time; the bound of each is 2 %. Jerk is in mm/s³.

${table(
  ['machine', 'looks ahead', 'ms a line', 'jerk', 'card s', 'figures off', 'drawings off', 'demo jobs off'],
  timing.map(({ language, lookAhead, moveMs, jerk, cardS, figures, drawings, jobs }) => [
    language,
    lookAhead,
    moveMs,
    jerk?.toLocaleString('en') ?? 'no limit',
    cardS.toFixed(0),
    ...[figures, drawings, jobs].map((share) => (share === null ? '–' : `${(100 * share).toFixed(2)} %`)),
  ]),
)}

${packingSection(packing, table)}
${rowsSection(rows)}
## The view of the Estuary relief

Time between frames while the view moves, headless Chromium without a graphics card, 1280 × 800; the bound
for the median is 33 ms. While it moves, the last picture is moved along; 120 ms after it has come to rest
the artwork is drawn afresh. “scrub” draws the slider of the preview from end to end and back, three times; its bound is 60
frames a second.

${table(
  ['movement', 'median ms', '95th percentile ms', 'frames'],
  frames.map(({ name, medianMs, p95Ms, count }) => [name, medianMs.toFixed(1), p95Ms.toFixed(1), count]),
)}

## Working on large drawings

From an event to the end of the frame that shows what it did, in the same browser: on the relief, and on 20,000
made-up items of 250,000 segments in groups of ten. The bounds are 50 ms for the median, 100 ms for the 95th
percentile, 3 s to open.

${table(
  ['drawing', 'doing', 'median ms', '95th percentile ms', 'events'],
  drawing.rows.map(({ name, doing, medianMs, p95Ms, count }) => [
    name,
    doing,
    medianMs.toFixed(1),
    p95Ms.toFixed(1),
    count,
  ]),
)}

Under the pointer, by the computation alone; the bound is 4 ms.

${table(
  ['drawing', 'doing', 'median ms', '95th percentile ms'],
  picking.map(({ name, doing, medianMs, p95Ms }) => [name, doing, medianMs.toFixed(2), p95Ms.toFixed(2)]),
)}

${table(
  ['drawing', 'opened in s', 'JavaScript heap, MB'],
  drawing.opened.map(({ name, openMs, heapMb }) => [name, (openMs / 1000).toFixed(2), heapMb.toFixed(0)]),
)}

## The longest time without a frame

While very large drawings are read, taken in, saved, planned, moved, taken back and opened, in the same browser: the
longest gap between frames, of three rounds the least and the most. The work is the same in each round; what else the
shared machine does only makes a gap longer. The bound for the work is 200 ms, so the least of the three is held against
it. What is larger is refused.

${table(
  ['drawing', 'doing', 'least ms', 'most ms'],
  gaps.map(({ what, doing, least, most }) => [what, doing, least.toFixed(0), most.toFixed(0)]),
)}

## The page's heap

After each hundred edits of all of the relief, with stages opened, undone and saved among them, garbage collected; the
way back holds 500 steps.

${table(
  ['edits', 'MB'],
  heaps.map((mb, i) => [100 * (i + 1), mb.toFixed(1)]),
)}
`;
writeFileSync(join(root, 'docs/performance.md'), text);
run('npx', ['biome', 'format', '--write', 'docs/performance.md'], { loud: false });
process.stdout.write(text);

/** A table of its heads and rows. */
function table(head, rows) {
  const line = head.map((_, i) => (i === 0 ? '---' : '--:'));
  return [head, line, ...rows].map((row) => `| ${row.join(' | ')} |`).join('\n');
}

/** Measures on the application, started on demo data of its own. */
async function onStack(measure) {
  const dataFolder = mkdtempSync(join(tmpdir(), 'lambent-bench-'));
  const stack = await startStack({ dataFolder, port: 7700, quiet: true });
  try {
    await measure(stack.address);
  } finally {
    stack.stop();
    rmSync(dataFolder, { recursive: true, force: true });
  }
}
