import { type Path, PathBuilder } from '../geometry/paths/path.ts';
import type { PackWish } from './wish.ts';

/** Outlines and wishes for tests of packing. */

export function polygon(...points: readonly (readonly [number, number])[]): Path {
  const builder = new PathBuilder();
  points.forEach(([x, y], i) => {
    if (i === 0) builder.moveTo(x, y);
    else builder.lineTo(x, y);
  });
  return builder.close().build();
}

/** A rectangle with its corner at a place, (0, 0) where none is said. */
export function rectangle(width: number, height: number, x = 0, y = 0): Path {
  return polygon([x, y], [x + width, y], [x + width, y + height], [x, y + height]);
}

/** A disc about (0, 0), of four curves. */
export function disc(radius: number): Path {
  const k = 0.5522847498 * radius;
  return new PathBuilder()
    .moveTo(radius, 0)
    .cubicTo(radius, k, k, radius, 0, radius)
    .cubicTo(-k, radius, -radius, k, -radius, 0)
    .cubicTo(-radius, -k, -k, -radius, 0, -radius)
    .cubicTo(k, -radius, radius, -k, radius, 0)
    .close()
    .build();
}

/** Pieces once each, on one sheet, side by side, not turned; what is said otherwise goes. */
export function wishOf(outlines: readonly Path[], wish: Partial<PackWish> = {}): PackWish {
  return {
    pieces: outlines.map((outline, i) => ({ id: `piece ${i}`, outline, count: 1 })),
    sheets: [{ id: 'sheet', outline: rectangle(300, 200), obstacles: [], count: 1 }],
    gapMm: 0,
    marginMm: 0,
    turning: 'none',
    mirror: false,
    fillsHoles: false,
    ...wish,
  };
}
