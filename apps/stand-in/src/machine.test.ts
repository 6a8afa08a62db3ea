import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { build } from './fixtures/build.ts';
import { LineRefused, readLine } from './line.ts';
import { StandInMachine } from './machine.ts';

function say(machine: StandInMachine, line: string): string {
  return machine.takeWord(line) ?? machine.take(line);
}

/** A machine that has homed, with lines already given to it. */
function ready(...lines: string[]): StandInMachine {
  const machine = new StandInMachine(build);
  machine.advance(5);
  for (const line of lines) expect(say(machine, line)).toBe('ok');
  return machine;
}

describe('lines', () => {
  test.each([
    ['G0 X10 Y20', { kind: 'move', motion: 0, x: 10, y: 20, z: null, i: null, j: null, feed: null, power: null }],
    ['g1x-1.5f900s20', { kind: 'move', motion: 1, x: -1.5, y: null, z: null, i: null, j: null, feed: 900, power: 20 }],
    ['(a comment) M4 S0 ; and more', { kind: 'laser', mode: 'by speed', power: 0, floor: null }],
    ['M4 Q40', { kind: 'laser', mode: 'by speed', power: null, floor: 40 }],
    ['M3 S60', { kind: 'laser', mode: 'steady', power: 60, floor: null }],
    ['M5', { kind: 'laser', mode: 'off', power: null, floor: null }],
    ['G4 P0.25', { kind: 'wait', seconds: 0.25 }],
    ['M8 P1.5', { kind: 'air', level: 'high', bar: 1.5 }],
    ['M9', { kind: 'air', level: 'off', bar: null }],
    ['G21', { kind: 'nothing' }],
    ['', { kind: 'nothing' }],
  ])('%s', (text, command) => {
    expect(readLine(text, 1)).toEqual({ ...command, number: null });
    expect(readLine(`N70 ${text}`, 1)).toEqual({ ...command, number: 70 });
  });

  test.each([
    ['N1.5 G21', 'N1.5 is not known'],
    ['G5 X1 Y1', 'G5 is not known'],
    ['G2 X1 Y1', 'G2 needs I or J'],
    ['G1 X1 I1', 'I and J belong to G2 and G3'],
    ['G20', 'G20 is not known'],
    ['M6', 'M6 is not known'],
    ['G1 A3', 'A3 is not known'],
    ['G4', 'G4 needs P'],
    ['G1 X1 P2', 'P belongs to G4'],
    ['G1 X1 X2', 'X is given twice'],
    ['G1 X', 'makes no sense'],
    ['G1 (X1', 'comment is not closed'],
    ['G1 X1 S-5', 'S may not be below 0'],
    ['G1 X1 F0', 'F must be above 0'],
    [`G1 X1${' '.repeat(300)}`, 'longer than 256'],
  ])('refuses %s', (text, why) => {
    expect(() => readLine(text, 1)).toThrow(LineRefused);
    expect(() => readLine(text, 1)).toThrow(why);
  });

  test('whatever comes down the line, there is an answer', () => {
    const machine = ready();
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 40 }), (line) => {
        expect(machine.take(line)).toMatch(/^(ok|error:.+)$/s);
      }),
    );
  });
});

describe('an arc', () => {
  const round = (...lines: string[]) => {
    const machine = new StandInMachine({ ...build, arcsWithin: 0.002 });
    machine.advance(10);
    for (const line of ['run begin r 3', 'M4', 'G0X60Y50', ...lines]) expect(say(machine, line)).toBe('ok');
    return machine;
  };
  const angles = (machine: StandInMachine) => {
    const found: number[] = [];
    while (machine.status().waiting > 0) {
      machine.advance(0.01);
      const { x, y, power } = machine.status();
      if (power === 0) continue;
      expect(Math.abs(Math.hypot(x - 50, y - 50) - 10)).toBeLessThan(0.0021);
      found.push(Math.atan2(y - 50, x - 50));
    }
    return found;
  };

  test('is gone along one way round or the other, lit, and its line is done at its end', () => {
    // Up to a quarter turn the other way, clockwise down to it: Y counts up.
    const left = angles(round('G3X50Y60I-10J0F3000S500'));
    expect(left.length).toBeGreaterThan(20);
    expect(Math.min(...left)).toBeGreaterThanOrEqual(0);
    const right = round('G2X50Y40I-10F3000S500');
    right.advance(0.3);
    expect(right.status().line).toBe(2);
    expect(Math.max(...angles(right))).toBeLessThanOrEqual(0);
    expect(right.status()).toMatchObject({ x: 50, y: 40, line: 3 });
  });

  test('goes all around where it ends at its beginning, and on as it was told last', () => {
    const machine = round('G2X60Y50I-10J0F3000S500', 'X50Y60I-10J0');
    const all = angles(machine);
    expect(all.filter((angle) => angle < -3 || angle > 3)).not.toEqual([]);
    expect(machine.status()).toMatchObject({ x: 50, y: 60, line: 4 });
  });

  test('is refused where it does not lead to its end, or leaves the bed, and where the machine takes none', () => {
    expect(round().take('G2X50Y61I-10J0F600')).toBe('error:G2 does not lead to X50 Y61');
    // Its ends lie on the bed, and its middle does not.
    expect(round('G1X5Y10F600').take('G2X5Y30I0J10')).toMatch(/^error:X-\d.* is off the bed$/);
    expect(ready().take('G2X0Y10I0J5F600')).toBe('error:G2 is not known');
  });
});

