import { type Item, pathOf, reshaped } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { combineOutlines } from '../geometry/areas/combine.ts';
import { flatten, polylineContains } from '../geometry/paths/flatten.ts';
import type { Point } from '../geometry/paths/matrix.ts';
import type { Path } from '../geometry/paths/path.ts';
import { pathOfSubpaths, pointAt, type Subpath, subpathsOf } from '../geometry/paths/segments.ts';
import { crossingsOf } from '../geometry/questions/crossings.ts';
import { croppedPicture } from './crop.ts';
import { partOfSubpath } from './reshape.ts';

/** Keeps what of the items lies inside an outline, or outside it: fills by their area, lines by their length, pictures by a crop. */
export function keepWithin(
  job: JobDocument,
  ids: ReadonlySet<string>,
  outline: Path,
  side: 'inside' | 'outside',
): JobDocument {
  const edges = [...subpathsOf(outline)].flatMap(({ segments }) => segments);
  const lines = flatten(outline, 1e-3).filter(({ closed }) => closed);
  const isInside = ({ x, y }: Point) => lines.filter((line) => polylineContains(line, x, y)).length % 2 === 1;
  const items = job.drawing.items.flatMap((item): Item[] => {
    if (!ids.has(item.id)) return [item];
    if (item.shape.kind === 'picture') {
      const cropped = croppedPicture(item, outline, 'evenodd', side);
      return cropped ? [cropped] : [];
    }
    const left = item.paint.fill === null ? lineLeft(item) : fillLeft(item);
    if (left === 'all') return [item];
    if (left === null) return [];
    const { link: _, ...free } = item;
    return [reshaped(free, { kind: 'path', path: left })];
  });
  return { ...job, drawing: { ...job.drawing, items } };

  function fillLeft(item: Item): Path | null {
    const path = combineOutlines(
      [
        { path: pathOf(item), rule: item.fillRule },
        { path: outline, rule: 'evenodd' },
      ],
      side === 'inside' ? 'intersect' : 'subtract',
    );
    return path.verbs.length === 0 ? null : path;
  }

  function lineLeft(item: Item): Path | 'all' | null {
    let cut = false;
    const kept = [...subpathsOf(pathOf(item))].flatMap((line): Subpath[] => {
      const end = line.segments.length;
      const cuts = crossingsOf(line.segments, edges)
        .map(({ a, ta }) => a + ta)
        .sort((p, q) => p - q);
      const bounds = line.closed && cuts.length > 0 ? [...cuts, cuts[0] + end] : [0, ...cuts, end];
      const parts = bounds.slice(1).flatMap((to, i) => {
        const segments = partOfSubpath(line, bounds[i], to);
        if (segments.length === 0) return [];
        const middle = pointAt(segments[Math.floor(segments.length / 2)], 0.5);
        return [{ segments, stays: isInside(middle) === (side === 'inside') }];
      });
      if (parts.every(({ stays }) => stays)) return [line];
      cut = true;
      return parts.flatMap(({ segments, stays }) => (stays ? [{ segments, closed: false }] : []));
    });
    if (!cut) return 'all';
    return kept.length === 0 ? null : pathOfSubpaths(kept);
  }
}
