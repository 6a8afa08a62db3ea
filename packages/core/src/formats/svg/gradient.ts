import type { FadeStop } from '../../document/fade.ts';
import { type Box, boxHeight, boxWidth } from '../../geometry/paths/box.ts';
import { identity, invert, type Matrix, multiply } from '../../geometry/paths/matrix.ts';
import { type FadeLine, type Spread, spreadOver } from '../fade-stops.ts';
import type { Context } from './context.ts';
import { type Axis, lengthInUserUnits, readTransform } from './values.ts';

/** A gradient with all that it takes over from others. */
export interface Gradient {
  readonly kind: 'linear' | 'radial';
  readonly attributes: Readonly<Record<string, string | undefined>>;
  readonly stops: readonly FadeStop[];
}

/**
 * A gradient on a shape, in the shape's frame.
 * @param bounds those of the shape
 * @param opacity how solid the whole fill is
 * @returns null where it cannot be followed: it has no extent, or repeats too often
 */
export function fadeOfGradient(gradient: Gradient, context: Context, bounds: Box, opacity: number): FadeLine | null {
  const { kind, attributes } = gradient;
  const onBox = attributes.gradientUnits !== 'userSpaceOnUse';
  const frame: Matrix = onBox ? [boxWidth(bounds), 0, 0, boxHeight(bounds), bounds.minX, bounds.minY] : identity;
  const turned = attributes.gradientTransform ? readTransform(attributes.gradientTransform, context) : identity;
  if (!turned) return null;
  const matrix = multiply(frame, turned);
  const back = invert(matrix);
  if (!back) return null;
  const length = (name: string, usual: string, axis: Axis): number => {
    const text = attributes[name] ?? usual;
    if (!onBox) return lengthInUserUnits(text, context, axis) ?? 0;
    const value = Number.parseFloat(text);
    return Number.isFinite(value) ? (text.trim().endsWith('%') ? value / 100 : value) : 0;
  };
  const stops = gradient.stops.map((stop) => ({ ...stop, opacity: stop.opacity * opacity }));
  const spread = attributes.spreadMethod?.trim() as Spread | undefined;
  const line = kind === 'linear' ? linear(length) : radial(length, attributes);
  if (!line) return null;
  const fade = { ...line, matrix, stops } as FadeLine;
  return spreadOver(fade, spread === 'repeat' || spread === 'reflect' ? spread : 'pad', bounds, back);
}

type Length = (name: string, usual: string, axis: Axis) => number;

function linear(length: Length) {
  return {
    kind: 'linear',
    from: { x: length('x1', '0%', 'x'), y: length('y1', '0%', 'y') },
    to: { x: length('x2', '100%', 'x'), y: length('y2', '0%', 'y') },
  } as const;
}

function radial(length: Length, { fx, fy }: Gradient['attributes']) {
  const [x, y] = [length('cx', '50%', 'x'), length('cy', '50%', 'y')];
  const radius = length('r', '50%', 'diagonal');
  if (!(radius > 0)) return null;
  const focus = { x: fx === undefined ? x : length('fx', '0', 'x'), y: fy === undefined ? y : length('fy', '0', 'y') };
  return {
    kind: 'radial',
    from: { ...focus, radius: Math.max(0, length('fr', '0%', 'diagonal')) },
    to: { x, y, radius },
  } as const;
}
