import { jobFromJson, jobToJson } from '@lambent/core/document';
import { addItems, pinItems, setSheet } from '@lambent/core/edits';
import { identity } from '@lambent/core/geometry';
import { sheetAsStocked } from '@lambent/core/recipes';
import { Stack } from '../../apps/server/test/stack.ts';
import { percentile } from '../random.mjs';

/** So many squares that overlap, drawn with a stroke or a fill. */
function squares(count, paint) {
  const shape = (i) => ({
    kind: 'rectangle',
    x: 10 + (i % 250) * 1.1,
    y: 10 + Math.floor(i / 250) * 1.1,
    width: 1.5,
    height: 1.5,
    rx: 0,
    ry: 0,
  });
  return Array.from({ length: count }, (_, i) => ({
    id: `i${i}`,
    name: null,
    shape: shape(i),
    matrix: identity,
    paint,
    fillRule: 'nonzero',
    groupId: null,
    pinned: null,
    hidden: false,
  }));
}

const heavy = [
  {
    title: '20,000 fills',
    machineId: 'wren',
    items: () => squares(20_000, { stroke: null, strokeWidthMm: 0, fill: '#000000' }),
    layer: 'engrave',
  },
  {
    title: '60,000 cuts',
    machineId: 'curlew',
    items: () => squares(60_000, { stroke: '#D0481E', strokeWidthMm: 0.1, fill: null }),
    layer: 'cut',
  },
];

/** Saves small jobs while large ones are planned, each twice. */
export async function siegeOfPlans() {
  const stack = new Stack();
  await stack.start();
  const { body: materials } = await stack.ask('GET', '/api/materials');
  const { body: machines } = await stack.ask('GET', '/api/machines');
  for (const { machineId } of heavy) {
    const { bedWidth, bedHeight } = machines.find(({ id }) => id === machineId);
    await stack.startStandIn(machineId, '--width', String(bedWidth), '--height', String(bedHeight));
  }
  const starts = [];
  for (const { title, machineId, items, layer } of heavy) {
    const { body: job } = await stack.ask('POST', '/api/jobs', { title, machineId });
    const machine = machines.find(({ id }) => id === machineId);
    const made = items();
    const empty = jobFromJson(job.document);
    const drawn = pinItems(addItems(empty, made), new Set(made.map(({ id }) => id)), layer);
    const material = materials.find(({ id }) => id === 'cork-3') ?? materials[0];
    const document = setSheet(drawn, sheetAsStocked('s', material, machine));
    const saved = await stack.sendJob('PUT', `/api/jobs/${job.id}`, { base: '1', edit: 'drawn' }, jobToJson(document));
    if (saved.status !== 200) throw new Error(`The siege’s job was not saved: ${JSON.stringify(saved.body)}`);
    starts.push({ id: job.id, version: saved.body.number });
  }
  const { body: small } = await stack.ask('POST', '/api/jobs', { title: 'Small', machineId: 'dunlin' });
  let version = small.version;
  const times = [];
  let refused = 0;
  const save = async () => {
    const began = performance.now();
    const answer = await stack.sendJob(
      'PUT',
      `/api/jobs/${small.id}`,
      { base: String(version), edit: 'small' },
      { ...small.document, member: `${times.length}` },
    );
    times.push(performance.now() - began);
    if (answer.status === 200) version = answer.body.number;
    else refused++;
  };
  for (let i = 0; i < 20; i++) await save();
  times.length = 0;
  let planned = 0;
  const said = [];
  for (let round = 0; round < 2; round++) {
    let planning = true;
    const plans = Promise.all(
      starts.map(({ id, version: of }) => stack.ask('POST', `/api/jobs/${id}/runs`, { version: of, again: true })),
    ).then((answers) => {
      planning = false;
      for (const { status, body } of answers) {
        if (status === 201 || status === 422) planned++;
        said.push(`${status} ${JSON.stringify(body).slice(0, 300)}`);
      }
    });
    while (planning) await save();
    await plans;
    for (const { machineId } of heavy) {
      await stack.ask('POST', `/api/machines/${machineId}/commands`, { command: 'stop' });
    }
    await stack.until('/api/runs', (runs) => runs.every(({ endedAt }) => endedAt !== null));
  }
  await stack.close();
  if (planned !== 4) throw new Error(`The siege’s large jobs were not planned: ${said.join('; ')}`);
  return [
    {
      what: '20,000 overlapping fills and 60,000 cuts planned, each twice: saves meanwhile',
      found: times.length,
      most: null,
    },
    { what: 'the same: refused', found: refused, most: 0 },
    { what: 'the same: longest save, ms', found: Math.round(Math.max(...times)), most: 250 },
    { what: 'the same: 95th percentile, ms', found: Math.round(percentile(times, 95)), most: null },
  ];
}
