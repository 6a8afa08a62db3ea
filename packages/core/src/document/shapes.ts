import { combineOutlines } from '../geometry/areas/combine.ts';
import { addEllipticArc } from '../geometry/paths/arc.ts';
import { type Box, boxHeight, boxOf, boxWidth } from '../geometry/paths/box.ts';
import { shapeCorners } from '../geometry/paths/corners.ts';
import { type Path, PathBuilder, pathBounds, transformPath } from '../geometry/paths/path.ts';
import type { Shape } from './shape.ts';

/** A box as a rectangle with square corners. */
export function rectangleOf(box: Box): Shape {
  const { minX: x, minY: y } = box;
  return { kind: 'rectangle', x, y, width: boxWidth(box), height: boxHeight(box), rx: 0, ry: 0 };
}

/** The outline of a shape, in the shape's own frame. */
export function outlineOf(shape: Shape): Path {
  switch (shape.kind) {
    case 'path':
      return shape.corners ? kept(shape, () => shapeCorners(shape.path, shape.corners ?? [])) : shape.path;
    case 'text':
    case 'code':
    case 'offset':
    case 'border':
    case 'traced':
      return shape.path;
    case 'rectangle': {
      const { x, y, width, height, rx, ry, corners } = shape;
      const plain = rectangle(x, y, width, height, corners ? 0 : rx, corners ? 0 : ry);
      if (!corners) return plain;
      const places = [
        [x, y],
        [x + width, y],
        [x + width, y + height],
        [x, y + height],
      ];
      return shapeCorners(
        plain,
        fittedRadii(corners, width, height).map((size, i) => ({
          x: places[i][0],
          y: places[i][1],
          kind: 'round' as const,
          size,
        })),
      );
    }
    case 'slot':
      return slot(shape.x1, shape.y1, shape.x2, shape.y2, shape.width);
    case 'polygon':
      return polygon(shape.cx, shape.cy, shape.radius, shape.sides, shape.inner, shape.turn);
    case 'arc': {
      const { cx, cy, radius } = shape;
      const from = (shape.from * Math.PI) / 180;
      const builder = new PathBuilder().moveTo(cx + radius * Math.cos(from), cy + radius * Math.sin(from));
      addEllipticArc(builder, cx, cy, radius, radius, 0, from, (shape.sweep * Math.PI) / 180);
      return builder.build();
    }
    case 'combined':
      return kept(shape, () =>
        combineOutlines(
          shape.parts.map(({ shape: part, matrix, rule }) => ({ path: transformPath(outlineOf(part), matrix), rule })),
          shape.how,
        ),
      );
    case 'ellipse':
      return ellipse(shape.cx, shape.cy, shape.rx, shape.ry);
    case 'picture':
      return shape.crop ?? rectangle(0, 0, shape.width, shape.height, 0, 0);
  }
}

/** The outline of a shape with corners that were shaped later left sharp: what points are of. */
export function sharpOutlineOf(shape: Shape): Path {
  return shape.kind === 'path' ? shape.path : outlineOf(shape);
}

const shapeBounds = new WeakMap<Shape, Box>();

/** The exact bounds of a shape, in its own frame. */
export function boundsOfShape(shape: Shape): Box {
  switch (shape.kind) {
    case 'ellipse': {
      const [rx, ry] = [Math.abs(shape.rx), Math.abs(shape.ry)];
      return boxOf(shape.cx - rx, shape.cy - ry, 2 * rx, 2 * ry);
    }
    default: {
      let box = shapeBounds.get(shape);
      if (!box) {
        box = pathBounds(outlineOf(shape));
        shapeBounds.set(shape, box);
      }
      return box;
    }
  }
}

/** About how many verbs the outline of a simple shape, and that of an ellipse takes. */
const simpleVerbs = 6;
const ellipseVerbs = 10;

/** About how many verbs a shape's outline takes, found without working it out. */
export function verbsIn(shape: Shape): number {
  switch (shape.kind) {
    case 'path':
    case 'text':
    case 'code':
    case 'offset':
    case 'border':
    case 'traced':
      return shape.path.verbs.length;
    case 'polygon':
      return shape.sides * (shape.inner === null ? 1 : 2) + 2;
    case 'combined':
      return shape.parts.reduce((sum, part) => sum + verbsIn(part.shape), 0);
    case 'ellipse':
      return ellipseVerbs;
    case 'picture':
      return shape.crop?.verbs.length ?? simpleVerbs;
    default:
      return simpleVerbs;
  }
}

/** Outlines that take work, kept for as long as their shape is. */
const outlines = new WeakMap<Shape, Path>();

/** Whether a shape's outline has yet to be worked out, and that takes work. */
export function isOutlineUnknown(shape: Shape): boolean {
  return (shape.kind === 'combined' || (shape.kind === 'path' && !!shape.corners)) && !outlines.has(shape);
}

/** Says what a shape's outline is where that was worked out elsewhere, in a worker. */
export function knowOutline(shape: Shape, outline: Path): void {
  outlines.set(shape, outline);
}

function kept(shape: Shape, make: () => Path): Path {
  let path = outlines.get(shape);
  if (!path) {
    path = make();
    outlines.set(shape, path);
  }
  return path;
}

/** Corner radii, made smaller together where two of them do not fit on an edge, as CSS does. */
function fittedRadii(radii: readonly number[], width: number, height: number): number[] {
  const [tl, tr, br, bl] = radii;
  const share = Math.min(1, width / (tl + tr), width / (bl + br), height / (tl + bl), height / (tr + br));
  return radii.map((radius) => radius * share);
}

function slot(x1: number, y1: number, x2: number, y2: number, width: number): Path {
  const r = width / 2;
  const along = Math.atan2(y2 - y1, x2 - x1);
  const quarter = Math.PI / 2;
  const pointAt = (x: number, y: number, angle: number) => ({ x: x + r * Math.cos(angle), y: y + r * Math.sin(angle) });
  const start = pointAt(x1, y1, along - quarter);
  const right = pointAt(x2, y2, along - quarter);
  const left = pointAt(x1, y1, along + quarter);
  const b = new PathBuilder().moveTo(start.x, start.y).lineTo(right.x, right.y);
  addEllipticArc(b, x2, y2, r, r, 0, along - quarter, Math.PI, pointAt(x2, y2, along + quarter));
  b.lineTo(left.x, left.y);
  addEllipticArc(b, x1, y1, r, r, 0, along + quarter, Math.PI, start);
  return b.close().build();
}

function polygon(cx: number, cy: number, radius: number, sides: number, inner: number | null, turn: number): Path {
  const count = inner === null ? sides : sides * 2;
  const b = new PathBuilder();
  for (let i = 0; i < count; i++) {
    const angle = ((turn - 90) * Math.PI) / 180 + (i * 2 * Math.PI) / count;
    const r = inner !== null && i % 2 === 1 ? inner : radius;
    const [x, y] = [cx + r * Math.cos(angle), cy + r * Math.sin(angle)];
    if (i === 0) b.moveTo(x, y);
    else b.lineTo(x, y);
  }
  return b.close().build();
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
