import { boundsOf, type Item, polylinesOf } from '../../document/item.ts';
import { fillsAreas, type Operation } from '../../operations/operations.ts';

/**
 * A picture of the bed from above after a burn: row by row, from the point (`x`, `y`) on, in mm from the bed's top left,
 * y down.
 */
export interface BurntPicture {
  readonly x: number;
  readonly y: number;
  /** How far its points are from each other, in mm. */
  readonly pitchMm: number;
  readonly width: number;
  readonly height: number;
  /** A byte for each point: see `BurntCode`. */
  readonly codes: Uint8Array;
}

/** How a point looks: 0 bare, up to 200 darker and darker, then cut through, and scorched besides. */
export const BurntCode = { bare: 0, darkest: 200, through: 254, scorched: 255 } as const;

/** How an item came out: shares from 0 to 1. */
export interface BurntLook {
  /** How much of its outline is cut through, and scorched. */
  readonly through: number;
  readonly scorched: number;
  /** How dark it is where it is not cut through: of an engraving its middle, of lines all along. */
  readonly dark: number;
}

/** How an item that burnt with an operation looks in a picture. */
export function lookOf(picture: BurntPicture, item: Item, operation: Operation): BurntLook {
  return sharesOf(fillsAreas(operation) ? areaCodes(picture, item) : lineCodes(picture, item));
}

function sharesOf(codes: Iterable<number>): BurntLook {
  let [points, through, scorched, dark] = [0, 0, 0, 0];
  for (const code of codes) {
    points++;
    if (code >= BurntCode.through) through++;
    if (code === BurntCode.scorched) scorched++;
    dark += Math.min(1, code / BurntCode.darkest);
  }
  const share = (sum: number) => (points === 0 ? 0 : sum / points);
  return { through: share(through), scorched: share(scorched), dark: share(dark) };
}

/** Along its outline, or right beside it, where a kerf moved the beam. */
function* lineCodes(picture: BurntPicture, item: Item): Generator<number> {
  for (const { points, closed } of polylinesOf(item)) {
    const count = points.length / 2;
    for (let i = 0; i < (closed ? count : count - 1); i++) {
      const next = (i + 1) % count;
      const [x0, y0, x1, y1] = [points[2 * i], points[2 * i + 1], points[2 * next], points[2 * next + 1]];
      const parts = Math.max(1, Math.ceil(Math.hypot(x1 - x0, y1 - y0) / picture.pitchMm));
      for (let k = 0; k < parts; k++) {
        const t = (k + 0.5) / parts;
        yield strongestNear(picture, x0 + (x1 - x0) * t, y0 + (y1 - y0) * t);
      }
    }
  }
}

/** Over its bounds, but for the edge, where the head slows down or a point is half covered. */
function* areaCodes(picture: BurntPicture, item: Item): Generator<number> {
  const { minX, minY, maxX, maxY } = boundsOf(item);
  const inset = Math.min(1, (maxX - minX) / 4, (maxY - minY) / 4);
  for (let y = minY + inset; y <= maxY - inset; y += picture.pitchMm) {
    for (let x = minX + inset; x <= maxX - inset; x += picture.pitchMm) yield codeAt(picture, x, y);
  }
}

function strongestNear(picture: BurntPicture, x: number, y: number): number {
  const { pitchMm: step } = picture;
  let most = 0;
  for (let dy = -1; dy <= 1; dy++)
    for (let dx = -1; dx <= 1; dx++) most = Math.max(most, codeAt(picture, x + dx * step, y + dy * step));
  return most;
}

function codeAt({ x: left, y: top, pitchMm, width, height, codes }: BurntPicture, x: number, y: number): number {
  const [i, j] = [Math.floor((x - left) / pitchMm), Math.floor((y - top) / pitchMm)];
  return i < 0 || j < 0 || i >= width || j >= height ? BurntCode.bare : codes[j * width + i];
}
