import { coordsOf, type Path, Verb } from './path.ts';

/** One stretch of a path, a line or a cubic, by its four control points; a line's handles lie on its ends. */
export type Stretch = readonly [
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  x2: number,
  y2: number,
  x3: number,
  y3: number,
];

/** The stretches of one subpath; a closed one's last edge is among them. Stretches without extent are left out. */
export interface Subpath {
  readonly stretches: readonly Stretch[];
  readonly closed: boolean;
}

export function* subpathsOf({ verbs, coords }: Path): Generator<Subpath> {
  let stretches: Stretch[] = [];
  let at = 0;
  let [x, y, startX, startY] = [0, 0, 0, 0];
  const line = (toX: number, toY: number) => {
    if (x !== toX || y !== toY) stretches.push([x, y, x, y, toX, toY, toX, toY]);
  };
  for (const verb of verbs) {
    if (verb === Verb.move) {
      if (stretches.length > 0) yield { stretches, closed: false };
      stretches = [];
      [startX, startY] = [coords[at], coords[at + 1]];
    } else if (verb === Verb.line) {
      line(coords[at], coords[at + 1]);
    } else if (verb === Verb.cubic) {
      const [x1, y1, x2, y2, x3, y3] = coords.subarray(at, at + 6);
      stretches.push([x, y, x1, y1, x2, y2, x3, y3]);
    } else {
      line(startX, startY);
      if (stretches.length > 0) yield { stretches, closed: true };
      stretches = [];
      [x, y] = [startX, startY];
    }
    at += coordsOf[verb];
    if (verb !== Verb.close) [x, y] = [coords[at - 2], coords[at - 1]];
  }
  if (stretches.length > 0) yield { stretches, closed: false };
}

/** Whether a stretch is a straight line. */
export function isLine([x0, y0, x1, y1, x2, y2, x3, y3]: Stretch): boolean {
  return x0 === x1 && y0 === y1 && x2 === x3 && y2 === y3;
}
