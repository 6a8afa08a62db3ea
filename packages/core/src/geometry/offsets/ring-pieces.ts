import type { Box } from '../paths/box.ts';
import type { Ring } from '../paths/ring.ts';

/** How much a piece may turn, in radians. */
const slightTurn = 1;

/** A segment of a ring in one direction, more or less: a piece of a long edge, or a few short ones. */
export interface Piece {
  readonly owner: number;
  /** Its edges, the last included. */
  readonly first: number;
  readonly last: number;
  /** How far along the ring it begins and ends, and how far the ring has turned there, in radians, at most. */
  readonly from: number;
  readonly to: number;
  readonly turnedFrom: number;
  readonly turnedTo: number;
  readonly box: Box;
}

/** Cuts a ring into pieces of a length at most. */
export function piecesOf(ring: Ring, owner: number, most: number): Piece[] {
  const { count, xs, ys, dx, dy, along, sizes } = ring;
  const out: Piece[] = [];
  let turned = 0;
  let first = 0;
  let turnedFrom = 0;
  const put = (last: number) => {
    const [from, to] = [along[first], along[last] + sizes[last]];
    out.push({ owner, first, last, from, to, turnedFrom, turnedTo: turned, box: boundsOf(ring, first, last) });
  };
  for (let i = 0; i < count; i++) {
    const turn = i === 0 ? 0 : turnAt(ring, i);
    const goesOn = i > first && along[i] + sizes[i] - along[first] <= most && turned + turn - turnedFrom <= slightTurn;
    if (i > first && !goesOn) {
      put(i - 1);
      first = i;
    }
    turned += turn;
    if (first === i) turnedFrom = turned;
    const parts = Math.ceil(sizes[i] / most);
    if (parts === 1) continue;
    const size = sizes[i] / parts;
    for (let part = 0; part < parts; part++) {
      const [from, to] = [part * size, (part + 1) * size];
      const [ax, ay, bx, by] = [xs[i] + from * dx[i], ys[i] + from * dy[i], xs[i] + to * dx[i], ys[i] + to * dy[i]];
      const box = {
        minX: Math.min(ax, bx),
        minY: Math.min(ay, by),
        maxX: Math.max(ax, bx),
        maxY: Math.max(ay, by),
      };
      const [start, end] = [along[i] + from, along[i] + to];
      out.push({ owner, first: i, last: i, from: start, to: end, turnedFrom: turned, turnedTo: turned, box });
    }
    first = i + 1;
  }
  if (first < count) put(count - 1);
  return out;
}

/** How much a ring turns at a point of it, in radians, or somewhat more. */
export function turnAt({ count, dx, dy }: Ring, i: number): number {
  const h = i > 0 ? i - 1 : count - 1;
  if (dx[h] * dx[i] + dy[h] * dy[i] <= 0) return Math.PI;
  const sine = Math.abs(dx[h] * dy[i] - dy[h] * dx[i]);
  // The arc sine, by a polynomial that is nowhere below it.
  return sine + (Math.PI / 2 - 1) * sine * sine * sine;
}

/**
 * Whether a ring turns little between two pieces of it, one way round or the other. Then nothing of them crosses, and
 * what is not local is further apart than a width. For the ends of a path that turns by less than α are apart by at least
 * its length times cos α/2.
 *
 * @param turns how much the whole ring turns, in radians
 */
export function hardlyTurns(turns: number, before: Piece, after: Piece): boolean {
  const least = Math.min(after.turnedTo - before.turnedFrom, turns - after.turnedFrom + before.turnedTo);
  return least < 2 * slightTurn;
}

/** The box around some edges of a ring, the last included. */
export function boundsOf({ count, xs, ys }: Ring, first: number, last: number): Box {
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = first; i <= last + 1; i++) {
    const k = i < count ? i : 0;
    if (xs[k] < minX) minX = xs[k];
    if (xs[k] > maxX) maxX = xs[k];
    if (ys[k] < minY) minY = ys[k];
    if (ys[k] > maxY) maxY = ys[k];
  }
  return { minX, minY, maxX, maxY };
}
