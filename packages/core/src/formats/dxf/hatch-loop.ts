import { appendBackwards, joinLines } from '../../geometry/paths/join.ts';
import { appendPath, type Path, PathBuilder, Verb } from '../../geometry/paths/path.ts';

/**
 * A hatch's boundary from its edges, whatever their order and whichever way round each is written: each keeps its own
 * shape. Where ends do not meet, a straight line leads on to the nearer end of the next.
 *
 * @param tolerance how far ends that meet may be apart, in the file's units
 */
export function loopOf(edges: readonly Path[], tolerance: number): Path {
  const builder = new PathBuilder();
  const whole = edges.filter(({ verbs }) => verbs.includes(Verb.close));
  for (const ring of whole) appendPath(builder, ring, true);
  const open = edges.filter(({ verbs }) => !verbs.includes(Verb.close));
  const joined = joinLines(open, tolerance);
  const members = new Set(joined.flatMap((chain) => chain.members));
  const pieces = [
    ...joined.map((chain) => ({ place: Math.min(...chain.members), path: chain.path })),
    ...open.flatMap((path, place) => (members.has(place) ? [] : [{ place, path }])),
  ].sort((a, b) => a.place - b.place);
  let begun = false;
  for (const { path } of pieces) {
    if (path.verbs.includes(Verb.close)) {
      appendPath(builder, path, true);
      continue;
    }
    const { coords } = path;
    const [x0, y0, x1, y1] = [coords[0], coords[1], coords[coords.length - 2], coords[coords.length - 1]];
    const away = (x: number, y: number) => Math.hypot(x - builder.x, y - builder.y);
    const backwards = begun && away(x1, y1) < away(x0, y0);
    if (begun) builder.lineTo(backwards ? x1 : x0, backwards ? y1 : y0);
    (backwards ? appendBackwards : appendPath)(builder, path, !begun);
    begun = true;
  }
  if (begun) builder.close();
  return builder.build();
}
