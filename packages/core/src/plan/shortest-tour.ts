import type { Stops, Tour } from './stops.ts';

/** The shortest way through a few stops: every set of them by the last of it, both ways round (Held and Karp, 1962). */
export function shortestTour(
  stops: Stops,
  start: { x: number; y: number },
  end: { x: number; y: number } | null,
): Tour {
  const count = stops.entryX.length;
  const { entryX, entryY, exitX, exitY } = stops;
  // An end is a stop and which way it is gone through.
  const into = (e: number) => ((e & 1) === 0 ? [entryX[e >> 1], entryY[e >> 1]] : [exitX[e >> 1], exitY[e >> 1]]);
  const outOf = (e: number) => into(e ^ 1);
  const ends = 2 * count;
  const sets = 1 << count;
  const length = new Float64Array(sets * ends).fill(Infinity);
  const from = new Int16Array(sets * ends).fill(-1);
  for (let e = 0; e < ends; e++) {
    const [x, y] = into(e);
    length[(1 << (e >> 1)) * ends + e] = Math.hypot(x - start.x, y - start.y);
  }
  for (let set = 1; set < sets; set++) {
    for (let e = 0; e < ends; e++) {
      const sofar = length[set * ends + e];
      if (sofar === Infinity) continue;
      const [x, y] = outOf(e);
      for (let next = 0; next < ends; next++) {
        if (set & (1 << (next >> 1))) continue;
        const [nx, ny] = into(next);
        const index = (set | (1 << (next >> 1))) * ends + next;
        const longer = sofar + Math.hypot(nx - x, ny - y);
        if (longer < length[index]) {
          length[index] = longer;
          from[index] = e;
        }
      }
    }
  }
  const back = (e: number) => (end ? Math.hypot(end.x - outOf(e)[0], end.y - outOf(e)[1]) : 0);
  let set = sets - 1;
  let best = 0;
  for (let e = 1; e < ends; e++)
    if (length[set * ends + e] + back(e) < length[set * ends + best] + back(best)) best = e;
  const order = new Int32Array(count);
  const flipped = new Uint8Array(count);
  for (let i = count - 1; i >= 0; i--) {
    order[i] = best >> 1;
    flipped[best >> 1] = best & 1;
    const before = from[set * ends + best];
    set ^= 1 << (best >> 1);
    best = before;
  }
  return { order, flipped };
}
