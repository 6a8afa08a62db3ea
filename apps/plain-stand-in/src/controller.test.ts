import { beforeEach, describe, expect, test } from '@jest/globals';
import { type Build, Controller } from './controller.ts';

const build: Build = {
  width: 400,
  height: 300,
  topSpeed: 100,
  travelSpeed: 120,
  accelerations: [1000, 500],
  cornerDeviation: 0.01,
  lookAhead: 16,
  buffer: 127,
  arcsWithin: 0,
  lineS: 0.01,
  characterS: 0,
  jerk: 0,
  powerScale: 1000,
  tellsRoom: true,
  startsLocked: false,
};

let said: string[];
let controller: Controller;
const switchOn = (change: Partial<Build> = {}) => {
  said = [];
  controller = new Controller({ ...build, ...change }, (line) => said.push(line));
  said.length = 0;
};
const take = (text: string) => controller.take(Buffer.from(text, 'latin1'));
/** What it says when it is asked how it is. */
const status = () => {
  take('?');
  return said.pop() as string;
};
const pass = (seconds: number) => controller.advance(seconds);

beforeEach(() => switchOn());

test('greets when it is switched on, and is locked then where it is made so', () => {
  controller.switchOn();
  expect(said).toEqual(['', expect.stringMatching(/\['\$' for help\]$/)]);
  switchOn({ startsLocked: true });
  take('G0 X1\n$X\nG0 X1\n');
  pass(1);
  expect(said).toEqual(['error:9', 'ok', 'ok']);
});

describe('its lines', () => {
  test('are each read in its time, and answered when their moves are known', () => {
    take('G21\n\nG90\n');
    pass(0.0099);
    expect(said).toEqual([]);
    pass(0.0002);
    expect(said).toEqual(['ok']);
    pass(0.02);
    expect(said).toEqual(['ok', 'ok', 'ok']);
  });

  test('wait where there is no room: one move is made, 16 are known', () => {
    for (let i = 0; i < 30; i++) {
      take(`G0 X${i % 2 === 0 ? 300 : 0}\n`);
      pass(0.011);
    }
    // What comes beyond those waits in the buffer of characters, and is lost where that is full.
    expect(said).toHaveLength(17);
    expect(status()).toMatch(/\|Bf:0,\d+\|/);
  });

  test('are lost where its buffer is full, so that what is left of them makes no sense', () => {
    switchOn({ buffer: 20 });
    take('G0 X100 Y100\nG0 X200 Y200\n');
    pass(0.1);
    expect(said).toEqual(['ok']);
    take('G0 X5\n');
    pass(10);
    expect(said).toEqual(['ok', 'error:21']);
  });

  test.each([
    ['1X', 1],
    ['GX', 2],
    ['$Q', 3],
    ['G4 P-1', 4],
    [`G0 X${'0'.repeat(80)}`, 11],
    ['G2 X1', 20],
    ['M4 Q5', 20],
    ['G0 X1 X2', 21],
    ['G1 X1', 22],
  ])('%s is refused by its number', (line, code) => {
    take(`${line}\n`);
    pass(0.1);
    expect(said).toEqual([`error:${code}`]);
  });

  test('off the bed raise the alarm, in which nothing is taken until it is unlocked', () => {
    take('G0 X401\nG0 X5\n');
    pass(0.1);
    expect(said).toEqual(['ok', 'ALARM:2']);
    expect(status()).toMatch(/^<Alarm\|/);
    take('G0 X5\n');
    pass(0.1);
    expect(said.at(-1)).toBe('error:9');
  });
});

