import type { Fade, FadeStop } from '../document/fade.ts';
import type { Colour } from '../document/item.ts';
import { invert, type Matrix, multiply } from '../geometry/paths/matrix.ts';
import { darknessOf } from './luma.ts';

/** The greys of a fading fill, asked for place by place. */
export class FadeGreys {
  /** How dark the place asked for last is, 0 to 1, and how solid. */
  darkness = 0;
  opacity = 0;
  private readonly back: Matrix | null;
  private readonly ats: Float64Array;
  private readonly darknesses: Float64Array;
  private readonly opacities: Float64Array;

  /**
   * @param fill the item's own colour
   * @param placing from the frame of the item's shape to that of the places
   */
  constructor(
    private readonly fade: Fade,
    fill: Colour,
    placing: Matrix,
  ) {
    const stops: readonly FadeStop[] =
      fade.kind === 'even' ? [{ at: 0, colour: fill, opacity: fade.opacity }] : fade.stops;
    this.back = fade.kind === 'even' ? null : invert(multiply(placing, fade.matrix));
    this.ats = Float64Array.from(stops, ({ at }) => at);
    this.darknesses = Float64Array.from(stops, ({ colour }) => darknessOf(colour));
    this.opacities = Float64Array.from(stops, ({ opacity }) => opacity);
  }

  /** The darkest that it burns anywhere, 0 to 1. */
  get darkest(): number {
    return Math.max(0, ...this.darknesses.map((darkness, i) => darkness * this.opacities[i]));
  }

  lookAt(x: number, y: number): void {
    const { fade, back } = this;
    if (fade.kind === 'even' || !back) {
      this.blend(0);
      return;
    }
    const [a, b, c, d, e, f] = back;
    const [u, v] = [a * x + c * y + e, b * x + d * y + f];
    const t = fade.kind === 'linear' ? alongLine(fade, u, v) : throughCircle(fade, u, v);
    if (t === null) this.darkness = this.opacity = 0;
    else this.blend(t);
  }

  /** Between two stops, colours and opacities go evenly (SVG 1.1, 13.2.4); luma does too then. */
  private blend(t: number): void {
    const { ats, darknesses, opacities } = this;
    const last = ats.length - 1;
    let i = 0;
    while (i <= last && ats[i] <= t) i++;
    if (i === 0 || i > last) {
      const end = i === 0 ? 0 : last;
      this.darkness = darknesses[end];
      this.opacity = opacities[end];
      return;
    }
    const share = (t - ats[i - 1]) / (ats[i] - ats[i - 1]);
    this.darkness = darknesses[i - 1] + (darknesses[i] - darknesses[i - 1]) * share;
    this.opacity = opacities[i - 1] + (opacities[i] - opacities[i - 1]) * share;
  }
}

type Linear = Extract<Fade, { kind: 'linear' }>;
type Radial = Extract<Fade, { kind: 'radial' }>;

function alongLine({ from, to }: Linear, x: number, y: number): number {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const square = dx * dx + dy * dy;
  return square === 0 ? 1 : ((x - from.x) * dx + (y - from.y) * dy) / square;
}

/** Which circle of the row that two begin goes through a place: the furthest along that has a radius (ISO 32000, 8.7.4.5.4). */
function throughCircle({ from, to }: Radial, x: number, y: number): number | null {
  const [dx, dy, dr] = [to.x - from.x, to.y - from.y, to.radius - from.radius];
  const [px, py] = [x - from.x, y - from.y];
  const a = dx * dx + dy * dy - dr * dr;
  const b = px * dx + py * dy + from.radius * dr;
  const c = px * px + py * py - from.radius * from.radius;
  const has = (t: number) => from.radius + t * dr >= 0;
  if (Math.abs(a) < 1e-12 * (dx * dx + dy * dy + dr * dr)) {
    const t = b === 0 ? null : c / (2 * b);
    return t !== null && has(t) ? t : null;
  }
  const root = b * b - a * c;
  if (root < 0) return null;
  const ends = [(b + Math.sqrt(root)) / a, (b - Math.sqrt(root)) / a];
  const [far, near] = [Math.max(...ends), Math.min(...ends)];
  if (has(far)) return far;
  return has(near) ? near : null;
}
