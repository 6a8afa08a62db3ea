import { type Polyline, polylineLength } from './flatten.ts';
import { type Matrix, multiply, rotation, translation } from './matrix.ts';

/** A polyline by the length walked along it. */
export class Walk {
  readonly total: number;

  constructor(private readonly line: Polyline) {
    this.total = line ? polylineLength(line) : 0;
  }

  /** The place `length` along it, and which way it goes there; null before its start and beyond its end. */
  pointAt(length: number): { x: number; y: number; degrees: number } | null {
    if (length < 0 || length > this.total) return null;
    const { points, closed } = this.line;
    const count = points.length / 2;
    let left = length;
    for (let i = 1; i < count + Number(closed); i++) {
      const k = (i % count) * 2;
      const [ax, ay, bx, by] = [points[2 * i - 2], points[2 * i - 1], points[k], points[k + 1]];
      const step = Math.hypot(bx - ax, by - ay);
      if (left <= step || i === count + Number(closed) - 1) {
        const share = step > 0 ? left / step : 0;
        const degrees = (Math.atan2(by - ay, bx - ax) * 180) / Math.PI;
        return { x: ax + (bx - ax) * share, y: ay + (by - ay) * share, degrees };
      }
      left -= step;
    }
    return null;
  }

  /** The map that stands something `back` mm before and `below` mm under the place `length` along it, turned as it goes. */
  frameAt(length: number, back: number, below: number): Matrix | null {
    const point = this.pointAt(length);
    if (!point) return null;
    return multiply(multiply(translation(point.x, point.y), rotation(point.degrees)), translation(-back, below));
  }
}
