import { type ChildProcess, spawn } from 'node:child_process';
import { createInterface } from 'node:readline';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { ErrorAnswer, MachineState, TimingAnswer } from '@lambent/contracts';
import { type Connection, type Machine, usualMachine } from '@lambent/core/machine';
import { secondsOf, timingCard } from '@lambent/core/timing';
import { SerialMachine } from './serial-machine.ts';
import { Stack } from './stack.ts';

/*
 * Timing cards over the real lines: of machines that are not what is believed of them. What a card finds in the clock's own
 * time, figure by figure, is in scripts/timing.test.mjs.
 */

const stack = new Stack(undefined, '');
const small = new SerialMachine();
let standIn: ChildProcess | null = null;
const ids = new Map<string, string>();

/** What the machines are. */
const truth = {
  'top-speed': 400,
  'travel-speed': 500,
  acceleration: 2500,
  'acceleration-y': 1500,
  'corner-deviation': 0.02,
};
const plainTruth: Machine = {
  ...usualMachine('co2'),
  bedWidth: 400,
  bedHeight: 300,
  origin: 'bottom-left',
  acceleration: 2500,
  accelerationY: 1500,
  cornerDeviation: 0.02,
  lookAhead: 40,
  moveMs: 1,
};
const words = (more: object) =>
  Object.entries({ width: 400, height: 300, ...truth, ...more }).map(([name, value]) => `--${name}=${value}`);

/** Switches a stand-in on that speaks Lambent. @returns its port */
function switchOn(more: object): Promise<number> {
  const program = fileURLToPath(new URL('../../stand-in/dist/main.js', import.meta.url));
  standIn = spawn(process.execPath, [program, ...words({ port: 0, ...more })], { stdio: ['pipe', 'pipe', 'inherit'] });
  return new Promise((resolve) => {
    createInterface({ input: standIn?.stdout as never }).on('line', (line) => resolve(Number(line.split(':').at(-1))));
  });
}

async function add(name: string, connection: Connection): Promise<void> {
  const believed = { ...usualMachine('co2'), name, bedWidth: 400, bedHeight: 300, origin: 'bottom-left', connection };
  const { status, body } = await stack.ask<Machine & ErrorAnswer>('POST', '/api/machines', believed);
  expect({ status, ...body.error }).toEqual({ status: 201 });
  ids.set(name, body.id);
  await until(name, ({ state }) => state === 'idle');
}

const until = (name: string, suits: (state: MachineState) => boolean) =>
  stack.until<MachineState[]>('/api/machines/states', (states) =>
    states.some((own) => own.machineId === ids.get(name) && suits(own)),
  );
/** By the clock on the wall a card takes more than a minute, and working it out some time on a busy computer. */
const longestMs = 600_000;
const timing = (name: string) => `/api/machines/${ids.get(name)}/timing`;

beforeAll(async () => {
  await stack.start();
  const host = '127.0.0.1';
  const port = await switchOn({ factor: 20, 'look-ahead': 16, 'line-ms': 2, jerk: 100_000 });
  await add('Plover', { kind: 'network', host, port, language: 'lambent', buffer: 127 });
  const plainPort = await small.listen(...words({ 'look-ahead': 40, 'line-ms': 1 }));
  await add('Sanderling', { kind: 'network', host, port: plainPort, language: 'plain', buffer: 127 });
});
afterAll(async () => {
  await stack.close();
  await small.close();
  standIn?.kill();
});

test.each([
  ['Plover', { acceleration: 2500, accelerationY: 1500, travelSpeed: 500, jerk: 100_000, lookAhead: 16, moveMs: 2 }],
  // Its clock is the one on the wall: on a busy computer all may take longer.
  ['Sanderling', null],
])(
  '%s runs its timing card unlit, and its figures are found',
  async (name, figures) => {
    expect((await stack.ask<TimingAnswer>('GET', timing(name))).body).toEqual({ card: null, trouble: null });
    const begun = await stack.ask<MachineState>('POST', timing(name));
    expect(begun.body).toMatchObject({ errand: { kind: 'timing', share: 0 }, runId: null });
    expect((await stack.ask<ErrorAnswer>('POST', timing(name))).status).toBe(409);
    const isDone = (states: MachineState[]) => {
      const own = states.find(({ machineId }) => machineId === ids.get(name));
      expect(own?.power).toBe(0);
      return own?.errand === null;
    };
    await stack.until('/api/machines/states', isDone, longestMs);
    const { card, trouble } = (await stack.ask<TimingAnswer>('GET', timing(name))).body;
    expect(trouble).toBeNull();
    expect(card?.parts.some(({ tookS, standsS }) => Math.abs(standsS / tookS - 1) > 0.2)).toBe(true);
    if (figures === null) {
      const isSlower = (i: number, like: Machine) =>
        expect(card?.parts[i].tookS).toBeGreaterThan(secondsOf(timingCard(like)[i], like) - 0.05);
      for (const i of card?.parts.keys() ?? []) isSlower(i, plainTruth);
      return;
    }
    for (const [figure, value] of Object.entries(figures)) {
      const found = card?.motion[figure as keyof typeof card.motion] ?? 0;
      expect([figure, Math.abs(found / value - 1) < 0.02, found]).toEqual([figure, true, found]);
    }
    for (const { tookS, fittedS } of card?.parts ?? [])
      expect(Math.abs(fittedS - tookS)).toBeLessThan(0.02 * tookS + 0.02);
  },
  longestMs,
);

test('a card that is stopped says so, and what was measured before stands', async () => {
  const before = (await stack.ask<TimingAnswer>('GET', timing('Plover'))).body.card;
  await stack.ask('POST', timing('Plover'));
  await until('Plover', ({ errand, state }) => errand?.kind === 'timing' && state === 'running');
  await stack.ask('POST', `/api/machines/${ids.get('Plover')}/commands`, { command: 'stop' });
  await until('Plover', ({ errand }) => errand === null);
  const { card, trouble } = (await stack.ask<TimingAnswer>('GET', timing('Plover'))).body;
  expect(card).toEqual(before);
  expect(trouble).toMatch(/^The timing card was not run to its end \(stopped.*What was measured before stands\.$/);
});
