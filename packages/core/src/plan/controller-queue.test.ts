import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { machine as usual } from '../fixtures/shop.ts';
import { type MotionFigures, timeMoves } from './motion.ts';
import { Move, MoveList } from './moves.ts';
import { trapezoidTime } from './ramps.ts';

const a = 1000;
const speed = 100;
const machine: MotionFigures = { ...usual, travelSpeed: speed, acceleration: a, cornerDeviation: 0.05 };

/** A quarter of a circle of 10 mm, in so many chords: as one arc, or as moves of their own. */
const quarter = (chords: number, isArc: boolean) => (list: MoveList) => {
  const ends = Array.from({ length: chords }, (_, i) => {
    const angle = ((i + 1) / chords) * (Math.PI / 2);
    return { x: 10 * Math.sin(angle), y: 10 - 10 * Math.cos(angle) };
  });
  if (isArc) list.arc({ cx: 0, cy: 10, isClockwise: true }, ends);
  else for (const { x, y } of ends) list.to(Move.lit, x, y);
};

/** How long each move of a list takes, in seconds. */
function timed(figures: Partial<MotionFigures>, make: (list: MoveList) => void): number[] {
  const list = new MoveList({ x: 0, y: 0 });
  make(list);
  const parts = [{ moves: list.build(), speedMmPerS: speed }];
  return [...timeMoves(parts, { ...machine, ...figures }, { x: 0, y: 0 })[0]];
}
const sum = (times: readonly number[]) => times.reduce((all, time) => all + time, 0);
const line = (pieces: number, length: number) => (list: MoveList) => {
  for (let i = 1; i <= pieces; i++) list.to(Move.lit, (i * length) / pieces, 0);
};

describe('a controller that knows few moves ahead', () => {
  test('is as fast as it can brake from in the one move that it knows', () => {
    const one = timed({ lookAhead: 1 }, line(4, 0.4));
    const v1 = Math.sqrt(2 * a * 0.1);
    expect(one[0]).toBeCloseTo(trapezoidTime(0.1, 0, v1, speed, a), 5);
    expect(one[1]).toBeCloseTo(trapezoidTime(0.1, v1, v1, speed, a), 5);
    expect(one[3]).toBeCloseTo(trapezoidTime(0.1, v1, 0, speed, a), 5);
  });

  test('is as quick as one that knows all, where braking takes no more than it knows', () => {
    // 100 mm/s at 1000 mm/s² take 5 mm to brake from: 10 moves of 0.5 mm.
    const all = sum(timed({}, line(200, 100)));
    expect(sum(timed({ lookAhead: 10 }, line(200, 100)))).toBeCloseTo(all, 4);
    expect(sum(timed({ lookAhead: 9 }, line(200, 100)))).toBeGreaterThan(all * 1.01);
  });

  test('ends each move at the speed from which the known ones let it brake', () => {
    const top = Math.sqrt(2 * a * 16 * 0.05);
    const times = timed({ lookAhead: 16 }, line(400, 20));
    // In the middle, far from both ends, it begins and ends each move at that speed.
    expect(trapezoidTime(0.05, top, top, speed, a)).toBeCloseTo(times[200], 5);
  });

  test('with more ahead it is never slower, and with all that there are as quick as can be', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 40 }), { minLength: 1, maxLength: 40 }),
        fc.integer({ min: 1, max: 30 }),
        (lengths, lookAhead) => {
          const make = (list: MoveList) => {
            let [x, y] = [0, 0];
            lengths.forEach((length, i) => {
              if (i % 3 === 2) y += length / 10;
              else x += length / 10;
              list.to(Move.lit, x, y);
            });
          };
          const few = sum(timed({ lookAhead }, make));
          expect(sum(timed({ lookAhead: lookAhead + 1 }, make))).toBeLessThanOrEqual(few + 1e-5);
          expect(sum(timed({ lookAhead: lengths.length }, make))).toBeCloseTo(sum(timed({}, make)), 4);
        },
      ),
    );
  });
});

