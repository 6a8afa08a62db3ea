import type { PathBuilder } from './path.ts';

/**
 * Adds an elliptical arc to a path as cubics of at most 45° each, which stay within 5e-6 of the radius:
 * under 0.01 mm up to a radius of 2 m.
 * From SVG 1.1, appendix F.6 (endpoint to centre parameters, radii corrected when too small).
 *
 * @param angle turn of the ellipse's x axis in degrees
 */
export function arcTo(
  builder: PathBuilder,
  radiusX: number,
  radiusY: number,
  angle: number,
  largeArc: boolean,
  sweep: boolean,
  x: number,
  y: number,
): void {
  const { x: x0, y: y0 } = builder;
  if (x0 === x && y0 === y) return;
  let rx = Math.abs(radiusX);
  let ry = Math.abs(radiusY);
  if (rx === 0 || ry === 0) {
    builder.lineTo(x, y);
    return;
  }
  const phi = (angle * Math.PI) / 180;
  const cos = Math.cos(phi);
  const sin = Math.sin(phi);
  const hx = (x0 - x) / 2;
  const hy = (y0 - y) / 2;
  const px = cos * hx + sin * hy;
  const py = -sin * hx + cos * hy;
  const over = (px / rx) ** 2 + (py / ry) ** 2;
  if (over > 1) {
    rx *= Math.sqrt(over);
    ry *= Math.sqrt(over);
  }
  const below = (rx * py) ** 2 + (ry * px) ** 2;
  const root = Math.sqrt(Math.max(0, (rx * ry) ** 2 - below) / below) * (largeArc === sweep ? -1 : 1);
  const qx = (root * rx * py) / ry;
  const qy = (-root * ry * px) / rx;
  const cx = cos * qx - sin * qy + (x0 + x) / 2;
  const cy = sin * qx + cos * qy + (y0 + y) / 2;
  const from = Math.atan2((py - qy) / ry, (px - qx) / rx);
  const to = Math.atan2((-py - qy) / ry, (-px - qx) / rx);
  let span = to - from;
  if (sweep && span <= 0) span += 2 * Math.PI;
  if (!sweep && span >= 0) span -= 2 * Math.PI;
  addEllipticArc(builder, cx, cy, rx, ry, phi, from, span, { x, y });
}

/**
 * Adds the arc of an ellipse from parameter `from` over `span` radians; the builder must stand at its
 * start. `end`, where given, is used as the last point to the letter.
 */
export function addEllipticArc(
  builder: PathBuilder,
  cx: number,
  cy: number,
  rx: number,
  ry: number,
  phi: number,
  from: number,
  span: number,
  end?: { x: number; y: number },
): void {
  const count = Math.max(1, Math.ceil(Math.abs(span) / (Math.PI / 4) - 1e-9));
  const step = span / count;
  const k = (4 / 3) * Math.tan(step / 4);
  const cos = Math.cos(phi);
  const sin = Math.sin(phi);
  for (let i = 0; i < count; i++) {
    const t0 = from + i * step;
    const t1 = t0 + step;
    const point = (ux: number, uy: number) => ({
      x: cx + cos * rx * ux - sin * ry * uy,
      y: cy + sin * rx * ux + cos * ry * uy,
    });
    const p1 = point(Math.cos(t0) - k * Math.sin(t0), Math.sin(t0) + k * Math.cos(t0));
    const p2 = point(Math.cos(t1) + k * Math.sin(t1), Math.sin(t1) - k * Math.cos(t1));
    const p3 = i === count - 1 && end ? end : point(Math.cos(t1), Math.sin(t1));
    builder.cubicTo(p1.x, p1.y, p2.x, p2.y, p3.x, p3.y);
  }
}
