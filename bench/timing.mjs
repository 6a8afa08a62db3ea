// What timing cards find of both stand-ins, and how well times hold that are planned by it: of drawings that the card knows
// nothing of, and of the demo jobs. In the clock's own time.
import { jobFromJson } from '@lambent/core/document';
import { decodePicture, prepareWithPictures, writeGcode } from '@lambent/core/formats';
import { planJob } from '@lambent/core/plan';
import { shippedAssets } from '@lambent/fonts';
import { lambentMachine, plainMachine } from '../scripts/timing/machines.mjs';
import { figuresOff, measured, timesOff } from '../scripts/timing/proof.mjs';

const drawings = 20;

/**
 * Demo jobs are planned and burnt where a line takes no time, or 5 ms: they take long.
 * @param only which look-aheads, such as `100,400`
 * @returns a row for each machine: what was off most, as shares
 */
export async function benchTiming(address, only = '16,100,400') {
  const jobs = await demoJobs(address);
  const rows = [];
  for (const language of ['lambent', 'plain']) {
    for (const lookAhead of only.split(',').map(Number)) {
      for (const moveMs of [undefined, 1, 5]) {
        for (const jerk of [undefined, language === 'plain' ? 20_000 : 100_000]) {
          const found = measured(language, { lookAhead, moveMs, jerk });
          const isBurnt = moveMs !== 1;
          rows.push({
            language,
            lookAhead,
            moveMs: moveMs ?? 0,
            jerk: jerk ?? null,
            cardS: found.seconds.reduce((sum, s) => sum + s, 0),
            figures: figuresOff(found).off,
            drawings: worst(timesOff(found, drawings, 20_261_130)),
            jobs: isBurnt ? worst(await jobsOff(language, found, jobs)) : null,
          });
        }
      }
    }
  }
  return rows;
}

function worst(offs) {
  return Math.max(...offs.map(Math.abs));
}

async function demoJobs(address) {
  const ask = async (path) => (await fetch(address + path)).json();
  const [machines, keys, materials, cards] = await Promise.all(
    ['machines', 'colour-keys', 'materials', 'jobs'].map((what) => ask(`/api/${what}`)),
  );
  const pictures = new Map();
  const pixelsOf = async (id) => {
    if (!pictures.has(id)) {
      const bytes = await (await fetch(`${address}/api/pictures/${id}`)).arrayBuffer();
      pictures.set(id, await decodePicture(new Uint8Array(bytes), shippedAssets));
    }
    return pictures.get(id);
  };
  const jobs = await Promise.all(cards.map(async ({ id }) => jobFromJson((await ask(`/api/jobs/${id}`)).document)));
  const shop = { machines, keys, materials };
  // All pictures are fetched now: the server closes connections that are silent for long.
  for (const job of jobs) await prepareWithPictures(job, shop, { runId: job.runs[0].id }, pixelsOf);
  return { jobs, shop, pixelsOf };
}

/** By how much the planned time of each demo job is off, as shares. */
async function jobsOff(language, { machine: truth, found }, { jobs, shop, pixelsOf }) {
  const offs = [];
  for (const job of jobs) {
    const own = shop.machines.find(({ id }) => id === job.machineId);
    const { bedWidth, bedHeight, powerScale } = own;
    // The plain one has its zero in a corner, no focus, and switches no air.
    const like = { ...own, bedWidth, bedHeight, powerScale, origin: 'top-left', focus: undefined, air: undefined };
    const motionOf = ({ topSpeed: _, id: __, name: ___, bedWidth: ____, bedHeight: _____, ...rest }) => rest;
    const planned = { ...like, ...motionOf(found), kind: own.kind, powerScale, origin: 'top-left' };
    const prepared = await prepareWithPictures(
      job,
      { ...shop, machines: [planned] },
      { runId: job.runs[0].id },
      pixelsOf,
    );
    const plan = planJob(prepared);
    const burning = { ...like, ...motionOf(truth), powerScale, origin: 'top-left' };
    const simulated = language === 'plain' ? plainMachine(burning) : lambentMachine(burning);
    offs.push(plan.timeS / simulated.seconds([...writeGcode(plan, 'Demo')]) - 1);
  }
  return offs;
}
