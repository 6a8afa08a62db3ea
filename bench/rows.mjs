// One design, many names: 1,000 badges with a name that is fitted and a code, filled, laid and planned.
import { readFileSync } from 'node:fs';
import { makeCode } from '@lambent/core/codes';
import { drawnPaint } from '@lambent/core/colours';
import { newJob, pathOf } from '@lambent/core/document';
import { addItems, chooseDesign, setSheet } from '@lambent/core/edits';
import { identity, pathData, translation } from '@lambent/core/geometry';
import { bedBox } from '@lambent/core/machine';
import { packOfDesign } from '@lambent/core/packing';
import { planJob, prepareJob } from '@lambent/core/plan';
import { sheetAsStocked, shopFromJson } from '@lambent/core/recipes';
import { burnsLayersOf, fillRows, gridOf, layRows } from '@lambent/core/rows';
import { setText, textShape, usualText } from '@lambent/core/text';
import { shippedTools } from '@lambent/fonts';

const rounds = 5;
const rowCount = 1000;
const shop = shopFromJson(JSON.parse(readFileSync(new URL('../demo/shop.json', import.meta.url), 'utf8')));
const machine = shop.machines.find(({ id }) => id === 'wren');
const material = shop.materials.find(({ id }) => id === 'birch-ply-3');
const { fonts } = shippedTools();

const list = {
  id: 'names',
  name: 'Names',
  columns: ['name'],
  rows: Array.from({ length: rowCount }, (_, i) => ({ id: `${i + 1}`, cells: [`Volunteer number ${i + 1}`] })),
  designId: null,
};

/** A badge of 64 × 30 mm: its edge cut, its name in a frame of 40 mm, a QR code of 16 mm. */
function design() {
  const text = { ...usualText, words: '{name}', height: 5, bold: true, width: 40, fit: 'smaller' };
  const item = (id, shape, operation, matrix = identity) => ({
    ...drawnPaint(shop.keys[0], operation),
    id,
    name: null,
    shape,
    matrix,
    fillRule: 'nonzero',
    groupId: null,
    hidden: false,
  });
  return [
    item('edge', { kind: 'rectangle', x: 0, y: 0, width: 64, height: 30, rx: 4, ry: 4 }, 'cut'),
    item('name', textShape(text, setText(text, fonts)), 'engrave', translation(4, 18)),
    item('code', makeCode({ symbology: 'qr', words: '{name}', width: 16, height: 16 }), 'engrave', translation(46, 7)),
  ];
}

/** Fills and lays all rows. */
function lay() {
  const items = design();
  const ids = new Set(items.map(({ id }) => id));
  const onBed = setSheet(newJob(machine.id, shop.keys[0].id), sheetAsStocked('s', material, machine));
  const job = chooseDesign(addItems(onBed, items), list, ids, 'design');
  const start = performance.now();
  const filled = fillRows(items, list, { book: fonts, date: '', leastOf: () => 0 });
  const filledMs = performance.now() - start;
  const prepared = prepareJob(job, shop);
  const [sheet] = job.sheets;
  const pack = packOfDesign(prepared, {
    design: ids,
    earlier: new Set(),
    materialId: material.id,
    count: rowCount,
    gapMm: 2,
    marginMm: 3,
    turning: 'none',
    further: { before: [], after: [{ sheet, count: null }] },
  });
  let next = 0;
  const laid = layRows(
    job,
    {
      list: job.lists[0],
      filled: filled.rows,
      pack,
      places: gridOf(pack),
      burnsDesign: burnsLayersOf(prepared, ids),
      nameFilling: (filling, { name }) => `${name} ${filling}`,
    },
    { bed: bedBox(machine), newId: () => `${++next}`, nameRun: (nth) => `Sheet ${nth}` },
  );
  return { laid, filledMs, laidMs: performance.now() - start };
}

const median = (times) => times.sort((a, b) => a - b)[times.length >> 1];

/** @returns how long rows take to be filled, to be laid with that, and the runs to be planned, in ms; and how long to be written as text */
export function benchRows() {
  const made = Array.from({ length: rounds }, lay);
  const { laid } = made[0];
  const startOfText = performance.now();
  for (const item of laid.drawing.items) pathData(pathOf(item), 3);
  const textMs = performance.now() - startOfText;
  const planned = laid.runs.map((run) => {
    const start = performance.now();
    planJob(prepareJob(laid, shop, { runId: run.id }));
    return performance.now() - start;
  });
  return {
    rows: rowCount,
    runs: laid.runs.length,
    filledMs: median(made.map(({ filledMs }) => filledMs)),
    laidMs: median(made.map(({ laidMs }) => laidMs)),
    textMs,
    runMs: median([...planned]),
    allMs: planned.reduce((sum, ms) => sum + ms, 0),
  };
}

/** What was measured, as a part of docs/performance.md. */
export function rowsSection({ rows, runs, filledMs, laidMs, textMs, runMs, allMs }) {
  const seconds = (ms) => (ms / 1000).toFixed(2);
  return `## One design, many names

${rows.toLocaleString('en')} badges, each with a name that is fitted into its frame and a QR code of it, side by side on ${runs} sheets:
filled in ${seconds(filledMs)} s, laid in ${seconds(laidMs)} s with that (wanted: 2 s), medians of ${rounds}. Writing their outlines as text takes
${seconds(textMs)} s, a ratio of ${(laidMs / textMs).toFixed(1)}. The page works this out in a worker. A run, which is what one waits for, is
planned in ${seconds(runMs)} s (wanted: 10 s), all ${runs} of them one after the other in ${seconds(allMs)} s.
`;
}
