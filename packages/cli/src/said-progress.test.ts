import { expect, test } from '@jest/globals';
import { saidProgress } from './said-progress.ts';

function terminal(isTTY: boolean) {
  const written: string[] = [];
  return { isTTY, written, write: (text: string) => written.push(text) };
}

test('long work says on a terminal how far it has come, not too often, and wipes its line', () => {
  const screen = terminal(true);
  let ms = 0;
  const { progress, over } = saidProgress('planning', screen, () => ms);
  for (const [at, share] of [
    [0, 0.1],
    [999, 0.2],
    [1000, 0.3],
    [1199, 0.4],
    [1200, 0.5],
  ]) {
    ms = at;
    progress?.(share);
  }
  expect(screen.written).toEqual(['\rplanning, 30 %', '\rplanning, 50 %']);
  over();
  expect(screen.written.at(-1)).toBe('\r              \r');
});

test('short work says nothing, nor does any in a pipe', () => {
  const screen = terminal(true);
  const short = saidProgress('planning', screen, () => 0);
  short.progress?.(1);
  short.over();
  expect(screen.written).toEqual([]);
  const pipe = terminal(false);
  const piped = saidProgress('planning', pipe, () => 1e6);
  expect(piped.progress).toBeUndefined();
  piped.over();
  expect(pipe.written).toEqual([]);
});