describe('a controller that takes its time for each line', () => {
  test('needs it before the first move, and then it is hidden behind the moves', () => {
    // 10 mm at 100 mm/s take 0.2 s: 5 ms a line are known long before. The first is known alone, and ends at rest.
    const times = timed({ moveMs: 5 }, (list) => {
      list.to(Move.lit, 10, 0);
      list.to(Move.lit, 20, 0);
      list.to(Move.lit, 30, 0);
    });
    expect(times[0]).toBeCloseTo(0.005 + trapezoidTime(10, 0, 0, speed, a), 5);
    expect(sum(times.slice(1))).toBeCloseTo(trapezoidTime(20, 0, 0, speed, a), 5);
  });

  test('is held up by it where moves are shorter than that', () => {
    // A line of moves that would take 0.2 ms each cannot be quicker than 4 ms a move.
    const count = 2000;
    const whole = sum(timed({ moveMs: 4, lookAhead: 16 }, line(count, 40)));
    expect(whole).toBeGreaterThanOrEqual(count * 0.004);
    expect(whole).toBeLessThan(count * 0.004 * 1.05);
    expect(sum(timed({ lookAhead: 16 }, line(count, 40)))).toBeLessThan(count * 0.004 * 0.3);
  });

  test('reads the lines of a wait, and the one of a focus; what follows a wait is read while the head stands', () => {
    const times = timed({ moveMs: 100, focus: { lowest: -9, highest: 9, speed: 5 } }, (list) => {
      list.wait(0.7);
      list.focus(3);
    });
    // The beam on, and the wait: a line each before it.
    expect(times[0]).toBeCloseTo(0.9, 5);
    expect(times[1]).toBeCloseTo(0.1 + 3 / 5, 5);
  });

  test('times long lists in pieces as it would times them whole', () => {
    // More moves than are kept at a time: the middle of a line is level, wherever a piece ends.
    const times = timed({ moveMs: 1, lookAhead: 3 }, line(20_000, 4000));
    const middle = times.slice(100, -100);
    expect(Math.max(...middle) - Math.min(...middle)).toBeLessThan(1e-5);
  });
});

describe('a line that takes its time for each character', () => {
  const serial = (buffer: number): Partial<MotionFigures> => ({
    connection: { kind: 'serial', path: '/dev/ttyS0', baud: 10_000, buffer },
  });
  const spoken = (count: number, characters: number, figures: Partial<MotionFigures>) => {
    const list = new MoveList({ x: 0, y: 0 });
    line(count, count / 1000)(list);
    const parts = [{ moves: list.build(), speedMmPerS: speed, characters: new Uint16Array(count).fill(characters) }];
    return sum([...timeMoves(parts, { ...machine, ...figures }, { x: 0, y: 0 })[0]]);
  };

  test('brings 1000 characters a second at 10,000 baud', () => {
    expect(spoken(1000, 20, serial(127))).toBeCloseTo(20, 0);
    expect(spoken(1000, 20, { ...serial(127), characterMs: 0.5 })).toBeCloseTo(10, 0);
  });

  test('is read while the next one comes over, where both have room; else one after the other', () => {
    expect(spoken(1000, 20, { ...serial(127), moveMs: 15 })).toBeCloseTo(20, 0);
    expect(spoken(1000, 20, { ...serial(39), moveMs: 15 })).toBeCloseTo(35, 0);
  });

  test('brings what comes next while the head moves', () => {
    // 10 mm take 0.2 s; the second line comes over in 0.1 s.
    const list = new MoveList({ x: 0, y: 0 });
    list.to(Move.lit, 10, 0);
    list.wait(1);
    list.to(Move.lit, 20, 0);
    const parts = [{ moves: list.build(), speedMmPerS: speed, characters: Uint16Array.of(100, 30, 100) }];
    const times = timeMoves(parts, { ...machine, ...serial(1000) }, { x: 0, y: 0 })[0];
    expect([...times].map((s) => Number(s.toFixed(4)))).toEqual([0.3, 1, 0.2]);
  });
});

