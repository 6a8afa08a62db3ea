import { expect, test } from '@jest/globals';
import { turnstile } from './turnstile.ts';

const busyFor = (ms: number) => {
  const end = performance.now() + ms;
  while (performance.now() < end);
};

test('all are let in, in their order, and a timer that is due has its turn in between', async () => {
  const gate = turnstile();
  const seen: string[] = [];
  const all = new Promise<void>((resolve) => {
    for (let i = 0; i < 40; i++) {
      gate({} as never, {} as never, () => {
        busyFor(2);
        seen.push(String(i));
        if (i === 39) resolve();
      });
    }
  });
  const timer = setInterval(() => seen.push('timer'), 1);
  await all;
  clearInterval(timer);
  expect(seen.filter((one) => one !== 'timer')).toEqual(Array.from({ length: 40 }, (_, i) => String(i)));
  const stretches = seen.join(' ').split('timer');
  expect(Math.max(...stretches.map((stretch) => stretch.trim().split(' ').length))).toBeLessThan(10);
});

test('one that comes while others are let in waits for its turn, and one that comes later is let in too', async () => {
  const gate = turnstile();
  const seen: string[] = [];
  const enter = (name: string, then: () => void = () => {}) =>
    gate({} as never, {} as never, () => {
      seen.push(name);
      then();
    });
  await new Promise<void>((resolve) => {
    enter('a', () => enter('c', resolve));
    enter('b');
  });
  expect(seen).toEqual(['a', 'b', 'c']);
  await new Promise<void>((resolve) => enter('d', resolve));
  expect(seen).toEqual(['a', 'b', 'c', 'd']);
});
