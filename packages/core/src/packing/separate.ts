import type { Crowd, Stop } from './crowd.ts';

/** So many passes without anything gained, and it is given up. */
const patience = 150;

/**
 * Moves pieces that lie over each other until none does: each to where it overlaps least along an axis, turned as it may
 * be. Pairs that stay in each other's way count for more and more.
 *
 * @param moves after how many moves it is given up at the latest
 * @returns whether nothing overlaps any more, and how many moves it took
 */
export function separate(crowd: Crowd, moves: number, random: () => number): { isApart: boolean; moves: number } {
  let [done, least, since] = [0, Infinity, 0];
  crowd.forgetWeights();
  while (done < moves && since < patience) {
    const tangled = shuffled(
      crowd.pieces.map((_, i) => i).filter((i) => crowd.overlap(i) > 0),
      random,
    );
    if (tangled.length === 0) return { isApart: true, moves: done };
    for (const i of tangled) {
      const now = crowd.weighted(i);
      if (now <= 0) continue;
      const best = bestStop(crowd, i, random);
      done++;
      if (best && best.value < now - 1e-9) crowd.put(i, best.turn, best.x, best.y);
    }
    const total = crowd.total();
    since = total < least * 0.98 ? 0 : since + 1;
    least = Math.min(least, total);
    crowd.weighUp();
  }
  return { isApart: crowd.total() === 0, moves: done };
}

/** Where a piece overlaps least of some places: along both axes from where it is, at a place anywhere, and turned otherwise. */
export function bestStop(crowd: Crowd, i: number, random: () => number): Stop | null {
  const [turn, x, y] = [crowd.turns[i], crowd.xs[i], crowd.ys[i]];
  let best: Stop | null = null;
  const offer = (stop: Stop | null) => {
    if (stop && (!best || stop.value < best.value)) best = stop;
  };
  offer(crowd.stopAlong(i, turn, true, y));
  offer(crowd.stopAlong(i, turn, false, x));
  const turns = crowd.turnsOf(i);
  const other = turns > 1 ? Math.floor(random() * turns) : turn;
  for (const next of other === turn ? [turn] : [turn, other]) {
    const { box } = crowd.shapeAt(i, next);
    const { room } = crowd;
    const anyX =
      room.box.minX - box.minX + random() * Math.max(0, room.box.maxX - room.box.minX - (box.maxX - box.minX));
    const anyY =
      room.box.minY - box.minY + random() * Math.max(0, room.box.maxY - room.box.minY - (box.maxY - box.minY));
    const stops = [crowd.stopAlong(i, next, true, anyY), crowd.stopAlong(i, next, false, anyX)];
    for (const stop of stops) offer(stop);
    // From where it lies best along one axis, along the other.
    const [across, down] = stops;
    if (across) offer(crowd.stopAlong(i, next, false, across.x));
    if (down) offer(crowd.stopAlong(i, next, true, down.y));
  }
  return best;
}

/** In any order. */
export function shuffled<T>(all: readonly T[], random: () => number): T[] {
  const out = [...all];
  for (let i = out.length - 1; i > 0; i--) {
    const k = Math.floor(random() * (i + 1));
    [out[i], out[k]] = [out[k], out[i]];
  }
  return out;
}
