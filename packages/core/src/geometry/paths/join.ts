import { appendPath, coordsOf, type Path, PathBuilder, Verb } from './path.ts';

/** Lines that were joined to one, by their places in the list given, and the path they make. */
export interface Joined {
  readonly members: readonly number[];
  readonly path: Path;
}

/**
 * Joins open lines of one subpath where exactly two of their ends meet within `tolerance` mm. A chain
 * that comes back to its start is closed. Lines that meet no other are left out of the answer.
 */
export function joinLines(lines: readonly Path[], tolerance: number): Joined[] {
  // Two ends a line: end 2i is where line i starts, end 2i + 1 where it ends.
  const ends = new Float64Array(lines.length * 4);
  lines.forEach(({ coords }, i) => {
    ends.set(coords.subarray(0, 2), i * 4);
    ends.set(coords.subarray(coords.length - 2), i * 4 + 2);
  });
  const partner = partners(ends, tolerance);
  const meets = (i: number) => (partner[i] >= 0 && partner[partner[i]] === i ? partner[i] : -1);

  return chainsOf(lines.length, meets)
    .filter(({ ends, closed }) => closed || ends.length > 1)
    .map(({ ends, closed }) => {
      const builder = new PathBuilder();
      // An even end is its line's start: there the chain goes forwards.
      ends.forEach((end, i) => (end % 2 === 0 ? appendPath : appendBackwards)(builder, lines[end >> 1], i === 0));
      if (closed) builder.close();
      return { members: ends.map((end) => end >> 1), path: builder.build() };
    });
}

/** Lines one after another: for each the end at which the chain comes to it; closed where the last leads to the first. */
export interface Chain {
  readonly ends: readonly number[];
  readonly closed: boolean;
}

/**
 * Lines by the chains they make, each line in one. End 2i is where line i starts, end 2i + 1 where it ends.
 * @param meets the end that an end goes on to, and the other way round; -1 for none
 */
export function chainsOf(count: number, meets: (end: number) => number): Chain[] {
  const done = new Uint8Array(count);
  const chains: Chain[] = [];
  for (let first = 0; first < count; first++) {
    if (done[first]) continue;
    // Back to where the chain begins, or around to this line.
    let index = first * 2;
    for (let before = meets(index); before >= 0 && before >> 1 !== first; before = meets(index)) index = before ^ 1;
    const ends: number[] = [];
    let closed = false;
    for (;;) {
      ends.push(index);
      done[index >> 1] = 1;
      const next = meets(index ^ 1);
      if (next < 0) break;
      if (done[next >> 1]) {
        closed = true;
        break;
      }
      index = next;
    }
    chains.push({ ends, closed });
  }
  return chains;
}

/**
 * For each of the points x, y, x, y… the one other that lies within `tolerance` of it; -1 where there is none,
 * or more than one.
 */
function partners(points: Float64Array, tolerance: number): Int32Array {
  const count = points.length / 2;
  // Chains by a hash of the cell that a point lies in; what is near it lies there or, close to a border, next to it.
  const width = tolerance * 8;
  const mask = 2 ** Math.ceil(Math.log2(count * 2 + 1)) - 1;
  const heads = new Int32Array(mask + 1).fill(-1);
  const following = new Int32Array(count);
  const slotOf = (column: number, row: number) => {
    const mixed = Math.imul(column, 73856093) ^ Math.imul(row, 19349663);
    return (mixed ^ (mixed >>> 15)) & mask;
  };
  for (let i = 0; i < count; i++) {
    const slot = slotOf(Math.floor(points[i * 2] / width), Math.floor(points[i * 2 + 1] / width));
    following[i] = heads[slot];
    heads[slot] = i;
  }
  const out = new Int32Array(count).fill(-1);
  for (let i = 0; i < count; i++) {
    const [x, y] = [points[i * 2], points[i * 2 + 1]];
    const lastColumn = Math.floor((x + tolerance) / width);
    const lastRow = Math.floor((y + tolerance) / width);
    let found = -1;
    for (let column = Math.floor((x - tolerance) / width); column <= lastColumn; column++) {
      for (let row = Math.floor((y - tolerance) / width); row <= lastRow; row++) {
        for (let j = heads[slotOf(column, row)]; j >= 0 && found !== -2; j = following[j]) {
          if (j === i || j === found || Math.hypot(points[j * 2] - x, points[j * 2 + 1] - y) > tolerance) continue;
          found = found < 0 ? j : -2;
        }
      }
    }
    out[i] = Math.max(-1, found);
  }
  return out;
}

/** Adds a line of one subpath to a path from its end to its start; its end is moved to only where it is the first. */
export function appendBackwards(builder: PathBuilder, { verbs, coords }: Path, first: boolean): void {
  let index = coords.length;
  if (first) builder.moveTo(coords[index - 2], coords[index - 1]);
  for (let i = verbs.length - 1; i > 0; i--) {
    const c = coords.subarray(index - coordsOf[verbs[i]] - 2, index);
    if (verbs[i] === Verb.line) builder.lineTo(c[0], c[1]);
    else builder.cubicTo(c[4], c[5], c[2], c[3], c[0], c[1]);
    index -= coordsOf[verbs[i]];
  }
}
