import { boundsOf, type Item, polylinesOf } from '../document/item.ts';
import { type Box, boxContains, boxHeight, boxWidth } from '../geometry/paths/box.ts';
import { polylineBounds } from '../geometry/questions/nesting.ts';
import { gather } from '../lists/gather.ts';
import type { Mend } from '../mends/mend.ts';
import { burnsPictures, fillsAreas } from '../operations/operations.ts';
import type { PreparedJob, PreparedLayer } from '../plan/prepare.ts';
import { toneOn } from '../plan/tone-art.ts';
import { mostDots } from '../plan/tones.ts';
import { type Check, countOf, type Finding, finding, ifAny, withMends } from './finding.ts';
import { scored } from './offers.ts';

/** More places than these are not named. */
const mostPlaces = 200;
/** What is smaller than this, in mm, is no shape: it is left over. */
const nothing = 0.002;

/** What is drawn to burn and gets no lit move: shapes between two scan lines, and holes that the kerf takes. */
export const checkMissed: Check = (prepared, { missed }) =>
  prepared.layers.flatMap((layer) => {
    const own = missed.filter(({ preparedId }) => preparedId === layer.id);
    const boxes = own.flatMap(({ box, dots }) => (dots === undefined ? [box] : []));
    const fine = own.flatMap(({ box, dots = 0 }) => (dots > 0 ? [tooFine(layer, box, dots)] : []));
    if (boxes.length === 0) return fine;
    const blank = blankPictures(layer, boxes);
    const ofPictures = new Set(blank.map((item) => nameOf(boundsOf(item))));
    // Points without length are said of their own, on every layer.
    const thin = boxes.filter(
      (box) => !ofPictures.has(nameOf(box)) && (boxWidth(box) >= nothing || boxHeight(box) >= nothing),
    );
    return [
      ...fine,
      ...ifAny(blank, () => blankFinding(layer, blank)),
      ...(thin.length > 0 ? [thinFinding(prepared, layer, thin)] : []),
    ];
  });

/** What has more dots than can be worked out. */
function tooFine(prepared: PreparedLayer, box: Box, dots: number): Finding {
  const { layer } = prepared;
  const [wanted, most] = [Math.round(dots / 1e6), mostDots / 1e6];
  return finding(
    'too-many-dots',
    'blocks',
    `${layer.name} would burn ${wanted} million dots, and at most ${most} million are worked out: it burns nothing. Take lines further apart or wider dots, make it smaller, or crop it.`,
    itemsIn(prepared, [box]),
    layer.id,
  );
}

/** The pictures of a layer of which nothing burns. */
function blankPictures({ placed }: PreparedLayer, boxes: readonly Box[]): Item[] {
  const missed = new Set(boxes.map(nameOf));
  return placed.flatMap(({ item }) =>
    item.shape.kind === 'picture' && missed.has(nameOf(boundsOf(item))) ? [item] : [],
  );
}

function blankFinding({ layer, material }: PreparedLayer, items: readonly Item[]): Finding {
  const [pictures, are, become] =
    items.length === 1 ? ['1 picture', 'it is', 'becomes'] : [`${items.length} pictures`, 'they are', 'become'];
  const areLighter = items.every(({ shape }) => shape.kind === 'picture' && toneOn(shape.tone, material).lighter);
  const why = areLighter
    ? `${are} black all over, or ${become} so by the tone, and black stays as it is on stock that turns lighter where it burns. Change the tone, or say that the stock turns darker.`
    : `${are} white all over, or ${become} so by the tone. Change the tone, or say that the stock turns lighter where it burns.`;
  const message = `${pictures} on ${layer.name} would burn nothing: ${why}`;
  return finding('blank-picture', 'warns', message, items, layer.id);
}

