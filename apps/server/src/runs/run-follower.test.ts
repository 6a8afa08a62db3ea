import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import type { MachineState } from '@lambent/contracts';
import { MachineRefusal, type ProgramEnd, restingStatus } from '@lambent/machines';
import { Subject } from 'rxjs';
import { EventHub } from '../events/event-hub.ts';
import type { RunEntity } from './run.entities.ts';
import { RunFollower } from './run-follower.ts';

const calm: MachineState = {
  machineId: 'wren',
  ...restingStatus,
  orders: [],
  watches: true,
  errand: null,
  lastWalk: null,
  makingReady: null,
};
const run = (more: Partial<RunEntity> = {}) =>
  ({
    id: 'r1',
    machineId: 'wren',
    status: 'running',
    programHash: 'nowhere',
    lines: 9,
    doneLine: 4,
    machineS: 0.4,
    job: { title: 'Tags' },
    ...more,
  }) as RunEntity;
const done: ProgramEnd = { status: 'done', reason: null, line: 9, runS: 0.9 };

let now = 0;
beforeEach(() => {
  now = 1000;
  jest.spyOn(performance, 'now').mockImplementation(() => now);
});
afterEach(() => void jest.restoreAllMocks());

/** A follower of one machine; what it writes, and what it tells the machine, is noted. */
function follower(options: { open?: RunEntity[]; has?: string | null; over?: string[]; camera?: unknown } = {}) {
  const { open = [], has = null, over = [], camera = null } = options;
  const written: unknown[][] = [];
  const told: string[] = [];
  const logged: string[] = [];
  let state = calm;
  const driver = {
    camera,
    get status() {
      return state;
    },
    askRun: async () => has,
    stop: async () => void told.push('stop'),
    takeUp: async () => done,
  };
  const links = {
    ids: ['wren'],
    newLines: new Subject(),
    get: () => driver,
    state: () => state,
    close: async (ms: number) => void told.push(`close ${ms}`),
  };
  const writes = {
    do: async (...write: unknown[]) => void written.push(write),
    insist: async (...write: unknown[]) => void written.push(write),
  };
  const record = {
    unended: async () => open,
    isOver: async (id: string) => over.includes(id),
    answered: async (id: string) => void written.push(['answered', id]),
  };
  const hub = new EventHub();
  const machines = { list: async () => [{ id: 'wren' }] };
  const made = new RunFollower(record as never, machines as never, links as never, hub, writes as never);
  const log = (text: unknown) => logged.push(String(text));
  Object.assign(made, { log: { error: log, warn: log } });
  const hear = (part: Partial<MachineState>) => {
    state = { ...calm, ...part };
    hub.say({ type: 'machine', machine: state });
  };
  return { follower: made, written, told, logged, hear };
}
/** What is under way comes to where it waits next. */
const settled = () => new Promise((resolve) => setImmediate(resolve));
const ended = (written: unknown[][]) => written.find(([name]) => name === 'endRun');

