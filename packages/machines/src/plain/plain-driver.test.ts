import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import type { MachineStatus, ProgramEnd } from '../driver.ts';
import { PlainPeer } from '../fixtures/plain-peer.ts';
import { PlainDriver } from './plain-driver.ts';

let peer: PlainPeer;
let driver: PlainDriver;
let waiting: { readonly is: () => boolean; readonly resolve: () => void }[];

/** Waits until something holds that follows from what is heard. */
const until = (is: () => boolean) =>
  new Promise<void>((resolve) => {
    if (is()) resolve();
    else waiting.push({ is, resolve });
  });
const look = () => {
  for (const entry of [...waiting]) {
    if (!entry.is()) continue;
    waiting.splice(waiting.indexOf(entry), 1);
    entry.resolve();
  }
};

beforeEach(() => {
  peer = new PlainPeer();
  waiting = [];
  const timer = setInterval(look, 5);
  driver = new PlainDriver({
    connect: peer.connect,
    buffer: 127,
    silenceMs: 400,
    owesMs: 300,
    wordMs: 400,
    homeMs: 400,
    retryMs: 10,
    changed: () => look(),
  });
  const { close } = driver;
  driver.close = async (ms) => {
    clearInterval(timer);
    await close.call(driver, ms);
  };
});
afterEach(() => driver.close(0));

const ready = async () => {
  driver.open();
  await until(() => driver.busy() === null);
  peer.heard.length = 0;
};
const program = (lines: readonly string[], seconds = 0.1) => ({
  runId: 'r',
  lines: lines.length,
  async *open() {
    for (const text of lines) yield { text, seconds };
  },
});
const moves = (count: number) => Array.from({ length: count }, (_, i) => `G1 X${i}`);
/** Sends a program to a machine that runs, takes lines and is never done with them. @returns its end */
const running = async (): Promise<ProgramEnd> => {
  await ready();
  peer.state = 'Run';
  peer.more = '|Bf:0,100|FS:600,300';
  return driver.send(program(moves(40), 0.1));
};

describe('a line that is opened', () => {
  test('has the machine reset, so that nothing is left in it of what came before', async () => {
    driver.open();
    expect(driver.busy()).toMatchObject({ code: 'machine-away' });
    await until(() => driver.busy() === null);
    expect(peer.heard).toContain('<reset>');
    expect(driver.status).toMatchObject({ state: 'idle', x: 1, y: 2, lid: null, runId: null });
  });

  test('leaves a machine alone that runs what somebody else sent', async () => {
    peer.state = 'Run';
    driver.open();
    await until(() => driver.status.state === 'running');
    expect([peer.heard, driver.busy()?.code]).toEqual([[], 'machine-busy']);
  });

  test('says why it cannot be opened, and is opened again', async () => {
    peer.refuses = 'there is no port';
    driver.open();
    await until(() => peer.connections > 2);
    expect(driver.busy()?.message).toBe(
      'The machine does not answer: there is no port. Switch it on, or choose another.',
    );
    peer.refuses = null;
    await until(() => driver.busy() === null);
  });

  test('over which nothing makes sense is opened again, with a word about the baud', async () => {
    peer.tellStatus = () => peer.say('\xfe\x81\xfe');
    driver.open();
    await until(() => /baud/.test(driver.status.reason ?? ''));
    expect([driver.status.state, driver.oddities > 0]).toEqual(['away', true]);
    await until(() => peer.connections > 1);
  });
});

