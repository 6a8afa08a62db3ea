import type { Colour } from '../../document/item.ts';
import type { Pixels } from '../../document/pixels.ts';
import { type TraceSettings, usualByColour } from '../../document/traced.ts';
import { scaling } from '../../geometry/paths/matrix.ts';
import { type Path, transformPath } from '../../geometry/paths/path.ts';
import { reduced } from '../reduced.ts';
import { type PixelTraceSettings, traceMiddleLines, traceOutlines } from './trace.ts';
import { traceColours } from './trace-colours.ts';

/** Nothing finer than this is in a picture, in pixels. */
const finest = 0.25;

/** What is found in a picture: paths in its pixels, and how wide the stroke of each is; 0 for outlines. */
export interface TracedPath {
  readonly path: Path;
  readonly widthPx: number;
  /** Of areas by colour: theirs, and all that were found, in the order in which they lie. */
  readonly colour?: Colour;
  readonly found?: readonly Colour[];
}

/**
 * The outlines that a picture shows as one path, each middle line of its strokes, or a path for each colour.
 *
 * @param mm how large a pixel is.
 * @param mostPixels of a picture that has more, as many are made by means: a quick look, and not the result.
 * @throws TooManyOutlines when they would have more than 200,000 nodes.
 */
export function tracePicture(
  pixels: Pixels,
  settings: TraceSettings,
  mm: number,
  mostPixels: number = Number.POSITIVE_INFINITY,
): TracedPath[] {
  const step = Math.max(1, Math.ceil(Math.sqrt((pixels.width * pixels.height) / mostPixels)));
  const seen = step === 1 ? pixels : reduced(pixels, step);
  const inSteps = inPixels(settings, mm * step, step);
  if (settings.makes === 'colours') {
    const { found, areas } = traceColours(seen, inSteps, settings.byColour ?? usualByColour);
    return areas.map(({ path, colour }) => ({
      ...{ path: transformPath(path, scaling(step, step)), widthPx: 0, colour, found },
    }));
  }
  const found =
    settings.makes === 'outlines'
      ? [{ path: traceOutlines(seen, inSteps), width: 0 }]
      : traceMiddleLines(seen, inSteps);
  return found
    .filter(({ path }) => path.verbs.length > 0)
    .map(({ path, width }) => ({ path: transformPath(path, scaling(step, step)), widthPx: width * step }));
}

/** Settings in pixels. @param step how many pixels of the picture, across, are one */
function inPixels(settings: TraceSettings, mm: number, step: number): PixelTraceSettings {
  const { parting, level, isLight, cornerDegrees, isOuterOnly } = settings;
  return {
    threshold: parting === 'level' ? level : parting,
    isLight,
    specks: settings.specksMm2 / (mm * mm),
    holes: settings.holesMm2 / (mm * mm),
    smoothing: settings.smoothingMm / mm,
    tolerance: Math.max(finest, settings.toleranceMm / mm),
    cornerDegrees,
    isOuterOnly,
    part: settings.part.map(({ x, y }) => ({ x: x / step, y: y / step })),
    rubbed: settings.rubbed.map(({ x, y, radius }) => ({ x: x / step, y: y / step, radius: radius / step })),
  };
}
