import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { DeskPage, ErrorAnswer, FiguresAnswer, MachineState, RunAnswer, Settings } from '@lambent/contracts';
import { Stack } from './stack.ts';

const stack = new Stack();
beforeAll(async () => {
  await stack.start();
  // The demo's record is empty: one job is burnt.
  await stack.startStandIn('wren');
  await stack.until<MachineState[]>('/api/machines/states', (states) =>
    states.some(({ machineId, state }) => machineId === 'wren' && state === 'idle'),
  );
  const [{ id, version }] = (await stack.ask<DeskPage>('GET', '/api/desk?seek=badges')).body.jobs;
  const { status, body } = await stack.ask<RunAnswer>('POST', `/api/jobs/${id}/runs`, {
    version,
    runId: 'run-1',
    by: 'Tobiah Okonjo',
  });
  expect(status).toBe(201);
  await stack.until<RunAnswer[]>('/api/runs', (all) => all.some((run) => run.id === body.id && run.status === 'done'));
}, 180_000);
afterAll(() => stack.close());

const span = 'from=2000-01-01&until=2002-12-31';
const figures = (days: string) => stack.ask<FiguresAnswer & ErrorAnswer>('GET', `/api/figures?${days}`);
const year = () => {
  const now = new Date();
  return `from=${new Date(now.getTime() - 300 * 86_400_000).toISOString().slice(0, 10)}&until=${new Date(now.getTime() + 86_400_000).toISOString().slice(0, 10)}`;
};

test('the figures of the shop are those of its record, its prices and its stock', async () => {
  const { status, body } = await figures(year());
  expect(status).toBe(200);
  const record = (await stack.ask<RunAnswer[]>('GET', '/api/runs')).body.filter(({ endedAt }) => endedAt !== null);
  const sum = (values: number[]) => values.reduce((all, value) => all + value, 0);
  const times = body.weeks.flatMap(({ machines }) => machines);
  expect(record).toHaveLength(1);
  expect(sum(times.map(({ runs }) => runs))).toBe(1);
  expect(body.people[0]).toMatchObject({ name: 'Tobiah Okonjo', runs: 1 });
  const used = record.flatMap(({ taken }) => taken).map(({ materialId }) => materialId);
  expect(used).toHaveLength(1);
  expect(body.stock.find(({ materialId }) => materialId === used[0])?.used).toBe(1);
  expect(sum(times.map(({ seconds }) => seconds))).toBeCloseTo(sum(record.map(({ machineS }) => machineS)), 6);
  expect(body.stock.length).toBeGreaterThan(5);

  // A job that is burnt counts with what it was agreed for.
  const [{ id }] = (await stack.ask<DeskPage>('GET', '/api/desk?seek=plaque')).body.jobs;
  const quote = {
    lines: [
      { what: 'Cutting', amount: 9.1 },
      { what: 'Sanding', amount: 3.4 },
    ],
    validUntil: '2999-12-31',
    terms: '',
  };
  const [{ number }] = (await stack.ask<{ number: number }[]>('POST', `/api/jobs/${id}/quotes`, quote)).body;
  await stack.ask('POST', `/api/jobs/${id}/quotes/accepted`, { number });
  await stack.ask('PUT', `/api/jobs/${id}/state`, { state: 'burnt' });
  const after = (await figures(year())).body;
  expect(sum(after.weeks.map(({ amount }) => amount)) - sum(body.weeks.map(({ amount }) => amount))).toBeCloseTo(
    12.5,
    6,
  );
  expect(after.weeks.at(-1)?.jobs ?? 0).toBeGreaterThan(0);

  // In another currency it is not added to the others.
  const { pricing } = (await stack.ask<Settings>('GET', '/api/settings')).body;
  await stack.ask('PUT', '/api/settings', { pricing: { ...pricing, currency: 'kr' } });
  const foreign = (await figures(year())).body;
  expect([foreign.currency, foreign.withoutPrice]).toEqual(['kr', after.withoutPrice + 1]);
  await stack.ask('PUT', '/api/settings', { pricing });
});

test('each table comes as comma-separated values', async () => {
  const heads = {
    hours: 'week,machine,hours,runs',
    money: 'week,amount,currency,jobs',
    sheets: 'material,mm,used,left',
    people: 'person,hours,runs,amount',
  };
  for (const [table, head] of Object.entries(heads)) {
    const answer = await fetch(`${stack.url}/api/figures.csv?table=${table}&${year()}`);
    expect(answer.headers.get('content-type')).toContain('text/csv');
    const [first, ...rows] = (await answer.text()).trim().split('\r\n');
    expect(first).toContain(head);
    expect(rows.length).toBeGreaterThan(0);
  }
  const empty = await fetch(`${stack.url}/api/figures.csv?table=hours&${span}`);
  expect((await empty.text()).trim().split('\r\n')).toHaveLength(1);
});

test('days that are no days, or the wrong way round, or far too many, are refused in a sentence', async () => {
  for (const [days, words] of [
    ['from=2026-02-01&until=2026-01-01', 'before the first one'],
    ['from=2000-01-01&until=2026-01-01', '1100 days'],
    ['from=soon&until=2026-01-01', 'written as'],
  ]) {
    const { status, body } = await figures(days);
    expect([status, body.error.message]).toEqual([400, expect.stringContaining(words)]);
  }
  const { weeks, people } = (await figures(span)).body;
  expect([weeks.length, people]).toEqual([158, []]);
});
