import { type Item, reshaped } from '../document/item.ts';
import type { Shape } from '../document/shape.ts';
import { type Matrix, scaling } from '../geometry/paths/matrix.ts';
import { transformPath } from '../geometry/paths/path.ts';

/**
 * Takes the stretching in an item's place into its shape's own numbers, where the shape can bear it: a
 * rectangle scaled to 54 mm is 54 mm wide by its own number too. What it looks like does not change.
 */
export function foldScale(item: Item): Item {
  if (isOnlyMove(item.matrix)) return item;
  const parts = unscaled(item.matrix);
  if (!parts) return item;
  const { sx, sy, rest } = parts;
  if (sx === 1 && sy === 1) return item;
  const shape = scaledShape(item.shape, sx, sy);
  return shape ? reshaped(item, shape, rest) : item;
}

/** Whether a map neither scales, turns nor mirrors. */
export function isOnlyMove([a, b, c, d]: Matrix): boolean {
  return a === 1 && b === 0 && c === 0 && d === 1;
}

/** A map as a scaling along the axes, then a turn and a move; null where it is skewed or mirrored. */
function unscaled(matrix: Matrix): { sx: number; sy: number; rest: Matrix } | null {
  const [a, b, c, d, e, f] = matrix;
  if (a * d - b * c < 0) return null;
  const [sx, sy] = [Math.hypot(a, b), Math.hypot(c, d)];
  if (!(sx > 1e-9 && sy > 1e-9)) return null;
  if (Math.abs(a * c + b * d) > 1e-12 * sx * sy) return null;
  return { sx, sy, rest: [a / sx, b / sx, c / sy, d / sy, e, f] };
}

function scaledShape(shape: Shape, sx: number, sy: number): Shape | null {
  const even = Math.abs(sx - sy) < 1e-12 * sx;
  switch (shape.kind) {
    case 'rectangle': {
      if (shape.corners && !even) return null;
      // A slot that was scaled by hand goes by no thickness any more.
      const { x, y, width, height, rx, ry, corners, tied: _, ...plain } = shape;
      return {
        ...plain,
        ...{ x: x * sx, y: y * sy, width: width * sx, height: height * sy, rx: rx * sx, ry: ry * sy },
        ...(corners ? { corners: corners.map((radius) => radius * sx) as [number, number, number, number] } : {}),
      };
    }
    case 'ellipse': {
      const { bolt: _, ...plain } = shape;
      return { ...plain, cx: shape.cx * sx, cy: shape.cy * sy, rx: shape.rx * sx, ry: shape.ry * sy };
    }
    case 'slot': {
      if (!even) return null;
      const { x1, y1, x2, y2, width, tied: _, ...plain } = shape;
      return { ...plain, x1: x1 * sx, y1: y1 * sx, x2: x2 * sx, y2: y2 * sx, width: width * sx };
    }
    case 'polygon': {
      if (!even) return null;
      const { cx, cy, radius, inner } = shape;
      return { ...shape, cx: cx * sx, cy: cy * sx, radius: radius * sx, inner: inner === null ? null : inner * sx };
    }
    case 'arc':
      return even ? { ...shape, cx: shape.cx * sx, cy: shape.cy * sx, radius: shape.radius * sx } : null;
    case 'text': {
      if (!even) return null;
      const { text, path, madeHeight, over } = shape;
      const { height, spacing, width, along, leastHeight, depth } = text;
      return {
        ...shape,
        path: transformPath(path, scaling(sx, sx)),
        ...scaledWhereSaid({ madeHeight, over }, sx),
        text: {
          ...text,
          height: height * sx,
          spacing: spacing * sx,
          width: width === null ? null : width * sx,
          ...scaledWhereSaid({ leastHeight, depth }, sx),
          ...(along ? { along: transformPath(along, scaling(sx, sx)) } : {}),
        },
      };
    }
    case 'code': {
      if (!even) return null;
      const { code, path, moduleMm } = shape;
      const scaled = { ...code, width: code.width * sx, height: code.height * sx };
      return { ...shape, code: scaled, path: transformPath(path, scaling(sx, sx)), moduleMm: moduleMm * sx };
    }
    case 'path': {
      // Points have no numbers of their own, but for the corners shaped on them.
      if (!shape.corners || !even) return null;
      const corners = shape.corners.map(({ x, y, kind, size }) => ({ x: x * sx, y: y * sx, kind, size: size * sx }));
      return { ...shape, path: transformPath(shape.path, scaling(sx, sx)), corners };
    }
    case 'combined':
    case 'offset':
    case 'border':
    case 'traced':
    case 'picture':
      return null;
  }
}

/** Lengths scaled, those that are said. */
function scaledWhereSaid<T extends Readonly<Record<string, number | undefined>>>(lengths: T, scale: number): T {
  const said = Object.entries(lengths).flatMap(([name, mm]) => (mm === undefined ? [] : [[name, mm * scale]]));
  return Object.fromEntries(said);
}

/** How far an item is turned, in degrees clockwise on the screen, from -180 to 180. */
export function turnOf({ matrix: [a, b] }: Item): number {
  return (Math.atan2(b, a) * 180) / Math.PI;
}