test('something is switched where the head has come to rest', () => {
  const list = new MoveList({ x: 0, y: 0 });
  list.to(Move.lit, 10, 0);
  const first = list.build();
  const next = new MoveList({ x: 10, y: 0 });
  next.to(Move.lit, 20, 0);
  const second = { moves: next.build(), speedMmPerS: speed };
  const timesOf = (figures: Partial<MotionFigures>, switches: number[]) =>
    timeMoves(
      [
        { moves: first, speedMmPerS: speed },
        { ...second, switches },
      ],
      { ...machine, ...figures },
      { x: 0, y: 0 },
    );
  for (const figures of [{}, { moveMs: 5 }]) {
    const extra = 'moveMs' in figures ? 0.005 : 0;
    const [[stops], [starts]] = timesOf(figures, [3]);
    expect(stops).toBeCloseTo(extra + trapezoidTime(10, 0, 0, speed, a), 5);
    // It is read while the head moves, the move after it when that stands.
    expect(starts).toBeCloseTo(extra + trapezoidTime(10, 0, 0, speed, a), 5);
  }
});

describe('axes with accelerations of their own', () => {
  const both = { acceleration: 1000, accelerationY: 250 };

  test('each is held to its own along it, and the lower one limits a slope by its share', () => {
    const along = (x: number, y: number) => timed(both, (list) => list.to(Move.lit, x, y))[0];
    expect(along(20, 0)).toBeCloseTo(trapezoidTime(20, 0, 0, speed, 1000), 5);
    expect(along(0, 20)).toBeCloseTo(trapezoidTime(20, 0, 0, speed, 250), 5);
    // 3-4-5: along Y 250 / 0.8, along X 1000 / 0.6.
    expect(along(12, 16)).toBeCloseTo(trapezoidTime(20, 0, 0, speed, 250 / 0.8), 5);
    expect(along(-16, 12)).toBeCloseTo(trapezoidTime(20, 0, 0, speed, 250 / 0.6), 5);
  });

  test('a corner is taken by what both can do towards its inside', () => {
    // A right angle from X to Y: its inside lies at 45°, where Y gives 250 · √2.
    const s = Math.SQRT1_2;
    const v = Math.sqrt((250 * Math.SQRT2 * 0.05 * s) / (1 - s));
    const times = timed(both, (list) => {
      list.to(Move.lit, 20, 0);
      list.to(Move.lit, 20, 20);
    });
    expect(times[0]).toBeCloseTo(trapezoidTime(20, 0, v, speed, 1000), 5);
    expect(times[1]).toBeCloseTo(trapezoidTime(20, v, 0, speed, 250), 5);
  });
});

describe('an arc', () => {
  test('takes the time of one line, however many chords the machine makes of it', () => {
    const slow = { moveMs: 50, lookAhead: 16 };
    const free = sum(timed({ lookAhead: 16 }, quarter(50, true)));
    expect(sum(timed(slow, quarter(50, true)))).toBeCloseTo(0.05 + free, 3);
    // One by one, its chords are waited for.
    expect(sum(timed(slow, quarter(50, false)))).toBeGreaterThan(50 * 0.05);
  });

  test('holds up the next line until there is room for its last chord', () => {
    // While 50 chords of it are to be made, 16 of which are known, what comes next is not read.
    const next = (list: MoveList) => {
      quarter(50, true)(list);
      list.to(Move.lit, 10, 40);
    };
    const chord = 2 * 10 * Math.sin(Math.PI / 200);
    const times = timed({ moveMs: 400, lookAhead: 16 }, next);
    // The head has come to rest at the end of the arc, and waits: 16 chords take less than the line.
    expect(16 * (chord / speed)).toBeLessThan(0.4);
    expect(times[50]).toBeGreaterThan(0.2 + trapezoidTime(30, 0, 0, speed, a));
  });
});
