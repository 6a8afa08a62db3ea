import type { Pixels } from '../document/pixels.ts';
import type { Point } from '../geometry/paths/matrix.ts';

/** A picture without its perspective: pixels are squares of a true size. */
export interface Straightened {
  readonly pixels: Pixels;
  /** How large a pixel is, in mm. */
  readonly mm: number;
  /** Where its top left corner lies from that of what was marked, in mm. */
  readonly left: number;
  readonly top: number;
}

/** Beyond so many times its size, what was marked says nothing of what lies around it. */
const furthestAround = 3;
/** More pixels than this are made fewer. */
const mostPixels = 40_000_000;

/** The corners do not show a flat thing seen from somewhere. */
export class NotFourCorners extends Error {
  constructor() {
    super('The four corners cross over, or three of them lie in a line. Mark them again, one after the other around.');
  }
}

/**
 * Four places in order around: clockwise as seen on the screen, the one nearest to the top left first.
 * @throws NotFourCorners where one lies within the others
 */
export function cornersInOrder(places: readonly Point[]): Point[] {
  const middle = { x: meanOf(places.map(({ x }) => x)), y: meanOf(places.map(({ y }) => y)) };
  const around = places.toSorted(
    (a, b) => Math.atan2(a.y - middle.y, a.x - middle.x) - Math.atan2(b.y - middle.y, b.x - middle.x),
  );
  const first = around.reduce((best, { x, y }, i) => (x + y < around[best].x + around[best].y ? i : best), 0);
  const corners = [...around.slice(first), ...around.slice(0, first)];
  const turns = corners.map((corner, i) => {
    const [next, after] = [corners[(i + 1) % 4], corners[(i + 2) % 4]];
    return (next.x - corner.x) * (after.y - next.y) - (next.y - corner.y) * (after.x - next.x);
  });
  const size = Math.max(
    ...corners.map(({ x, y }, i) => Math.hypot(x - corners[(i + 1) % 4].x, y - corners[(i + 1) % 4].y)),
  );
  if (corners.length !== 4 || turns.some((turn) => turn <= 1e-3 * size)) throw new NotFourCorners();
  return corners;
}

function meanOf(values: readonly number[]): number {
  return values.reduce((sum, value) => sum + value, 0) / values.length;
}

/**
 * Takes the perspective out of a picture: what lies between four corners becomes a rectangle of a known size.
 *
 * @param corners in pixels, in order (`cornersInOrder`): top left, top right, bottom right, bottom left.
 * @param size of what they are the corners of, in mm.
 * @param isAround whether what lies around it in its plane is kept too
 */
export function straighten(
  pixels: Pixels,
  corners: readonly Point[],
  size: { readonly widthMm: number; readonly heightMm: number },
  isAround: boolean,
): Straightened {
  const { widthMm, heightMm } = size;
  const view = viewOf(corners);
  const box = isAround ? boxAround(pixels, view) : { minU: 0, minV: 0, maxU: 1, maxV: 1 };
  const [wide, high] = [(box.maxU - box.minU) * widthMm, (box.maxV - box.minV) * heightMm];
  const side = (a: number, b: number) => Math.hypot(corners[a].x - corners[b].x, corners[a].y - corners[b].y);
  const finest = Math.max(side(0, 1) / widthMm, side(3, 2) / widthMm, side(0, 3) / heightMm, side(1, 2) / heightMm);
  const perMm = Math.min(finest, Math.sqrt(mostPixels / (wide * high)));
  const [columns, rows] = [Math.max(1, Math.round(wide * perMm)), Math.max(1, Math.round(high * perMm))];
  const rgb = new Uint8Array(3 * columns * rows).fill(255);
  const alpha = new Uint8Array(columns * rows);
  let isWhole = true;
  for (let row = 0, pixel = 0; row < rows; row++) {
    const v = box.minV + (row + 0.5) / perMm / heightMm;
    for (let column = 0; column < columns; column++, pixel++) {
      const u = box.minU + (column + 0.5) / perMm / widthMm;
      const depth = view.g * u + view.h * v + 1;
      const x = (view.a * u + view.b * v + view.c) / depth - 0.5;
      const y = (view.d * u + view.e * v + view.f) / depth - 0.5;
      if (depth > 0 && takeSample(pixels, x, y, rgb, 3 * pixel)) alpha[pixel] = 255;
      else isWhole = false;
    }
  }
  return {
    pixels: { width: columns, height: rows, rgb, alpha: isWhole ? null : alpha },
    mm: 1 / perMm,
    left: box.minU * widthMm,
    top: box.minV * heightMm,
  };
}

