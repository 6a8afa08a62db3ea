import { outlineOf } from '../../document/shapes.ts';
import type { Matrix } from '../../geometry/paths/matrix.ts';
import { pathBounds } from '../../geometry/paths/path.ts';
import type { Notes } from '../reading.ts';
import { type Context, ownTransform } from './context.ts';
import { drawn } from './elements.ts';
import { readShape } from './outline.ts';
import type { Declared } from './style.ts';
import type { SvgElement } from './xml.ts';

/** An element’s own transform; null where it has none, or one that makes no sense, which is noted. */
export function transformOf(element: SvgElement, own: Declared, parent: Context, notes: Notes): Matrix | null {
  if (own.transform === undefined) return null;
  const frame = () => {
    const read = drawn.has(element.name) ? readShape(element, parent) : null;
    if (!read) {
      notes.add('changed', 'origin-not-found', 'a part that is turned about its own middle is turned about its corner');
      return null;
    }
    const box = pathBounds(outlineOf(read.shape));
    return { x: box.minX, y: box.minY, width: box.maxX - box.minX, height: box.maxY - box.minY };
  };
  const transform = ownTransform(own, parent, frame);
  if (transform !== undefined) return transform;
  const said = own.transform.slice(0, 40);
  notes.add(
    'changed',
    'transform-not-read',
    `the transform “${said}” at line ${element.line} makes no sense and was not applied`,
  );
  return null;
}