function thinFinding(job: PreparedJob, prepared: PreparedLayer, boxes: readonly Box[]): Finding {
  const { layer, applied } = prepared;
  const items = itemsIn(prepared, boxes);
  const spacing = applied.settings?.lineSpacingMm ?? 0;
  const thinnest = leastOf(boxes, (box) => Math.min(boxWidth(box), boxHeight(box)));
  const [shapes, parts] = [countOf(boxes.length, 'shape', 'shapes'), countOf(boxes.length, 'thin part', 'thin parts')];
  const isFilled = fillsAreas(layer.operation);
  const byGreys = burnsPictures(layer.operation);
  const message = byGreys
    ? `${parts} on ${layer.name} ${boxes.length === 1 ? 'comes' : 'come'} to no dot and would not burn: ${boxes.length === 1 ? 'it is' : 'they are'} smaller or paler than one, and dots are ${spacing} mm apart. Take finer lines, or score what is so thin.`
    : isFilled
      ? `${parts} on ${layer.name} ${boxes.length === 1 ? 'lies' : 'lie'} between two scan lines and would not burn: the thinnest is ${thinnest.toFixed(2)} mm, and lines are ${spacing} mm apart. Give each a line of its own, take finer lines, or score what is so thin.`
      : `${shapes} on ${layer.name} ${boxes.length === 1 ? 'comes' : 'come'} to no move of the head and would not burn: with the kerf nothing is left to burn along. Make ${boxes.length === 1 ? 'it' : 'them'} larger, or burn along the line.`;
  const found = finding('missed-by-beam', 'warns', message, items, layer.id, boxes.slice(0, mostPlaces));
  if (!isFilled) return found;
  const missed = new Set(boxes.map(nameOf));
  const areWhole = items.every((item) => polylinesOf(item).every((line) => missed.has(nameOf(polylineBounds(line)))));
  return withMends(
    found,
    byGreys
      ? null
      : {
          words: boxes.length === 1 ? 'A line through it' : 'A line through each',
          name: `a line through each thin part on ${layer.name}`,
          isSafe: true,
          step: { kind: 'line through thin parts', layerId: layer.id },
        },
    finerLines(prepared, boxes, job.machine.minLineSpacing),
    // An item with other parts that do burn is not taken off its layer.
    items.length > 0 && areWhole ? scored(job, items) : null,
  );
}

/** Lines as far apart as the thinnest shape or part of the layer is thick across them, if the machine holds that. */
function finerLines(
  { id, layer, placed, applied, burning }: PreparedLayer,
  boxes: readonly Box[],
  least: number,
): Mend | null {
  // Where each piece has an angle of its own, none is known here.
  const turned = burning.scanTurns === 'sooner' ? null : Math.abs((applied.settings?.scanAngle ?? 0) % 180);
  const across = (box: Box) =>
    turned === 0 ? boxHeight(box) : turned === 90 ? boxWidth(box) : Math.min(boxHeight(box), boxWidth(box));
  const thinnest = placed.reduce(
    (sofar, { item }) =>
      polylinesOf(item).reduce(
        (thin, line) => (line.closed ? Math.min(thin, across(polylineBounds(line))) : thin),
        sofar,
      ),
    leastOf(boxes, across),
  );
  const mm = Math.floor(thinnest * 100 + 1e-6) / 100;
  if (mm < least || mm <= 0) return null;
  return {
    words: `Lines of ${mm.toFixed(2)} mm`,
    name: `lines of ${mm.toFixed(2)} mm on ${layer.name}`,
    isSafe: false,
    step: { kind: 'set', preparedId: id, setting: 'lineSpacingMm', value: mm },
  };
}

/** The least of what is measured of boxes, of which there may be more than a call takes. */
function leastOf(boxes: readonly Box[], measure: (box: Box) => number): number {
  return boxes.reduce((least, box) => Math.min(least, measure(box)), Number.POSITIVE_INFINITY);
}

/** The items that have an outline with such bounds; where outlines were united, the smallest one around a place. */
function itemsIn({ placed }: PreparedLayer, boxes: readonly Box[]): Item[] {
  const byBounds = new Map<string, Item[]>();
  for (const { item } of placed) {
    for (const line of polylinesOf(item)) {
      gather(byBounds, nameOf(polylineBounds(line)), item);
    }
  }
  const found = new Set<Item>();
  const lost: Box[] = [];
  for (const box of boxes) {
    const own = byBounds.get(nameOf(box));
    for (const item of own ?? []) found.add(item);
    if (!own) lost.push(box);
  }
  for (const box of lost.slice(0, mostPlaces)) {
    const around = placed.flatMap(({ item }) => (boxContains(boundsOf(item), box, 0.01) ? [item] : []));
    if (around.length > 0) found.add(around.reduce((a, b) => (areaOf(boundsOf(b)) < areaOf(boundsOf(a)) ? b : a)));
  }
  return placed.flatMap(({ item }) => (found.has(item) ? [item] : []));
}

function nameOf({ minX, minY, maxX, maxY }: Box): string {
  return [minX, minY, maxX, maxY].map((mm) => mm.toFixed(2)).join(' ');
}

function areaOf(box: Box): number {
  return boxWidth(box) * boxHeight(box);
}
