import Flatbush from 'flatbush';
import type { Stops } from './stops.ts';

/** How many neighbours of each end are looked at. */
const neighbours = 8;
/** The stops with an end near to one of a stop's own, nearest first, and how near. */
export interface Near {
  readonly stops: Int32Array;
  readonly distances: Float64Array;
}

export function neighbourLists({ entryX, entryY, exitX, exitY }: Stops): Near[] {
  const count = entryX.length;
  if (count === 0) return [];
  const index = new Flatbush(2 * count);
  for (let i = 0; i < count; i++) {
    index.add(entryX[i], entryY[i], entryX[i], entryY[i]);
    index.add(exitX[i], exitY[i], exitX[i], exitY[i]);
  }
  index.finish();
  return Array.from({ length: count }, (_, i) => {
    const closed = entryX[i] === exitX[i] && entryY[i] === exitY[i];
    const near = new Map<number, number>();
    for (const [x, y] of closed
      ? [[entryX[i], entryY[i]]]
      : [
          [entryX[i], entryY[i]],
          [exitX[i], exitY[i]],
        ]) {
      for (const found of index.neighbors(x, y, 2 * neighbours, Infinity, (known) => known >> 1 !== i)) {
        const other = found >> 1;
        const back = found % 2 === 1;
        const distance = Math.hypot((back ? exitX : entryX)[other] - x, (back ? exitY : entryY)[other] - y);
        near.set(other, Math.min(distance, near.get(other) ?? Infinity));
      }
    }
    const sorted = [...near].sort((a, b) => a[1] - b[1] || a[0] - b[0]).slice(0, neighbours);
    return { stops: Int32Array.from(sorted, ([stop]) => stop), distances: Float64Array.from(sorted, ([, d]) => d) };
  });
}
