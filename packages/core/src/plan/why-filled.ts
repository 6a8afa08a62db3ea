import { type Item, polylinesOf } from '../document/item.ts';
import { polylineContains, signedArea } from '../geometry/paths/flatten.ts';
import { engravesAreas } from '../operations/operations.ts';
import { engravedFills } from './fill.ts';
import type { PreparedJob, PreparedLayer } from './prepare.ts';

/** One closed outline around a point. */
export interface OutlineAround {
  readonly item: Item;
  /** Whether it is burnt right inside this outline, if nothing else were inside it. */
  readonly fills: boolean;
}

/** Why a point is burnt by an engrave layer, or is not. */
export interface WhyFilled {
  readonly layer: PreparedLayer;
  readonly filled: boolean;
  /** The outlines around the point, from the outermost inwards. */
  readonly around: readonly OutlineAround[];
  /** The same in a sentence. */
  readonly because: string;
}

/** What each engrave layer with an outline around a point of the bed makes of it, in mm. */
export function whyFilled(prepared: PreparedJob, x: number, y: number): WhyFilled[] {
  return prepared.layers.flatMap((layer): WhyFilled[] => {
    if (!engravesAreas(layer.layer.operation)) return [];
    const outlines = layer.placed
      .flatMap(({ item }) => polylinesOf(item).map((line) => ({ item, line })))
      .filter(({ line }) => line.closed && polylineContains(line, x, y))
      .sort((a, b) => Math.abs(signedArea(b.line)) - Math.abs(signedArea(a.line)));
    const filled = isFilled(prepared, layer, x, y);
    if (outlines.length === 0 && !filled) return [];
    const around = outlines.map(({ item }, i) => ({ item, fills: i % 2 === 0 }));
    const isSwapped = swappedAt(prepared, layer, around, x, y);
    return [{ layer, filled, around, because: sentence(layer, around, filled, isSwapped) }];
  });
}

/** Whether a layer's plan burns a point. */
function isFilled(prepared: PreparedJob, layer: PreparedLayer, x: number, y: number): boolean {
  return engravedFills(prepared, layer).some(({ pieces }) => {
    const holding = pieces.flatMap(({ outlines }) => outlines.filter((line) => polylineContains(line, x, y)));
    return holding.length % 2 === 1;
  });
}

/** Whether a point is in a figure that is swapped with its ground, or in that ground: in the border, and in no outline. */
function swappedAt(
  { job }: PreparedJob,
  { placed }: PreparedLayer,
  around: readonly OutlineAround[],
  x: number,
  y: number,
): boolean {
  if (around.length > 0) return job.flips.some(({ itemIds }) => around.some(({ item }) => itemIds.includes(item.id)));
  const own = new Set(placed.map(({ item }) => item.id));
  return job.flips.some(({ itemIds, borderId }) => {
    const border = job.drawing.items.find(({ id }) => id === borderId);
    const isInside = border && polylinesOf(border).some((line) => line.closed && polylineContains(line, x, y));
    return isInside === true && itemIds.some((id) => own.has(id));
  });
}

function sentence(
  { burning, layer }: PreparedLayer,
  around: readonly OutlineAround[],
  filled: boolean,
  isSwapped: boolean,
): string {
  const count = around.length;
  const outlines = count === 1 ? '1 outline lies' : `${count} outlines lie`;
  if (isSwapped) {
    return filled
      ? 'It is ground: figure and ground are swapped here.'
      : 'It is figure, and figure and ground are swapped here.';
  }
  if (count === 0) return `A line on ${layer.name} is wide enough to burn as an area of its own.`;
  if (burning.overlaps === 'unite' || burning.fillRule === 'as-drawn') {
    const how =
      burning.overlaps === 'unite' ? 'overlaps on this layer unite' : 'the layer goes by the fill of its files';
    return `${outlines} around it, and ${how}.`;
  }
  if (filled === (count % 2 === 1)) {
    return `${outlines} around it on ${layer.name}: ${count % 2 === 1 ? 'an odd number burns' : 'an even number is a hole'}.`;
  }
  return `${outlines} around it on ${layer.name}; its lines are wide enough to burn as areas of their own.`;
}
