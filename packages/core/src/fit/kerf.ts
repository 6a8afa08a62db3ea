import { type Item, pathOf, perItem, polylinesOf } from '../drawing/item.ts';
import { flatten, type Polyline } from '../geometry/flatten.ts';
import { offsetOutlines, plainOffset } from '../geometry/offset.ts';
import { type Path, PathBuilder } from '../geometry/path.ts';
import { pathOfSubpaths, subpathsOf } from '../geometry/stretches.ts';

/** How far the way of the beam strays from the true one, in mm, as straight lines. */
const wayTolerance = 0.004;

const known = new WeakMap<Polyline, Map<number, Polyline[]>>();

/**
 * The way of the beam along a closed outline, so that what is kept comes out as drawn: half the kerf outside an
 * outline whose inside is kept, half of it inside a hole. Open lines, and a kerf of 0, are burnt as drawn.
 *
 * @param nth which of the item's outlines it is
 * @param depth in how many others it lies: at even depths it is the edge of a piece, at odd ones that of a hole
 * @returns more than one where a narrow place closes, none where nothing of it is left
 */
export function kerfLines(item: Item, nth: number, depth: number, kerfMm: number): readonly Polyline[] {
  const line = polylinesOf(item)[nth];
  if (!line.closed || kerfMm === 0) return [line];
  const by = (depth % 2 === 0 ? 1 : -1) * (kerfMm / 2);
  let all = known.get(line);
  if (!all) {
    all = new Map();
    known.set(line, all);
  }
  let lines = all.get(by);
  if (!lines) {
    lines = flatten(
      offsetOutlines([{ path: outlineAt(item, nth), rule: 'nonzero' }], { ...plainOffset, by }),
      wayTolerance,
    );
    all.set(by, lines);
  }
  return lines;
}

const outlinesOf = perItem((item) => [...subpathsOf(pathOf(item))]);

/** One of an item's outlines: its curves, or its line where points without extent among them make that uncertain. */
function outlineAt(item: Item, nth: number): Path {
  const outlines = outlinesOf(item);
  const lines = polylinesOf(item);
  if (outlines.length === lines.length) return pathOfSubpaths([outlines[nth]]);
  const { points } = lines[nth];
  const builder = new PathBuilder().moveTo(points[0], points[1]);
  for (let i = 2; i < points.length; i += 2) builder.lineTo(points[i], points[i + 1]);
  return builder.close().build();
}