/** From places in what was marked, 0 to 1 across and down, to pixels: x = (a u + b v + c) / (g u + h v + 1), and y by d, e and f. */
interface View {
  readonly a: number;
  readonly b: number;
  readonly c: number;
  readonly d: number;
  readonly e: number;
  readonly f: number;
  readonly g: number;
  readonly h: number;
}

/** The view of a unit square whose corners are seen at four places (Heckbert 1989, 2.2.3). */
function viewOf([p0, p1, p2, p3]: readonly Point[]): View {
  const [sx, sy] = [p0.x - p1.x + p2.x - p3.x, p0.y - p1.y + p2.y - p3.y];
  const [dx1, dy1, dx2, dy2] = [p1.x - p2.x, p1.y - p2.y, p3.x - p2.x, p3.y - p2.y];
  const whole = dx1 * dy2 - dx2 * dy1;
  const g = (sx * dy2 - dx2 * sy) / whole;
  const h = (dx1 * sy - sx * dy1) / whole;
  return {
    ...{ a: p1.x - p0.x + g * p1.x, b: p3.x - p0.x + h * p3.x, c: p0.x },
    ...{ d: p1.y - p0.y + g * p1.y, e: p3.y - p0.y + h * p3.y, f: p0.y },
    ...{ g, h },
  };
}

/** Where the frame of a picture lies in the plane of what was marked, as far as that is to be trusted. */
function boxAround({ width, height }: Pixels, { a, b, c, d, e, f, g, h }: View) {
  const limits = { minU: 0, minV: 0, maxU: 1, maxV: 1 };
  const steps = 64;
  for (let i = 0; i < 4 * steps; i++) {
    const t = (i % steps) / steps;
    const [x, y] = [
      [t * width, 0],
      [width, t * height],
      [(1 - t) * width, height],
      [0, (1 - t) * height],
    ][Math.floor(i / steps)];
    // The two equations of a place, solved for it.
    const [m11, m12, m21, m22] = [a - g * x, b - h * x, d - g * y, e - h * y];
    const whole = m11 * m22 - m12 * m21;
    const [u, v] = [((x - c) * m22 - (y - f) * m12) / whole, ((y - f) * m11 - (x - c) * m21) / whole];
    // What lies beyond the horizon is seen nowhere.
    const isSeen = Number.isFinite(u + v) && g * u + h * v + 1 > 0;
    const within = (value: number) => Math.min(1 + furthestAround, Math.max(-furthestAround, value));
    if (!isSeen) continue;
    limits.minU = Math.min(limits.minU, within(u));
    limits.maxU = Math.max(limits.maxU, within(u));
    limits.minV = Math.min(limits.minV, within(v));
    limits.maxV = Math.max(limits.maxV, within(v));
  }
  return limits;
}

/** The colour between the middles of four pixels. @returns whether the place lies on the picture */
function takeSample({ width, height, rgb }: Pixels, x: number, y: number, out: Uint8Array, k: number): boolean {
  if (x < -0.5 || y < -0.5 || x > width - 0.5 || y > height - 0.5) return false;
  const left = Math.max(0, Math.floor(x));
  const top = Math.max(0, Math.floor(y));
  const upperLeft = 3 * (top * width + left);
  const toRight = left + 1 < width ? 3 : 0;
  const toLower = top + 1 < height ? 3 * width : 0;
  const tx = Math.min(1, Math.max(0, x - left));
  const ty = Math.min(1, Math.max(0, y - top));
  for (let channel = 0; channel < 3; channel++) {
    const i = upperLeft + channel;
    const upper = rgb[i] + (rgb[i + toRight] - rgb[i]) * tx;
    const lower = rgb[i + toLower] + (rgb[i + toLower + toRight] - rgb[i + toLower]) * tx;
    out[k + channel] = Math.round(upper + (lower - upper) * ty);
  }
  return true;
}
