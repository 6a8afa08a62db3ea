import { describe, expect, test } from '@jest/globals';
import { PackingCheck } from './check.ts';
import { disc, rectangle, wishOf } from './fixtures.ts';
import type { PackedPiece } from './wish.ts';

const lying = (piece: number, x: number, y: number, angle = 0): PackedPiece => ({
  piece,
  x,
  y,
  angle,
  isMirrored: false,
});
const faultsOf = (wish: ReturnType<typeof wishOf>, ...pieces: PackedPiece[]) =>
  new PackingCheck(wish).faults({ sheets: [{ sheet: 0, pieces }] });

describe('what a packing must keep', () => {
  const squares = [rectangle(20, 20), rectangle(20, 20)];

  test('the gap, to a thousandth of a millimetre', () => {
    const wish = wishOf(squares, { gapMm: 2 });
    expect(faultsOf(wish, lying(0, 10, 10), lying(1, 32, 10))).toEqual([]);
    expect(faultsOf(wish, lying(0, 10, 10), lying(1, 31.9995, 10))).toEqual([]);
    expect(faultsOf(wish, lying(0, 10, 10), lying(1, 31.997, 10))).toEqual([
      { what: 'too near', sheet: 0, pieces: [0, 1], distanceMm: expect.closeTo(1.997, 4) },
    ]);
    // Corner to corner it counts as the crow flies.
    expect(faultsOf(wish, lying(0, 10, 10), lying(1, 31.5, 31.5))).toEqual([]);
    expect(faultsOf(wish, lying(0, 10, 10), lying(1, 31.3, 31.3))).toMatchObject([{ what: 'too near' }]);
  });

  test('nothing lies over anything; to touch is no fault where no gap is asked for', () => {
    const wish = wishOf(squares);
    expect(faultsOf(wish, lying(0, 0, 0), lying(1, 20, 0))).toEqual([]);
    expect(faultsOf(wish, lying(0, 0, 0), lying(1, 19.9, 0))).toMatchObject([{ what: 'overlap', pieces: [0, 1] }]);
    expect(faultsOf(wish, lying(0, 0, 0), lying(1, 0, 0))).toMatchObject([{ what: 'overlap' }]);
    const within = wishOf([rectangle(60, 60), rectangle(5, 5)]);
    expect(faultsOf(within, lying(0, 0, 0), lying(1, 30, 30))).toMatchObject([{ what: 'overlap' }]);
  });

  test('the edge of the sheet, and its margin', () => {
    const wish = wishOf([rectangle(20, 20)], { marginMm: 5 });
    expect(faultsOf(wish, lying(0, 5, 5))).toEqual([]);
    expect(faultsOf(wish, lying(0, 275, 175))).toEqual([]);
    expect(faultsOf(wish, lying(0, 4.99, 50))).toMatchObject([{ what: 'into the margin', pieces: [0, -1] }]);
    expect(faultsOf(wish, lying(0, -1, 50))).toMatchObject([{ what: 'outside', pieces: [0, -1] }]);
    expect(faultsOf(wish, lying(0, 400, 50))).toMatchObject([{ what: 'outside' }]);
  });

  test('by the true outlines: discs touch where their curves do, and a turned square reaches to its corners', () => {
    const discs = wishOf([disc(20), disc(20)]);
    expect(faultsOf(discs, lying(0, 30, 30), lying(1, 70.01, 30))).toEqual([]);
    expect(faultsOf(discs, lying(0, 30, 30), lying(1, 69.98, 30))).toMatchObject([{ what: 'overlap' }]);
    const square = wishOf([rectangle(20, 20)]);
    expect(faultsOf(square, lying(0, 14.2, 0, 45))).toEqual([]);
    expect(faultsOf(square, lying(0, 14, 0, 45))).toMatchObject([{ what: 'outside' }]);
  });
});
