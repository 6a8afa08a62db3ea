import { outlineOf } from '../../document/shapes.ts';
import { identity, type Matrix, multiply, scaling } from '../../geometry/paths/matrix.ts';
import { pathBounds } from '../../geometry/paths/path.ts';
import type { Notes } from '../reading.ts';
import { type Context, ownTransform, startContext } from './context.ts';
import { drawn } from './elements.ts';
import { readShape } from './outline.ts';
import type { SvgPage } from './page.ts';
import type { Declared } from './specified.ts';
import { mmPerPx } from './values.ts';
import type { SvgElement } from './xml.ts';

/** An element’s own transform; null where it has none, or one that makes no sense, which is noted. */
export function transformOf(element: SvgElement, own: Declared, parent: Context, notes: Notes): Matrix | null {
  if (!(own.transform ?? own.translate ?? own.rotate ?? own.scale)) return null;
  const frame = () => {
    const read = drawn.has(element.name) ? readShape(element, own, parent) : null;
    if (!read) {
      notes.add('changed', 'origin-not-found', 'a part that is turned about its own middle is turned about its corner');
      return null;
    }
    const box = pathBounds(outlineOf(read.shape));
    return { x: box.minX, y: box.minY, width: box.maxX - box.minX, height: box.maxY - box.minY };
  };
  const transform = ownTransform(own, parent, frame);
  if (transform !== undefined) return transform;
  const said = (own.transform ?? own.translate ?? own.rotate ?? own.scale ?? '').slice(0, 40);
  notes.add(
    'changed',
    'transform-not-read',
    `the transform “${said}” at line ${element.line} makes no sense and was not applied`,
  );
  return null;
}

/**
 * The map of a file's units to mm with the transform that its root has: of the whole page, about its middle and in px,
 * as browsers have it.
 */
export function pageTransform(own: Declared, { size, toMm }: SvgPage): Matrix {
  const [width, height] = [(size.pageWidthMm ?? 0) / mmPerPx, (size.pageHeightMm ?? 0) / mmPerPx];
  const about = { ...own, 'transform-origin': own['transform-origin'] ?? '50% 50%' };
  const matrix = ownTransform(about, startContext(identity, { x: 0, y: 0, width, height }), () => null);
  if (!matrix) return toMm;
  const inMm = multiply(scaling(mmPerPx, mmPerPx), multiply(matrix, scaling(1 / mmPerPx, 1 / mmPerPx)));
  return multiply(inMm, toMm);
}
