import { describe, expect, test } from '@jest/globals';
import { moveOfLine } from '../../../burnt/draw-ways.ts';
import { nearestMove, pieceAt, stepAt } from './program-places.ts';

/** Two pieces: a line from (10, 0) over (20, 0) to (20, 10), and one from (50, 0) to (60, 0). */
const ways = {
  xs: Float32Array.of(10, 20, 20, 50, 60, 0),
  ys: Float32Array.of(0, 0, 10, 0, 0, 0),
  lit: Uint8Array.of(0, 1, 1, 0, 1, 0),
  lines: Uint32Array.of(7, 8, 9, 12, 13, 15),
  steps: [
    { title: 'Score', line: 6, move: 0 },
    { title: 'Cut', line: 11, move: 3 },
  ],
  pieces: Uint32Array.of(1, 4),
};

describe('the places of a program', () => {
  test('a line is found by its number, or the next that moves', () => {
    expect([1, 7, 8, 10, 12, 14, 99].map((line) => moveOfLine(ways, line))).toEqual([0, 0, 1, 3, 3, 5, 5]);
  });

  test('a move is of a piece and of a step; on the way to a piece it is of that', () => {
    expect([0, 1, 2, 3, 4, 5].map((move) => pieceAt(ways, move))).toEqual([0, 0, 0, 1, 1, 1]);
    expect([0, 2, 3, 5].map((move) => stepAt(ways, move))).toEqual([0, 0, 1, 1]);
  });

  test('the nearest is one that burns, and near enough', () => {
    expect(nearestMove(ways, { x: 14, y: 1 }, 2)).toBe(1);
    expect(nearestMove(ways, { x: 21, y: 6 }, 2)).toBe(2);
    expect(nearestMove(ways, { x: 62, y: 0 }, 3)).toBe(4);
    // The way between the pieces is not lit.
    expect(nearestMove(ways, { x: 35, y: 5 }, 2)).toBeNull();
    expect(nearestMove(ways, { x: 62, y: 0 }, 1)).toBeNull();
  });
});
