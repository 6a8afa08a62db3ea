import type { Matrix, Point } from './matrix.ts';

/** An upright rectangle in mm, y down. An empty box has minX > maxX. */
export interface Box {
  readonly minX: number;
  readonly minY: number;
  readonly maxX: number;
  readonly maxY: number;
}

export const emptyBox: Box = { minX: Infinity, minY: Infinity, maxX: -Infinity, maxY: -Infinity };

/** Whether a box holds no point at all; one of no width holds some. */
export function isEmpty(box: Box): boolean {
  return !(box.minX <= box.maxX && box.minY <= box.maxY);
}

/** The boxes of things as numbers, four each in turn: minX, minY, maxX, maxY. Of thousands they are read faster so. */
export function numbersOfBoxes<T>(things: readonly T[], boxOf: (thing: T) => Box): Float64Array<ArrayBuffer> {
  const numbers = new Float64Array(4 * things.length);
  things.forEach((thing, i) => {
    const { minX, minY, maxX, maxY } = boxOf(thing);
    numbers[4 * i] = minX;
    numbers[4 * i + 1] = minY;
    numbers[4 * i + 2] = maxX;
    numbers[4 * i + 3] = maxY;
  });
  return numbers;
}

/** One of such boxes. */
export function boxAt(numbers: Float64Array, i: number): Box {
  return { minX: numbers[4 * i], minY: numbers[4 * i + 1], maxX: numbers[4 * i + 2], maxY: numbers[4 * i + 3] };
}

/** A box from its top left. */
export function boxOf(x: number, y: number, width: number, height: number): Box {
  return { minX: x, minY: y, maxX: x + width, maxY: y + height };
}

/** 0 for the empty box. */
export function boxWidth(box: Box): number {
  return Math.max(0, box.maxX - box.minX);
}

/** 0 for the empty box. */
export function boxHeight(box: Box): number {
  return Math.max(0, box.maxY - box.minY);
}

/** The box around two. */
export function uniteBoxes(a: Box, b: Box): Box {
  return {
    minX: Math.min(a.minX, b.minX),
    minY: Math.min(a.minY, b.minY),
    maxX: Math.max(a.maxX, b.maxX),
    maxY: Math.max(a.maxY, b.maxY),
  };
}

/** A box with all sides moved out. @param distance how far; below 0 it shrinks */
export function growBox(box: Box, distance: number): Box {
  return { minX: box.minX - distance, minY: box.minY - distance, maxX: box.maxX + distance, maxY: box.maxY + distance };
}

/** Whether `inner` lies in `outer`, `slack` mm over the edge allowed. */
export function boxContains(outer: Box, inner: Box, slack = 0): boolean {
  return (
    inner.minX >= outer.minX - slack &&
    inner.minY >= outer.minY - slack &&
    inner.maxX <= outer.maxX + slack &&
    inner.maxY <= outer.maxY + slack
  );
}

/** Whether two boxes have a point in common, if only of their edges. */
export function boxesMeet(a: Box, b: Box): boolean {
  return a.minX <= b.maxX && b.minX <= a.maxX && a.minY <= b.maxY && b.minY <= a.maxY;
}

/** The upright box around a box that a map has moved; an empty one stays empty. */
export function transformBox(box: Box, [a, b, c, d, e, f]: Matrix): Box {
  if (isEmpty(box)) return emptyBox;
  const { minX, minY, maxX, maxY } = box;
  return {
    minX: Math.min(a * minX, a * maxX) + Math.min(c * minY, c * maxY) + e,
    minY: Math.min(b * minX, b * maxX) + Math.min(d * minY, d * maxY) + f,
    maxX: Math.max(a * minX, a * maxX) + Math.max(c * minY, c * maxY) + e,
    maxY: Math.max(b * minX, b * maxX) + Math.max(d * minY, d * maxY) + f,
  };
}

/** The middle of a box that is not empty. */
export function boxCentre(box: Box): Point {
  return { x: (box.minX + box.maxX) / 2, y: (box.minY + box.maxY) / 2 };
}

/** The least move that brings a box within another, in mm; null where that has no room for it. */
export function shiftInto(box: Box, room: Box): { dx: number; dy: number } | null {
  if (boxWidth(box) > boxWidth(room) || boxHeight(box) > boxHeight(room)) return null;
  const shift = (least: number, most: number, low: number, high: number) =>
    least < low ? low - least : most > high ? high - most : 0;
  return {
    dx: shift(box.minX, box.maxX, room.minX, room.maxX),
    dy: shift(box.minY, box.maxY, room.minY, room.maxY),
  };
}
