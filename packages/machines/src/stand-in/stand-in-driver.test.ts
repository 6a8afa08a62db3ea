import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import type { Program, ProgramEnd } from '../driver.ts';
import { calmStatus, ScriptedPeer } from '../fixtures/scripted-peer.ts';
import { StandInDriver } from './stand-in-driver.ts';
import { statusFromJson } from './status.ts';

let peer: ScriptedPeer;
let driver: StandInDriver;
let odd: string[];
let port: number;
/** On a busy machine an answer may take long: only what a test is about has a time limit. */
const patient = { silenceMs: 120_000, wordMs: 120_000, stuckMs: 120_000 };
const drive = (limits: Partial<typeof patient> = {}) => {
  driver = new StandInDriver({ host: '127.0.0.1', port, odd: (what) => odd.push(what), ...patient, ...limits });
  driver.open();
};
/** Has another driver in the place of the first. */
const driveAnew = async (limits: Partial<typeof patient>) => {
  await driver.close(0);
  drive(limits);
};
beforeEach(async () => {
  peer = new ScriptedPeer();
  odd = [];
  port = await peer.listen();
  drive();
});
afterEach(async () => {
  await driver.close(0);
  await peer.close();
});

/** Waits for what is to become true. */
async function until(suits: () => boolean): Promise<void> {
  while (!suits()) await new Promise((resolve) => setTimeout(resolve, 5));
}
const inState = (state: string) => until(() => driver.status.state === state);
const heard = (what: string) => peer.heard.filter((line) => line === what).length;
const linesHeard = () => peer.heard.filter((line) => line.startsWith('N'));

const texts = ['G21', 'G0 X1 Y1', 'G1 X2 Y1 F600 S10', 'M5'];
const program = (lines = texts): Program => ({
  runId: 'run-a',
  lines: lines.length,
  async *open() {
    for (const text of lines) yield { text, seconds: 0.1 };
  },
});
/** A long program that the peer takes, but of which it does nothing by itself. */
const long = program(Array.from({ length: 400 }, (_, i) => `G1 X${i} Y0`));
const takesOnly = () => {
  peer.onLine = () => {
    const { run } = peer.status;
    if (run) peer.status = { ...peer.status, run: { ...run, taken: run.taken + 1 } };
    return 'ok';
  };
};
/** A run under way, of which the machine has taken as much as it may have. */
async function running(): Promise<{ ended: Promise<ProgramEnd> }> {
  takesOnly();
  await inState('idle');
  const ended = driver.send(long);
  await until(() => linesHeard().length >= 20);
  return { ended };
}

test('a run that was just sent is nowhere yet, whatever the machine says of the one before', async () => {
  peer.status = { ...peer.status, line: 90, runS: 40 };
  await until(() => driver.status.line === 90);
  const ended = driver.send(long);
  expect(driver.status).toMatchObject({ runId: 'run-a', line: 0, runS: 0 });
  void ended;
});