describe('a program', () => {
  test('goes out without its comments, a wait with the beam on as one, and is done when all is', async () => {
    await ready();
    const lines = ['(a job)', 'G21', '', 'M4 S0', 'M3 S500', 'G4 P1.2', 'M4', 'G0 X5', 'M5', '(its end)'];
    const end = await driver.send(program(lines, 1.2));
    const wait = ['M3 S500', 'G4 P0.4', 'M4'];
    expect(peer.lines).toEqual(['G21', 'M4 S0', ...wait, ...wait, ...wait, 'G0 X5', 'M5']);
    expect(end).toMatchObject({ status: 'done', reason: null, line: 10 });
    expect(driver.status.runId).toBeNull();
  });

  test.each([
    ['as was said', '|Bf:17,127|FS:0,0', 127],
    ['where it tells of less', '|Bf:17,70|FS:0,0', 70],
    ['where it tells nothing', '|FS:0,0', 127],
  ])('never has more characters under way than the machine takes, %s', async (_, more, takes) => {
    peer.more = more;
    await ready();
    const owed: string[] = [];
    let most = 0;
    peer.onLine = (line) => {
      owed.push(line);
      most = Math.max(
        most,
        owed.reduce((sum, text) => sum + text.length + 1, 0),
      );
      return null;
    };
    const ended = driver.send(program(moves(60), 0.01));
    while (owed.length > 0 || peer.lines.length < 60) {
      await until(() => owed.length > 0);
      owed.shift();
      peer.say('ok');
      await new Promise((resolve) => setImmediate(resolve));
    }
    expect((await ended).status).toBe('done');
    expect(most).toBeGreaterThan(takes - 8);
    expect(most).toBeLessThanOrEqual(takes);
  });

  test('waits with what burns beyond its window, and knows how far it is by the room that is told', async () => {
    await ready();
    peer.state = 'Run';
    peer.more = '|Bf:13,127|FS:600,300';
    const ended = driver.send(program(moves(10), 0.5));
    // Two seconds, four moves: all taken, and all of them wait in the machine.
    await until(() => driver.status.state === 'running');
    await until(() => peer.lines.length === 4);
    expect([driver.status.line, driver.status.power]).toEqual([0, 300]);
    peer.more = '|Bf:15,127|FS:600,300';
    await until(() => driver.status.line === 2);
    await until(() => peer.lines.length === 6);
    peer.state = 'Idle';
    peer.more = '|Bf:17,127|FS:0,300';
    expect(await ended).toMatchObject({ status: 'done', line: 10 });
    expect(driver.status.power).toBe(0);
  });
});

describe('a run ends, the machine held and reset, when', () => {
  const heldThenReset = () => {
    const hold = peer.heard.indexOf('<hold>');
    expect(hold).toBeGreaterThanOrEqual(0);
    expect(peer.heard.indexOf('<reset>')).toBeGreaterThan(hold);
    expect(peer.lines.length).toBeLessThan(40);
  };

  test('it is stopped by hand', async () => {
    const ended = running();
    await until(() => driver.status.runId === 'r' && driver.status.state === 'running');
    await driver.stop();
    expect(await ended).toMatchObject({ status: 'stopped', reason: 'stopped by hand' });
    heldThenReset();
    expect(driver.busy()).toBeNull();
  });

  test.each([
    ['error:20', 'refused', /a word that it does not know \(error 20\), at “G1 X/],
    ['error:77', 'refused', /^error 77, at “G1 X/],
    ['ALARM:1', 'refused', /a switch at the end of an axis was touched/],
    ["Once more ['$' for help]", 'broken off', /was restarted while it ran/],
    ['o\xff', 'broken off', /the line is disturbed: “o·” came over it/],
    ['<Run|MPos:1.0,x,0>', 'broken off', /the line is disturbed/],
  ])('it hears %j', async (said, status, reason) => {
    // Of what it was sent it owes answers.
    peer.onLine = () => (peer.lines.length > 2 ? null : 'ok');
    const ended = running();
    await until(() => driver.status.state === 'running' && peer.lines.length > 2);
    peer.say(said);
    const answered = await ended;
    expect(answered).toMatchObject({ status, reason: expect.stringMatching(reason) });
    heldThenReset();
  });

  test('it is stopped while its lines are on their way: it is reset only when it has come to rest from them', async () => {
    await ready();
    peer.onLine = () => null;
    const ended = driver.send(program(['G1 X5']));
    await until(() => peer.lines.length === 1);
    const states: string[] = [];
    peer.onReset = () => {
      states.push(peer.state);
      peer.state = 'Idle';
      peer.greet();
    };
    // It says that it is idle, and moves as soon as the line has come.
    // That takes longer than this driver waits for a word.
    void driver.stop().catch(() => {});
    await until(() => peer.heard.includes('<hold>'));
    peer.onHold = () => {
      if (peer.state === 'Idle') {
        peer.state = 'Run';
        peer.say('ok');
      } else peer.state = 'Hold:0';
    };
    expect((await ended).status).toBe('stopped');
    expect(states[0]).toBe('Hold:0');
  });

  test('the machine stands and owes an answer', async () => {
    await ready();
    let taken = 0;
    peer.onLine = () => (taken++ === 2 ? null : 'ok');
    const end = await driver.send(program(moves(5)));
    expect(end).toMatchObject({ status: 'broken off', reason: expect.stringMatching(/has not answered “G1 X\d”/) });
    expect(peer.heard).toContain('<reset>');
  });

  test('what it says stops making sense: nobody knows that it stands, so that is not said', async () => {
    await ready();
    peer.onLine = () => {
      peer.tellStatus = () => {};
      return null;
    };
    const end = await driver.send(program(moves(5)));
    expect(end.reason).toMatch(/^the line to the machine broke/);
  });

  test('its program cannot be read on', async () => {
    await ready();
    peer.state = 'Run';
    const broken = {
      runId: 'r',
      lines: 9,
      async *open() {
        yield { text: 'G1 X1', seconds: 0.1 };
        throw new Error('the disk is gone');
      },
    };
    expect(await driver.send(broken)).toMatchObject({ reason: 'the program could not be read: the disk is gone' });
    heldThenReset();
  });
});

