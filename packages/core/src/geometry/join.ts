import type { Point } from './matrix.ts';
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
  const ends = lines.flatMap(({ coords }): Point[] => {
    const last = coords.length - 2;
    return [
      { x: coords[0], y: coords[1] },
      { x: coords[last], y: coords[last + 1] },
    ];
  });
  // Cells as wide as the tolerance, by a hash of their place: two may share one, as distances are looked at anyway.
  const cells = new Map<number, number[]>();
  const cellOf = (x: number, y: number) =>
    (Math.imul(Math.floor(x / tolerance), 73856093) ^ Math.imul(Math.floor(y / tolerance), 19349663)) >>> 0;
  ends.forEach(({ x, y }, i) => {
    const cell = cellOf(x, y);
    const known = cells.get(cell);
    if (known) known.push(i);
    else cells.set(cell, [i]);
  });
  /** The one end that meets this one; -1 when there is none, or more than one. */
  const partner = ends.map(({ x, y }, i) => {
    let found = -1;
    const seen = new Set<number>();
    for (let k = 0; k < 9; k++) {
      const name = cellOf(x + ((k % 3) - 1) * tolerance, y + (Math.floor(k / 3) - 1) * tolerance);
      const cell = cells.get(name);
      if (!cell || seen.has(name)) continue;
      seen.add(name);
      for (const j of cell) {
        if (j === i || Math.hypot(ends[j].x - x, ends[j].y - y) > tolerance) continue;
        if (found >= 0) return -1;
        found = j;
      }
    }
    return found;
  });
  const meets = (i: number) => (partner[i] >= 0 && partner[partner[i]] === i ? partner[i] : -1);

  const done = new Uint8Array(lines.length);
  const out: Joined[] = [];
  lines.forEach((_, first) => {
    if (done[first]) return;
    // Back to where the chain begins, or around to this line.
    let start = first * 2;
    for (let before = meets(start); before >= 0 && before >> 1 !== first; before = meets(start)) start = before ^ 1;
    if (meets(start) < 0 && meets(start ^ 1) < 0) return;
    const chain: number[] = [];
    let at = start;
    let closed = false;
    for (;;) {
      chain.push(at);
      done[at >> 1] = 1;
      const next = meets(at ^ 1);
      if (next < 0) break;
      if (done[next >> 1]) {
        closed = true;
        break;
      }
      at = next;
    }
    const builder = new PathBuilder();
    // An even end is its line's start: there the chain goes forwards.
    chain.forEach((end, i) => (end % 2 === 0 ? appendPath : appendBackwards)(builder, lines[end >> 1], i === 0));
    if (closed) builder.close();
    out.push({ members: chain.map((end) => end >> 1), path: builder.build() });
  });
  return out;
}

/** Adds a line of one subpath to a path from its end to its start; its end is moved to only where it is the first. */
function appendBackwards(builder: PathBuilder, { verbs, coords }: Path, first: boolean): void {
  let at = coords.length;
  if (first) builder.moveTo(coords[at - 2], coords[at - 1]);
  for (let i = verbs.length - 1; i > 0; i--) {
    const c = coords.subarray(at - coordsOf[verbs[i]] - 2, at);
    if (verbs[i] === Verb.line) builder.lineTo(c[0], c[1]);
    else builder.cubicTo(c[4], c[5], c[2], c[3], c[0], c[1]);
    at -= coordsOf[verbs[i]];
  }
}
