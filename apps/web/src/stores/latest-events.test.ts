import { expect, test } from '@jest/globals';
import type { MachineState, RunAnswer } from '@lambent/contracts';
import { LatestEvents } from './latest-events.ts';

const machine = (machineId: string, x: number) =>
  ({ event: { type: 'machine', machine: { machineId, x } as MachineState } }) as const;

test('who comes later is told the last of each kind and of each machine, and no run', () => {
  const latest = new LatestEvents();
  const full = { event: { type: 'storage', storage: { ok: false, since: 'then', message: 'full' } } } as const;
  for (const news of [
    { connected: false },
    machine('wren', 1),
    full,
    machine('curlew', 2),
    { event: { type: 'run', run: {} as RunAnswer } } as const,
    machine('wren', 3),
    { connected: true },
  ])
    latest.take(news);
  expect(latest.all()).toEqual([{ connected: true }, machine('wren', 3), full, machine('curlew', 2)]);
});
