type Place = readonly [x: number, y: number];

/** What a line says of an arc: where its centre is, seen from its beginning, and which way round it goes. */
export interface Arc {
  readonly toCentre: Place;
  readonly clockwise: boolean;
}

/** The radius at the end may differ from that at the beginning by so many mm. */
const sameRadius = 0.005;

/**
 * The ends of the straight ways that stand for an arc: equal ones, as few as keep within `within` mm of it.
 * @returns null where it does not lead to its end
 */
export function arcWays(from: Place, to: Place, { toCentre: [i, j], clockwise }: Arc, within: number): Place[] | null {
  const [cx, cy] = [from[0] + i, from[1] + j];
  const r0 = Math.hypot(i, j);
  const [ex, ey] = [to[0] - cx, to[1] - cy];
  const r1 = Math.hypot(ex, ey);
  if (r0 === 0 || Math.abs(r1 - r0) > sameRadius) return null;
  // The angle from the first radius, (-i, -j), to the last: counterclockwise, from 0 to a full turn.
  const counter = Math.atan2(-i * ey + j * ex, -i * ex - j * ey);
  const full = 2 * Math.PI;
  const turned = clockwise ? -counter : counter;
  const angle = turned > 0 ? turned : turned + full;
  const ways = Math.ceil(angle / (2 * Math.acos(1 - within / r0)));
  return Array.from({ length: ways }, (_, k): Place => {
    if (k === ways - 1) return to;
    const part = (k + 1) / ways;
    const turn = (clockwise ? -1 : 1) * angle * part;
    const stretch = 1 + ((r1 - r0) / r0) * part;
    const [cos, sin] = [Math.cos(turn) * stretch, Math.sin(turn) * stretch];
    return [cx - i * cos + j * sin, cy - i * sin - j * cos];
  });
}
