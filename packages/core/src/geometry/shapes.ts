import { addEllipticArc } from './arc.ts';
import { type Box, boxHeight, boxWidth } from './box.ts';
import { type Path, PathBuilder } from './path.ts';

/** What an item is, in its own numbers (mm): a shape keeps them until it is turned into points. */
export type Shape =
  | { readonly kind: 'path'; readonly path: Path }
  | {
      readonly kind: 'rectangle';
      readonly x: number;
      readonly y: number;
      readonly width: number;
      readonly height: number;
      /** Corner radii along x and y; 0 for square corners. */
      readonly rx: number;
      readonly ry: number;
    }
  | { readonly kind: 'ellipse'; readonly cx: number; readonly cy: number; readonly rx: number; readonly ry: number }
  /** A picture from (0, 0), one unit a pixel; its own outline is its frame. */
  | { readonly kind: 'picture'; readonly pictureId: string; readonly width: number; readonly height: number };

/** A box as a rectangle with square corners. */
export function rectangleOf(box: Box): Shape {
  const { minX: x, minY: y } = box;
  return { kind: 'rectangle', x, y, width: boxWidth(box), height: boxHeight(box), rx: 0, ry: 0 };
}

/** The outline of a shape, in the shape's own frame. */
export function outlineOf(shape: Shape): Path {
  switch (shape.kind) {
    case 'path':
      return shape.path;
    case 'rectangle':
      return rectangle(shape.x, shape.y, shape.width, shape.height, shape.rx, shape.ry);
    case 'ellipse':
      return ellipse(shape.cx, shape.cy, shape.rx, shape.ry);
    case 'picture':
      return rectangle(0, 0, shape.width, shape.height, 0, 0);
  }
}

function ellipse(cx: number, cy: number, rx: number, ry: number): Path {
  const builder = new PathBuilder().moveTo(cx + rx, cy);
  addEllipticArc(builder, cx, cy, rx, ry, 0, 0, 2 * Math.PI, { x: cx + rx, y: cy });
  return builder.close().build();
}

/** A rectangle, clockwise from the start of its top edge; radii larger than half a side are cut to it. */
function rectangle(x: number, y: number, width: number, height: number, radiusX: number, radiusY: number): Path {
  const rx = Math.min(radiusX, width / 2);
  const ry = Math.min(radiusY, height / 2);
  const right = x + width;
  const bottom = y + height;
  const b = new PathBuilder();
  if (rx <= 0 || ry <= 0) {
    return b.moveTo(x, y).lineTo(right, y).lineTo(right, bottom).lineTo(x, bottom).close().build();
  }
  const quarter = Math.PI / 2;
  const corner = (cx: number, cy: number, turn: number, end: { x: number; y: number }) =>
    addEllipticArc(b, cx, cy, rx, ry, 0, turn * quarter, quarter, end);
  b.moveTo(x + rx, y).lineTo(right - rx, y);
  corner(right - rx, y + ry, -1, { x: right, y: y + ry });
  b.lineTo(right, bottom - ry);
  corner(right - rx, bottom - ry, 0, { x: right - rx, y: bottom });
  b.lineTo(x + rx, bottom);
  corner(x + rx, bottom - ry, 1, { x, y: bottom - ry });
  b.lineTo(x, y + ry);
  corner(x + rx, y + ry, 2, { x: x + rx, y });
  return b.close().build();
}
