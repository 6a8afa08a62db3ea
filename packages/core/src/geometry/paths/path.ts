import { type Box, emptyBox } from './box.ts';
import type { Matrix } from './matrix.ts';

/** What a path does next: move (1 point), line (1 point), cubic Bézier (3 points), close (none). */
export const Verb = { move: 0, line: 1, cubic: 2, close: 3 } as const;

/** How many coordinates (two a point) each verb takes, by verb. */
export const coordsOf = [2, 2, 6, 0] as const;

/**
 * Subpaths of lines and cubic Béziers. `verbs` says what follows what, `coords` holds x and y of each
 * verb's points one after another, in mm. Every subpath starts with a move. Never changed once built.
 */
export interface Path {
  readonly verbs: Uint8Array;
  readonly coords: Float64Array;
}

export const emptyPath: Path = { verbs: new Uint8Array(0), coords: new Float64Array(0) };

/** Verbs of short paths, which a drawing may have a million of, are shared between all that have the same. */
const shortVerbs = new Map<number, Uint8Array>();
const longestShort = 12;
const mostShort = 10_000;

function packVerbs(verbs: readonly number[]): Uint8Array {
  if (verbs.length > longestShort) return new Uint8Array(verbs);
  let key = 1;
  for (const verb of verbs) key = key * 4 + verb;
  const known = shortVerbs.get(key);
  if (known) return known;
  const packed = new Uint8Array(verbs);
  if (shortVerbs.size < mostShort) shortVerbs.set(key, packed);
  return packed;
}

/** Collects verbs and points and builds a path of them. */
export class PathBuilder {
  private readonly verbs: number[] = [];
  private readonly coords: number[] = [];
  private startX = 0;
  private startY = 0;
  private open = false;
  x = 0;
  y = 0;

  moveTo(x: number, y: number): this {
    this.verbs.push(Verb.move);
    this.coords.push(x, y);
    this.startX = this.x = x;
    this.startY = this.y = y;
    this.open = true;
    return this;
  }

  lineTo(x: number, y: number): this {
    this.begin();
    this.verbs.push(Verb.line);
    this.coords.push(x, y);
    this.x = x;
    this.y = y;
    return this;
  }

  /** A closed subpath of straight lines, through x and y of each point one after another. */
  ring(points: ArrayLike<number>): this {
    this.moveTo(points[0], points[1]);
    for (let i = 2; i < points.length; i += 2) this.lineTo(points[i], points[i + 1]);
    return this.close();
  }

  cubicTo(x1: number, y1: number, x2: number, y2: number, x: number, y: number): this {
    this.begin();
    this.verbs.push(Verb.cubic);
    this.coords.push(x1, y1, x2, y2, x, y);
    this.x = x;
    this.y = y;
    return this;
  }

  /** A quadratic Bézier, raised to the cubic that is the same curve. */
  quadraticTo(qx: number, qy: number, x: number, y: number): this {
    const { x: x0, y: y0 } = this;
    return this.cubicTo(
      x0 + (2 / 3) * (qx - x0),
      y0 + (2 / 3) * (qy - y0),
      x + (2 / 3) * (qx - x),
      y + (2 / 3) * (qy - y),
      x,
      y,
    );
  }

  close(): this {
    if (!this.open) return this;
    this.verbs.push(Verb.close);
    this.x = this.startX;
    this.y = this.startY;
    this.open = false;
    return this;
  }

  build(): Path {
    return { verbs: packVerbs(this.verbs), coords: new Float64Array(this.coords) };
  }

  /** After a close, drawing goes on from where the subpath began, as SVG has it. */
  private begin(): void {
    if (!this.open) this.moveTo(this.x, this.y);
  }
}

/** Adds a path's segments to another; its first point is moved to only where it `begins` an outline of its own. */
export function appendPath(builder: PathBuilder, { verbs, coords }: Path, begins: boolean): void {
  let index = 0;
  for (const verb of verbs) {
    const c = coords.subarray(index, index + coordsOf[verb]);
    if (verb === Verb.move) {
      if (begins || index > 0) builder.moveTo(c[0], c[1]);
    } else if (verb === Verb.line) builder.lineTo(c[0], c[1]);
    else if (verb === Verb.cubic) builder.cubicTo(c[0], c[1], c[2], c[3], c[4], c[5]);
    else builder.close();
    index += coordsOf[verb];
  }
}

