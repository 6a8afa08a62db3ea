import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { doBoxesMeet } from './meeting-boxes.ts';
import { MeetingCounts } from './meeting-counts.ts';

interface Marked {
  readonly box: readonly number[];
  readonly mark: number;
}

const within = 2;
const isMeeting = ({ marks }: { marks: Uint8Array }, a: number, b: number) => marks[a] === 0 || marks[b] === 0;

function counted(counts: MeetingCounts, list: readonly Marked[]): number[] {
  const boxes = Float64Array.from(list.flatMap(({ box }) => box));
  return [
    ...counts.countsOf(
      boxes,
      Uint8Array.from(list, ({ mark }) => mark),
    ),
  ];
}

function expected(list: readonly Marked[]): number[] {
  const boxes = Float64Array.from(list.flatMap(({ box }) => box));
  return list.map(
    ({ mark }, a) =>
      list.filter((other, b) => a !== b && doBoxesMeet(boxes, a, b, within) && (mark === 0 || other.mark === 0)).length,
  );
}

const place = fc.integer({ min: 0, max: 40 });
const size = fc.integer({ min: 0, max: 9 });
const somewhere = fc.tuple(place, place, size, size).map(([x, y, w, h]) => [x, y, x + w, y + h]);
const nowhere = fc.constant([Infinity, Infinity, -Infinity, -Infinity]);
const marked = fc.record({
  box: fc.oneof({ weight: 9, arbitrary: somewhere }, { weight: 1, arbitrary: nowhere }),
  mark: fc.integer({ min: 0, max: 1 }),
});

test('meetings are counted as if all were compared, whatever was counted before', () => {
  const change = fc.tuple(fc.nat({ max: 60 }), marked);
  const steps = fc.array(fc.oneof(fc.array(change, { maxLength: 40 }), fc.constant('shorter' as const)), {
    maxLength: 6,
  });
  fc.assert(
    fc.property(fc.array(marked, { minLength: 2, maxLength: 50 }), steps, (first, changes) => {
      const counts = new MeetingCounts(within, isMeeting);
      let list = first;
      expect(counted(counts, list)).toEqual(expected(list));
      for (const step of changes) {
        if (step === 'shorter') list = list.slice(1);
        else for (const [i, entry] of step) if (i < list.length) list = list.with(i, entry);
        expect(counted(counts, list)).toEqual(expected(list));
      }
    }),
    { numRuns: 300 },
  );
});

test('after a change of one, only it is compared', () => {
  let compared = 0;
  const counts = new MeetingCounts(1, () => {
    compared++;
    return true;
  });
  const boxes = Float64Array.from({ length: 400 }, (_, k) => Math.floor(k / 4) * 1.5 + (k % 4 > 1 ? 1 : 0));
  expect([...counts.countsOf(boxes)].slice(0, 3)).toEqual([1, 2, 2]);
  expect(compared).toBe(99);
  compared = 0;
  const moved = boxes.slice();
  moved[4] += 0.1;
  expect([...counts.countsOf(moved)].slice(0, 3)).toEqual([1, 2, 2]);
  expect(compared).toBe(4);
});
