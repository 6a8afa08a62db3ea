import { boundsOf, type Item, polylinesOf } from '../document/item.ts';
import { thinPlaces } from '../geometry/offsets/thin.ts';
import { type Box, boxesMeet } from '../geometry/paths/box.ts';
import type { Polyline } from '../geometry/paths/flatten.ts';
import { meanScale } from '../geometry/paths/matrix.ts';
import { lineMeetsBox } from '../geometry/questions/line-in-box.ts';
import { gather } from '../lists/gather.ts';
import type { Mend } from '../mends/mend.ts';
import { burnsPictures, isBurnt, separates } from '../operations/operations.ts';
import { engravedFills } from '../plan/fill.ts';
import { nestedLines } from '../plan/nested-lines.ts';
import type { PreparedJob, PreparedLayer } from '../plan/prepare.ts';
import { type Check, countOf, type Finding, finding, withMends } from './finding.ts';

/** Details and letters finer than the material holds, by what the book says of it. */
export const checkDetail: Check = (prepared) =>
  prepared.layers.flatMap((layer) => {
    const { operation } = layer.layer;
    const least = isBurnt(operation) ? layer.material?.leastSizes?.[operation] : undefined;
    if (!layer.burns || !least) return [];
    return [
      ...(least.letterMm > 0 ? smallLetters(layer, least.letterMm) : []),
      ...(least.detailMm > 0 ? fineDetail(prepared, layer, least.detailMm) : []),
    ];
  });

/** How high the capitals of a text are on the bed, in mm; null for what is no text. */
function capitalsOf({ shape, matrix }: Item): number | null {
  return shape.kind === 'text' ? (shape.madeHeight ?? shape.text.height) * meanScale(matrix) : null;
}

function smallLetters(prepared: PreparedLayer, leastMm: number): Finding[] {
  const small = prepared.placed.flatMap(({ item }) => {
    const mm = capitalsOf(item);
    return mm !== null && mm < leastMm - 0.005 ? [{ item, mm }] : [];
  });
  if (small.length === 0) return [];
  const smallest = Math.min(...small.map(({ mm }) => mm));
  return [
    withMends(
      finding(
        'small-letters',
        'warns',
        `${countOf(small.length, 'text has', 'texts have')} capitals ${smallest.toFixed(2)} mm high; of ${prepared.material?.name} letters hold from ${leastMm} mm on ${prepared.layer.name}.`,
        small.map(({ item }) => item),
        prepared.layer.id,
      ),
      {
        words: `Enlarge to ${leastMm} mm`,
        name: `enlarge letters to ${leastMm} mm`,
        isSafe: false,
        step: { kind: 'enlarge', items: small.map(({ item, mm }) => ({ itemId: item.id, factor: leastMm / mm })) },
      },
    ),
  ];
}

function fineDetail(job: PreparedJob, prepared: PreparedLayer, leastMm: number): Finding[] {
  const { layer, placed, applied } = prepared;
  const isCut = separates(layer.operation);
  // Greys have no edge that could be too thin.
  if (burnsPictures(layer.operation)) return [];
  const figures = isCut ? cutFigures(job, prepared) : engravedFigures(job, prepared);
  const kerfMm = applied.settings?.kerfMm ?? 0;
  // What is thinner than the kerf is said by that check.
  const places = figures
    .flatMap((outlines) => thinPlaces(outlines, leastMm).walls)
    .filter(({ widthMm }) => !isCut || widthMm >= kerfMm);
  if (places.length === 0) return [];
  const boxes = places.map(({ box }) => box);
  const thinnest = Math.min(...places.map(({ widthMm }) => widthMm));
  const isThinThere = (item: Item, box: Box) =>
    boxesMeet(boundsOf(item), box) && polylinesOf(item).some((line) => lineMeetsBox(line, box));
  const items = placed.flatMap(({ item }) => (boxes.some((box) => isThinThere(item, box)) ? [item] : []));
  const what = isCut
    ? countOf(places.length, 'wall or bridge is', 'walls or bridges are')
    : countOf(places.length, 'detail is', 'details are');
  return [
    withMends(
      finding(
        'fine-detail',
        'warns',
        `${what} thinner than ${prepared.material?.name} holds on ${layer.name}: ${thinnest.toFixed(2)} mm at the thinnest, and it holds from ${leastMm} mm.`,
        items,
        layer.id,
        boxes,
      ),
      isCut ? null : thicker(items, leastMm - thinnest),
    ),
  ];
}

/** What is engraved, each figure by itself: of thousands only those that are thin are looked at closely. */
function engravedFigures(job: PreparedJob, prepared: PreparedLayer): (readonly Polyline[])[] {
  return engravedFills(job, prepared).flatMap(({ pieces }) => pieces.map(({ outlines }) => outlines));
}

/** The pieces that a layer cuts, each with the holes in it. */
function cutFigures(job: PreparedJob, prepared: PreparedLayer): (readonly Polyline[])[] {
  const { lines, depths, parents, twins } = nestedLines(job, [prepared]);
  const figures = new Map<number, Polyline[]>();
  for (const [i, { line }] of lines.entries()) {
    if (twins[i] === 1) continue;
    const edge = depths[i] % 2 === 0 || parents[i] < 0 ? i : parents[i];
    gather(figures, edge, line);
  }
  return [...figures.values()];
}

/** Makes items thicker by so many mm in all. */
function thicker(items: readonly Item[], mm: number): Mend {
  const side = Math.ceil(mm * 50 + 1e-9) / 100;
  return {
    words: `Thicken by ${(2 * side).toFixed(2)} mm`,
    name: `thicken by ${(2 * side).toFixed(2)} mm`,
    isSafe: false,
    step: { kind: 'thicken', itemIds: items.map(({ id }) => id), byMm: side },
  };
}
