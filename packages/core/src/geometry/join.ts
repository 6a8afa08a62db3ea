import Flatbush from 'flatbush';
import { coordsOf, type Path, PathBuilder, Verb } from './path.ts';

/** Lines that were joined to one, by their places in the list given, and the path they make. */
export interface Joined {
  readonly members: readonly number[];
  readonly path: Path;
}

interface End {
  readonly line: number;
  readonly atStart: boolean;
  readonly x: number;
  readonly y: number;
}

/**
 * Joins open lines of one subpath where exactly two of their ends meet within `tolerance` mm. A chain
 * that comes back to its start is closed. Lines that meet no other are left out of the answer.
 */
export function joinLines(lines: readonly Path[], tolerance: number): Joined[] {
  const ends = lines.flatMap((path, line): End[] => {
    const { coords } = path;
    const last = coords.length - 2;
    return [
      { line, atStart: true, x: coords[0], y: coords[1] },
      { line, atStart: false, x: coords[last], y: coords[last + 1] },
    ];
  });
  if (ends.length === 0) return [];
  const index = new Flatbush(ends.length);
  for (const { x, y } of ends) index.add(x, y, x, y);
  index.finish();
  const partner = ends.map(({ x, y }, i) => {
    const near = index
      .search(x - tolerance, y - tolerance, x + tolerance, y + tolerance)
      .filter((j) => j !== i && Math.hypot(ends[j].x - x, ends[j].y - y) <= tolerance);
    return near.length === 1 ? near[0] : -1;
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
    chain.forEach((end, i) => append(builder, lines[end >> 1], end % 2 === 1, i === 0));
    if (closed) builder.close();
    out.push({ members: chain.map((end) => end >> 1), path: builder.build() });
  });
  return out;
}

/** Adds a line to a path, backwards if asked; where it goes on from another one, that one's end is its start. */
function append(builder: PathBuilder, { verbs, coords }: Path, backwards: boolean, first: boolean): void {
  if (!backwards) {
    let at = 0;
    for (const verb of verbs) {
      const c = coords.subarray(at, at + coordsOf[verb]);
      if (verb === Verb.move && first) builder.moveTo(c[0], c[1]);
      else if (verb === Verb.line) builder.lineTo(c[0], c[1]);
      else if (verb === Verb.cubic) builder.cubicTo(c[0], c[1], c[2], c[3], c[4], c[5]);
      at += coordsOf[verb];
    }
    return;
  }
  let at = coords.length;
  if (first) builder.moveTo(coords[at - 2], coords[at - 1]);
  for (let i = verbs.length - 1; i > 0; i--) {
    const c = coords.subarray(at - coordsOf[verbs[i]] - 2, at);
    if (verbs[i] === Verb.line) builder.lineTo(c[0], c[1]);
    else builder.cubicTo(c[4], c[5], c[2], c[3], c[0], c[1]);
    at -= coordsOf[verbs[i]];
  }
}
