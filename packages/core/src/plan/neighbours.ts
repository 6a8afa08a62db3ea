import Flatbush from 'flatbush';
import type { Stops } from './stops.ts';

/** How many neighbours of each end are looked at. */
const neighbours = 8;
/** The stops with an end near to one of a stop's own, nearest first, and how near. */
export interface Near {
  readonly stops: Int32Array;
  readonly distances: Float64Array;
}

/** @returns for each stop those that are nearest to its ends; of as near ones, those of the lower number */
export function neighbourLists({ entryX, entryY, exitX, exitY }: Stops): Near[] {
  const count = entryX.length;
  if (count === 0) return [];
  const isClosed = (i: number) => entryX[i] === exitX[i] && entryY[i] === exitY[i];
  // A closed outline has its two ends at one point, which is looked for once.
  const owners: number[] = [];
  const [xs, ys]: [number[], number[]] = [[], []];
  for (let i = 0; i < count; i++) {
    owners.push(i);
    xs.push(entryX[i]);
    ys.push(entryY[i]);
    if (isClosed(i)) continue;
    owners.push(i);
    xs.push(exitX[i]);
    ys.push(exitY[i]);
  }
  const index = new Flatbush(owners.length);
  owners.forEach((_, at) => {
    index.add(xs[at], ys[at], xs[at], ys[at]);
  });
  index.finish();
  const wanted = owners.length === count ? neighbours : 2 * neighbours;
  const [stops, distances]: [number[], number[]] = [[], []];
  /** Keeps the nearest, in their order. */
  const take = (stop: number, distance: number) => {
    let at = stops.indexOf(stop);
    if (at >= 0) {
      if (distances[at] <= distance) return;
      stops.splice(at, 1);
      distances.splice(at, 1);
    }
    at = stops.length;
    while (at > 0 && (distances[at - 1] > distance || (distances[at - 1] === distance && stops[at - 1] > stop))) at--;
    stops.splice(at, 0, stop);
    distances.splice(at, 0, distance);
  };
  return Array.from({ length: count }, (_, i) => {
    stops.length = distances.length = 0;
    const look = (x: number, y: number) => {
      for (const at of index.neighbors(x, y, wanted, Infinity, (known) => owners[known] !== i)) {
        take(owners[at], Math.hypot(xs[at] - x, ys[at] - y));
      }
    };
    look(entryX[i], entryY[i]);
    if (!isClosed(i)) look(exitX[i], exitY[i]);
    return {
      stops: Int32Array.from(stops.slice(0, neighbours)),
      distances: Float64Array.from(distances.slice(0, neighbours)),
    };
  });
}
