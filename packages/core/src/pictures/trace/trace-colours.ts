import { channelsOf, colourOfChannels } from '../../document/channels.ts';
import type { Colour } from '../../document/item.ts';
import type { Pixels } from '../../document/pixels.ts';
import type { TraceSettings } from '../../document/traced.ts';
import type { Path } from '../../geometry/paths/path.ts';
import { pathOfSubpaths } from '../../geometry/paths/segments.ts';
import { Borders } from './borders.ts';
import { type Labels, labelsOf, outside, withoutSpecks } from './colour-labels.ts';
import { keptPixels } from './figure.ts';
import { lightnessOf, paletteOf, type Rgb } from './palette.ts';
import { mostTracedNodes, type PixelTraceSettings, TooManyOutlines } from './trace.ts';

/** The outlines of what has one colour. */
export interface ColourArea {
  readonly colour: Colour;
  readonly path: Path;
}

/** What was found of a picture by its colours. */
export interface ColourAreas {
  /** The colours, in the order in which they lie: the ground first, then from the lightest to the darkest. */
  readonly found: readonly Colour[];
  readonly areas: readonly ColourArea[];
}

/**
 * The areas of different colours in a picture. The border between two is where each pixel along it has half of both; it
 * is found once, and both have it.
 *
 * @returns outlines in pixels from the picture's top left corner.
 * @throws TooManyOutlines when they would have more than 200,000 nodes.
 */
export function traceColours(
  pixels: Pixels,
  settings: PixelTraceSettings,
  { most, lie, withGround, found, own }: NonNullable<TraceSettings['byColour']>,
): ColourAreas {
  const { alpha } = pixels;
  const kept = keptPixels(pixels, settings);
  const counts = (pixel: number) => kept[pixel] > 0.5 && (!alpha || alpha[pixel] > 127);
  const known = found.map((colour) => channelsOf(colour) as unknown as Rgb);
  const palette = known.length > 0 ? known : paletteOf(pixels, most, counts);
  const labels = withoutSpecks(labelsOf(pixels, palette, counts), settings.specks);
  const order = known.length > 0 ? known.map((_, i) => i) : inOrder(palette, groundOf(labels));
  const borders = new Borders(labels, pixels, palette, settings, mostTracedNodes);
  if (borders.nodes > mostTracedNodes) throw new TooManyOutlines();
  const rankOf = new Map(order.map((label, rank) => [label, rank]));
  const colours = order.map((label) => colourOfChannels(palette[label]));
  const areas = order.flatMap((label, rank): ColourArea[] => {
    if ((rank === 0 && !withGround) || (own !== undefined && colours[rank] !== own)) return [];
    const isInside = (other: number) =>
      lie === 'beside' ? other === label : other !== outside && (rankOf.get(other) ?? -1) >= rank;
    const path = pathOfSubpaths(borders.around(isInside));
    return path.verbs.length > 0 ? [{ colour: colours[rank], path }] : [];
  });
  return { found: colours, areas };
}

/** The colour that most of the edge of the picture has. */
function groundOf({ width, height, of: labels }: Labels): number {
  const counts = new Map<number, number>();
  const count = (pixel: number) => {
    if (labels[pixel] !== outside) counts.set(labels[pixel], (counts.get(labels[pixel]) ?? 0) + 1);
  };
  for (let x = 0; x < width; x++) {
    count(x);
    count((height - 1) * width + x);
  }
  for (let y = 0; y < height; y++) {
    count(y * width);
    count(y * width + width - 1);
  }
  const [most] = [...counts].sort((a, b) => b[1] - a[1] || a[0] - b[0]);
  return most ? most[0] : 0;
}

function inOrder(palette: readonly Rgb[], ground: number): number[] {
  const others = palette.map((_, label) => label).filter((label) => label !== ground);
  const light = others.sort((a, b) => lightnessOf(palette[b]) - lightnessOf(palette[a]));
  return palette.length > 0 ? [ground, ...light] : [];
}
