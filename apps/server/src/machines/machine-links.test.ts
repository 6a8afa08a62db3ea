import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import type { MachineState, ServerEvent } from '@lambent/contracts';
import { type Machine, usualMachine } from '@lambent/core/machine';
import { type MachineStatus, restingStatus } from '@lambent/machines';
import { EventHub } from '../events/event-hub.ts';
import type { LineOptions } from './machine-drivers.ts';
import { MachineLinks } from './machine-links.ts';

const machine = (id: string, topSpeed = 500, acceleration = 4000) =>
  ({
    id,
    name: id.toUpperCase(),
    topSpeed,
    acceleration,
    connection: { kind: 'network', host: 'h', port: 1, language: 'lambent', buffer: 127 },
  }) as Machine;

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());

/** Links to machines whose drivers say what the test has them say. */
async function linksTo(...machines: Machine[]) {
  const made = new Map<string, LineOptions>();
  const drivers = new Map<string, { status: MachineStatus; oddities: number; done: string[] }>();
  const makers = {
    forget: (id: string) => void drivers.get(id)?.done.push('forget'),
    forgetAll: () => {},
    make: async ({ id, connection }: Machine, options: LineOptions) => {
      if (connection === null) return null;
      const driver = {
        capabilities: { words: ['home', 'lid open'] as const, watch: true },
        status: { ...restingStatus, state: 'away' as const },
        oddities: 0,
        done: [] as string[],
        open: () => driver.done.push('open'),
        close: async (withinMs: number) => void driver.done.push(`close ${withinMs}`),
      };
      made.set(id, options);
      drivers.set(id, driver);
      return driver;
    },
  };
  const hub = new EventHub();
  const told: MachineState[] = [];
  hub.heard().subscribe((event: ServerEvent) => {
    if (event.type === 'machine') told.push(event.machine);
  });
  const links = new MachineLinks({ list: async () => machines } as never, hub, makers as never);
  const logged: string[] = [];
  Object.assign(links, { log: { warn: (text: string) => logged.push(text) } });
  await links.onApplicationBootstrap();
  const say = (id: string, status: Partial<MachineStatus>) => made.get(id)?.changed?.({ ...restingStatus, ...status });
  return { links, made, drivers, told, say, logged };
}

test('each machine of the shop gets a line, which is opened, and is told as away until it is heard', async () => {
  const { links, drivers, told } = await linksTo(machine('wren'), machine('curlew'));
  expect(links.ids).toEqual(['wren', 'curlew']);
  expect(told).toMatchObject([
    { machineId: 'wren', state: 'away' },
    { machineId: 'curlew', state: 'away' },
  ]);
  expect(told[0]).toMatchObject({ orders: ['hold', 'resume', 'stop', 'home', 'open-lid'], watches: true });
  expect(drivers.get('wren')?.done).toEqual(['open']);
  expect(links.states()).toEqual(told);
  expect(links.state('curlew')).toEqual(told[1]);
  await links.close(70);
  expect([...drivers.values()].map(({ done }) => done[1])).toEqual(['close 70', 'close 70']);
});

test('a machine that there is not is said to be unknown', async () => {
  const { links } = await linksTo(machine('wren'));
  expect(() => links.get('dunlin')).toThrow(expect.objectContaining({ status: 404 }));
});

test('two seconds of burning wait in a machine, or twice as long as its head takes to brake from its top speed', async () => {
  const { made } = await linksTo(machine('quick', 500, 4000), machine('slow', 600, 400), machine('just', 400, 400));
  expect(['quick', 'slow', 'just'].map((id) => made.get(id)?.windowS)).toEqual([2, 3, 2]);
  // The slower of both axes counts.
  const { made: other } = await linksTo({ ...machine('slow', 600, 4000), accelerationY: 400 });
  expect(other.get('slow')?.windowS).toBe(3);
});

test('where a machine is, is told now and then; another state, reason, lid or run at once', async () => {
  const { told, say } = await linksTo(machine('wren'));
  const count = () => told.length - 1;
  say('wren', { x: 1 });
  expect(count()).toBe(1);
  say('wren', { x: 2 });
  say('wren', { x: 3 });
  expect(count()).toBe(1);
  for (const [i, change] of (
    [
      { state: 'running' },
      { state: 'running', runId: 'r' },
      { state: 'held', runId: 'r' },
      { state: 'held', runId: 'r', reason: 'held by hand' },
      { state: 'held', runId: 'r', reason: 'held by hand', lid: 'open' },
    ] as Partial<MachineStatus>[]
  ).entries()) {
    say('wren', { x: 4, ...change });
    expect(told.at(-1)).toMatchObject({ x: 4, ...change });
    expect(count()).toBe(2 + i);
  }
  const last = { state: 'held', runId: 'r', reason: 'held by hand', lid: 'open' } as const;
  say('wren', { ...last, x: 5 });
  expect(told.at(-1)?.x).toBe(4);
  jest.advanceTimersByTime(60);
  expect(told.at(-1)).toMatchObject({ machineId: 'wren', x: 5 });
});

