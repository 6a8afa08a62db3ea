import type { Shape } from '@lambent/core/document';
import type { Point } from '@lambent/core/geometry';
import { t } from '../../words/words.ts';
import type { DraftField } from './tool.ts';
import type { ToolOptions } from './tool-options.ts';

type Numbers = Record<string, number>;

/** How a shape follows from where a drag began, where the pointer is, and numbers that were typed. */
export interface ShapeRecipe {
  readonly title: string;
  readonly fields: readonly Pick<DraftField, 'name' | 'label' | 'kind'>[];
  /** What the pointer says; `even` is for squares, circles and steps of the angle. */
  measure(from: Point, to: Point, even: boolean, options: ToolOptions): Numbers;
  /** @param towards which way the pointer lies, -1 or 1 along x and y */
  make(from: Point, towards: Point, numbers: Numbers, options: ToolOptions): Shape;
  /** What is wrong with numbers, in a sentence. */
  trouble?(numbers: Numbers, options: ToolOptions): string | undefined;
}

/** An angle brought to the nearest step. */
export function stepped(degrees: number, step: number): number {
  return Math.round(degrees / step) * step;
}

/** The angle from a point to another as it is typed: 0 to the right, 90 up. */
export function angleTo(from: Point, to: Point): number {
  const degrees = (Math.atan2(from.y - to.y, to.x - from.x) * 180) / Math.PI;
  return Math.abs(degrees) < 1e-9 ? 0 : degrees;
}

/** The point at a length and an angle from another; degrees are counted anticlockwise on the screen from the right. */
export function pointAtAngle(from: Point, length: number, degrees: number): Point {
  const angle = (degrees * Math.PI) / 180;
  return { x: from.x + length * Math.cos(angle), y: from.y - length * Math.sin(angle) };
}

const box = (from: Point, towards: Point, width: number, height: number, centred: boolean) => {
  if (centred) return { x: from.x - width / 2, y: from.y - height / 2 };
  return { x: towards.x < 0 ? from.x - width : from.x, y: towards.y < 0 ? from.y - height : from.y };
};

function measureBox(from: Point, to: Point, even: boolean, { centred }: ToolOptions): Numbers {
  let [width, height] = [Math.abs(to.x - from.x), Math.abs(to.y - from.y)];
  if (even) width = height = Math.max(width, height);
  return centred ? { width: width * 2, height: height * 2 } : { width, height };
}

const sizes = [
  { name: 'width', label: 'W', kind: 'length' },
  { name: 'height', label: 'H', kind: 'length' },
] as const;

export const shapeRecipes: Record<'rectangle' | 'ellipse' | 'slot' | 'polygon', ShapeRecipe> = {
  rectangle: {
    title: t('rectangle'),
    fields: sizes,
    measure: measureBox,
    make(from, towards, { width, height }, { centred, radius }) {
      const r = Math.min(radius, width / 2, height / 2);
      return { kind: 'rectangle', ...box(from, towards, width, height, centred), width, height, rx: r, ry: r };
    },
    trouble({ width, height }, { radius }) {
      if (radius * 2 <= Math.min(width, height) + 1e-9 || radius === 0) return undefined;
      return t('Corners of {{radius}} mm are too large for it; they are {{width}} mm.', {
        radius,
        width: Math.min(width, height) / 2,
      });
    },
  },
  ellipse: {
    title: t('ellipse'),
    fields: sizes,
    measure: measureBox,
    make(from, towards, { width, height }, { centred }) {
      const { x, y } = box(from, towards, width, height, centred);
      return { kind: 'ellipse', cx: x + width / 2, cy: y + height / 2, rx: width / 2, ry: height / 2 };
    },
  },
  slot: {
    title: t('slot'),
    fields: [
      { name: 'length', label: 'L', kind: 'length' },
      { name: 'angle', label: '∠', kind: 'angle' },
    ],
    measure(from, to, even, { angleStep, slotWidth, centred }) {
      const angle = angleTo(from, to);
      const between = Math.hypot(to.x - from.x, to.y - from.y) * (centred ? 2 : 1);
      return { length: between + slotWidth, angle: even ? stepped(angle, angleStep) : angle };
    },
    make(from, _, { length, angle }, { slotWidth, centred }) {
      const between = Math.max(0, length - slotWidth);
      const end = pointAtAngle(from, centred ? between / 2 : between, angle);
      const start = centred ? pointAtAngle(from, -between / 2, angle) : from;
      return { kind: 'slot', x1: start.x, y1: start.y, x2: end.x, y2: end.y, width: slotWidth };
    },
    trouble: ({ length }, { slotWidth }) =>
      length < slotWidth ? t('A slot is at least as long as it is wide: {{slotWidth}} mm.', { slotWidth }) : undefined,
  },
  polygon: {
    title: t('polygon'),
    fields: [
      { name: 'radius', label: 'R', kind: 'length' },
      { name: 'angle', label: '∠', kind: 'angle' },
    ],
    measure(from, to, even, { angleStep }) {
      const angle = angleTo(from, to);
      return {
        radius: Math.hypot(to.x - from.x, to.y - from.y),
        angle: even ? stepped(angle, angleStep) : angle,
      };
    },
    make(from, _, { radius, angle }, { sides, star, starDepth }) {
      const inner = star ? radius * (1 - starDepth / 100) : null;
      return { kind: 'polygon', cx: from.x, cy: from.y, radius, sides, inner, turn: 90 - angle };
    },
  },
};
