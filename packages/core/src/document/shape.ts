import type { BorderSettings } from '../geometry/offsets/border.ts';
import type { OffsetSettings } from '../geometry/offsets/offset.ts';
import type { Corner } from '../geometry/paths/corners.ts';
import type { Matrix } from '../geometry/paths/matrix.ts';
import { textInOrder } from '../schema/in-order.ts';
import { optional, orNull, type Schema, type ValueOf } from '../schema/schema.ts';
import { list, nested, record, unnamed, variants } from '../schema/structures.ts';
import { flag, number, numbers, oneOf, text, wholeNumber, yes } from '../schema/values.ts';
import { codeSetting } from './code.ts';
import { fillRule, matrix, path, pathAmongFields } from './fields.ts';
import { boltTie, partTie, thicknessTie } from './ties.ts';
import { toneSchema } from './tone.ts';
import { traceSettingsSchema } from './traced.ts';

/** No arc goes round more often than ten times, in degrees. */
const mostTurned = 3600;
/** Combinations hold combinations; not deeper than this. */
const deepest = 60;

const corner: Schema<Corner> = record({ x: number(), y: number(), kind: oneOf(['round', 'cut']), size: number() });

const offsetSettings: Schema<OffsetSettings> = record({
  by: number(),
  join: oneOf(['round', 'miter', 'bevel']),
  miterLimit: number(),
  cap: oneOf(['round', 'flat', 'square']),
  ignoreHoles: flag,
  side: oneOf(['both', 'right', 'left']),
});

const borderSettings: Schema<BorderSettings> = record({
  by: number(),
  bridgeGap: number(),
  bridgeWidth: number(),
  inletWidth: number(),
  innerRadius: number(),
  loop: orNull(record({ u: number(), v: number(), holeMm: number(), rimMm: number() })),
});

const textSetting = record({
  words: text,
  family: text,
  bold: flag,
  italic: flag,
  /** How high capitals are. */
  height: number(),
  align: oneOf(['left', 'centre', 'right']),
  /** Added between letters. */
  spacing: number(),
  /** From line to line, as a multiple of the face's own. */
  leading: number(),
  /** How wide its lines may be; null for as wide as they are. */
  width: orNull(number()),
  /** What is done with lines that are wider: all letters smaller or narrower; broken between words where nothing is said. */
  fit: optional(oneOf(['smaller', 'narrower'])),
  /** How low capitals may become where letters are made smaller; 0 where nothing is said. */
  leastHeight: optional(number(0)),
  /** How high it may be, all its lines together, from the top of the first capitals to the last baseline. */
  depth: optional(number(0)),
  /** The line it runs along, in the text's own frame; straight where there is none. */
  along: optional(path),
});

/** What a text says and how it is set; lengths in mm. */
export type TextSetting = ValueOf<typeof textSetting>;

/** One of the shapes that were put together, in the frame of the whole. */
export interface CombinedPart {
  readonly name: string | null;
  readonly shape: Shape;
  readonly matrix: Matrix;
  readonly rule: 'nonzero' | 'evenodd';
}

const combinedPart: Schema<CombinedPart> = record({
  name: orNull(text),
  shape: nested((): Schema<Shape> => shapeSchema, deepest, 'combinations are too deep'),
  matrix,
  rule: fillRule,
});

const fourRadii = numbers(4) as unknown as Schema<readonly [number, number, number, number]>;

