import { PointGrid } from './point-grid.ts';
import type { Stops } from './stops.ts';

/** How many neighbours of each stop are looked at. */
const neighbours = 8;
/** For each stop those with an end near to one of its own, and how near, in mm: `most` places for each. */
export interface NeighbourLists {
  /** How many places there are for each stop. */
  readonly most: number;
  /** Nearest first; -1 where there are no more. */
  readonly stops: Int32Array;
  readonly distances: Float64Array;
}

/** @returns for each stop those that are nearest to its ends; of as near ones, those of the lower number */
export function neighbourLists({ entryX, entryY, exitX, exitY }: Stops): NeighbourLists {
  const count = entryX.length;
  const isClosed = (i: number) => entryX[i] === exitX[i] && entryY[i] === exitY[i];
  // A closed outline has its two ends at one point, which is looked for once.
  const open = Int32Array.from(entryX, (_, i) => i).filter((i) => !isClosed(i));
  const owners = new Int32Array(count + open.length);
  const [xs, ys] = [new Float64Array(owners.length), new Float64Array(owners.length)];
  xs.set(entryX);
  ys.set(entryY);
  for (let i = 0; i < owners.length; i++) {
    owners[i] = i < count ? i : open[i - count];
    if (i >= count) [xs[i], ys[i]] = [exitX[owners[i]], exitY[owners[i]]];
  }
  const grid = new PointGrid(xs, ys);
  const lists = {
    most: neighbours,
    stops: new Int32Array(count * neighbours),
    distances: new Float64Array(count * neighbours),
  };
  const nearest = new NearestStops(neighbours);
  for (let i = 0; i < count; i++) {
    nearest.clear();
    // Squared, in mm².
    let reach = Number.POSITIVE_INFINITY;
    // Distances as `hypot` rounds them: ends that lie alike around a stop are equally near, and their numbers decide.
    const lookAround = (x: number, y: number) =>
      grid.search(x, y, (point, squared) => {
        if (squared <= reach && owners[point] !== i) {
          nearest.take(owners[point], Math.hypot(xs[point] - x, ys[point] - y));
          reach = nearest.reach * nearest.reach * (1 + 1e-9);
        }
        return reach;
      });
    lookAround(entryX[i], entryY[i]);
    if (!isClosed(i)) lookAround(exitX[i], exitY[i]);
    nearest.write(lists, i * neighbours);
  }
  return lists;
}

/** The few nearest of the stops that it is given, each by its nearest end. */
class NearestStops {
  private readonly stops: Int32Array;
  private readonly distances: Float64Array;
  private count = 0;

  constructor(private readonly most: number) {
    this.stops = new Int32Array(most + 1);
    this.distances = new Float64Array(most + 1);
  }

  /** What is further than this is not among them. */
  get reach(): number {
    return this.count < this.most ? Number.POSITIVE_INFINITY : this.distances[this.count - 1];
  }

  clear(): void {
    this.count = 0;
  }

  take(stop: number, distance: number): void {
    const { stops, distances } = this;
    if (distance > this.reach) return;
    let index = 0;
    while (index < this.count && stops[index] !== stop) index++;
    if (index < this.count && distances[index] <= distance) return;
    if (index === this.count) this.count++;
    for (
      ;
      index > 0 && (distances[index - 1] > distance || (distances[index - 1] === distance && stops[index - 1] > stop));
      index--
    ) {
      stops[index] = stops[index - 1];
      distances[index] = distances[index - 1];
    }
    stops[index] = stop;
    distances[index] = distance;
    if (this.count > this.most) this.count = this.most;
  }

  /** Writes them into lists, from a place on. */
  write({ stops, distances }: NeighbourLists, from: number): void {
    for (let k = 0; k < this.most; k++) {
      stops[from + k] = k < this.count ? this.stops[k] : -1;
      distances[from + k] = this.distances[k];
    }
  }
}
