import type { FillRule } from '../geometry/areas/area.ts';
import { type Combining, combineOutlines } from '../geometry/areas/combine.ts';
import type { BorderSettings } from '../geometry/offsets/border.ts';
import type { OffsetSettings } from '../geometry/offsets/offset.ts';
import { addEllipticArc } from '../geometry/paths/arc.ts';
import { type Box, boxHeight, boxOf, boxWidth } from '../geometry/paths/box.ts';
import { type Corner, shapeCorners } from '../geometry/paths/corners.ts';
import type { Matrix } from '../geometry/paths/matrix.ts';
import { type Path, PathBuilder, pathBounds, transformPath } from '../geometry/paths/path.ts';
import type { BoltTie, PartTie, ThicknessTie } from './ties.ts';

/** What an item is, in its own numbers (mm, degrees): a shape keeps them until it is turned into points. */
export type Shape =
  /** Lines and curves; `corners` are rounded or cut off, and stay so when the path is changed. */
  | { readonly kind: 'path'; readonly path: Path; readonly corners?: readonly Corner[] }
  | {
      readonly kind: 'rectangle';
      readonly x: number;
      readonly y: number;
      readonly width: number;
      readonly height: number;
      /** Corner radii along x and y; 0 for square corners. */
      readonly rx: number;
      readonly ry: number;
      /** A radius for each corner of its own, clockwise from the top left; rx and ry do not count then. */
      readonly corners?: readonly [number, number, number, number];
      /** Where one side goes by the thickness of the stock. */
      readonly tied?: ThicknessTie;
    }
  | {
      readonly kind: 'ellipse';
      readonly cx: number;
      readonly cy: number;
      readonly rx: number;
      readonly ry: number;
      /** The bolt that a round hole is for. */
      readonly bolt?: BoltTie;
    }
  /** A straight slot with round ends, by the centres of those and its width. */
  | {
      readonly kind: 'slot';
      readonly x1: number;
      readonly y1: number;
      readonly x2: number;
      readonly y2: number;
      readonly width: number;
      /** Where its width goes by the thickness of the stock. */
      readonly tied?: ThicknessTie;
    }
  /** A regular polygon, or a star where it has an inner radius. `turn` is how far its first corner is from the top. */
  | {
      readonly kind: 'polygon';
      readonly cx: number;
      readonly cy: number;
      readonly radius: number;
      readonly sides: number;
      readonly inner: number | null;
      readonly turn: number;
    }
  /** A part of a circle, from an angle (0 to the right, clockwise on the screen) over a sweep. */
  | {
      readonly kind: 'arc';
      readonly cx: number;
      readonly cy: number;
      readonly radius: number;
      readonly from: number;
      readonly sweep: number;
    }
  /** A text, with the outlines it was set in: they are as lasting as the rest of the drawing. */
  | { readonly kind: 'text'; readonly text: TextSetting; readonly path: Path }
  /** Shapes put together, each still there to be changed. */
  | { readonly kind: 'combined'; readonly how: Combining; readonly parts: readonly CombinedPart[] }
  /**
   * What lies at a distance from other items, with the outline that comes to: it is made anew when they change. The
   * outline is in bed mm; whatever holds it stays where it is. One that `meets` its source is centred about (0, 0)
   * instead, and lies wherever it is put: its size follows, its place does not.
   */
  | {
      readonly kind: 'offset';
      readonly sources: readonly string[];
      readonly settings: OffsetSettings;
      readonly meets?: PartTie;
      readonly path: Path;
      /** Its sources have changed, and what they come to is still being worked out. */
      readonly stale?: true;
    }
  /** One outer edge around other items, made anew like an offset, in bed mm. */
  | {
      readonly kind: 'border';
      readonly sources: readonly string[];
      readonly settings: BorderSettings;
      readonly path: Path;
      readonly stale?: true;
    }
  /** A picture from (0, 0), one unit a pixel; its own outline is its frame, `visible` what shows of it where that was found. */
  | {
      readonly kind: 'picture';
      readonly pictureId: string;
      readonly width: number;
      readonly height: number;
      readonly visible?: Path;
    };

/** A shape that is made from other items, and follows them. */
export type FollowingShape = Extract<Shape, { readonly sources: readonly string[] }>;

export function isFollowing(shape: Shape): shape is FollowingShape {
  return shape.kind === 'offset' || shape.kind === 'border';
}

/** One of the shapes that were put together, in the frame of the whole. */
export interface CombinedPart {
  readonly name: string | null;
  readonly shape: Shape;
  readonly matrix: Matrix;
  readonly rule: FillRule;
}

/** What a text says and how it is set; lengths in mm. */
export interface TextSetting {
  readonly words: string;
  readonly family: string;
  readonly bold: boolean;
  readonly italic: boolean;
  /** How high capitals are. */
  readonly height: number;
  readonly align: 'left' | 'centre' | 'right';
  /** Added between letters. */
  readonly spacing: number;
  /** From line to line, as a multiple of the face's own. */
  readonly leading: number;
  /** Lines longer than this are broken between words; null for none. */
  readonly width: number | null;
  /** The line it runs along, in the text's own frame; straight where there is none. */
  readonly along?: Path;
}

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
    case 'offset':
    case 'border':
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
      return rectangle(0, 0, shape.width, shape.height, 0, 0);
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
    case 'picture':
      return boxOf(0, 0, shape.width, shape.height);
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
    case 'offset':
    case 'border':
      return shape.path.verbs.length;
    case 'polygon':
      return shape.sides * (shape.inner === null ? 1 : 2) + 2;
    case 'combined':
      return shape.parts.reduce((sum, part) => sum + verbsIn(part.shape), 0);
    case 'ellipse':
      return ellipseVerbs;
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
  const at = (x: number, y: number, angle: number) => ({ x: x + r * Math.cos(angle), y: y + r * Math.sin(angle) });
  const start = at(x1, y1, along - quarter);
  const right = at(x2, y2, along - quarter);
  const left = at(x1, y1, along + quarter);
  const b = new PathBuilder().moveTo(start.x, start.y).lineTo(right.x, right.y);
  addEllipticArc(b, x2, y2, r, r, 0, along - quarter, Math.PI, at(x2, y2, along + quarter));
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
