import type { PathBuilder } from './path.ts';

/** A B-spline: control points with weights, and knots; its curve runs from knot `degree` to knot `count`. */
export interface Spline {
  readonly degree: number;
  readonly knots: readonly number[];
  readonly points: readonly { readonly x: number; readonly y: number }[];
  /** One a point; empty when all weigh the same. */
  readonly weights: readonly number[];
}

/** Whether the numbers of a spline go together. */
export function isSound({ degree, knots, points, weights }: Spline): boolean {
  return (
    degree >= 1 &&
    degree <= 25 &&
    points.length > degree &&
    knots.length === points.length + degree + 1 &&
    (weights.length === 0 || (weights.length === points.length && weights.every((weight) => weight > 0))) &&
    knots.every((knot, i) => Number.isFinite(knot) && (i === 0 || knot >= knots[i - 1]))
  );
}

/**
 * Adds a spline to a path as cubics, from the builder's place, which must be its start. Each segment
 * between knots becomes the cubic with the same ends and the same derivatives there: the curve itself
 * where it is not rational and of degree 3 or less; otherwise it is halved until it is within `tolerance`.
 */
export function addSpline(builder: PathBuilder, spline: Spline, tolerance: number): void {
  const { degree, knots, points } = spline;
  const exact = degree <= 3 && spline.weights.every((weight) => weight === spline.weights[0]);
  for (let span = degree; span < points.length; span++) {
    const [from, to] = [knots[span], knots[span + 1]];
    if (to > from) addSegment(builder, spline, span, from, to, exact ? Infinity : tolerance, 0);
  }
}

/** Where a B-spline begins. */
export function splineStart(spline: Spline): { x: number; y: number } {
  const { degree, knots, points } = spline;
  let span = degree;
  while (span < points.length - 1 && knots[span + 1] <= knots[span]) span++;
  return evaluate(spline, span, knots[span]);
}

function addSegment(
  builder: PathBuilder,
  spline: Spline,
  span: number,
  from: number,
  to: number,
  tolerance: number,
  depth: number,
): void {
  const a = evaluate(spline, span, from);
  const b = evaluate(spline, span, to);
  const third = (to - from) / 3;
  const x1 = a.x + a.dx * third;
  const y1 = a.y + a.dy * third;
  const x2 = b.x - b.dx * third;
  const y2 = b.y - b.dy * third;
  if (tolerance < Infinity && depth < 12) {
    const off = [0.25, 0.5, 0.75].some((t) => {
      const point = evaluate(spline, span, from + (to - from) * t);
      const s = 1 - t;
      const x = s * s * s * a.x + 3 * s * s * t * x1 + 3 * s * t * t * x2 + t * t * t * b.x;
      const y = s * s * s * a.y + 3 * s * s * t * y1 + 3 * s * t * t * y2 + t * t * t * b.y;
      return Math.hypot(point.x - x, point.y - y) > tolerance;
    });
    if (off) {
      const middle = (from + to) / 2;
      addSegment(builder, spline, span, from, middle, tolerance, depth + 1);
      addSegment(builder, spline, span, middle, to, tolerance, depth + 1);
      return;
    }
  }
  builder.cubicTo(x1, y1, x2, y2, b.x, b.y);
}

/** Point and derivative at `u` within a span, by de Boor's algorithm on weighted points. */
function evaluate({ degree, knots, points, weights }: Spline, span: number, u: number) {
  const local: [number, number, number][] = [];
  for (let i = span - degree; i <= span; i++) {
    const w = weights[i] ?? 1;
    local.push([points[i].x * w, points[i].y * w, w]);
  }
  let slope: [number, number, number] = [0, 0, 0];
  for (let level = 1; level <= degree; level++) {
    if (level === degree) {
      const width = knots[span + 1] - knots[span];
      const [p, q] = [local[degree - 1], local[degree]];
      slope = [0, 1, 2].map((k) => (degree * (q[k] - p[k])) / width) as [number, number, number];
    }
    for (let j = degree; j >= level; j--) {
      const i = span - degree + j;
      const width = knots[i + degree - level + 1] - knots[i];
      const share = width > 0 ? (u - knots[i]) / width : 0;
      local[j] = [0, 1, 2].map((k) => local[j - 1][k] * (1 - share) + local[j][k] * share) as [number, number, number];
    }
  }
  const [x, y, w] = local[degree];
  return { x: x / w, y: y / w, dx: (slope[0] - (x / w) * slope[2]) / w, dy: (slope[1] - (y / w) * slope[2]) / w };
}
