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
  const places = chordPlaces(points);
  let best = cubicThrough(points, places, from, to);
  let error = furthest(points, places, best);
  for (let round = 0; round < rounds && places.length > 2; round++) {
    moveNearer(points, places, best);
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
  let whole = 0;
  for (let i = 1; i < places.length; i++) {
    const dx = points[2 * i] - points[2 * i - 2];
    const dy = points[2 * i + 1] - points[2 * i - 1];
    whole += Math.sqrt(dx * dx + dy * dy);
    places[i] = whole;
  }
  for (let i = 1; i < places.length; i++) places[i] /= whole || 1;
  return places;
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
    const b1 = 3 * s * s * t;
    const b2 = 3 * s * t * t;
    const atEnd = b2 + t * t * t;
    const restX = points[2 * i] - x0 - atEnd * (x3 - x0);
    const restY = points[2 * i + 1] - y0 - atEnd * (y3 - y0);
    // Directions are units: only their angle counts.
    c00 += b1 * b1;
    c01 += b1 * b2;
    c11 += b2 * b2;
    r0 += b1 * (fx * restX + fy * restY);
    r1 += b2 * (tx * restX + ty * restY);
  }
  c01 *= fx * tx + fy * ty;
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

/** One axis of a cubic as a polynomial of its parameter t: a·t³ + b·t² + c·t + d. */
function polynomial(p0: number, p1: number, p2: number, p3: number) {
  return { a: p3 - 3 * p2 + 3 * p1 - p0, b: 3 * (p2 - 2 * p1 + p0), c: 3 * (p1 - p0), d: p0 };
}

/** Moves places by a step of Newton's method each towards where a cubic is nearest to their points; the ends stay. */
function moveNearer(points: Float64Array, places: Float64Array, [x0, y0, x1, y1, x2, y2, x3, y3]: Cubic): void {
  const x = polynomial(x0, x1, x2, x3);
  const y = polynomial(y0, y1, y2, y3);
  for (let i = 1; i < places.length - 1; i++) {
    const t = places[i];
    const offX = ((x.a * t + x.b) * t + x.c) * t + x.d - points[2 * i];
    const offY = ((y.a * t + y.b) * t + y.c) * t + y.d - points[2 * i + 1];
    const dx = (3 * x.a * t + 2 * x.b) * t + x.c;
    const dy = (3 * y.a * t + 2 * y.b) * t + y.c;
    const slope = dx * dx + dy * dy + offX * (6 * x.a * t + 2 * x.b) + offY * (6 * y.a * t + 2 * y.b);
    if (Math.abs(slope) < 1e-12) continue;
    places[i] = Math.min(1, Math.max(0, t - (offX * dx + offY * dy) / slope));
  }
}

function furthest(points: Float64Array, places: Float64Array, [x0, y0, x1, y1, x2, y2, x3, y3]: Cubic): number {
  const x = polynomial(x0, x1, x2, x3);
  const y = polynomial(y0, y1, y2, y3);
  let most = 0;
  for (let i = 0; i < places.length; i++) {
    const t = places[i];
    const dx = ((x.a * t + x.b) * t + x.c) * t + x.d - points[2 * i];
    const dy = ((y.a * t + y.b) * t + y.c) * t + y.d - points[2 * i + 1];
    most = Math.max(most, dx * dx + dy * dy);
  }
  return Math.sqrt(most);
}
