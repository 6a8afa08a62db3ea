/** A cubic by its four points, x and y in turn. */
export type Cubic = readonly [number, number, number, number, number, number, number, number];

/** A cubic, and how far it strays from its points at most. */
export interface FittedCubic {
  readonly cubic: Cubic;
  readonly error: number;
}

/** How often the places along the cubic are made better. */
const rounds = 6;

/**
 * The cubic between the first and the last of some points that comes nearest to all, with given directions at its ends:
 * least squares by chord length, its places along the curve made better by Newton's method (Schneider, 1990).
 *
 * @param points x and y in turn; at least two.
 * @param from the direction in which it sets out, as a unit; `to` the one in which it comes in, backwards.
 * @returns the cubic and how far it strays from the points at most.
 */
export function fitCubic(
  points: Float64Array,
  from: readonly [number, number],
  to: readonly [number, number],
): FittedCubic {
  const count = points.length / 2;
  const places = chordPlaces(points);
  let best = cubicThrough(points, places, from, to);
  let error = furthest(points, places, best);
  for (let round = 0; round < rounds && count > 2; round++) {
    for (let i = 1; i < count - 1; i++) places[i] = nearer(best, places[i], points[2 * i], points[2 * i + 1]);
    const next = cubicThrough(points, places, from, to);
    const nextError = furthest(points, places, next);
    if (nextError >= error) break;
    const isDone = nextError > 0.98 * error;
    [best, error] = [next, nextError];
    if (isDone) break;
  }
  return { cubic: best, error };
}

function chordPlaces(points: Float64Array): Float64Array {
  const places = new Float64Array(points.length / 2);
  for (let i = 1; i < places.length; i++) {
    places[i] = places[i - 1] + Math.hypot(points[2 * i] - points[2 * i - 2], points[2 * i + 1] - points[2 * i - 1]);
  }
  const whole = places[places.length - 1] || 1;
  return places.map((place) => place / whole);
}

function cubicThrough(
  points: Float64Array,
  places: Float64Array,
  [fx, fy]: readonly [number, number],
  [tx, ty]: readonly [number, number],
): Cubic {
  const last = points.length - 2;
  const [x0, y0, x3, y3] = [points[0], points[1], points[last], points[last + 1]];
  let [c00, c01, c11, r0, r1] = [0, 0, 0, 0, 0];
  for (let i = 0; i < places.length; i++) {
    const t = places[i];
    const s = 1 - t;
    const [b0, b1, b2, b3] = [s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t];
    const [ax, ay, bx, by] = [fx * b1, fy * b1, tx * b2, ty * b2];
    const restX = points[2 * i] - (x0 * (b0 + b1) + x3 * (b2 + b3));
    const restY = points[2 * i + 1] - (y0 * (b0 + b1) + y3 * (b2 + b3));
    c00 += ax * ax + ay * ay;
    c01 += ax * bx + ay * by;
    c11 += bx * bx + by * by;
    r0 += ax * restX + ay * restY;
    r1 += bx * restX + by * restY;
  }
  const determinant = c00 * c11 - c01 * c01;
  const chord = Math.hypot(x3 - x0, y3 - y0);
  let [a, b] = [chord / 3, chord / 3];
  if (Math.abs(determinant) > 1e-9 * c00 * c11) {
    const [wide, late] = [(r0 * c11 - r1 * c01) / determinant, (c00 * r1 - c01 * r0) / determinant];
    // Handles that point backwards, or are longer than any arc needs, come of too few points.
    const [least, most] = [1e-3 * chord, 3 * chord];
    if (wide > least && late > least && wide < most && late < most) [a, b] = [wide, late];
  }
  return [x0, y0, x0 + fx * a, y0 + fy * a, x3 + tx * b, y3 + ty * b, x3, y3];
}

/** A step of Newton's method towards the place on a cubic that is nearest to a point. */
function nearer(cubic: Cubic, t: number, px: number, py: number): number {
  const [x0, y0, x1, y1, x2, y2, x3, y3] = cubic;
  const s = 1 - t;
  const [b0, b1, b2, b3] = [s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t];
  const [x, y] = [b0 * x0 + b1 * x1 + b2 * x2 + b3 * x3, b0 * y0 + b1 * y1 + b2 * y2 + b3 * y3];
  const dx = 3 * (s * s * (x1 - x0) + 2 * s * t * (x2 - x1) + t * t * (x3 - x2));
  const dy = 3 * (s * s * (y1 - y0) + 2 * s * t * (y2 - y1) + t * t * (y3 - y2));
  const ddx = 6 * (s * (x2 - 2 * x1 + x0) + t * (x3 - 2 * x2 + x1));
  const ddy = 6 * (s * (y2 - 2 * y1 + y0) + t * (y3 - 2 * y2 + y1));
  const slope = dx * dx + dy * dy + (x - px) * ddx + (y - py) * ddy;
  if (Math.abs(slope) < 1e-12) return t;
  return Math.min(1, Math.max(0, t - ((x - px) * dx + (y - py) * dy) / slope));
}

function furthest(points: Float64Array, places: Float64Array, cubic: Cubic): number {
  const [x0, y0, x1, y1, x2, y2, x3, y3] = cubic;
  let most = 0;
  for (let i = 0; i < places.length; i++) {
    const t = places[i];
    const s = 1 - t;
    const [b0, b1, b2, b3] = [s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t];
    const dx = b0 * x0 + b1 * x1 + b2 * x2 + b3 * x3 - points[2 * i];
    const dy = b0 * y0 + b1 * y1 + b2 * y2 + b3 * y3 - points[2 * i + 1];
    most = Math.max(most, dx * dx + dy * dy);
  }
  return Math.sqrt(most);
}
