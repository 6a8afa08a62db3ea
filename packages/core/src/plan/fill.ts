import type { Placed } from '../colours/derive.ts';
import { lightnessOf } from '../colours/key.ts';
import { boundsOf, type Item, pathOf, perItem, polylinesOf } from '../document/item.ts';
import type { LayerBurning } from '../document/layer.ts';
import {
  type Area,
  areaOf,
  emptyArea,
  excludeAreas,
  growArea,
  strokeArea,
  subtractAreas,
  uniteAreas,
} from '../geometry/areas/area.ts';
import { partsOfArea } from '../geometry/areas/faces.ts';
import { uniteBoxes } from '../geometry/paths/box.ts';
import { type Path, PathBuilder } from '../geometry/paths/path.ts';
import { polylineBounds } from '../geometry/questions/nesting.ts';
import type { PreparedJob, PreparedLayer } from './prepare.ts';
import type { Filled } from './scan-lines.ts';

/** What an engrave layer burns with one share of its power: pieces that are filled even-odd over all of them. */
export interface EngravedFill {
  readonly power: number;
  readonly pieces: readonly Filled[];
}

const known = new WeakMap<PreparedLayer, readonly EngravedFill[]>();

/**
 * What an engrave layer burns: its items' closed outlines by the layer's rule, and strokes wider than the key's hairline
 * as what they cover. Figure and ground are swapped where that is said. Greys are apart, by their power.
 */
export function engravedFills(prepared: PreparedJob, layer: PreparedLayer): readonly EngravedFill[] {
  let fills = known.get(layer);
  if (!fills) {
    fills = findFills(prepared, layer);
    known.set(layer, fills);
  }
  return fills;
}

function findFills(prepared: PreparedJob, layer: PreparedLayer): EngravedFill[] {
  const { key } = prepared;
  const { burning } = layer;
  const placed = layer.placed.filter(({ item }) => item.shape.kind !== 'picture');
  const hairline = key.hairlineMm ?? null;
  const flips = flipsOn(prepared, placed);
  const plain =
    flips.length === 0 &&
    burning.depth === null &&
    burning.fillRule === 'even-odd' &&
    burning.overlaps === 'cancel' &&
    !placed.some((entry) => isWide(entry, hairline));
  if (plain) {
    const pieces = placed.flatMap(({ item }) => closedPiece(item));
    return pieces.length > 0 ? [{ power: 1, pieces }] : [];
  }
  const figures = areasOf(placed, flips, burning, hairline).map(({ placed, area }) => ({
    power: placed ? powerOf(placed, burning) : 1,
    area,
  }));
  return byPower(figures, burning).flatMap(({ power, area }): EngravedFill[] => {
    const pieces = piecesOf(area);
    return pieces.length > 0 ? [{ power, pieces }] : [];
  });
}

/**
 * What the items of a layer fill, those that are pictures left out: in drawing order each with what put it there, then
 * the grounds whose figures were swapped with them.
 */
export function areasOn(prepared: PreparedJob, { burning, placed: all }: PreparedLayer): PlacedArea[] {
  const placed = all.filter(({ item }) => item.shape.kind !== 'picture');
  return areasOf(placed, flipsOn(prepared, placed), burning, prepared.key.hairlineMm ?? null);
}

/** An area, and what put it there; null for a ground whose figures were swapped with it. */
interface PlacedArea {
  readonly placed: Placed | null;
  readonly area: Area;
}

function areasOf(
  placed: readonly Placed[],
  flips: ReturnType<typeof flipsOn>,
  burning: LayerBurning,
  hairline: number | null,
): PlacedArea[] {
  const flipped = new Set(flips.flatMap(({ items }) => items));
  const areaOfEntry = (entry: Placed) => areaOfPlaced(entry, burning, hairline);
  return [
    ...placed.filter(({ item }) => !flipped.has(item)).map((entry) => ({ placed: entry, area: areaOfEntry(entry) })),
    ...flips.map(({ items, ground }) => {
      const figure = uniteAreas(items.map((item) => areaOfEntry(placedOf(placed, item))));
      return { placed: null, area: subtractAreas(ground, figure) };
    }),
  ];
}

interface Figure {
  readonly power: number;
  readonly area: Area;
}

