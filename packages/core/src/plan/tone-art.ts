import type { Placed } from '../colours/derive.ts';
import { type Mark, ruleFits } from '../colours/key.ts';
import type { Item } from '../document/item.ts';
import type { Layer } from '../document/layer.ts';
import type { Tone } from '../document/tone.ts';
import { type Area, linesOfArea } from '../geometry/areas/area.ts';
import { operationOf } from '../operations/operations.ts';
import { darknessOf } from '../pictures/luma.ts';
import type { Material } from '../recipes/book/material.ts';
import { areasOn } from './fill.ts';
import type { PreparedJob, PreparedLayer } from './prepare.ts';
import { isPicture, type ToneArt } from './tones.ts';

/**
 * What burns by its greys on a layer, from back to front: its pictures, and what its other items fill.
 * @throws RangeError where the pixels of a picture are not at hand: it must not be left out in silence
 */
export function toneArt(prepared: PreparedJob, layer: PreparedLayer): ToneArt[] {
  const areas = areasOn(prepared, layer);
  const byItem = new Map(areas.flatMap(({ placed, area }) => (placed ? [[placed.item, area] as const] : [])));
  const grounds = areas.flatMap(({ placed, area }) => (placed ? [] : [greyArea(area, 1)]));
  const drawn = layer.placed.flatMap((placed): ToneArt[] => {
    const { item } = placed;
    if (item.shape.kind === 'picture') return [placedPicture(prepared, item, layer.material)];
    const area = byItem.get(item);
    if (!area) return [];
    const { fade, fill } = item.paint;
    if (fade && fill !== null) return [{ ...greyArea(area, 1), fading: { fade, fill, matrix: item.matrix } }];
    return [greyArea(area, shareToBurn(prepared, placed, layer.layer))];
  });
  return [...drawn, ...grounds].filter((art) => isPicture(art) || art.outlines.length > 0);
}

function greyArea(area: Area, share: number): ToneArt {
  return { outlines: linesOfArea(area), bounds: area.bounds, share };
}

/** What is decided of the greys of a picture on some stock: what nobody said is as the stock is. */
export function toneOn(tone: Tone | undefined, stock: Pick<Material, 'turnsLighter'> | null): Tone {
  const lighter = tone?.lighter ?? stock?.turnsLighter ?? false;
  return { ...tone, lighter };
}

function placedPicture({ pixelsOf }: PreparedJob, { shape, matrix }: Item, stock: Material | null): ToneArt {
  if (shape.kind !== 'picture') throw new RangeError('placedPicture: this is no picture');
  const pixels = pixelsOf(shape.pictureId);
  if (!pixels) throw new RangeError(`planJob: the picture ${shape.pictureId} burns, and its pixels are not at hand`);
  return { pixels, matrix, tone: toneOn(shape.tone, stock), crop: shape.crop };
}

/**
 * The share of an area that burns, 0 to 1: 1 − grey ÷ 255 of its fill. All of it burns where it has none, or where its
 * key reads that colour as such an operation: then it only says where the area goes.
 */
function shareToBurn({ key, meaning }: PreparedJob, { item: { paint } }: Placed, { operation }: Layer): number {
  const { fill } = paint;
  if (fill === null || fill === operationOf(operation).colour) return 1;
  const mark: Mark = { part: 'fill', colour: fill, widthMm: null };
  const own = new Set(meaning.layers.flatMap((layer) => (layer.operation === operation ? [layer.id] : [])));
  if (key.rules.some((rule) => own.has(rule.layerId) && rule.colour !== null && ruleFits(rule, mark))) return 1;
  return darknessOf(fill);
}