describe('a line that breaks in a run', () => {
  test('ends it at once, with why; what still runs when the line is back is stopped', async () => {
    const ended = running();
    await until(() => driver.status.state === 'running' && peer.lines.length > 2);
    peer.heard.length = 0;
    peer.hangUp('the port is gone');
    expect(await ended).toMatchObject({
      status: 'broken off',
      reason: expect.stringMatching(
        /the line to the machine broke: the port is gone; it had at most 2 s still to burn/,
      ),
    });
    await until(() => driver.busy() === null);
    expect(peer.heard.slice(0, 2)).toEqual(['<hold>', '<reset>']);
    expect(peer.lines).toEqual([]);
  });

  test('does so when nothing is heard over it any more', async () => {
    const ended = running();
    await until(() => driver.status.state === 'running');
    peer.isSilent = true;
    expect(await ended).toMatchObject({ status: 'broken off' });
    expect(driver.status.state).toBe('away');
  });
});

describe('a machine that does not follow', () => {
  test('is reset all the same when it does not come to rest, and the operator is told meanwhile', async () => {
    const ended = running();
    await until(() => driver.status.state === 'running');
    peer.onHold = () => {};
    peer.onReset = () => {};
    await expect(driver.stop()).rejects.toMatchObject({ code: 'no-answer' });
    await until(() => peer.heard.filter((text) => text === '<reset>').length > 1);
    expect(driver.status.runId).toBe('r');
    // It stands, and greets nobody: that it stands has to be said after several resets.
    peer.state = 'Alarm';
    expect((await ended).status).toBe('stopped');
  });

  test('that is away cannot be told anything', async () => {
    for (const order of [() => driver.hold(), () => driver.resume()]) expect(order).toThrow(/does not answer/);
    await expect(driver.stop()).rejects.toMatchObject({ code: 'machine-away' });
    await expect(driver.tell('home')).rejects.toMatchObject({ code: 'machine-away' });
    await expect(driver.send(program(['G21']))).rejects.toMatchObject({ code: 'machine-away' });
  });
});

describe('words', () => {
  test('are said in the machine’s own, and refused in a sentence', async () => {
    await ready();
    await driver.tell('home');
    peer.onLine = () => 'error:8';
    await expect(driver.tell('clear')).rejects.toThrow('The machine refuses: it is not idle (error 8).');
    peer.onLine = () => null;
    await expect(driver.tell('clear')).rejects.toMatchObject({ code: 'no-answer' });
    // Its answer may come yet: it is reset, so that the answer is taken for no other.
    await until(() => peer.heard.includes('<reset>') && driver.busy() === null);
    await expect(driver.tell('lid open')).rejects.toThrow('cannot be told that');
    expect(peer.lines).toEqual(['$H', '$X', '$X']);
  });

  test('wait for the end of a run; holding and resuming do not', async () => {
    const ended = running();
    await until(() => driver.status.state === 'running');
    await expect(driver.tell('home')).rejects.toMatchObject({ code: 'machine-busy' });
    driver.hold();
    await until(() => driver.status.state === 'held');
    driver.resume();
    expect(peer.heard.filter((text) => text.startsWith('<'))).toEqual(['<hold>', '<resume>']);
    await driver.stop();
    await ended;
  });
});