describe('moving', () => {
  test('takes the time its acceleration and speed need, and stands where it was sent', () => {
    const machine = ready('run begin', 'M4', 'G1 X100 F3000 S500');
    machine.advance(1);
    expect(machine.status()).toMatchObject({ state: 'running', feed: 3000, power: 500 });
    machine.advance(100);
    const status = machine.status();
    expect(status).toMatchObject({ state: 'idle', x: 100, y: 0, power: 0, line: 2, waiting: 0 });
    expect(status.runS).toBeCloseTo(100 / 50 + 50 / 4000, 6);
  });

  test('many short moves in a row take as long as one long one', () => {
    const machine = ready('run begin', 'M4 S1', ...Array.from({ length: 100 }, (_, i) => `G1 X${i + 1} F3000`));
    machine.advance(100);
    expect(machine.status().runS).toBeCloseTo(100 / 50 + 50 / 4000, 4);
  });

  test('time may pass in any steps', () => {
    const run = (step: number) => {
      const machine = ready('run begin', 'G0 X50 Y30', 'M4 S9', 'G1 X80 Y90 F2400', 'G1 X0 Y0');
      for (let i = 0; i < 20 / step; i++) machine.advance(step);
      return machine.status().runS;
    };
    expect(run(0.013)).toBeCloseTo(run(5), 6);
  });

  test('the clock waits for lines that are to come, so that a slow line costs no machine time', () => {
    const moves = Array.from({ length: 500 }, (_, i) => `G1 X${(i + 1) / 10} F3000`);
    const whole = ready('run begin a 501', 'M4 S1', ...moves);
    whole.advance(100);
    expect(whole.status()).toMatchObject({
      state: 'idle',
      x: 50,
      run: { id: 'a', taken: 501, done: 501, dropped: false },
    });
    expect(whole.status().runS).toBeCloseTo(50 / 50 + 50 / 4000, 4);

    const slow = ready('run begin b 501', 'M4 S1');
    for (const move of moves) {
      slow.take(move);
      slow.advance(100, true);
      if (move !== moves.at(-1)) expect(slow.status()).toMatchObject({ state: 'running', power: 0 });
    }
    expect(slow.status()).toMatchObject({ state: 'idle', x: 50, line: 501 });
    expect(slow.status().runS).toBeCloseTo(whole.status().runS, 9);
  });

  test('lines that do not come end the waiting: the head comes to rest where what is known ends', () => {
    const machine = ready('run begin a 9', 'M4 S1', 'G1 X10 F3000');
    machine.advance(100, true);
    expect(machine.status()).toMatchObject({ x: 0, power: 0 });
    machine.advance(100, false);
    expect(machine.status()).toMatchObject({ state: 'running', x: 10, power: 0 });
  });

  test('waits burn where the head stands; the focus moves at its own speed, within its reach', () => {
    const machine = ready('run begin', 'G0 X60', 'M3 S500', 'G4 P0.5', 'M4', 'G0 Z-2', 'M8');
    const there = 2 * Math.sqrt(60 / 4000);
    machine.advance(there + 0.2);
    expect(machine.status()).toMatchObject({ x: 60, power: 500, air: 'high', z: 0 });
    machine.advance(10);
    expect(machine.status()).toMatchObject({ state: 'idle', x: 60, z: -2, power: 0 });
    expect(machine.status().runS).toBeCloseTo(there + 0.5 + 2 / 5, 6);
    expect(machine.take('G0 Z-11')).toBe('error:Z-11 is beyond the focus, -10 to 20 mm');
    expect(machine.take('G0 X1 Z1')).toBe('error:Z moves alone');
    // Without the beam kept steady, standing burns nothing.
    machine.take('G4 P1');
    machine.advance(0.5);
    expect(machine.status()).toMatchObject({ state: 'running', power: 0 });
  });

  test('travels are unlit, and so is burning before M4', () => {
    const machine = ready('G1 X50 F600 S800');
    machine.advance(0.5);
    expect(machine.status().power).toBe(0);
  });
});

