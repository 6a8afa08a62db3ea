import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { machine } from '../fixtures/shop.ts';
import { countsDown, fromMachine, machineZero, toMachine } from '../machine/frame.ts';
import { Move, MoveList, toProgramGrid } from './moves.ts';

describe('a list of moves', () => {
  test('holds what a program can say, to 0.001 mm, and leaves out what goes nowhere', () => {
    const list = new MoveList({ x: 1.00049, y: 0 });
    list.to(Move.travel, 1.0004, 0.0004);
    list.to(Move.travel, 4, 4);
    list.to(Move.lit, 4.0001, 4);
    list.to(Move.lit, 7, 8);
    list.to(Move.dark, 7, 10);
    const { kinds, xs, ys, powers, values } = list.build();
    expect([...kinds]).toEqual([Move.travel, Move.lit, Move.dark]);
    expect([[...xs], [...ys]]).toEqual([
      [4, 7, 7],
      [4, 8, 10],
    ]);
    expect([powers, values]).toEqual([null, null]);
    expect([list.litMm, list.unlitMm]).toEqual([5, 7]);
    expect([list.x, list.y]).toEqual([7, 10]);
    expect(toProgramGrid(0.12349)).toBe(0.123);
  });

  test('waits only where there is something to wait for, and moves the focus only where it is not', () => {
    const list = new MoveList({ x: 2, y: 3, z: 1 });
    list.wait(0);
    list.focus(1);
    expect(list.build().kinds).toHaveLength(0);
    list.wait(0.5);
    list.focus(-2);
    list.focus(-2.0001);
    list.to(Move.lit, 4, 3);
    const { kinds, xs, ys, values } = list.build();
    expect([...kinds]).toEqual([Move.wait, Move.focus, Move.lit]);
    expect([[...xs], [...ys], [...(values ?? [])]]).toEqual([
      [2, 2, 4],
      [3, 3, 3],
      [0.5, -2, 0],
    ]);
    expect(list.z).toBe(-2);
    expect([list.litMm, list.unlitMm]).toEqual([2, 0]);
  });

  test('says with how much power each move burns where that is not all of it', () => {
    const list = new MoveList({ x: 0, y: 0 });
    list.to(Move.lit, 1, 0);
    expect(list.build().powers).toBeNull();
    list.power = 0.25;
    list.to(Move.lit, 2, 0);
    expect([...(list.build().powers ?? [])]).toEqual([1, 0.25]);
  });
});

describe('the machine’s own frame', () => {
  const bed = (origin: typeof machine.origin) => ({ ...machine, origin });

  test('counts from its own zero, upwards but for one that counts from the top', () => {
    expect(toMachine(bed('top-left'), 100, 50)).toEqual({ x: 100, y: 50 });
    expect(toMachine(bed('bottom-left'), 100, 50)).toEqual({ x: 100, y: 350 });
    expect(toMachine(bed('centre'), 100, 50)).toEqual({ x: -200, y: 150 });
    expect((['top-left', 'bottom-left', 'centre'] as const).map((origin) => countsDown({ origin }))).toEqual([
      1, -1, -1,
    ]);
    expect((['top-left', 'bottom-left', 'centre'] as const).map((origin) => machineZero(bed(origin)))).toEqual([
      { x: 0, y: 0 },
      { x: 0, y: 400 },
      { x: 300, y: 200 },
    ]);
  });

  test('and back is where it was', () => {
    const number = fc.integer({ min: -5000, max: 5000 });
    fc.assert(
      fc.property(
        fc.constantFrom('top-left' as const, 'bottom-left' as const, 'centre' as const),
        number,
        number,
        (origin, x, y) => {
          const there = toMachine(bed(origin), x, y);
          expect(fromMachine(bed(origin), there.x, there.y)).toEqual({ x, y });
        },
      ),
    );
  });
});
