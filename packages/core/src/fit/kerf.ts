import { type Item, type Keep, pathOf, perItem, polylinesOf } from '../document/item.ts';
import { offsetOutlines, plainOffset } from '../geometry/offsets/offset.ts';
import { offsetRing } from '../geometry/offsets/ring-offset.ts';
import { flatten, type Polyline } from '../geometry/paths/flatten.ts';
import { type Path, PathBuilder, Verb } from '../geometry/paths/path.ts';
import { pathOfSubpaths, subpathsOf } from '../geometry/paths/segments.ts';
import { nestDepths } from '../geometry/questions/nesting.ts';

/** How far the path of the beam strays from the true one, in mm, as straight lines. */
const wayTolerance = 0.004;

const known = new WeakMap<Polyline, Map<number, Polyline[]>>();

const ownDepths = perItem((item) => nestDepths(polylinesOf(item)));

/**
 * On which side of an outline the beam goes, so that what is kept comes out as drawn: 1 outside it, -1 inside it, 0
 * along it. By nesting, outlines at even depths are edges of pieces, those at odd ones of holes. An item told to
 * keep its inside is a piece wherever it lies, and its own holes are holes. One told to keep what is outside is a hole.
 *
 * @param nth which of the item's outlines it is
 * @param depth in how many others it lies
 * @param keep what its layer says; the item's own word goes over it
 */
export function beamSide(item: Item, nth: number, depth: number, keep: 'nesting' | Keep = 'nesting'): -1 | 0 | 1 {
  const kept = item.keep ?? keep;
  if (kept === 'line') return 0;
  if (kept === 'nesting') return depth % 2 === 0 ? 1 : -1;
  const isHole = ownDepths(item)[nth] % 2 === 1;
  return (kept === 'inside') === isHole ? -1 : 1;
}

/** Whether the beam goes along a line as it is drawn, and not beside it. */
export function isBurntAsDrawn(line: Polyline, side: -1 | 0 | 1, kerfMm: number): boolean {
  return !line.closed || kerfMm === 0 || side === 0;
}

/**
 * The path of the beam along a closed outline: half the kerf from it, on the side of `beamSide`. Open lines, and a
 * kerf of 0, are burnt as drawn.
 *
 * @returns more than one where a narrow place closes, none where nothing of it is left
 */
export function kerfLines(item: Item, nth: number, side: -1 | 0 | 1, kerfMm: number): readonly Polyline[] {
  const line = polylinesOf(item)[nth];
  if (isBurntAsDrawn(line, side, kerfMm)) return [line];
  const distance = side * (kerfMm / 2);
  let all = known.get(line);
  if (!all) {
    all = new Map();
    known.set(line, all);
  }
  let lines = all.get(distance);
  if (!lines) {
    const plain = offsetRing(fineLinesOf(item)[nth].points, distance);
    lines = plain
      ? [{ points: plain, closed: true }]
      : flatten(
          offsetOutlines([{ path: outlineAt(item, nth), rule: 'nonzero' }], { ...plainOffset, by: distance }),
          wayTolerance,
        );
    all.set(distance, lines);
  }
  return lines;
}

/** An item's outlines as lines so fine that their offset curve is true, and arcs too; where they are straight, as they are. */
export const fineLinesOf = perItem((item) => {
  const path = pathOf(item);
  return path.verbs.includes(Verb.cubic) ? flatten(path, wayTolerance) : polylinesOf(item);
});

const outlinesOf = perItem((item) => [...subpathsOf(pathOf(item))]);

/** One of an item's outlines: its curves, or its line where points without extent among them make that uncertain. */
function outlineAt(item: Item, nth: number): Path {
  const outlines = outlinesOf(item);
  const lines = polylinesOf(item);
  if (outlines.length === lines.length) return pathOfSubpaths([outlines[nth]]);
  return new PathBuilder().ring(lines[nth].points).build();
}

/**
 * What an item's outlines will measure once burnt, more or less than drawn, in mm over the whole width: 0 where the
 * kerf is allowed for, less by the kerf of pieces cut along the line, more by it of holes.
 */
export function burntGrowth(item: Item, depth: number, kerfMm: number, keep: 'nesting' | Keep = 'nesting'): number {
  const side = beamSide(item, 0, depth, keep);
  if (side !== 0) return 0;
  return depth % 2 === 0 ? -kerfMm : kerfMm;
}