test.each([
  ['Check', 'alarm', 'it only checks lines, and moves nothing'],
  ['Sleep', 'alarm', 'it sleeps'],
  ['Alarm', 'alarm', 'it is locked'],
  ['Door:1', 'held', 'its door is open'],
  ['Jog', 'running', null],
  ['Home', 'homing', null],
])('a machine that says %s is %s, and takes no program', async (said, state, reason) => {
  peer.state = said;
  peer.onReset = () => peer.greet();
  driver.open();
  await until(() => driver.status.state !== 'away');
  expect(driver.status).toMatchObject({ state, reason });
  await expect(driver.send(program(['G21']))).rejects.toMatchObject({ code: 'machine-busy' });
});

test('where it is, is told from the zero of programs: as such, or by what lies between that and its own', async () => {
  const at = async (x: number, fields: string) => {
    peer.tellStatus = () => peer.say(`<Idle|${fields}>`);
    await until(() => Math.abs(driver.status.x - x) < 1e-9);
    return [driver.status.x, driver.status.y];
  };
  driver.open();
  expect(await at(7, 'MPos:-3.000,-8.000,0.000|FS:0,0|WCO:-10.000,-20.000,0.000')).toEqual([7, 12]);
  // Where its zero lies is not said each time.
  expect(await at(8, 'MPos:-2.000,-8.000,0.000|FS:0,0')).toEqual([8, 12]);
  expect(await at(5, 'WPos:5.000,6.000,0.000|F:0')).toEqual([5, 6]);
});

test('a run that Lambent did not see the end of is stopped, and not taken up', async () => {
  peer.state = 'Hold:0';
  driver.open();
  expect(await driver.takeUp()).toMatchObject({
    status: 'broken off',
    reason: expect.stringMatching(/cannot say how far/),
  });
  expect([peer.heard, driver.status.state]).toEqual([['<hold>', '<reset>'], 'idle' satisfies MachineStatus['state']]);
});

describe('an examination', () => {
  const sentences = async () => (await driver.examine()).steps.map(({ level, message }) => `${level}: ${message}`);

  test('of a line that is not open says why', async () => {
    peer.refuses = 'another program has the port /dev/ttyS0';
    driver.open();
    await until(() => driver.status.reason !== null);
    expect(await sentences()).toEqual(['fails: Another program has the port /dev/ttyS0.']);
  });

  test('says step by step what was found, and the figures that are told', async () => {
    await ready();
    peer.onLine = (line) =>
      line === '$$' ? '$30=1000\r\n$32=1\r\n$110=7200.000\r\n$120=900.000\r\n$121=450\r\n$130=0\r\nok' : 'ok';
    const { steps, figures } = await driver.examine();
    expect(steps.map(({ level }) => level)).toEqual(['good', 'good', 'good', 'good']);
    expect(steps[2].message).toBe('It takes 127 characters and 17 moves.');
    expect(figures).toEqual({
      powerScale: 1000,
      travelSpeed: 120,
      acceleration: 900,
      accelerationY: 450,
      lookAhead: 16,
    });
  });

  test('says what would go wrong', async () => {
    peer.more = '|Bf:17,100|FS:0,0';
    await ready();
    peer.onLine = () => '$32=0\r\nok';
    expect(await sentences()).toEqual([
      expect.any(String),
      'good: It is idle.',
      'warns: It takes 100 characters, and 127 stand here: no more than it takes are sent.',
      expect.stringMatching(/^fails: Its laser mode is off/),
    ]);
    peer.more = '';
    peer.onLine = () => 'error:3';
    await until(() => driver.status.state === 'idle');
    expect((await sentences()).slice(-2)).toEqual([
      'warns: It does not tell its figures.',
      expect.stringMatching(/^warns: Whether the power follows/),
    ]);
  });

  test('asks nothing of a machine that has a run', async () => {
    const ended = running();
    await until(() => driver.status.state === 'running' && peer.lines.length > 2);
    expect((await sentences()).at(-1)).toMatch(/^warns: It has a run/);
    expect(peer.lines).not.toContain('$$');
    await driver.stop();
    await ended;
  });
});
