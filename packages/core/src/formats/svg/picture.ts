import type { Meaning } from '../../colours/derive.ts';
import { boundsOfAll, type Item, polylinesOf } from '../../document/item.ts';
import { type Box, boxHeight, boxOf, boxWidth, growBox, isEmpty } from '../../geometry/paths/box.ts';
import type { Polyline } from '../../geometry/paths/flatten.ts';
import { simplifyPolyline } from '../../geometry/paths/simplify.ts';
import { fillsAreas, type Operation, operationOf } from '../../operations/operations.ts';
import type { PreparedJob } from '../../plan/prepare.ts';
import { otherFillings } from '../../rows/pieces.ts';
import type { Outgoing } from '../outgoing.ts';
import { elementFor, page } from './write.ts';

/** How wide lines of small pictures are on the screen, whatever they are drawn of; and the edges of areas, in pixels. */
const linePx = 1.5;
const areaEdgePx = 0.5;
/** How much of the bed is shown around what is drawn: at least so many mm, and as a share of its width. */
const [leastRoom, roomShare] = [4, 0.03];

/**
 * A small picture of a job as it will burn, as SVG, for cards and lists: items in their operation's colour,
 * lines thinned to what shows at that size, and as wide on the screen however large the picture is shown. What is parked beside
 * the bed is left out, and of places that are filled run by run all but the first filling.
 *
 * @param thumbnails the pictures in it, by their ids; of one that is missing only its frame is drawn
 * @param widthPx how wide it is shown at most, in pixels
 * @param meaning what its paints mean, where that is not by its own key
 */
export function writePicture(
  prepared: PreparedJob,
  thumbnails: Outgoing['pictures'],
  widthPx: number,
  meaning: Meaning = prepared.meaning,
): string {
  const { machine } = prepared;
  const shown = shownItems(prepared);
  const view = viewOf(shown, boxOf(0, 0, machine.bedWidth, machine.bedHeight));
  const detail = boxWidth(view) / widthPx;
  const operations = new Map<string, Operation>();
  for (const { id, operation } of meaning.layers) {
    for (const { item } of meaning.placed.get(id) ?? []) operations.set(item.id, operation);
  }
  const lines = shown.map((item) => {
    if (item.shape.kind === 'picture' && thumbnails.has(item.shape.pictureId)) return elementFor(item, thumbnails);
    const operation = operations.get(item.id);
    const colour = operation ? operationOf(operation).colour : '#9A9A92';
    const isArea = operation && fillsAreas(operation);
    const look = isArea ? `fill="${colour}" fill-rule="evenodd"` : 'fill="none"';
    const line = `stroke="${colour}" stroke-width="${isArea ? areaEdgePx : linePx}" vector-effect="non-scaling-stroke"`;
    return `<path d="${thinnedLines(polylinesOf(item), detail)}" ${look} ${line}/>`;
  });
  return [page(boxWidth(view), boxHeight(view), view), ...lines, '</svg>'].join('\n');
}

/** What the first filling burns; where everything is parked, all of it. */
function shownItems({ job, parked }: PreparedJob): readonly Item[] {
  const others = otherFillings(job, job.runs[0]);
  const drawn = job.drawing.items.filter(({ id, hidden }) => !hidden && !others.has(id));
  const onBed = drawn.filter(({ id }) => !parked.has(id));
  return onBed.length > 0 ? onBed : drawn;
}

/** What is drawn, with some of the bed around it; the bed where nothing is. */
function viewOf(items: readonly Item[], bed: Box): Box {
  const bounds = boundsOfAll(items);
  return isEmpty(bounds) ? bed : growBox(bounds, Math.max(leastRoom, boxWidth(bounds) * roomShare));
}

/** Lines as the data of a path, thinned. @param detail how far they stray at most, in mm */
export function thinnedLines(lines: readonly Polyline[], detail: number): string {
  return lines
    .map((line) => {
      const points = simplifyPolyline(line.points, detail);
      let data = '';
      for (let i = 0; i < points.length; i += 2) {
        data += `${i === 0 ? 'M' : 'L'}${points[i].toFixed(2)} ${points[i + 1].toFixed(2)}`;
      }
      return line.closed ? `${data}Z` : data;
    })
    .join('');
}
