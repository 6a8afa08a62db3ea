import type { Pixels } from '../../document/pixels.ts';
import { signedArea } from '../../geometry/paths/flatten.ts';
import { type Path, PathBuilder } from '../../geometry/paths/path.ts';
import { nestDepths } from '../../geometry/questions/nesting.ts';
import { lumasOf } from '../luma.ts';
import { contoursOf } from './contours.ts';
import { addFittedRing } from './fit-ring.ts';
import { evenLevel } from './threshold.ts';

/** How outlines are found in a picture; lengths in pixels, areas in pixels². */
export interface TraceSettings {
  /** What is darker than this, 0 to 255, is the figure; null for the level that parts dark from light best. */
  readonly threshold: number | null;
  /** What is lighter is the figure. */
  readonly isLight: boolean;
  /** Figures and holes smaller than this are left out. */
  readonly specks: number;
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
export class TooManyOutlines extends Error {}

/**
 * The closed outlines of what a picture shows, holes among them: found at sub-pixel places along the edge's grey, and
 * fitted with lines and as few smooth cubics as keep to it. Figures run clockwise as seen on the screen, holes the other
 * way round.
 *
 * @returns a path in pixels from the picture's top left corner
 * @throws TooManyOutlines when it would have more than 200,000 nodes
 */
export function traceOutlines(pixels: Pixels, settings: TraceSettings): Path {
  const { width, height } = pixels;
  const values = lumasOf(pixels);
  const level = settings.threshold ?? evenLevel(values);
  const sign = settings.isLight ? 1 : -1;
  for (let i = 0; i < values.length; i++) values[i] = sign * (values[i] - level);
  const found = contoursOf({ width, height, values })
    .map((points) => ({ points, closed: true }))
    // What is above the level lies on the right: figures run clockwise.
    .filter((ring) => Math.abs(signedArea(ring)) >= settings.specks && (signedArea(ring) > 0 || !settings.isOuterOnly));
  const depths = settings.isOuterOnly ? nestDepths(found) : null;
  const builder = new PathBuilder();
  let nodes = 0;
  for (const [i, { points }] of found.entries()) {
    if (depths && depths[i] > 0) continue;
    nodes += addFittedRing(builder, points, settings);
    if (nodes > mostTracedNodes) throw new TooManyOutlines('traceOutlines: more than 200,000 nodes');
  }
  return builder.build();
}
