import { gather } from '../../lists/gather.ts';
import { type Box, uniteBoxes } from '../paths/box.ts';
import type { Polyline } from '../paths/flatten.ts';
import { PathBuilder } from '../paths/path.ts';
import { nestOutlines, nestRoots, polylineBounds } from '../questions/nesting.ts';
import {
  type Area,
  areaOf,
  emptyArea,
  intersectAreas,
  linesOfArea,
  sizeOfArea,
  subtractAreas,
  uniteAreas,
} from './area.ts';

/** Areas smaller than this, in mm², are what rounding leaves. */
const leastArea = 0.001;

/** A part of what closed lines enclose that none of them goes through. */
export interface Face {
  readonly bounds: Box;
  /** In how many of the lines it lies. */
  readonly depth: number;
}

/** The faces into which closed lines that cross part what they enclose, by laying one over what is there after the other. */
export function facesOf(lines: readonly Polyline[]): Face[] {
  let parts: { area: Area; depth: number }[] = [];
  let covered = emptyArea;
  for (const line of lines) {
    const area = areaOf(new PathBuilder().ring(line.points).build(), 'evenodd');
    const split = parts.flatMap(({ area: part, depth }) => [
      { area: intersectAreas(part, area), depth: depth + 1 },
      { area: subtractAreas(part, area), depth },
    ]);
    parts = [...split, { area: subtractAreas(area, covered), depth: 1 }].filter(
      (part) => sizeOfArea(part.area) > leastArea,
    );
    covered = uniteAreas([covered, area]);
  }
  return parts.flatMap(({ area, depth }) =>
    partsOfArea(area).map((outlines) => ({ bounds: outlines.map(polylineBounds).reduce(uniteBoxes), depth })),
  );
}

/** The parts of an area that lie apart: each as its outer outline with the holes in it. */
export function partsOfArea(area: Area): Polyline[][] {
  const outlines = linesOfArea(area);
  const roots = nestRoots(nestOutlines(outlines));
  const parts = new Map<number, Polyline[]>();
  outlines.forEach((outline, i) => {
    gather(parts, roots[i], outline);
  });
  return [...parts.values()];
}
