type Point = readonly [x: number, y: number];

/**
 * A line as dashes, half a bridge at each of its ends. Their period is stretched or pressed so that it comes out even.
 *
 * @returns the dashes; one at least.
 */
export function dashesAlong(from: Point, to: Point, dash: number, bridge: number): [Point, Point][] {
  const length = Math.hypot(to[0] - from[0], to[1] - from[1]);
  const count = Math.max(1, Math.round(length / (dash + bridge)));
  const margin = bridge / (dash + bridge) / 2;
  const point = (place: number): Point => [
    from[0] + ((to[0] - from[0]) * place) / count,
    from[1] + ((to[1] - from[1]) * place) / count,
  ];
  return Array.from({ length: count }, (_, i) => [point(i + margin), point(i + 1 - margin)]);
}
