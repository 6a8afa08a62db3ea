import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { JobAnswer, JobCard } from '@lambent/contracts';
import { checkJob } from '@lambent/core/checks';
import type { ColourKey } from '@lambent/core/colours';
import { jobFromJson } from '@lambent/core/document';
import { decodePicture, prepareWithPictures, programLines } from '@lambent/core/formats';
import type { Machine } from '@lambent/core/machine';
import { planJob } from '@lambent/core/plan';
import type { Material } from '@lambent/core/recipes';
import { shippedAssets } from '@lambent/fonts';
import { Stack } from './stack.ts';

/*
 * What the demo jobs burn. A change of the code that is not to change what is burnt leaves all of this as it is; one that
 * is says so in demo-programs.json.
 */

const stack = new Stack();
beforeAll(() => stack.start());
afterAll(() => stack.close());

const known = JSON.parse(readFileSync(new URL('demo-programs.json', import.meta.url), 'utf8'));

test('the demo jobs burn what they always did: programs, times and findings', async () => {
  const ask = async <T>(path: string) => (await stack.ask<T>('GET', path)).body;
  const shop = {
    machines: await ask<Machine[]>('/api/machines'),
    keys: await ask<ColourKey[]>('/api/colour-keys'),
    materials: await ask<Material[]>('/api/materials'),
  };
  const pixelsOf = async (id: string) =>
    decodePicture(new Uint8Array(await (await fetch(`${stack.url}/api/pictures/${id}`)).arrayBuffer()), shippedAssets);
  const found: Record<string, unknown> = {};
  for (const { id, title } of await ask<JobCard[]>('/api/jobs')) {
    const job = jobFromJson((await ask<JobAnswer>(`/api/jobs/${id}`)).document);
    for (const run of job.runs) {
      const prepared = await prepareWithPictures(job, shop, { runId: run.id }, pixelsOf);
      const plan = planJob(prepared);
      const program = createHash('sha256');
      let lines = 0;
      for (const { text } of programLines(plan, title)) {
        program.update(`${text}\n`);
        lines++;
      }
      found[`${title}, ${run.name}`] = {
        program: program.digest('hex'),
        lines,
        seconds: Number(plan.timeS.toFixed(6)),
        findings: checkJob(prepared, plan).map(({ code, level, message }) => `${level} ${code}: ${message}`),
      };
    }
  }
  expect(found).toEqual(known);
});
