import { type Box, boxOf } from '../../geometry/paths/box.ts';
import { type Matrix, multiply, translation } from '../../geometry/paths/matrix.ts';
import type { Context } from './context.ts';
import { fitViewBox, readViewBox } from './page.ts';
import { placing } from './placed-by.ts';
import type { Declared } from './specified.ts';
import type { Axis } from './values.ts';
import type { SvgElement } from './xml.ts';

/** What a nested `svg` or an instance of a `symbol` sees. */
export interface Viewport {
  /** From its own user units to the drawing, in mm. */
  readonly matrix: Matrix;
  /** What its percentages are of, in its own user units. */
  readonly box: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
  /** Where it stands, in the user units around it. */
  readonly frame: Box;
}

/** An element with what it says of its properties. */
export interface Styled {
  readonly element: SvgElement;
  readonly own: Declared;
}

/**
 * @param sized says how large it is: the element itself, or the `use` that shows it
 * @returns null where it has no extent, and shows nothing
 */
export function viewportOf(element: Styled, parent: Context, sized: Styled): Viewport | null {
  const sizeOf = (styled: Styled, name: string, axis: Axis) => placing(styled.element, styled.own, name, parent, axis);
  const size = (name: 'width' | 'height', axis: Axis) => {
    const whole = axis === 'x' ? parent.viewportWidth : parent.viewportHeight;
    return sizeOf(sized, name, axis) ?? sizeOf(element, name, axis) ?? whole;
  };
  const width = size('width', 'x');
  const height = size('height', 'y');
  if (!(width > 0 && height > 0)) return null;
  const x = sizeOf(element, 'x', 'x') ?? 0;
  const y = sizeOf(element, 'y', 'y') ?? 0;
  const frame = boxOf(x, y, width, height);
  const moved = multiply(parent.matrix, translation(x, y));
  const { attributes } = element.element;
  const viewBox = readViewBox(attributes.viewBox);
  if (!viewBox) return { matrix: moved, box: { x: 0, y: 0, width, height }, frame };
  if (!(viewBox.width > 0 && viewBox.height > 0)) return null;
  const fitted = fitViewBox(viewBox, width, height, attributes.preserveAspectRatio ?? '');
  return { matrix: multiply(moved, fitted), box: viewBox, frame };
}