/** Figures put together for each power; of different powers, the one in front burns where they overlap. */
function byPower(figures: readonly Figure[], { overlaps, depth }: LayerBurning): Figure[] {
  const together = overlaps === 'unite' ? uniteAreas : excludeAreas;
  if (depth === null) return [{ power: 1, area: together(figures.map(({ area }) => area)) }];
  const powers = [...new Set(figures.map(({ power }) => power))].sort((a, b) => b - a);
  return powers.map((power) => {
    const own = figures.flatMap((figure, i) => {
      if (figure.power !== power) return [];
      const over = figures.slice(i + 1).filter((other) => other.power !== power);
      return [subtractAreas(figure.area, uniteAreas(over.map(({ area }) => area)))];
    });
    return { power, area: together(own) };
  });
}

/** The share of power an item burns with, by how dark its fill is. */
function powerOf({ item }: Placed, { depth }: LayerBurning): number {
  const { fill, stroke } = item.paint;
  const colour = fill ?? stroke;
  if (depth === null || colour === null) return 1;
  const dark = Math.min(1, Math.max(0, 1 - lightnessOf(colour).lightness / 100));
  const { steps, lightest } = depth;
  // Of three steps, the darkest third burns with all of the power, the lightest with the least.
  const share = steps === null || steps < 2 ? dark : Math.min(steps - 1, Math.floor(dark * steps)) / (steps - 1);
  return Math.round((lightest + (1 - lightest) * share) * 1000) / 1000;
}

/** Whether an item's stroke is burnt as what it covers. */
function isWide({ item, parts }: Placed, hairline: number | null): boolean {
  return (
    hairline !== null && parts.includes('stroke') && item.paint.stroke !== null && item.paint.strokeWidthMm > hairline
  );
}

function areaOfPlaced(placed: Placed, { fillRule }: LayerBurning, hairline: number | null): Area {
  const { item, parts } = placed;
  const wide = isWide(placed, hairline);
  const { strokeWidthMm, join, cap } = item.paint;
  const stroke = wide ? strokeArea(pathOf(item), strokeWidthMm, join, cap) : emptyArea;
  // What a wide stroke encloses is not filled for it; a fill of the item's own is.
  if (wide && !parts.includes('fill')) return stroke;
  const rule = fillRule === 'as-drawn' ? item.fillRule : 'evenodd';
  const inside = areaOf(closedPathOf(item), rule);
  return wide ? uniteAreas([inside, stroke]) : inside;
}

/** An item's closed outlines alone: open lines enclose nothing. */
const closedPathOf: (item: Item) => Path = perItem((item) => {
  const builder = new PathBuilder();
  for (const { points, closed } of polylinesOf(item)) if (closed) builder.ring(points);
  return builder.build();
});

function closedPiece(item: Item): Filled[] {
  const outlines = polylinesOf(item).filter((outline) => outline.closed);
  return outlines.length > 0 ? [{ outlines, bounds: boundsOf(item) }] : [];
}

function placedOf(placed: readonly Placed[], item: Item): Placed {
  return placed.find((entry) => entry.item === item) ?? { item, parts: ['fill'] };
}

/** The swaps that concern what is placed: the items, and the ground within their border. */
function flipsOn({ job, burntAt }: PreparedJob, placed: readonly Placed[]): { items: Item[]; ground: Area }[] {
  if (job.flips.length === 0) return [];
  return job.flips.flatMap(({ itemIds, borderId, insetMm }) => {
    const ids = new Set(itemIds);
    const items = placed.flatMap(({ item }) => (ids.has(item.id) ? [item] : []));
    const border = job.drawing.items.find(({ id }) => id === borderId);
    if (items.length === 0 || !border) return [];
    const ground = growArea(areaOf(closedPathOf(burntAt(border)), 'evenodd'), -insetMm);
    return [{ items, ground }];
  });
}

/** An area as pieces that lie apart: outer outlines, each with what is in it. */
function piecesOf(area: Area): Filled[] {
  return partsOfArea(area).map((outlines) => ({ outlines, bounds: outlines.map(polylineBounds).reduce(uniteBoxes) }));
}

/** What a layer engraves, as one path to be filled even-odd: for showing it. */
export function engravedPath(fill: EngravedFill): Path {
  const builder = new PathBuilder();
  for (const { outlines } of fill.pieces) for (const { points } of outlines) builder.ring(points);
  return builder.build();
}

/** Whether a layer is filled otherwise than outline by outline, even-odd over all: then its picture is that of its fills. */
export function hasOwnFill(prepared: PreparedJob, layer: PreparedLayer): boolean {
  const { fillRule, overlaps, depth } = layer.burning;
  const hairline = prepared.key.hairlineMm ?? null;
  return (
    fillRule !== 'even-odd' ||
    overlaps !== 'cancel' ||
    depth !== null ||
    layer.placed.some((placed) => isWide(placed, hairline)) ||
    flipsOn(prepared, layer.placed).length > 0
  );
}
