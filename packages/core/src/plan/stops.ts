/**
 * What is to be visited: each stop is entered at one point and left at another, or the other way round. Closed
 * outlines are entered and left at the same point. In mm.
 */
export interface Stops {
  readonly entryX: Float64Array;
  readonly entryY: Float64Array;
  readonly exitX: Float64Array;
  readonly exitY: Float64Array;
}

/** An order of stops, and which of them are gone through backwards. */
export interface Tour {
  readonly order: Int32Array;
  readonly flipped: Uint8Array;
}

/** How far it is through an order of stops, from its start and to its end, in mm; what is within the stops does not count. */
export function tourLength(
  stops: Stops,
  { order, flipped }: Tour,
  start: { x: number; y: number },
  end: { x: number; y: number } | null,
): number {
  let { x, y } = start;
  let sum = 0;
  for (const stop of order) {
    const back = flipped[stop] === 1;
    sum += Math.hypot((back ? stops.exitX : stops.entryX)[stop] - x, (back ? stops.exitY : stops.entryY)[stop] - y);
    x = (back ? stops.entryX : stops.exitX)[stop];
    y = (back ? stops.entryY : stops.exitY)[stop];
  }
  return end ? sum + Math.hypot(end.x - x, end.y - y) : sum;
}