describe('a run that is followed', () => {
  test('is on record with its end, and then is nobody’s any more', async () => {
    const { follower: follow, written } = follower();
    let finish: (end: ProgramEnd) => void = () => {};
    const over = follow.follow({ ...run(), title: 'Tags' }, () => new Promise((resolve) => (finish = resolve)));
    expect(follow.titleOn('wren')).toBe('Tags');
    expect(follow.titleOn('curlew')).toBeUndefined();
    finish({ ...done, status: 'stopped', reason: 'stopped by hand' });
    await over;
    const progress = { status: 'stopped', reason: 'stopped by hand', doneLine: 9, machineS: 0.9 };
    expect(written).toEqual([
      ['endRun', 'r1', progress, null],
      ['answered', 'r1'],
    ]);
    expect(follow.titleOn('wren')).toBeUndefined();
  });

  test('is nobody’s any more by the time its end can be read: who reads it may begin the next', async () => {
    const { follower: follow, written } = follower();
    const titles: (string | undefined)[] = [];
    jest.spyOn(written, 'push').mockImplementation(([name]: unknown[]) => {
      if (name === 'endRun') titles.push(follow.titleOn('wren'));
      return 0;
    });
    await follow.follow({ ...run(), title: 'Tags' }, async () => done);
    expect(titles).toEqual([undefined]);
  });

  test('that the machine refuses is on record as refused, with its sentence; what goes wrong inside is logged, too', async () => {
    const { follower: follow, written, logged } = follower();
    await follow.follow({ ...run(), title: 'Tags' }, async () => {
      throw new MachineRefusal('machine-refuses', 'The machine refuses: no air.');
    });
    expect(ended(written)?.[2]).toEqual({
      status: 'refused',
      reason: 'The machine refuses: no air.',
      doneLine: 0,
      machineS: 0,
    });
    expect(logged).toEqual([]);
    await follow.follow({ ...run(), title: 'Tags' }, async () => {
      throw new Error('out of order');
    });
    expect(logged).toEqual(['Error: out of order']);
  });

  test('is noted when it is held or goes on, which all hear, and every two seconds, which nobody needs to', async () => {
    const { follower: follow, written, hear } = follower();
    await follow.onApplicationBootstrap();
    void follow.follow({ ...run(), title: 'Tags' }, () => new Promise(() => {}));
    const noted = async () => {
      await settled();
      return written.splice(0).map(([name, , progress]) => [name, (progress as { doneLine?: number })?.doneLine]);
    };
    const running = { runId: 'r1', state: 'running' as const };
    now += 1999;
    hear({ ...running, line: 1 });
    expect(await noted()).toEqual([]);
    now += 1;
    hear({ ...running, line: 2 });
    expect(await noted()).toEqual([['noteRun', 2]]);
    hear({ ...running, line: 3 });
    expect(await noted()).toEqual([]);
    hear({ ...running, state: 'held', line: 4 });
    expect(await noted()).toEqual([
      ['noteRun', 4],
      ['answered', undefined],
    ]);
    hear({ ...running, state: 'held', line: 4 });
    hear({ ...running, runId: 'another', line: 5 });
    hear({ ...running, state: 'idle', line: 6 });
    hear({ ...running, state: 'away', line: 7 });
    expect(await noted()).toEqual([]);
    hear({ ...running, line: 8 });
    expect(await noted()).toEqual([
      ['noteRun', 8],
      ['answered', undefined],
    ]);
  });

  test('has no picture where the machine is away, or none can be taken, which is said', async () => {
    const look = async () => {
      throw new Error('the lens is dirty');
    };
    const { follower: follow, written, logged, hear } = follower({ camera: { look } });
    hear({ state: 'away' });
    await follow.follow({ ...run(), title: 'Tags' }, async () => done);
    expect([ended(written)?.[3], logged]).toEqual([null, []]);
    written.length = 0;
    hear({ state: 'idle' });
    await follow.follow({ ...run(), title: 'Tags' }, async () => done);
    expect([ended(written)?.[3], logged]).toEqual([null, ['No picture of run r1: the lens is dirty']]);
  });
});

describe('after a start', () => {
  test('a run whose program is lost is broken off where it was, and stopped on a machine that has it', async () => {
    const { follower: follow, written, told } = follower({ open: [run()], has: 'r1' });
    await follow.onApplicationBootstrap();
    while (!ended(written)) await settled();
    expect(told).toEqual(['stop']);
    const progress = { status: 'broken off', reason: 'its program is lost', doneLine: 4, machineS: 0.4 };
    expect(ended(written)).toEqual(['endRun', 'r1', progress, null]);
  });

  test('what another run has on the machine goes on', async () => {
    const { follower: follow, written, told } = follower({ open: [run()], has: 'r2' });
    await follow.onApplicationBootstrap();
    while (!ended(written)) await settled();
    expect(told).toEqual([]);
  });

  test('a run of a machine that is gone is broken off', async () => {
    const { follower: follow, written } = follower({ open: [run({ machineId: 'gone' })] });
    await follow.onApplicationBootstrap();
    while (!ended(written)) await settled();
    expect(ended(written)?.[2]).toMatchObject({ reason: 'its machine is not the shop’s any more', doneLine: 4 });
  });

  test.each([
    ['running', 'r1', ['stop']],
    ['held', 'r1', ['stop']],
    ['idle', 'r1', []],
    ['running', 'r2', []],
    ['running', null, []],
  ] as const)('a machine that is %s with run %s is told %j, where r1 is over', async (state, has, expected) => {
    const { follower: follow, told, hear } = follower({ has, over: ['r1'] });
    hear({ state });
    await follow.onApplicationBootstrap();
    await settled();
    expect(told).toEqual(expected);
  });
});

test('at the end of the server, what runs is held and noted so, and its end is left for the next start', async () => {
  const { follower: follow, written, told, hear } = follower();
  await follow.onApplicationBootstrap();
  let finish: (end: ProgramEnd) => void = () => {};
  const over = follow.follow({ ...run(), title: 'Tags' }, () => new Promise((resolve) => (finish = resolve)));
  hear({ runId: 'r1', state: 'running', line: 6, runS: 0.6 });
  await settled();
  written.length = 0;
  await follow.beforeApplicationShutdown();
  expect(told).toEqual(['close 2000']);
  const progress = { status: 'held', reason: 'Lambent was ended', doneLine: 6, machineS: 0.6 };
  expect(written).toEqual([['noteRun', 'r1', progress]]);
  hear({ runId: 'r1', state: 'held', line: 7 });
  finish(done);
  await over;
  expect(written).toHaveLength(1);
});