/** A path as a matrix takes it; the path itself stays. */
export function transformPath(path: Path, m: Matrix): Path {
  const { coords } = path;
  const out = new Float64Array(coords.length);
  const [a, b, c, d, e, f] = m;
  for (let i = 0; i < coords.length; i += 2) {
    const x = coords[i];
    const y = coords[i + 1];
    out[i] = a * x + c * y + e;
    out[i + 1] = b * x + d * y + f;
  }
  return { verbs: path.verbs, coords: out };
}

/** The number of nodes: the points a pen stops at, handles not counted. */
export function nodeCount(path: Path): number {
  let count = 0;
  for (const verb of path.verbs) if (verb !== Verb.close) count++;
  return count;
}

/** The exact bounds: of curves the extremes, not the handles. Empty for an empty path. */
export function pathBounds({ verbs, coords }: Path): Box {
  let { minX, minY, maxX, maxY } = emptyBox;
  let curves = 0;
  // Written without helpers: of large drawings, a million ends are looked at.
  for (let i = 0, end = 0; i < verbs.length; i++) {
    if (verbs[i] === Verb.close) continue;
    if (verbs[i] === Verb.cubic) curves++;
    end += verbs[i] === Verb.cubic ? 6 : 2;
    const x = coords[end - 2];
    const y = coords[end - 1];
    if (x < minX) minX = x;
    if (x > maxX) maxX = x;
    if (y < minY) minY = y;
    if (y > maxY) maxY = y;
  }
  const ends: Box = { minX, minY, maxX, maxY };
  return curves > 0 ? withExtremes({ verbs, coords }, ends) : ends;
}

/** The box around the ends of a path's segments, made as large as its curves reach. */
function withExtremes({ verbs, coords }: Path, ends: Box): Box {
  let { minX, minY, maxX, maxY } = ends;
  for (let i = 0, end = 0; i < verbs.length; i++) {
    end += coordsOf[verbs[i]];
    if (verbs[i] !== Verb.cubic) continue;
    // A curve lies within its handles: most reach no further than the ends of all.
    const [x1, y1, x2, y2] = [coords[end - 6], coords[end - 5], coords[end - 4], coords[end - 3]];
    if (x1 >= minX && x1 <= maxX && x2 >= minX && x2 <= maxX && y1 >= minY && y1 <= maxY && y2 >= minY && y2 <= maxY)
      continue;
    const [x0, y0, x3, y3] = [coords[end - 8], coords[end - 7], coords[end - 2], coords[end - 1]];
    for (const t of [...extremes(x0, x1, x2, x3), ...extremes(y0, y1, y2, y3)]) {
      const [x, y] = [cubicAt(x0, x1, x2, x3, t), cubicAt(y0, y1, y2, y3, t)];
      minX = Math.min(minX, x);
      minY = Math.min(minY, y);
      maxX = Math.max(maxX, x);
      maxY = Math.max(maxY, y);
    }
  }
  return { minX, minY, maxX, maxY };
}

/** One coordinate of a cubic Bézier at a parameter from 0 to 1, in Bernstein form. */
export function cubicAt(p0: number, p1: number, p2: number, p3: number, t: number): number {
  const s = 1 - t;
  return s * s * s * p0 + 3 * s * s * t * p1 + 3 * s * t * t * p2 + t * t * t * p3;
}

/** Where in (0, 1) one coordinate of a cubic turns: the roots of its derivative. */
function extremes(p0: number, p1: number, p2: number, p3: number): number[] {
  const a = p3 - 3 * p2 + 3 * p1 - p0;
  const b = 2 * (p2 - 2 * p1 + p0);
  const c = p1 - p0;
  const roots: number[] = [];
  if (Math.abs(a) < 1e-12) {
    if (b !== 0) roots.push(-c / b);
  } else {
    const disc = b * b - 4 * a * c;
    if (disc >= 0) {
      const q = -0.5 * (b + Math.sign(b || 1) * Math.sqrt(disc));
      roots.push(q / a);
      if (q !== 0) roots.push(c / q);
    }
  }
  return roots.filter((t) => t > 0 && t < 1);
}

/** The path as SVG path data, numbers rounded to `decimals`. */
export function pathData(path: Path, decimals = 4): string {
  const { verbs, coords } = path;
  const factor = 10 ** decimals;
  const n = (value: number) => String(Math.round(value * factor) / factor || 0);
  const out: string[] = [];
  let index = 0;
  for (const verb of verbs) {
    const points: string[] = [];
    for (let i = index; i < index + coordsOf[verb]; i++) points.push(n(coords[i]));
    out.push('MLCZ'[verb] + points.join(' '));
    index += coordsOf[verb];
  }
  return out.join('');
}
