import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { machine as usual } from '../fixtures/shop.ts';
import { timeMoves } from './motion.ts';
import { Move, MoveList } from './moves.ts';
import { trapezoidTime } from './ramps.ts';

const a = 1000;
const machine = {
  ...usual,
  travelSpeed: 400,
  acceleration: a,
  cornerDeviation: 0.05,
  focus: { lowest: -10, highest: 10, speed: 5 },
};

/** How long each move of a list takes; lit moves at `speed`. */
function timed(speed: number, make: (list: MoveList) => void): number[] {
  const list = new MoveList({ x: 0, y: 0 });
  make(list);
  return [...timeMoves([{ moves: list.build(), speedMmPerS: speed }], machine, { x: 0, y: 0 })[0]];
}

const close = (found: number[], expected: number[]) => {
  expect(found).toHaveLength(expected.length);
  for (const [i, time] of found.entries()) expect(time).toBeCloseTo(expected[i], 5);
};
const straight = (length: number, top: number) => trapezoidTime(length, 0, 0, top, a);

describe('a trapezoid of speed', () => {
  test('over a stretch with no room to reach the top it is a triangle, to the very length at which the two are one', () => {
    // v²/a is what coming to speed and braking take together.
    const edge = 50 ** 2 / a;
    for (const length of [edge / 2, edge, edge * 3]) {
      const cruise = Math.max(0, length - edge) / 50;
      const peak = Math.min(50, Math.sqrt(a * length));
      expect(trapezoidTime(length, 0, 0, 50, a)).toBeCloseTo((2 * peak) / a + cruise, 9);
    }
  });

  test('from one speed to another it takes what the mean speed says, where it does nothing else', () => {
    // From 10 to 30 at 1000 mm/s² over (30² − 10²) / 2000 = 0.4 mm.
    expect(trapezoidTime(0.4, 10, 30, 200, a)).toBeCloseTo(0.02, 9);
    expect(trapezoidTime(0.4, 30, 10, 200, a)).toBeCloseTo(0.02, 9);
    expect(trapezoidTime(0.4 + 6, 10, 30, 30, a)).toBeCloseTo(0.02 + 0.2, 9);
  });
});

describe('the head', () => {
  test('takes a corner at the speed whose arc stays within the deviation', () => {
    // Half of a right angle: s = √½; r = d·s / (1 − s); v² = a·r.
    const s = Math.SQRT1_2;
    const v = Math.sqrt((a * 0.05 * s) / (1 - s));
    close(
      timed(80, (list) => {
        list.to(Move.lit, 50, 0);
        list.to(Move.lit, 50, 50);
      }),
      [trapezoidTime(50, 0, v, 80, a), trapezoidTime(50, v, 0, 80, a)],
    );
  });

  test('is at no joint faster than either move allows', () => {
    const slow = 10;
    const travel = 400;
    close(
      timed(slow, (list) => {
        list.to(Move.lit, 5, 0);
        list.to(Move.travel, 305, 0);
        list.to(Move.lit, 310, 0);
      }),
      [
        trapezoidTime(5, 0, slow, slow, a),
        trapezoidTime(300, slow, slow, travel, a),
        trapezoidTime(5, slow, 0, slow, a),
      ],
    );
  });

  test('looks as far ahead as it takes to brake, and comes to speed over as many moves as that takes', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 40 }), { minLength: 1, maxLength: 60 }),
        fc.integer({ min: 20, max: 200 }),
        (lengths, speed) => {
          const times = timed(speed, (list) => {
            let x = 0;
            for (const length of lengths) {
              x += length / 10;
              list.to(Move.lit, x, 0);
            }
          });
          const whole = lengths.reduce((sum, length) => sum + length / 10, 0);
          expect(times.reduce((sum, time) => sum + time, 0)).toBeCloseTo(straight(whole, speed), 4);
        },
      ),
    );
  });

  test('rests while the beam stands, and while the focus moves at its own speed', () => {
    close(
      timed(80, (list) => {
        list.to(Move.lit, 20, 0);
        list.wait(0.7);
        list.to(Move.lit, 40, 0);
        list.focus(3);
        list.to(Move.lit, 60, 0);
        list.focus(1);
        list.to(Move.lit, 80, 0);
      }),
      [straight(20, 80), 0.7, straight(20, 80), 3 / 5, straight(20, 80), 2 / 5, straight(20, 80)],
    );
  });

  test('starts where it stands, and goes on from part to part without a stop', () => {
    const first = new MoveList({ x: 7, y: 0 });
    first.to(Move.lit, 27, 0);
    const second = new MoveList({ x: 27, y: 0 });
    second.to(Move.lit, 47, 0);
    const parts = [first, second].map((list, i) => ({ moves: list.build(), speedMmPerS: i === 0 ? 30 : 60 }));
    const times = timeMoves(parts, machine, { x: 7, y: 0 }).map(([time]) => time);
    close(times, [trapezoidTime(20, 0, 30, 30, a), trapezoidTime(20, 30, 0, 60, a)]);
  });

  test('takes a line of thousands of moves in the time of one move as long, and knows a turn that is thousands ahead', () => {
    // From 300 mm/s it brakes over 45 mm: 11,250 of these moves.
    const there = Array.from({ length: 37_500 }, (_, i) => (i + 1) / 250);
    for (const slope of [0, 0.75]) {
      const times = timed(300, (list) => {
        for (const x of [...there, ...there.toReversed(), 0]) list.to(Move.lit, x, slope * x);
      });
      const end = times.length / 2;
      const whole = straight(150 * Math.hypot(1, slope), 300);
      for (const half of [times.slice(0, end), times.slice(end)]) {
        expect(half.reduce((sum, time) => sum + time, 0)).toBeCloseTo(whole, 4);
      }
    }
  });
});

test('times are as much longer as runs have shown, all alike', () => {
  const times = (timeShare?: number) => {
    const list = new MoveList({ x: 0, y: 0 });
    list.to(Move.lit, 10, 0);
    list.wait(0.5);
    list.to(Move.travel, 80, 0);
    return [...timeMoves([{ moves: list.build(), speedMmPerS: 50 }], { ...machine, timeShare }, { x: 0, y: 0 })[0]];
  };
  close(
    times(120),
    times().map((s) => 1.2 * s),
  );
});
