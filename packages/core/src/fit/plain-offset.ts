import type { Item } from '../document/item.ts';
import type { Shape } from '../document/shape.ts';
import type { OffsetSettings } from '../geometry/offsets/offset.ts';
import type { Matrix } from '../geometry/paths/matrix.ts';

/**
 * The offset of a circle, a rectangle or a slot as a shape with numbers of its own, where it is one again: it can be
 * given another width like its source. Its place is the source's.
 *
 * @returns null where the offset is no such shape, or nothing is left
 */
export function plainOffsetOf(
  sources: readonly Item[],
  settings: OffsetSettings,
): Pick<Item, 'shape' | 'matrix'> | null {
  const [source, ...others] = sources;
  if (!source || others.length > 0 || !isRigid(source.matrix)) return null;
  const shape = offsetShape(source.shape, settings);
  return shape && { shape, matrix: source.matrix };
}

function isRigid([a, b, c, d]: Matrix): boolean {
  return (
    Math.abs(Math.hypot(a, b) - 1) < 1e-9 && Math.abs(Math.hypot(c, d) - 1) < 1e-9 && Math.abs(a * c + b * d) < 1e-9
  );
}

function offsetShape(shape: Shape, { by, join, miterLimit }: OffsetSettings): Shape | null {
  switch (shape.kind) {
    case 'ellipse': {
      const radius = shape.rx + by;
      const { bolt: _, ...plain } = shape;
      return shape.rx === shape.ry && radius > 0 ? { ...plain, rx: radius, ry: radius } : null;
    }
    case 'slot': {
      const { tied: _, ...plain } = shape;
      return shape.width + 2 * by > 0 ? { ...plain, width: shape.width + 2 * by } : null;
    }
    case 'rectangle': {
      const { tied: _, corners, ...plain } = shape;
      const [width, height] = [shape.width + 2 * by, shape.height + 2 * by];
      const sharp = shape.rx === 0;
      const mitred = join === 'miter' && miterLimit >= Math.SQRT2;
      // Sharp corners go on as they are inward; outward as asked. Round ones keep their centres.
      if (corners || shape.rx !== shape.ry || !(width > 0 && height > 0)) return null;
      if (sharp && by > 0 && join === 'bevel') return null;
      if (sharp && by > 0 && join === 'miter' && !mitred) return null;
      const radius = sharp && (by < 0 || mitred) ? 0 : Math.max(0, shape.rx + by);
      return { ...plain, x: shape.x - by, y: shape.y - by, width, height, rx: radius, ry: radius };
    }
    default:
      return null;
  }
}
