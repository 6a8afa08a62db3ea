import Flatbush from 'flatbush';
import type { Polyline } from '../geometry/flatten.ts';
import { Move, type MoveList } from './moves.ts';

/** At how many of its points a closed outline may be entered, as far as the search goes. */
const entries = 8;

/**
 * Burns lines one after the other, always the one that is nearest next: an open one from either end,
 * a closed one from its nearest node. Each is burnt `passes` times before the head goes on.
 */
export function burnNearestNext(list: MoveList, lines: readonly Polyline[], passes: number): void {
  const burnable = lines.filter((line) => line.points.length >= 4);
  if (burnable.length === 0) return;
  const owners: number[] = [];
  const places: number[] = [];
  burnable.forEach(({ points, closed }, i) => {
    const nodes = points.length / 2;
    const picks = closed
      ? Array.from({ length: Math.min(entries, nodes) }, (_, k) => Math.floor((k * nodes) / Math.min(entries, nodes)))
      : [0, nodes - 1];
    for (const node of picks) {
      owners.push(i);
      places.push(points[node * 2], points[node * 2 + 1]);
    }
  });
  const index = new Flatbush(owners.length);
  for (let i = 0; i < places.length; i += 2) index.add(places[i], places[i + 1], places[i], places[i + 1]);
  index.finish();
  const done = new Uint8Array(burnable.length);
  for (let left = burnable.length; left > 0; left--) {
    const [found] = index.neighbors(list.x, list.y, 1, Infinity, (place) => !done[owners[place]]);
    const next = owners[found];
    done[next] = 1;
    burnLine(list, burnable[next], passes);
  }
}

function burnLine(list: MoveList, { points, closed }: Polyline, passes: number): void {
  const nodes = points.length / 2;
  const start = closed ? nearestNode(points, list) : fartherEnd(points, list) ? 0 : nodes - 1;
  list.to(Move.travel, points[start * 2], points[start * 2 + 1]);
  for (let pass = 0; pass < passes; pass++) {
    // An open line is burnt there and back; a closed one round and round.
    const forth = closed || (start === 0) === (pass % 2 === 0);
    const steps = closed ? nodes : nodes - 1;
    for (let step = 1; step <= steps; step++) {
      const node = closed ? (start + step) % nodes : forth ? step : nodes - 1 - step;
      list.to(Move.lit, points[node * 2], points[node * 2 + 1]);
    }
  }
}

function nearestNode(points: Float64Array, from: { x: number; y: number }): number {
  let best = 0;
  let bestDistance = Infinity;
  for (let i = 0; i < points.length; i += 2) {
    const distance = (points[i] - from.x) ** 2 + (points[i + 1] - from.y) ** 2;
    if (distance < bestDistance) {
      bestDistance = distance;
      best = i / 2;
    }
  }
  return best;
}

/** Whether the last point is farther away than the first. */
function fartherEnd(points: Float64Array, from: { x: number; y: number }): boolean {
  const last = points.length - 2;
  return (
    Math.hypot(points[last] - from.x, points[last + 1] - from.y) >= Math.hypot(points[0] - from.x, points[1] - from.y)
  );
}
