import type { Pixels } from '../../document/pixels.ts';
import { type Polyline, polylineLength, signedArea } from '../../geometry/paths/flatten.ts';
import { type Path, PathBuilder } from '../../geometry/paths/path.ts';
import { nestOutlines } from '../../geometry/questions/nesting.ts';
import { contoursOf } from './contours.ts';
import { type FigureSettings, figureOf } from './figure.ts';
import { addFittedLine, addFittedRing } from './fit-ring.ts';
import { middleLinesOf } from './middle-lines.ts';

/** How outlines are found in a picture; lengths in pixels, areas in pixels². */
export interface PixelTraceSettings extends FigureSettings {
  /** Figures smaller than this are left out, and holes smaller than that. */
  readonly specks: number;
  readonly holes: number;
  /** How far an outline may stray from the edge in the picture. */
  readonly tolerance: number;
  /** Turns of at least so many degrees are corners. */
  readonly cornerDegrees: number;
  /** Holes, and what lies in them, are left out. */
  readonly isOuterOnly: boolean;
}

/** More nodes than this are of a picture that is not meant to be traced, or not with these settings. */
export const mostTracedNodes = 200_000;

/** The outlines are too many to be of use. */
export class TooManyOutlines extends Error {
  constructor() {
    const most = mostTracedNodes.toLocaleString('en');
    super(
      `The outlines would have more than ${most} points. Leave out larger specks, smooth more, crop, or choose another level.`,
    );
  }
}

/**
 * The closed outlines of what a picture shows, holes among them: found at sub-pixel places along the edge's grey, and
 * fitted with lines and as few smooth cubics as keep to it. Figures run clockwise as seen on the screen, holes the other
 * way round.
 *
 * @returns a path in pixels from the picture's top left corner.
 * @throws TooManyOutlines when it would have more than 200,000 nodes.
 */
export function traceOutlines(pixels: Pixels, settings: PixelTraceSettings): Path {
  const rings = contoursOf(figureOf(pixels, settings)).map((points) => ({ points, closed: true }));
  const builder = new PathBuilder();
  let nodes = 0;
  for (const { points } of keptRings(rings, settings)) {
    nodes += addFittedRing(builder, points, settings);
    if (nodes > mostTracedNodes) throw new TooManyOutlines();
  }
  return builder.build();
}

/**
 * Single lines along the middle of the strokes that a picture shows, fitted like outlines. What is smaller than a speck
 * is left out.
 *
 * @returns for each line a path in pixels from the picture's top left corner, and how wide its stroke is.
 * @throws TooManyOutlines when they would have more than 200,000 nodes.
 */
export function traceMiddleLines(
  pixels: Pixels,
  settings: PixelTraceSettings,
): { readonly path: Path; readonly width: number }[] {
  let nodes = 0;
  return middleLinesOf(figureOf(pixels, settings)).flatMap(({ points, closed, width }) => {
    const builder = new PathBuilder();
    if (polylineLength({ points, closed }) * width < settings.specks) return [];
    nodes += closed ? addFittedRing(builder, points, settings) : addFittedLine(builder, points, settings);
    if (nodes > mostTracedNodes) throw new TooManyOutlines();
    const path = builder.build();
    return path.verbs.length === 0 ? [] : [{ path, width }];
  });
}

/** The contours that are large enough; with a figure that is left out go its holes, and with a hole what lies in it. */
function keptRings(rings: readonly Polyline[], { specks, holes, isOuterOnly }: PixelTraceSettings): Polyline[] {
  // What is above the level lies on the right: figures run clockwise, and have an area above 0.
  const isFigure = (ring: Polyline) => signedArea(ring) > 0;
  const large = rings.filter((ring) =>
    isFigure(ring) ? signedArea(ring) >= specks : !isOuterOnly && -signedArea(ring) >= holes,
  );
  // Where nothing was left out, everything lies where it should.
  if (large.length === rings.length) return large;
  const { holders } = nestOutlines(large);
  const kept = new Uint8Array(large.length);
  for (const i of [...holders.keys()].sort((a, b) => holders[a].length - holders[b].length)) {
    // How many figures it lies in more than holes: figures lie on ground, holes in a figure.
    const depth = holders[i].reduce((sum, j) => sum + kept[j] * (isFigure(large[j]) ? 1 : -1), 0);
    if (depth === (isFigure(large[i]) ? 0 : 1)) kept[i] = 1;
  }
  return large.filter((_, i) => kept[i] === 1);
}
