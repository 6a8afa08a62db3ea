import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { ErrorAnswer, JobAnswer, JobCard } from '@lambent/contracts';
import { type ColourKey, operationColourKey } from '@lambent/core/colours';
import { Stack } from './stack.ts';

const stack = new Stack();
beforeAll(() => stack.start());
afterAll(() => stack.close());

const path = '/api/colour-keys';
const keys = async () => (await stack.ask<ColourKey[]>('GET', path)).body;
const names = async () => (await keys()).map(({ name }) => name);
const key = operationColourKey('whatever', 'Quay pens');

test('the demo shop has keys of different logics', async () => {
  expect(await names()).toEqual([
    'Tern Lane house key',
    'Evening class key',
    'Ferry Steps print colours',
    'Slipway, by line width',
    'Three depths of grey',
  ]);
});

test('a key is added under an id of its own, changed, put first, and removed', async () => {
  const { status, body } = await stack.ask<ColourKey>('POST', path, key);
  expect(status).toBe(201);
  expect(body).toEqual({ ...key, id: body.id });
  expect(body.id).not.toBe('whatever');
  const changed = { ...body, name: 'Quay pens, two', hairlineMm: 0.4 };
  expect((await stack.ask('PUT', `${path}/${body.id}`, changed)).body).toEqual(changed);
  expect((await keys()).at(-1)).toEqual(changed);

  const { body: ordered } = await stack.ask<ColourKey[]>('PUT', `${path}/order`, { ids: [body.id] });
  expect(ordered[0]).toEqual(changed);
  expect(ordered).toHaveLength(6);
  // New jobs go by the first.
  const job = await stack.ask<JobAnswer>('POST', '/api/jobs', { title: 'By the quay', machineId: 'wren' });
  expect(job.body.document.keyId).toBe(body.id);

  const used = await stack.ask<ErrorAnswer>('DELETE', `${path}/${body.id}`);
  expect(used.status).toBe(409);
  expect(used.body.error.message).toContain('1 job goes by “Quay pens, two”');
  const { body: document } = await stack.ask<JobAnswer>('GET', `/api/jobs/${job.body.id}`);
  const other = { ...document.document, keyId: 'house' };
  await stack.sendJob('PUT', `/api/jobs/${job.body.id}`, { base: '1', edit: 'change colour key' }, other);
  expect((await stack.ask('DELETE', `${path}/${body.id}`)).status).toBe(204);
  expect(await names()).toHaveLength(5);
});

test.each<[string, unknown, string]>([
  ['no name', { ...key, name: ' ' }, 'name must have 1 to 120 characters'],
  ['a rule to nowhere', { ...key, rules: [{ ...key.rules[0], layerId: 'moon' }] }, 'the key has no layer “moon”'],
  ['a colour that is none', { ...key, rules: [{ ...key.rules[0], colour: 'red' }] }, 'rule 1: colour must be like'],
  ['no rules at all', { ...key, rules: 'none' }, 'its rules must be a list'],
])('a key with %s is refused in a sentence', async (_, body, sentence) => {
  const before = await keys();
  const answer = await stack.ask<ErrorAnswer>('POST', path, body);
  expect(answer.status).toBe(400);
  expect(answer.body.error).toMatchObject({ code: 'not-a-key', message: expect.stringContaining(sentence) });
  expect((await stack.ask('PUT', `${path}/house`, body)).status).toBe(400);
  expect(await keys()).toEqual(before);
});

test('keys that are not there, and orders that are none, change nothing', async () => {
  expect((await stack.ask('PUT', `${path}/nowhere`, key)).status).toBe(404);
  expect((await stack.ask('DELETE', `${path}/nowhere`)).status).toBe(404);
  expect((await stack.ask('PUT', `${path}/order`, { ids: 'house' })).status).toBe(400);
  expect(await names()).toHaveLength(5);
});

test('keys that an order does not name come last, as they stood', async () => {
  const before = (await keys()).map(({ id }) => id);
  const [first, second, third, ...rest] = before;
  await stack.ask('PUT', `${path}/order`, { ids: [third, 'nowhere'] });
  expect((await keys()).map(({ id }) => id)).toEqual([third, first, second, ...rest]);
  await stack.ask('PUT', `${path}/order`, { ids: before });
  expect((await keys()).map(({ id }) => id)).toEqual(before);
});

test('the last key stays, whoever asks', async () => {
  for (const { id, version } of (await stack.ask<JobCard[]>('GET', '/api/jobs')).body) {
    const { body } = await stack.ask<JobAnswer>('GET', `/api/jobs/${id}`);
    const document = { ...body.document, keyId: 'house' };
    await stack.sendJob('PUT', `/api/jobs/${id}`, { base: String(version), edit: 'change colour key' }, document);
  }
  for (const { id } of await keys()) {
    if (id !== 'house') expect((await stack.ask('DELETE', `${path}/${id}`)).status).toBe(204);
  }
  const { status, body } = await stack.ask<ErrorAnswer>('DELETE', `${path}/house`);
  expect([status, body.error.code]).toEqual([409, 'last-key']);
  expect(await names()).toEqual(['Tern Lane house key']);
});

test('a key that only a deleted job goes by stays: that job can be taken back', async () => {
  const { body: made } = await stack.ask<ColourKey>('POST', path, key);
  for (const title of ['One', 'Two']) {
    const { body: job } = await stack.ask<JobAnswer>('POST', '/api/jobs', { title, machineId: 'wren' });
    const document = { ...job.document, keyId: made.id };
    await stack.sendJob('PUT', `/api/jobs/${job.id}`, { base: '1', edit: 'change colour key' }, document);
    if (title === 'Two') await stack.ask('DELETE', `/api/jobs/${job.id}`);
  }
  const { status, body } = await stack.ask<ErrorAnswer>('DELETE', `${path}/${made.id}`);
  expect(status).toBe(409);
  expect(body.error.message).toMatch(/^2 jobs go by “Quay pens” \(1 of them deleted, and not gone yet\)/);
  for (const { id, title } of (await stack.ask<JobCard[]>('GET', '/api/jobs')).body) {
    if (title === 'One') await stack.ask('DELETE', `/api/jobs/${id}`);
  }
  expect((await keys()).some(({ id }) => id === made.id)).toBe(true);
});
