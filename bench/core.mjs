// The computation on the Estuary relief, each part as a ratio to a yardstick measured in the same run.
import { readFileSync } from 'node:fs';
import { checkJob } from '@lambent/core/checks';
import { newJob, pathOf } from '@lambent/core/document';
import { addItems, changeSetting, setSheet, transformItems } from '@lambent/core/edits';
import { writeGcode } from '@lambent/core/formats';
import { readSvg } from '@lambent/core/formats/svg';
import { flatten, nodeCount, translation } from '@lambent/core/geometry';
import { planJob, prepareJob } from '@lambent/core/plan';
import { sheetAsStocked, shopFromJson } from '@lambent/core/recipes';
import { SaxesParser } from 'saxes';
import { largeDrawing } from './drawing.mjs';

const rounds = 9;
const text = readFileSync(new URL('../demo/drawings/estuary-relief.svg', import.meta.url), 'utf8');
const shop = shopFromJson(JSON.parse(readFileSync(new URL('../demo/shop.json', import.meta.url), 'utf8')));

function readRelief() {
  let next = 0;
  return readSvg(text, () => `r${++next}`).drawing;
}

/** The relief as a job on Curlew. */
export function reliefJob() {
  return jobOf(readRelief());
}

function jobOf(drawing) {
  return onBoard(addItems(newJob('curlew', 'house'), drawing.items, drawing.groups));
}

function onBoard(job) {
  const machine = shop.machines.find(({ id }) => id === 'curlew');
  const material = shop.materials.find(({ id }) => id === 'grey-board-2');
  return setSheet(job, sheetAsStocked('s', material, machine));
}

/** The median of several rounds, in ms; each on what `prepare` gives anew, as items keep what was computed of them. */
function median(prepare, work) {
  const times = Array.from({ length: rounds }, () => {
    const given = prepare();
    const start = performance.now();
    work(given);
    return performance.now() - start;
  });
  return times.sort((a, b) => a - b)[rounds >> 1];
}

/** The medians of the same work on what several prepare, one after the other in each round; the first rounds do not count. */
function inTurn(prepares, work) {
  const times = prepares.map(() => []);
  for (let round = 0; round < rounds + 4; round++) {
    prepares.forEach((prepare, i) => {
      const given = prepare();
      const start = performance.now();
      work(given);
      if (round >= 4) times[i].push(performance.now() - start);
    });
  }
  return times.map((all) => all.sort((a, b) => a - b)[rounds >> 1]);
}

/** Moves one item after another of a job: the medians of checking it again, and of planning it, in ms. */
function afterEdits(job) {
  let now = job;
  const [checks, plans] = [[], []];
  for (let round = 0; round < rounds + 3; round++) {
    now = transformItems(now, new Set([now.drawing.items[500 + round].id]), translation(0.05, 0));
    const start = performance.now();
    const prepared = prepareJob(now, shop);
    const plan = planJob(prepared);
    const planned = performance.now();
    checkJob(prepared, plan);
    if (round < 3) continue;
    plans.push(planned - start);
    checks.push(performance.now() - planned);
  }
  return [checks, plans].map((times) => times.sort((a, b) => a - b)[rounds >> 1]);
}

const nothing = () => undefined;
const freshItems = () => readRelief().items;

/** @returns rows of what was measured, against what, in ms */
export function benchCore() {
  const parse = median(nothing, () => {
    const parser = new SaxesParser({ xmlns: true });
    parser.on('error', (error) => {
      throw error;
    });
    parser.write(text).close();
  });
  const read = median(nothing, readRelief);
  const flattening = median(freshItems, (items) => {
    for (const item of items) flatten(pathOf(item));
  });
  const prepared = () => prepareJob(jobOf(readRelief()), shop);
  const matching = median(
    () => jobOf(readRelief()),
    (job) => prepareJob(job, shop),
  );
  const withKerf = (mm) => prepareJob(changeSetting(jobOf(readRelief()), 'cut', 'kerfMm', mm), shop);
  const [planning, kerfPlanning] = inTurn([() => prepareJob(jobOf(readRelief()), shop), () => withKerf(0.2)], planJob);
  const kerfChecking = median(
    () => {
      const job = withKerf(0.2);
      return { job, plan: planJob(job) };
    },
    ({ job, plan }) => checkJob(job, plan),
  );
  const checking = median(
    () => {
      const job = prepared();
      return { job, plan: planJob(job) };
    },
    ({ job, plan }) => checkJob(job, plan),
  );
  const [rechecking, replanning] = afterEdits(onBoard(largeDrawing()));
  const plan = planJob(prepared());
  const writing = median(nothing, () => {
    let length = 0;
    for (const line of writeGcode(plan, 'relief')) length += line.length;
    return length;
  });
  const numbers = median(nothing, () => {
    let length = 0;
    for (const { moves } of plan.steps) {
      for (let i = 0; i < moves.xs.length; i++) length += `${moves.xs[i].toFixed(3)} ${moves.ys[i].toFixed(3)}`.length;
    }
    return length;
  });
  const nodes = readRelief().items.reduce((sum, item) => sum + nodeCount(pathOf(item)), 0);
  return {
    nodes,
    rows: [
      {
        what: 'read the SVG',
        ms: read,
        yardstick: 'parsing the same text with the XML package alone',
        yardstickMs: parse,
      },
      {
        what: 'match colours',
        ms: matching,
        yardstick: 'flattening the same paths alone',
        yardstickMs: flattening,
      },
      { what: 'plan', ms: planning, yardstick: 'flattening the same paths alone', yardstickMs: flattening },
      {
        what: 'plan with a kerf of 0.2 mm',
        ms: kerfPlanning,
        yardstick: 'planning without (bound: 1.3)',
        yardstickMs: planning,
      },
      { what: 'check with that kerf', ms: kerfChecking, yardstick: 'planning without', yardstickMs: planning },
      { what: 'check', ms: checking, yardstick: 'flattening the same paths alone', yardstickMs: flattening },
      {
        what: 'check again, one of 20,000 items moved',
        ms: rechecking,
        yardstick: 'planning that again',
        yardstickMs: replanning,
      },
      {
        what: 'write the G-code',
        ms: writing,
        yardstick: 'writing the same coordinates as text alone',
        yardstickMs: numbers,
      },
    ],
  };
}
