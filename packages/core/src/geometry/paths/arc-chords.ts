import type { Point } from './matrix.ts';

/** Around what, and which way round an arc goes; clockwise as it is seen on screen, y down. */
export interface Around {
  readonly cx: number;
  readonly cy: number;
  readonly isClockwise: boolean;
}

/** How far an arc turns from one place to another, in radians: more than 0, and up to a full turn. */
export function turnOfArc(from: Point, to: Point, { cx, cy, isClockwise }: Around): number {
  const angle = Math.atan2(to.y - cy, to.x - cx) - Math.atan2(from.y - cy, from.x - cx);
  const turn = isClockwise ? angle : -angle;
  return turn > 1e-12 ? turn : turn + 2 * Math.PI;
}

/**
 * The ends of equal chords of an arc, of which none is further from it than `tolerance` mm; the last one is `to`. Where
 * the two ends are not equally far from the centre, the chords go from one distance to the other.
 */
export function chordsOfArc(from: Point, to: Point, around: Around, tolerance: number): Point[] {
  const { cx, cy, isClockwise } = around;
  const radius = Math.hypot(from.x - cx, from.y - cy);
  const outwards = Math.hypot(to.x - cx, to.y - cy) - radius;
  const turn = turnOfArc(from, to, around);
  const begin = Math.atan2(from.y - cy, from.x - cx);
  // A chord of angle α is r·(1 − cos(α / 2)) off its arc.
  const most = 2 * Math.acos(Math.max(-1, 1 - tolerance / radius));
  const count = Math.max(1, Math.ceil(turn / most));
  const step = (isClockwise ? turn : -turn) / count;
  return Array.from({ length: count }, (_, i): Point => {
    if (i === count - 1) return to;
    const angle = begin + step * (i + 1);
    const distance = radius + (outwards * (i + 1)) / count;
    return { x: cx + distance * Math.cos(angle), y: cy + distance * Math.sin(angle) };
  });
}