describe('states', () => {
  const running = () => {
    const machine = ready('run begin', 'M4', 'G1 X500 F1200 S500');
    machine.advance(1);
    return machine;
  };

  test('hold stands still with the beam off, resume goes on to the same end', () => {
    const machine = running();
    machine.hold();
    const { x } = machine.status();
    machine.advance(50);
    expect(machine.status()).toMatchObject({ state: 'held', x, power: 0, reason: 'held by hand' });
    machine.resume();
    machine.advance(100);
    expect(machine.status()).toMatchObject({ state: 'idle', x: 500 });
  });

  test('an opened lid holds, and nothing runs until it is closed and resumed', () => {
    const machine = running();
    expect(say(machine, 'lid open')).toBe('ok');
    machine.resume();
    expect(machine.status()).toMatchObject({ state: 'held', lid: 'open', power: 0 });
    say(machine, 'lid close');
    expect(machine.status().state).toBe('held');
    machine.resume();
    expect(machine.status()).toMatchObject({ state: 'running', lid: 'closed' });
  });

  test('stop drops the rest and stays where it is', () => {
    const machine = running();
    machine.stop();
    const { x } = machine.status();
    machine.advance(50);
    expect(machine.status()).toMatchObject({ state: 'idle', x, waiting: 0 });
    expect(x).toBeLessThan(50);
  });

  test('a move off the bed raises the alarm before it starts, and says where it went', () => {
    const machine = running();
    expect(machine.take('G1 X601')).toBe('error:X601 Y0 is off the bed');
    expect(machine.status()).toMatchObject({ state: 'alarm', power: 0, reason: 'X601 Y0 is off the bed' });
    expect(machine.take('G0 X1')).toContain('error:the machine is in alarm');
    expect(say(machine, 'clear')).toBe('ok');
    expect(machine.take('G0 X1')).toBe('ok');
    expect(machine.take('G0 Y400')).toBe('ok');
    expect(machine.take('G0 Y-0.01')).toContain('error');
  });

  test('homes at the start and when asked, and takes no lines meanwhile', () => {
    const machine = new StandInMachine(build);
    expect(machine.take('G0 X1')).toBe('error:the machine is homing');
    machine.advance(5);
    machine.take('G0 X10');
    machine.advance(5);
    expect(say(machine, 'home')).toBe('ok');
    machine.advance(5);
    expect(machine.status()).toMatchObject({ state: 'idle', x: 0, y: 0 });
  });

  test('power above full is refused', () => {
    expect(ready().take('M4 S1001')).toContain('above full power');
  });
});

describe('runs', () => {
  test('line numbers stand for the lines of a program, also where one comes in pieces', () => {
    const machine = ready('run begin a 3', 'N1 M4 S1', 'N1 G1 X10 F600', 'N2 X20', 'N3 X30');
    machine.advance(1.5);
    expect(machine.status()).toMatchObject({ line: 1, run: { taken: 4, done: 2 } });
    machine.advance(1);
    expect(machine.status()).toMatchObject({ line: 2, run: { taken: 4, done: 3 } });
  });

  test('begin on an idle machine only', () => {
    const machine = ready('run begin a 5', 'G0 X10');
    expect(machine.takeWord('run begin b 5')).toBe('error:the machine is running');
    machine.stop();
    expect(machine.status().run).toMatchObject({ id: 'a', dropped: true });
    machine.takeWord('lid open');
    expect(machine.takeWord('run begin b 5')).toBe('error:the lid is open');
    machine.takeWord('lid close');
    expect(machine.takeWord('run begin b 5')).toBe('ok');
    expect(machine.status().run).toMatchObject({ id: 'b', taken: 0, dropped: false });
  });

  test('an alarm drops what came before it', () => {
    const machine = ready('run begin a 5', 'G0 X10');
    machine.take('G0 X99999');
    expect(machine.status()).toMatchObject({ state: 'alarm', run: { id: 'a', dropped: true } });
  });
});

describe('the watch', () => {
  test('holds a run, the beam off, once nothing was heard for its seconds, and not before', () => {
    const machine = ready('watch 2', 'run begin a 2', 'M4 S100', 'G1 X400 F600');
    machine.advance(1);
    machine.listen(1.9);
    expect(machine.status()).toMatchObject({ state: 'running', power: 100 });
    machine.hear();
    machine.listen(1.9);
    expect(machine.status().state).toBe('running');
    machine.listen(0.2);
    expect(machine.status()).toMatchObject({ state: 'held', reason: 'nothing was heard for 2 s', power: 0 });
    machine.hear();
    machine.resume();
    expect(machine.status().state).toBe('running');
  });

  test('is off until it is set, and counts the longest that was burnt unheard', () => {
    const machine = ready('run begin a 2', 'M4 S100', 'G1 X400 F600');
    machine.listen(3600);
    machine.advance(4);
    machine.hear();
    machine.advance(1);
    expect(machine.status()).toMatchObject({ state: 'running', unheardS: 4 });
    expect(machine.takeWord('watch')).toBeNull();
  });
});

test('a switch at the end of an axis that is touched raises the alarm: what it had is dropped, the beam is off', () => {
  const machine = ready('run begin', 'M4', 'G1 X100 F3000 S500');
  machine.advance(1);
  expect(machine.takeWord('limit')).toBe('ok');
  expect(machine.status()).toMatchObject({
    state: 'alarm',
    reason: 'a limit switch was touched',
    power: 0,
    waiting: 0,
  });
  expect(machine.take('G0 X1')).toBe('error:the machine is in alarm, a limit switch was touched');
  expect(machine.takeWord('clear')).toBe('ok');
  expect(machine.status().state).toBe('idle');
});
