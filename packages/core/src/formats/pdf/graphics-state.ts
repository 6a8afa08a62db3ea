import { fadeInFrame } from '../../document/fade.ts';
import type { Colour, Paint } from '../../document/item.ts';
import type { Area } from '../../geometry/areas/area.ts';
import { identity, type Matrix, meanScale } from '../../geometry/paths/matrix.ts';
import { type FadeLine, fadeUnlessPlain } from '../fade-stops.ts';
import type { PathPainting, PdfFont } from './packed.ts';

/** What the operators so far have set, for those that draw. */
export interface State {
  matrix: Matrix;
  /** The frame of patterns: that of the page, or of the form that is drawn. */
  base: Matrix;
  clip: Area | null;
  fill: Colour | null;
  /** How it fades, on the page in mm; null where it is one colour. */
  fade: FadeLine | null;
  stroke: Colour | null;
  lineWidth: number;
  cap: number;
  join: number;
  dashes: readonly number[];
  dashOffset: number;
  fillAlpha: number;
  strokeAlpha: number;
  font: PdfFont | null;
  fontSize: number;
  charSpacing: number;
  wordSpacing: number;
  segment: number;
  rise: number;
  leading: number;
  mode: number;
}

export const startState: State = {
  matrix: identity,
  base: identity,
  clip: null,
  fill: '#000000',
  fade: null,
  stroke: '#000000',
  lineWidth: 1,
  cap: 0,
  join: 0,
  dashes: [],
  dashOffset: 0,
  fillAlpha: 1,
  strokeAlpha: 1,
  font: null,
  fontSize: 0,
  charSpacing: 0,
  wordSpacing: 0,
  segment: 1,
  rise: 0,
  leading: 0,
  mode: 0,
};

/** What an outline drawn now is drawn with. @param frame that of the outline */
export function paintOf(state: State, { stroked, filled }: PathPainting, frame: Matrix): Paint {
  const stroke = stroked && state.strokeAlpha > 0 ? state.stroke : null;
  const fill = filled && state.fillAlpha > 0 ? state.fill : null;
  const width = state.lineWidth * meanScale(state.matrix);
  return {
    stroke,
    // A width of 0 is the thinnest line that a device can draw.
    strokeWidthMm: stroke === null ? 0 : Math.round(Math.max(0.01, width) * 1e4) / 1e4,
    fill,
    ...(stroke !== null && state.cap > 0 ? { cap: state.cap === 1 ? ('round' as const) : ('square' as const) } : {}),
    ...(fill === null ? {} : fadeOf(state, frame)),
    ...(stroke !== null && state.join > 0 ? { join: state.join === 1 ? ('round' as const) : ('bevel' as const) } : {}),
  };
}

function fadeOf({ fade, fillAlpha }: State, frame: Matrix): Pick<Paint, 'fade'> {
  if (!fade) return fillAlpha < 1 ? { fade: { kind: 'even', opacity: fillAlpha } } : {};
  const stops = fade.stops.map((stop) => ({ ...stop, opacity: stop.opacity * fillAlpha }));
  const seen = fadeUnlessPlain({ ...fade, stops });
  return seen ? { fade: fadeInFrame(seen, identity, frame) } : {};
}
