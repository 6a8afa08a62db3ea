import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { ErrorAnswer, JobAnswer, JobCard, JobFileLook, JobFileTaken, VersionAnswer } from '@lambent/contracts';
import { type ColourKey, startingKeys } from '@lambent/core/colours';
import { jobFromJson } from '@lambent/core/document';
import { type Machine, usualMachine } from '@lambent/core/machine';
import type { Material } from '@lambent/core/recipes';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { Stack } from './stack.ts';

const [demo, own] = [new Stack(), new Stack(undefined, '')];
beforeAll(() => Promise.all([demo.start(), own.start()]));
afterAll(() => Promise.all([demo.close(), own.close()]));

const path = '/api/job-files';
const get = async <T>(stack: Stack, from: string) => (await stack.ask<T>('GET', from)).body;
const cardOf = async (stack: Stack, title: string) =>
  (await get<JobCard[]>(stack, '/api/jobs')).find((job) => job.title.startsWith(title)) as JobCard;
const jobOf = (stack: Stack, id: string) => get<JobAnswer>(stack, `/api/jobs/${id}`);
const fileOf = async (stack: Stack, id: string) => {
  const answer = await fetch(`${stack.url}${path}/${id}`);
  return { name: answer.headers.get('content-disposition'), bytes: new Uint8Array(await answer.arrayBuffer()) };
};
const look = (stack: Stack, bytes: Uint8Array) => stack.ask<JobFileLook & ErrorAnswer>('POST', `${path}/look`, bytes);
const take = (stack: Stack, bytes: Uint8Array, words: Record<string, string> = {}) =>
  stack.ask<JobFileTaken & ErrorAnswer>(
    'POST',
    `${path}?${new URLSearchParams({ by: 'Noor Castellan', ...words })}`,
    bytes,
  );
/** A job without the numbers by which a shop knows the files it came from. */
const unnumbered = ({ document }: JobAnswer) => {
  const job = jobFromJson(document);
  return { ...job, arrivals: job.arrivals.map((arrival) => ({ ...arrival, originalId: null })) };
};

describe.each(['Row markers', 'Bench plaque', 'Drawer for packets'])('%s', (title) => {
  test('goes to a shop that has nothing of it, and back, and is the same', async () => {
    const card = await cardOf(demo, title);
    const before = await jobOf(demo, card.id);
    const sent = await fileOf(demo, card.id);
    expect(sent.name).toContain('.lambent-job.zip');
    const seen = await look(own, sent.bytes);
    expect(seen.body).toMatchObject({
      title: card.title,
      project: 'Heronbrook Seed Library',
      shopName: 'Tern Lane Workshop',
      machine: { id: 'wren', name: 'Wren' },
      newFonts: [],
    });
    const taken = await take(own, sent.bytes);
    expect({ status: taken.status, ...taken.body.error }).toEqual({ status: 201 });
    const there = await jobOf(own, taken.body.id);
    expect([there.title, there.project, there.version]).toEqual([card.title, 'Heronbrook Seed Library', 1]);
    expect(unnumbered(there)).toEqual(unnumbered(before));
    // The files that it came from are there, byte for byte.
    for (const [i, { originalId }] of jobFromJson(before.document).arrivals.entries()) {
      if (originalId === null) continue;
      const other = jobFromJson(there.document).arrivals[i].originalId;
      const bytesAt = async (stack: Stack, job: string, id: number | null) =>
        Buffer.from(await (await fetch(`${stack.url}/api/jobs/${job}/originals/${id}`)).arrayBuffer());
      const [first, second] = [await bytesAt(demo, card.id, originalId), await bytesAt(own, there.id, other)];
      expect(first.length).toBeGreaterThan(100);
      expect(second.equals(first)).toBe(true);
    }
    expect((await get<VersionAnswer[]>(own, `/api/jobs/${there.id}/versions`)).map(({ edit }) => edit)).toEqual([
      'From a file',
    ]);

    const back = await take(demo, (await fileOf(own, there.id)).bytes);
    expect([back.status, back.body.notes]).toEqual([201, []]);
    expect(unnumbered(await jobOf(demo, back.body.id))).toEqual(unnumbered(before));
  });
});

test('what the shop had not came along, and is what it was; recipes as copied, nothing connected', async () => {
  const wren = (machines: Machine[]) => machines.find(({ id }) => id === 'wren');
  const [there, here] = [wren(await get(own, '/api/machines')), wren(await get(demo, '/api/machines'))];
  expect(there).toEqual({ ...here, connection: null });
  expect(await get(own, '/api/machines/states')).toMatchObject([{ machineId: 'wren', reason: 'not connected' }]);
  // A key that means the same is one already, whatever it is called.
  expect(await get<ColourKey[]>(own, '/api/colour-keys')).toEqual([startingKeys[0].key]);
  const plywood = (await get<Material[]>(own, '/api/materials')).find(({ id }) => id === 'birch-ply-3');
  expect(plywood?.recipes.map(({ machineId, evidence }) => [machineId, evidence])).toEqual(
    plywood?.recipes.map(() => ['wren', 'copied']),
  );
  expect(plywood?.recipes.length).toBeGreaterThan(2);
  expect(plywood?.stock).toBeUndefined();
});