test('a program is begun, sent in order, and done when the machine stands and has taken all of it', async () => {
  await inState('idle');
  const ended = driver.send(program());
  await until(() => linesHeard().length === 4);
  expect(peer.heard.find((line) => line.includes('run begin'))).toMatch(/^#\d+ run begin run-a 4$/);
  expect(peer.heard.some((line) => /^#\d+ watch 2$/.test(line))).toBe(true);
  expect(linesHeard()).toEqual(['N1 G21', 'N2 G0 X1 Y1', 'N3 G1 X2 Y1 F600 S10', 'N4 M5']);
  peer.status = { ...peer.status, line: 3, runS: 2.5 };
  await until(() => driver.status.line === 3);
  expect(driver.status).toMatchObject({ state: 'running', runId: 'run-a' });
  peer.status = { ...peer.status, state: 'idle' };
  expect(await ended).toEqual({ status: 'done', reason: null, line: 3, runS: 2.5 });
  await until(() => driver.status.runId === null);
});

test('no more waits in the machine than burns within the window', async () => {
  await running();
  // 2 s in pieces of 0.1 s: 20 of them, and one that may be begun where rounding leaves room.
  expect(linesHeard().length).toBeLessThanOrEqual(21);
  const run = peer.status.run as NonNullable<typeof peer.status.run>;
  peer.status = { ...peer.status, run: { ...run, done: 10 } };
  await until(() => linesHeard().length >= 30);
  expect(linesHeard().length).toBeLessThanOrEqual(31);
});

describe('a machine that makes no sense', () => {
  test.each([
    ['garbage', Buffer.from([0, 255, 7, 200, 10])],
    ['a status that is null', 'status null\n'],
    ['a status that is no JSON', 'status {"state":\n'],
    ['a status that is a number', 'status 7\n'],
    ['a status in an unknown state', `status ${JSON.stringify({ ...calmStatus(), state: 'dancing' })}\n`],
    ['numbers that are words', `status ${JSON.stringify({ ...calmStatus(), x: '12' })}\n`],
    ['a run that is none', `status ${JSON.stringify({ ...calmStatus(), run: { id: 'a', taken: 1, done: 2 } })}\n`],
    ['an answer to nothing', 'ok\n'],
    ['an answer to a word that was not said', 'word #999 ok\n'],
    ['a line without an end', Buffer.alloc(17 * 1024 * 1024, 120)],
  ])('%s is counted and said, and nothing else comes of it', async (_, nonsense) => {
    await inState('idle');
    peer.say(nonsense);
    await until(() => driver.oddities === 1);
    expect(odd).toHaveLength(1);
    // The next thing that makes sense is understood.
    peer.status = { ...peer.status, x: 12 };
    await until(() => driver.status.x === 12);
    expect(driver.oddities).toBe(1);
    expect(peer.connections).toBe(1);
  });

  test('statuses in halves, and two at once, are read as they are', async () => {
    await inState('idle');
    peer.onEnquiry = () => null;
    const whole = (x: number) => `status ${JSON.stringify({ ...calmStatus(), x })}\n`;
    peer.say(whole(1).slice(0, 20));
    peer.say(`${whole(1).slice(20)}${whole(2)}${whole(3)}`);
    await until(() => driver.status.x === 3);
    expect(driver.oddities).toBe(0);
  });

  test('more answers than lines, and answers out of nowhere in a run, do not end it', async () => {
    await running();
    for (let i = 0; i < 40; i++) peer.say('ok\n');
    await until(() => driver.oddities > 5);
    await inState('running');
    expect(driver.status).toMatchObject({ state: 'running', runId: 'run-a' });
  });
});

describe('silence', () => {
  test('from the start: away, and words end with a sentence', async () => {
    peer.onEnquiry = () => null;
    peer.onWord = () => null;
    await driveAnew({ silenceMs: 400, wordMs: 400 });
    const before = peer.connections;
    await until(() => peer.connections >= before + 2);
    expect(driver.status.state).toBe('away');
    expect(driver.busy()?.code).toBe('machine-away');
    await expect(driver.tell('home')).rejects.toMatchObject({ message: expect.stringMatching(/machine/) });
  });

  test.each(['idle', 'homing', 'held', 'alarm'])(
    'of a machine that was %s: away until it is heard again',
    async (state) => {
      peer.status = { ...peer.status, state };
      await driveAnew({ silenceMs: 400 });
      await inState(state);
      const { onEnquiry } = peer;
      peer.onEnquiry = () => null;
      await inState('away');
      peer.onEnquiry = onEnquiry;
      await inState(state);
    },
  );

  test('in a run: it is not over; when the machine is heard again it is fed on from what it has taken', async () => {
    await driveAnew({ silenceMs: 400 });
    await running();
    const { onEnquiry } = peer;
    peer.onEnquiry = () => null;
    await inState('away');
    expect(driver.status).toMatchObject({ runId: 'run-a', power: 0 });
    const before = linesHeard().length;
    // Of what was sent, five lines were lost with the connection.
    const run = peer.status.run as NonNullable<typeof peer.status.run>;
    peer.status = { ...peer.status, run: { ...run, taken: run.taken - 5, done: run.taken - 5 } };
    peer.onEnquiry = onEnquiry;
    await until(() => linesHeard().length > before);
    expect(linesHeard()[before]).toBe(`N${before - 4} G1 X${before - 5} Y0`);
  });

  test('a word that is never answered ends, and the next one is answered', async () => {
    await driveAnew({ wordMs: 400 });
    await inState('idle');
    const { onWord } = peer;
    peer.onWord = () => null;
    const told = () => driver.tell('home').catch(({ message }: Error) => message);
    expect(await told()).toMatch(/has not answered in time/);
    peer.onWord = (number, word) => (word === 'home' ? `word #${number} error:not now` : onWord(number, word));
    let answer = await told();
    while (/has not answered in time/.test(String(answer))) answer = await told();
    expect(answer).toBe('The machine refuses: not now.');
  });

  test('a machine that hangs up at once is tried again and again', async () => {
    peer.onConnect = (socket) => socket.destroy();
    peer.hangUp();
    await until(() => peer.connections >= 3);
    expect(driver.status.state).toBe('away');
    peer.onConnect = () => {};
    await inState('idle');
  });
});

describe('the end of a run', () => {
  test('a line that is refused: the machine is stopped, and only then the run is over', async () => {
    await inState('idle');
    peer.onLine = (line) => (line.startsWith('N3') ? 'error:no' : 'ok');
    peer.onStop = () => {};
    let over = false;
    const ended = driver.send(program()).finally(() => {
      over = true;
    });
    await until(() => heard('<stop>') >= 3);
    expect(over).toBe(false);
    peer.drop();
    expect(await ended).toMatchObject({ status: 'refused', reason: 'no, at “G1 X2 Y1 F600 S10”' });
  });

  test('an alarm, a stop at the machine, and a restart are said as what they are', async () => {
    const cases = [
      [() => ({ state: 'alarm', reason: 'off the bed' }), { status: 'refused', reason: 'off the bed' }],
      [
        () => ({ state: 'idle', run: { ...peer.status.run, dropped: true } }),
        { status: 'stopped', reason: 'stopped at the machine' },
      ],
      [
        () => ({ state: 'idle', run: null }),
        { status: 'broken off', reason: 'the machine was restarted while it ran' },
      ],
    ] as const;
    takesOnly();
    for (const [i, [change, end]] of cases.entries()) {
      // What was said of the run before, which has the same id here, has come when this is heard.
      peer.status = { ...calmStatus(), x: i + 1 };
      await until(() => driver.status.x === i + 1);
      await inState('idle');
      await until(() => driver.busy() === null);
      const ended = driver.send(long);
      await until(() => peer.status.run !== null && peer.status.run.taken > 5);
      peer.status = { ...peer.status, ...(change() as object) };
      expect(await ended).toMatchObject(end);
    }
  });

  test('a stop is said until the machine stands; if it does not, that is said, and the run is not over', async () => {
    await driveAnew({ wordMs: 3000 });
    await running();
    peer.onStop = () => {};
    await expect(driver.stop()).rejects.toMatchObject({ code: 'no-answer' });
    const before = heard('<stop>');
    await until(() => heard('<stop>') > before);
    expect(driver.status.runId).toBe('run-a');
    peer.onStop = () => peer.drop();
    await until(() => driver.status.runId === null && driver.busy() === null);
  });

  test('a machine that takes no more is stopped, and that is said', async () => {
    await driveAnew({ stuckMs: 300 });
    await inState('idle');
    peer.onLine = () => null;
    expect(await driver.send(long)).toMatchObject({
      status: 'broken off',
      reason: expect.stringMatching(/taken nothing for/),
    });
    expect(heard('<stop>')).toBeGreaterThan(0);
  });

  test('none begins while the lid is open, or the machine is at something, and that is said', async () => {
    peer.status = { ...peer.status, lid: 'open' };
    await until(() => driver.status.lid === 'open');
    expect(driver.busy()).toMatchObject({ code: 'lid-open' });
    await expect(driver.send(program())).rejects.toThrow(/lid is open/);
    for (const [status, why] of [
      [{ state: 'homing', reason: null }, 'The machine is not free: it is homing.'],
      [{ state: 'alarm', reason: 'off the bed' }, 'The machine is not free: it is alarm, off the bed.'],
    ] as const) {
      peer.status = { ...calmStatus(), ...status };
      await inState(status.state);
      expect(driver.busy()).toMatchObject({ code: 'machine-busy', message: why });
    }
    peer.status = calmStatus();
    await inState('idle');
    expect(driver.busy()).toBeNull();
  });

  test('a run that the machine refuses to begin is not begun', async () => {
    await inState('idle');
    const { onWord } = peer;
    peer.onWord = (number, word) =>
      word.startsWith('run begin') ? `word #${number} error:the lid is open` : onWord(number, word);
    await expect(driver.send(program())).rejects.toThrow('The machine refuses: the lid is open.');
    expect(driver.busy()).toBeNull();
    expect(linesHeard()).toEqual([]);
  });

  test('one whose beginning is never answered is stopped', async () => {
    await driveAnew({ wordMs: 400 });
    await inState('idle');
    const { onWord } = peer;
    peer.onWord = (number, word) => {
      const answer = onWord(number, word);
      return word.startsWith('run begin') ? null : answer;
    };
    expect(await driver.send(program())).toMatchObject({ status: 'broken off' });
    expect(heard('<stop>')).toBeGreaterThan(0);
  });

  test('a program that cannot be read stops the machine', async () => {
    await inState('idle');
    const broken: Program = {
      ...long,
      async *open() {
        yield { text: 'G21', seconds: 0 };
        throw new Error('the disk is gone');
      },
    };
    expect(await driver.send(broken)).toMatchObject({
      status: 'broken off',
      reason: 'the program could not be read: the disk is gone',
    });
  });
});

describe('a hold by the machine’s own watch', () => {
  const held = { state: 'held', reason: 'nothing was heard for 2 s' };

  test('is ended by itself while the run is ours', async () => {
    await running();
    peer.status = { ...peer.status, ...held };
    await until(() => heard('<resume>') > 0);
  });

  test('is left to the operator after the server was started again; what the operator holds always is', async () => {
    peer.status = { ...peer.status, ...held, run: { id: 'run-a', taken: 3, done: 3, dropped: false } };
    takesOnly();
    void driver.takeUp(long);
    await until(() => linesHeard().length > 0);
    expect(linesHeard()[0]).toBe('N4 G1 X3 Y0');
    peer.status = { ...peer.status, x: 1 };
    await until(() => driver.status.x === 1);
    expect(heard('<resume>')).toBe(0);
    driver.resume();
    peer.status = { ...peer.status, state: 'running', reason: null };
    await inState('running');
    // A status that was on its way by then still told of the hold, and may have been answered. What was sent before a
    // word has been heard once that is answered.
    await driver.tell('home');
    const resumed = heard('<resume>');
    expect(resumed).toBeGreaterThan(0);
    peer.status = { ...peer.status, state: 'held', reason: 'held by hand', x: 2 };
    await until(() => driver.status.x === 2);
    await driver.tell('home');
    expect(heard('<resume>')).toBe(resumed);
  });
});

test('what is not there any more cannot be taken up, and a run given up while away is stopped when it comes back', async () => {
  await driveAnew({ silenceMs: 400, wordMs: 3000 });
  await inState('idle');
  expect(await driver.takeUp(long)).toMatchObject({
    status: 'broken off',
    reason: expect.stringMatching(/does not have/),
  });
  takesOnly();
  const ended = driver.send(long);
  await until(() => linesHeard().length > 5);
  const { onEnquiry } = peer;
  peer.onEnquiry = () => null;
  peer.onStop = () => {};
  await inState('away');
  await expect(driver.stop()).rejects.toMatchObject({ code: 'no-answer' });
  // A machine that hangs takes lines and answers nothing: its line is open, and it is away all the same.
  const { connections } = peer;
  await until(() => peer.connections > connections);
  await driver.stop();
  expect(await ended).toMatchObject({ status: 'broken off', reason: expect.stringMatching(/given up by hand/) });
  const stops = heard('<stop>');
  peer.onStop = () => peer.drop();
  peer.onEnquiry = onEnquiry;
  await until(() => heard('<stop>') > stops);
  await until(() => driver.status.state === 'idle' && driver.busy() === null);
});

test('a machine without a run that does not answer is told to stop, and the operator to see that it stands', async () => {
  await driveAnew({ silenceMs: 400 });
  await inState('idle');
  peer.onEnquiry = () => null;
  await inState('away');
  const { connections } = peer;
  await until(() => peer.connections > connections);
  await until(() => {
    driver.stop().catch(() => {});
    return heard('<stop>') > 0;
  });
  await expect(driver.stop()).rejects.toMatchObject({ code: 'machine-away' });
});

test('closing holds what runs, and waits until it stands', async () => {
  await running();
  const closing = driver.close(60_000);
  await until(() => heard('<hold>') > 0);
  peer.status = { ...peer.status, state: 'held', reason: 'held by hand' };
  await closing;
  expect(driver.status.state).toBe('held');
});

test('a status is read with every field in its kind', () => {
  const good = { ...calmStatus(), run: { id: 'a', taken: 3, done: 2, dropped: false } };
  expect(statusFromJson(JSON.stringify(good))).toEqual(good);
  for (const name of Object.keys(good).filter((key) => key !== 'run')) {
    expect(statusFromJson(JSON.stringify({ ...good, [name]: name === 'reason' ? 7 : {} }))).toBeNull();
  }
  for (const run of [
    7,
    { ...good.run, id: 3 },
    { ...good.run, taken: 1.5 },
    { ...good.run, done: -1 },
    { ...good.run, dropped: 0 },
  ])
    expect(statusFromJson(JSON.stringify({ ...good, run }))).toBeNull();
  // An older one tells neither its focus nor its air nor its pointer.
  const { z: _, air: __, pointer: ___, ...older } = good;
  expect(statusFromJson(JSON.stringify(older))).toEqual({ ...good, z: null, air: null, pointer: null });
});

test('a program that is to stay unlit is begun as such, and with the lid open; another is not', async () => {
  peer.status = { ...peer.status, lid: 'open' };
  await until(() => driver.status.lid === 'open');
  await expect(driver.send(program())).rejects.toMatchObject({ code: 'lid-open' });
  const ended = driver.send({ ...program(['M5', 'G1 X2 Y1 F600']), isUnlit: true });
  await until(() => linesHeard().length === 2);
  expect(peer.heard.find((line) => line.includes('run begin'))).toMatch(/^#\d+ run begin run-a 2 unlit$/);
  peer.status = { ...peer.status, state: 'idle' };
  expect(await ended).toMatchObject({ status: 'done' });
});