describe('an arc', () => {
  const seen = () => {
    const [, x, y] = /MPos:([\d.-]+),([\d.-]+)/.exec(status()) ?? [];
    return { x: Number(x), y: Number(y) };
  };

  test('is gone along one way round or the other, and answered when its last part is known', () => {
    for (const [code, side] of [
      ['G3', 1],
      ['G2', -1],
    ] as const) {
      switchOn({ arcsWithin: 0.002 });
      take(`M4\nG0X60Y50\n${code}X40Y50I-10J0F3000S500\n`);
      pass(0.75);
      // Far more parts than it knows ahead: its line waits.
      expect(said).toEqual(['ok', 'ok']);
      let [lit, last] = [0, seen()];
      while (!status().startsWith('<Idle')) {
        pass(0.005);
        last = seen();
        if (controller.beam === 0) continue;
        lit++;
        expect(Math.abs(Math.hypot(last.x - 50, last.y - 50) - 10)).toBeLessThan(0.004);
        expect(Math.sign(last.y - 50) === side || Math.abs(last.y - 50) < 0.01).toBe(true);
      }
      expect(lit).toBeGreaterThan(50);
      expect([said, last]).toEqual([['ok', 'ok', 'ok'], { x: 40, y: 50 }]);
    }
  });

  test('is refused where it does not lead to its end, or it takes none, and leaves no bed', () => {
    switchOn({ arcsWithin: 0.002 });
    take('G1X5Y10F600\nG2X5Y31I0J10\n');
    pass(5);
    expect(said).toEqual(['ok', 'error:33']);
    take('G2X5Y30I0J10\n');
    pass(5);
    expect(said.at(-1)).toBe('ALARM:2');
    switchOn();
    take('G2X0Y20I0J10F600\n');
    pass(1);
    expect(said).toEqual(['error:20']);
  });
});

describe('its beam', () => {
  test('follows the speed, and is off in moves that do not burn, while it stands, and when it is held', () => {
    take('M4\nG1 X50 F3000 S500\nG0 X60\n');
    pass(0.04);
    const early = controller.beam;
    expect(early).toBeGreaterThan(0);
    expect(early).toBeLessThan(500);
    pass(0.46);
    expect(controller.beam).toBeCloseTo(500, 6);
    take('!');
    expect([controller.beam, status().slice(0, 8)]).toEqual([0, '<Hold:0|']);
    take('~');
    expect(controller.beam).toBeCloseTo(500, 6);
    pass(10);
    expect([controller.beam, status().slice(0, 6)]).toEqual([0, '<Idle|']);
  });

  test('stays on where it waits, steady, and goes off after it', () => {
    take('M3 S200\nG4 P0.5\nM4\n');
    pass(0.3);
    expect(controller.beam).toBe(200);
    pass(0.3);
    expect(controller.beam).toBe(0);
  });
});

describe('orders of one byte', () => {
  test('drop everything: held first it keeps its place, in motion it loses it, and says so', () => {
    take('M4\nG1 X50 F3000 S500\n');
    pass(0.5);
    take('!\x18');
    expect(status()).toMatch(/^<Idle\|MPos:[1-9]/);
    switchOn();
    take('M4\nG1 X50 F3000 S500\n');
    pass(0.5);
    take('\x18');
    expect(said.at(-1)).toBe('ALARM:3');
    expect([status().slice(0, 7), controller.beam]).toEqual(['<Alarm|', 0]);
  });

  test('do not take room among the lines', () => {
    take(`G0 X1${' '.repeat(100)}`);
    take('?????????????????????????????');
    expect(said.at(-1)).toContain('|Bf:17,22|');
  });
});

test('goes home when it is told, and answers when it is there', () => {
  take('G0 X50\n');
  pass(2);
  take('$H\n');
  pass(0.5);
  expect([said.length, status().slice(0, 6)]).toEqual([1, '<Home|']);
  pass(1);
  expect([said.length, status().slice(0, 22)]).toEqual([2, '<Idle|MPos:0.000,0.000']);
});

test('tells its figures as numbers', () => {
  take('$$\n');
  pass(0.1);
  expect(said).toEqual(expect.arrayContaining(['$30=1000', '$32=1', '$110=7200', '$120=1000', '$121=500', 'ok']));
});
