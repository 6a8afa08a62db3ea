import { areaOf, linesOfArea, uniteAreas } from '../geometry/areas/area.ts';
import { pathOfRings, simplifyRing } from '../geometry/areas/rings.ts';
import type { Polyline } from '../geometry/paths/flatten.ts';
import { signedArea } from '../geometry/paths/flatten.ts';
import { nestDepths } from '../geometry/questions/nesting.ts';
import type { Rings } from './edges.ts';

/** Corners at which lines would meet farther out than this many times what they are moved by are cut off. */
const longestCorner = 4;

/**
 * Fewer lines that lie around outlines, and hold all of what those enclose by the even-odd rule. Each line stands for a stretch
 * of an outline, and is moved outwards as far as that comes over it.
 *
 * @param strays how far a line may be from what it stands for, in mm
 * @param least how far each is moved outwards at least, in mm
 */
export function ringsOutside(lines: readonly Polyline[], strays: number, least: number): Rings {
  const depths = nestDepths(lines);
  const outside = lines.map((line, i) => ringOutside(line, strays, least, depths[i] % 2 === 0));
  // At very sharp corners the outline may come over the line beside its own: there it is taken as it is.
  const areas = [outside, lines.map(({ points }) => points)].map((rings) => areaOf(pathOfRings(rings), 'evenodd'));
  return linesOfArea(uniteAreas(areas)).map(({ points }) => points);
}

function ringOutside(line: Polyline, strays: number, least: number, isOuter: boolean): Float64Array {
  const { points } = line;
  const simple = simplifyRing(points, strays);
  const count = simple.length / 2;
  // To the left of where a ring goes that turns clockwise on the screen; of a hole, what it encloses lies outside.
  const outwards = (signedArea(line) > 0 ? -1 : 1) * (isOuter ? 1 : -1);
  const edges = Array.from({ length: count }, (_, i): Edge => {
    const next = (i + 1) % count;
    const [x, y] = [simple[2 * i], simple[2 * i + 1]];
    const [dx, dy] = [simple[2 * next] - x, simple[2 * next + 1] - y];
    const length = Math.hypot(dx, dy) || 1;
    const [ux, uy] = [dx / length, dy / length];
    return { x, y, ux, uy, nx: -uy * outwards, ny: ux * outwards, out: least };
  });
  moveOut(points, simple, edges, least);
  const ring: number[] = [];
  edges.forEach((edge, i) => ring.push(...cornerBetween(edges[(i + count - 1) % count], edge)));
  return Float64Array.from(ring);
}

/** One of the lines: where it begins, its direction, that outwards, and how far it is moved there. */
interface Edge {
  readonly x: number;
  readonly y: number;
  readonly ux: number;
  readonly uy: number;
  readonly nx: number;
  readonly ny: number;
  out: number;
}

/** Moves each line as far outwards as the points that it stands for lie. */
function moveOut(points: Float64Array, simple: Float64Array, edges: readonly Edge[], least: number): void {
  let i = -1;
  for (let k = 0; k < points.length; k += 2) {
    const next = i + 1;
    if (next < edges.length && points[k] === simple[2 * next] && points[k + 1] === simple[2 * next + 1]) {
      i = next;
      continue;
    }
    // What comes before the first point that was kept belongs to the last line.
    const edge = edges[i < 0 ? edges.length - 1 : i];
    const out = (points[k] - edge.x) * edge.nx + (points[k + 1] - edge.y) * edge.ny + least;
    if (out > edge.out) edge.out = out;
  }
}

/** Where two lines meet that were moved; two points where that would be far out. */
function cornerBetween(before: Edge, after: Edge): number[] {
  const { x, y } = after;
  const most = Math.max(before.out, after.out);
  const cross = before.nx * after.ny - before.ny * after.nx;
  const along = before.nx * after.nx + before.ny * after.ny;
  if (Math.abs(cross) < 0.02 && along > 0) return [x + after.nx * most, y + after.ny * most];
  const [px, py] = [
    (before.out * after.ny - after.out * before.ny) / cross,
    (after.out * before.nx - before.out * after.nx) / cross,
  ];
  if (Math.hypot(px, py) <= longestCorner * most) return [x + px, y + py];
  return [
    x + before.nx * before.out + before.ux * most,
    y + before.ny * before.out + before.uy * most,
    x + after.nx * after.out - after.ux * most,
    y + after.ny * after.out - after.uy * most,
  ];
}