test('for another machine, what was typed by hand for the first is left out, and recipes for it are', async () => {
  const fresh = new Stack(undefined, '');
  await fresh.start();
  const { id, version } = await cardOf(demo, 'Row markers');
  const { document } = await jobOf(demo, id);
  const typed = { ...document, settings: { cut: { powerPercent: 33 } } };
  await demo.sendJob('PUT', `/api/jobs/${id}`, { base: String(version), edit: 'type a power' }, typed);
  const { bytes } = await fileOf(demo, id);
  // The key of that id means something else here.
  await fresh.ask('PUT', '/api/colour-keys/house', startingKeys[1].key);
  const { body: knot } = await fresh.ask<Machine>('POST', '/api/machines', { ...usualMachine('co2'), name: 'Knot' });
  const { body } = await take(fresh, bytes, { machineId: knot.id });
  expect(body.notes).toEqual([
    'It was made for Wren, and is for Knot now: see what no longer fits.',
    '“Tern Lane house key, from Row markers, spring batch” was added to the colour keys.',
    expect.stringMatching(
      /^Birch plywood 3(\.\d+)? mm was added to the recipe book, without \d recipes that are for Wren\.$/,
    ),
    'What was typed by hand for Wren was left out.',
  ]);
  const taken = jobFromJson((await jobOf(fresh, body.id)).document);
  expect([taken.machineId, taken.settings]).toEqual([knot.id, {}]);
  const keys = await get<ColourKey[]>(fresh, '/api/colour-keys');
  expect(keys[0]).toEqual(startingKeys[1].key);
  expect(keys[1]).toMatchObject({ id: taken.keyId, rules: startingKeys[0].key.rules });
  expect(taken.keyId).not.toBe('house');
  expect((await get<Machine[]>(fresh, '/api/machines')).map(({ name }) => name)).toEqual(['Knot']);
  const [plywood] = await get<Material[]>(fresh, '/api/materials');
  expect(plywood.recipes).toEqual([]);
  // Twice, it is there twice, and nothing is added again.
  expect((await take(fresh, bytes, { machineId: knot.id })).body.notes).toHaveLength(2);
  expect((await take(fresh, bytes, { machineId: 'gone' })).body.error.code).toBe('no-such-machine');
  await fresh.close();
});

describe('a file that is none, or not whole,', () => {
  const changed = async (change: (files: Record<string, Uint8Array>, list: Record<string, unknown>) => void) => {
    const files = unzipSync((await fileOf(demo, (await cardOf(demo, 'Bench plaque')).id)).bytes);
    const list = JSON.parse(strFromU8(files['job.json']));
    change(files, list);
    if (files['job.json'].length > 0) files['job.json'] = strToU8(JSON.stringify(list));
    return zipSync(files);
  };

  test.each<[string, () => Promise<Uint8Array> | Uint8Array, string]>([
    ['text', () => strToU8('Dear Ines'), 'This is not the file of a job, or it was cut off'],
    ['another zip', () => zipSync({ 'a.txt': strToU8('a') }), 'This zip is not the file of a job of Lambent.'],
    [
      'cut off',
      async () => (await fileOf(demo, (await cardOf(demo, 'Bench plaque')).id)).bytes.slice(0, 900),
      'or it was cut off on its way',
    ],
    ['of a later Lambent', () => changed((_, list) => Object.assign(list, { form: 2 })), 'made by a later Lambent'],
    [
      'whose picture was changed',
      () =>
        changed((files) => {
          const name = Object.keys(files).find((entry) => entry.startsWith('pictures/')) as string;
          files[name] = files[name].slice(1);
        }),
      'is damaged: pictures/',
    ],
    [
      'whose original is gone',
      () =>
        changed((files) => {
          for (const name of Object.keys(files)) if (name.startsWith('originals/')) delete files[name];
        }),
      'is damaged: originals/',
    ],
    [
      'whose document is none',
      () => changed((_, list) => Object.assign(list, { document: { drawing: 5 } })),
      'In the job’s file, the document cannot be used',
    ],
    [
      'whose machine cannot be',
      () => changed((_, list) => Object.assign(list.machine as object, { bedWidth: -1 })),
      'In the job’s file, the machine cannot be used: This is not a machine: “Width” must',
    ],
    ['whose list is torn', () => changed((_, list) => Object.assign(list, { originals: [{ id: 1 }] })), 'its list'],
  ])('%s, is refused in a sentence, and changes nothing', async (_, file, sentence) => {
    const bytes = await file();
    const before = await get(own, '/api/jobs');
    for (const answer of [await look(own, bytes), await take(own, bytes)]) {
      expect([answer.status, answer.body.error.message]).toEqual([422, expect.stringContaining(sentence)]);
    }
    expect(await get(own, '/api/jobs')).toEqual(before);
  });

  test('or sent by nobody is refused', async () => {
    const { bytes } = await fileOf(demo, (await cardOf(demo, 'Row markers')).id);
    expect((await take(own, bytes, { by: '' })).body.error.message).toBe('Say who you are, in 1 to 120 characters.');
    expect((await stackEmpty()).status).toBe(400);
    expect((await fetch(`${demo.url}${path}/nowhere`)).status).toBe(404);
  });
  const stackEmpty = () => own.ask<ErrorAnswer>('POST', `${path}/look`, new Uint8Array());
});
