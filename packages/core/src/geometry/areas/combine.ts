import { Clipper, Clipper64, FillRule as ClipperRule, ClipType, type Paths64 } from 'clipper2-ts';
import { indexBoxes } from '../paths/box-index.ts';
import type { Path } from '../paths/path.ts';
import { lineSegment, pathOfSubpaths, type Segment, type Subpath, subpathsOf } from '../paths/segments.ts';
import type { FillRule } from './area.ts';
import { snapped } from './snap-rings.ts';
import { hasExtent, withoutTurnbacks } from './spikes.ts';
import { CurvedRings } from './trace.ts';

/** How outlines are put together: all they cover, the first without the others, what all cover, what an odd number covers. */
export type Combining = 'unite' | 'subtract' | 'intersect' | 'exclude';

export interface Outline {
  readonly path: Path;
  readonly rule: FillRule;
}

/**
 * Puts closed outlines together. The polygon arithmetic is clipper2-ts's (Vatti's), over chords of the curves.
 * Then each edge of the answer is traced back to the segment it is a chord of. So lines stay lines, and curves
 * stay pieces of the very curves that came in, cut where they truly cross.
 *
 * @returns outlines that do not cross, holes turning the other way; empty when nothing is left
 */
export function combineOutlines(outlines: readonly Outline[], how: Combining): Path {
  return pathOfSubpaths(
    combineSubpaths(
      outlines.map(({ path, rule }) => ({ subpaths: [...subpathsOf(path)], rule })),
      how,
    ),
  );
}

/** The same over subpaths. */
export function combineSubpaths(
  outlines: readonly { subpaths: readonly Subpath[]; rule: FillRule }[],
  how: Combining,
): Subpath[] {
  const curves = new CurvedRings();
  const rings = outlines.map(({ subpaths }) => subpaths.map((subpath) => curves.add(closedUp(subpath))));
  const areas = metUp(rings).map((part, i) =>
    Clipper.union(part, outlines[i].rule === 'evenodd' ? ClipperRule.EvenOdd : ClipperRule.NonZero),
  );
  // Where each crosses itself, its points may lie on the others anew.
  return curves.outlinesOf(combineAreas(metUp(areas), how));
}

/** Areas whose points are the same where they are in one place but for rounding (`snapped`), fit for the library. */
function metUp(areas: readonly Paths64[]): Paths64[] {
  return snapped(areas).map((rings) => rings.map(withoutTurnbacks).filter(hasExtent));
}

/** Whether the boxes of areas do not meet, so that nothing is to be united. */
function areApart(areas: readonly Paths64[]): boolean {
  const boxes = areas.filter((area) => area.length > 0).map((area) => Clipper.getBounds(area.flat()));
  const index = indexBoxes(
    boxes.map(({ left, top, right, bottom }) => ({ minX: left, minY: top, maxX: right, maxY: bottom })),
  );
  return boxes.every(({ left, top, right, bottom }) => index?.search(left, top, right, bottom).length === 1);
}

function closedUp({ segments }: Subpath): readonly Segment[] {
  const first = segments[0];
  const last = segments[segments.length - 1];
  const gap = Math.hypot(first[0] - last[6], first[1] - last[7]);
  return gap < 1e-9 ? segments : [...segments, lineSegment(last[6], last[7], first[0], first[1])];
}

const kinds = {
  unite: ClipType.Union,
  subtract: ClipType.Difference,
  intersect: ClipType.Intersection,
  exclude: ClipType.Xor,
} as const;

function combineAreas([first, ...others]: Paths64[], how: Combining): Paths64 {
  if (!first) return [];
  const apply = (subject: Paths64, clip: Paths64) => {
    const clipper = new Clipper64();
    clipper.addSubject(subject);
    clipper.addClip(clip);
    const out: Paths64 = [];
    clipper.execute(kinds[how], ClipperRule.NonZero, out);
    return out;
  };
  // What is taken away, or added, can be so in one go; the rest goes one after another.
  if (how === 'unite' && areApart([first, ...others])) return [first, ...others].flat();
  if (how === 'unite' || how === 'subtract') return apply(first, others.flat());
  return others.reduce(apply, first);
}
