import { thinnedLines } from '../formats/svg/picture.ts';
import { page } from '../formats/svg/write.ts';
import { boxOf, boxWidth, emptyBox, growBox, isEmpty, uniteBoxes } from '../geometry/paths/box.ts';
import type { Polyline } from '../geometry/paths/flatten.ts';
import { polylineBounds } from '../geometry/questions/nesting.ts';
import type { Difference } from './compare.ts';

/** How what became of a line looks: its colour, how wide it is in pixels, and its dashes in pixels. */
const looks: Readonly<Record<keyof Difference, string>> = {
  same: 'stroke="#9A9A92" stroke-width="1"',
  gone: 'stroke="#B3261E" stroke-width="2" stroke-dasharray="5 4"',
  otherwise: 'stroke="#8A5200" stroke-width="3" stroke-dasharray="1.5 3"',
  added: 'stroke="#2E7D4F" stroke-width="2.5"',
};

/** What lies above what in the picture, the lowest first. */
const order: readonly (keyof Difference)[] = ['same', 'gone', 'otherwise', 'added'];

/** So much room is around what is drawn, as a share of its width; in mm at least. */
const [roomShare, leastRoom] = [0.03, 4];

/**
 * A small picture of a difference, as SVG: what stayed in grey, what went in dashes, what is done otherwise in dots, what was
 * added in a wide line.
 * @param widthPx how wide it is shown at most, in pixels
 */
export function writeDifference(difference: Difference, widthPx: number): string {
  const all = order.flatMap((kind) => difference[kind]);
  const bounds = all.map(polylineBounds).reduce(uniteBoxes, emptyBox);
  const view = isEmpty(bounds) ? boxOf(0, 0, 1, 1) : growBox(bounds, Math.max(leastRoom, boxWidth(bounds) * roomShare));
  const detail = boxWidth(view) / widthPx;
  const path = (lines: readonly Polyline[], look: string) =>
    `<path d="${thinnedLines(lines, detail)}" fill="none" ${look} vector-effect="non-scaling-stroke"/>`;
  const paths = order.filter((kind) => difference[kind].length > 0).map((kind) => path(difference[kind], looks[kind]));
  return [page(boxWidth(view), view.maxY - view.minY, view), ...paths, '</svg>'].join('\n');
}