test('what makes no sense is put into the log twenty times, and then counted only', async () => {
  const { made, drivers, logged } = await linksTo(machine('wren'));
  for (let i = 1; i <= 25; i++) {
    (drivers.get('wren') as { oddities: number }).oddities = i;
    made.get('wren')?.odd?.(`nonsense ${i}`);
  }
  expect(logged).toHaveLength(20);
  expect(logged.at(-1)).toBe('WREN said what makes no sense: nonsense 20');
});

test('a machine that is not connected has no line, and says so; connected, it gets one', async () => {
  const knot = { ...machine('knot'), connection: null };
  const { links, drivers, told } = await linksTo(knot);
  expect(links.ids).toEqual([]);
  expect(told).toMatchObject([{ machineId: 'knot', state: 'away', reason: 'not connected', orders: [], lid: null }]);
  expect(() => links.get('knot')).toThrow(expect.objectContaining({ status: 409, code: 'not-connected' }));
  const lines: string[] = [];
  links.newLines.subscribe((id) => lines.push(id));
  await links.follow(machine('knot'));
  expect([links.ids, lines, drivers.get('knot')?.done]).toEqual([['knot'], ['knot'], ['open']]);
  await links.follow({ ...machine('knot'), isPutAway: true });
  expect(links.ids).toEqual([]);
  expect(drivers.get('knot')?.done).toEqual(['open', 'close 500', 'forget']);
  expect(() => links.get('knot')).toThrow(expect.objectContaining({ message: expect.stringContaining('is put away') }));
});

test('the line stays where only figures change that the machine does not feel; else it is made anew', async () => {
  const knot = machine('knot');
  const { links, made, drivers } = await linksTo(knot);
  const [first] = [drivers.get('knot')];
  await links.follow({ ...knot, margin: 9, name: 'Red knot' });
  expect(drivers.get('knot')).toBe(first);
  await links.follow({ ...knot, acceleration: 100 });
  expect(drivers.get('knot')).not.toBe(first);
  expect(first?.done).toEqual(['open', 'close 500', 'forget']);
  expect(made.get('knot')?.windowS).toBe(10);
  // A stand-in is made anew where it would move otherwise.
  const second = drivers.get('knot');
  const simulated = { ...usualMachine('co2'), id: 'knot', connection: { kind: 'stand-in', factor: 1 } as const };
  await links.follow(simulated);
  const third = drivers.get('knot');
  await links.follow({ ...simulated, moveMs: 2 });
  expect(new Set([second, third, drivers.get('knot')]).size).toBe(3);
});

test('while a machine has a run, nothing is changed that would close the line to it', async () => {
  const knot = machine('knot');
  const { links, drivers } = await linksTo(knot);
  const faster = { ...knot, topSpeed: 600 };
  const has = (status: Partial<MachineStatus>) =>
    Object.assign(drivers.get('knot') as object, { status: { ...restingStatus, ...status } });
  has({ state: 'idle', runId: 'r' });
  expect(() => links.expectMayChange(faster)).toThrow(
    expect.objectContaining({ status: 409, message: expect.stringMatching(/^KNOT has a run\./) }),
  );
  for (const state of ['running', 'held'] as const) {
    has({ state });
    expect(() => links.expectMayChange(faster)).toThrow(expect.objectContaining({ code: 'machine-runs' }));
  }
  expect(() => links.expectMayChange({ ...knot, margin: 3 })).not.toThrow();
  for (const state of ['idle', 'alarm', 'away'] as const) {
    has({ state });
    expect(() => links.expectMayChange(faster)).not.toThrow();
  }
});

test('a machine that cannot be reached is kept, and says why', async () => {
  const { links, made } = await linksTo();
  const makers = (links as unknown as { makers: { make: () => Promise<never> } }).makers;
  makers.make = () => Promise.reject(new Error('The stand-in could not be started.'));
  Object.assign(links, { log: { error: () => {} } });
  await links.follow(machine('knot'));
  expect(made.size).toBe(0);
  expect(links.state('knot')).toMatchObject({ state: 'away', reason: 'The stand-in could not be started.' });
  expect(() => links.get('knot')).toThrow(expect.objectContaining({ code: 'not-connected' }));
});
