import { type Box, boxContains } from '../paths/box.ts';
import { indexBoxes } from '../paths/box-index.ts';
import { type Polyline, polylineContains } from '../paths/flatten.ts';
import { Components } from './components.ts';

/** The bounds of a polyline in mm. */
export function polylineBounds({ points }: Polyline): Box {
  let minX = Infinity;
  let minY = Infinity;
  let maxX = -Infinity;
  let maxY = -Infinity;
  for (let i = 0; i < points.length; i += 2) {
    const x = points[i];
    const y = points[i + 1];
    if (x < minX) minX = x;
    if (x > maxX) maxX = x;
    if (y < minY) minY = y;
    if (y > maxY) maxY = y;
  }
  return { minX, minY, maxX, maxY };
}

/** How outlines lie in each other: for each, the closed ones that hold it, how many, and the nearest of those; -1 for none. */
export interface Nesting {
  /** The bounds of each, in mm. */
  readonly boxes: readonly Box[];
  readonly holders: readonly (readonly number[])[];
  readonly depths: Int32Array;
  readonly parents: Int32Array;
}

/**
 * How outlines lie in each other. They are taken not to cross: the first point stands for the whole, as long as its
 * bounds lie in the other's bounds. Of two equal outlines, drawn twice, the second lies in the first.
 */
export function nestOutlines(outlines: readonly Polyline[]): Nesting {
  const depths = new Int32Array(outlines.length);
  const parents = new Int32Array(outlines.length).fill(-1);
  const boxes = outlines.map(polylineBounds);
  if (outlines.length < 2) return { boxes, holders: outlines.map(() => []), depths, parents };
  const index = indexBoxes(boxes);
  const holders = outlines.map((outline, i) => {
    const [x, y] = outline.points;
    return (index?.search(x, y, x, y) ?? []).filter((j) => {
      if (j === i || !outlines[j].closed || !boxContains(boxes[j], boxes[i])) return false;
      const same = boxContains(boxes[i], boxes[j]);
      return same ? j < i : polylineContains(outlines[j], x, y);
    });
  });
  holders.forEach((found, i) => {
    depths[i] = found.length;
  });
  // The nearest holder is the one that lies in all the others.
  holders.forEach((found, i) => {
    for (const j of found) if (parents[i] < 0 || depths[j] > depths[parents[i]]) parents[i] = j;
  });
  return { boxes, holders, depths, parents };
}

/** How many of the closed outlines each outline lies in. */
export function nestDepths(outlines: readonly Polyline[]): Int32Array {
  return nestOutlines(outlines).depths;
}

/** For each outline, the outermost one that holds it, itself where none does. */
export function nestRoots({ parents }: Pick<Nesting, 'parents'>): Int32Array {
  return parents.map((_, i) => {
    let root = i;
    while (parents[root] >= 0) root = parents[root];
    return root;
  });
}

/** Outlines by what they hold or are held by, however far: of outlines that do not cross, each outermost one with all in it. */
export function nestComponents({ holders }: Pick<Nesting, 'holders'>): number[][] {
  const components = new Components(holders.length);
  holders.forEach((found, i) => {
    for (const j of found) components.join(i, j);
  });
  return components.list();
}