/** What an item is, in its own numbers (mm, degrees): a shape keeps them until it is turned into points. */
export const shapeSchema = variants(
  'kind',
  {
    /** Lines and curves; `corners` are rounded or cut off, and stay so when the path is changed. */
    path: { path: pathAmongFields, corners: optional(list(corner)) },
    rectangle: {
      x: number(),
      y: number(),
      width: number(),
      height: number(),
      /** Corner radii along x and y; 0 for square corners. */
      rx: number(),
      ry: number(),
      /** A radius for each corner of its own, clockwise from the top left; rx and ry do not count then. */
      corners: optional(fourRadii),
      /** Where one side goes by the thickness of the stock. */
      tied: optional(thicknessTie),
    },
    ellipse: {
      cx: number(),
      cy: number(),
      rx: number(),
      ry: number(),
      /** The bolt that a round hole is for. */
      bolt: optional(unnamed(boltTie, 'bolt ')),
    },
    /** A straight slot with round ends, by the centres of those and its width. */
    slot: {
      x1: number(),
      y1: number(),
      x2: number(),
      y2: number(),
      width: number(),
      /** Where its width goes by the thickness of the stock. */
      tied: optional(thicknessTie),
    },
    /** A regular polygon, or a star where it has an inner radius. `turn` is how far its first corner is from the top. */
    polygon: {
      cx: number(),
      cy: number(),
      radius: number(),
      sides: wholeNumber(3, 1000),
      inner: orNull(number()),
      turn: number(),
    },
    /** A part of a circle, from an angle (0 to the right, clockwise on the screen) over a sweep. */
    arc: { cx: number(), cy: number(), radius: number(), from: number(), sweep: number(-mostTurned, mostTurned) },
    /** A text, with the outlines it was set in: they are as lasting as the rest of the drawing. */
    text: {
      text: textSetting,
      path: pathAmongFields,
      /** How high its capitals came out, where they were made smaller to fit. */
      madeHeight: optional(number()),
      /** By how much it is too wide or too high for its frame all the same. */
      over: optional(number()),
    },
    /** A code that is read by a camera or a scanner: what burns of it, in its own frame. */
    code: { code: codeSetting, path: pathAmongFields, moduleMm: number() },
    /** Shapes put together, each still there to be changed. */
    combined: { how: oneOf(['unite', 'subtract', 'intersect', 'exclude']), parts: list(combinedPart) },
    /**
     * What lies at a distance from other items, with the outline that comes to: it is made anew when they change. The
     * outline is in bed mm; whatever holds it stays where it is. One that `meets` its source is centred about (0, 0)
     * instead, and lies wherever it is put: its size follows, its place does not.
     */
    offset: {
      sources: list(text),
      settings: offsetSettings,
      meets: optional(partTie),
      path: pathAmongFields,
      /** Its sources have changed, and what they come to is still being worked out. */
      stale: yes,
    },
    /** One outer edge around other items, made anew like an offset, in bed mm. */
    border: { sources: list(text), settings: borderSettings, path: pathAmongFields, stale: yes },
    /**
     * The outlines of what a picture shows, in bed mm; they go where the picture goes. `frame` is where it lay, one unit
     * a pixel, when they were there.
     */
    traced: {
      sources: list(text),
      settings: traceSettingsSchema,
      frame: matrix,
      path: pathAmongFields,
      /** Of middle lines, how wide the stroke of each is, in the picture's pixels. */
      widthsPx: optional(list(number())),
      stale: yes,
    },
    /** A picture from (0, 0), one unit a pixel; its outline is its frame, or its crop, `visible` what shows of it where that was found, `tone` how its greys burn. */
    picture: {
      pictureId: text,
      width: number(),
      height: number(),
      visible: optional(path),
      /** Closed outlines within its frame: what lies in them counts, and nothing else does. All of it where there are none. */
      crop: optional(path),
      tone: optional(toneSchema),
    },
  },
  (kind) => `“${String(kind)}” is not a kind of shape`,
);

export type Shape = ValueOf<typeof shapeSchema>;

/** A shape that is made from other items, and follows them. */
export type FollowingShape = Extract<Shape, { readonly sources: readonly string[] }>;

/** Whether a shape is worked out from other items, and anew when they change. */
export function isFollowing(shape: Shape): shape is FollowingShape {
  return shape.kind === 'offset' || shape.kind === 'border' || shape.kind === 'traced';
}

/** Whether two shapes are the same in every number. */
export function sameShape(a: Shape, b: Shape): boolean {
  return a === b || textInOrder(shapeSchema.write?.(a)) === textInOrder(shapeSchema.write?.(b));
}
