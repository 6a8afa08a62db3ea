import { type Box, boxCentre, boxHeight, boxWidth, type Matrix, multiply, type Point } from '@lambent/core/geometry';

/** What the page shows of the bed: bed mm times `scale` plus x, y are pixels of the view. */
export interface View {
  readonly scale: number;
  readonly x: number;
  readonly y: number;
}

export const leastScale = 0.1;
export const mostScale = 200;

/** The rulers along the top and at the left are this thick, in pixels; the view begins beside them. */
export const ruler = 22;

/** From bed mm to pixels of the view. */
export function toScreen(view: View, x: number, y: number): Point {
  return { x: x * view.scale + view.x, y: y * view.scale + view.y };
}

/** From pixels of the view to bed mm. */
export function toBed(view: View, x: number, y: number): Point {
  return { x: (x - view.x) / view.scale, y: (y - view.y) / view.scale };
}

/** Zooms by a factor; the point of the bed under (x, y) stays there. */
export function zoomAt(view: View, x: number, y: number, factor: number): View {
  const scale = Math.min(mostScale, Math.max(leastScale, view.scale * factor));
  const place = toBed(view, x, y);
  return { scale, x: x - place.x * scale, y: y - place.y * scale };
}

/** The view in which a box fills the given size, `room` pixels left free all round. */
export function viewOf(box: Box, width: number, height: number, room = 32): View {
  const scale = Math.min(
    (width - 2 * room) / Math.max(1, boxWidth(box)),
    (height - 2 * room) / Math.max(1, boxHeight(box)),
  );
  const kept = Math.min(mostScale, Math.max(leastScale, scale));
  const centre = boxCentre(box);
  return { scale: kept, x: width / 2 - centre.x * kept, y: height / 2 - centre.y * kept };
}

/** Where on the page a view lies, in pixels, and how large the page is. */
export interface ViewFrame {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
  readonly windowWidth: number;
  readonly windowHeight: number;
}

/**
 * The view after its frame has changed. What is beside it may fold: what it shows stays where it is on the screen. The
 * window may become another size: what was in its middle stays there.
 */
export function keptView(view: View, before: ViewFrame, after: ViewFrame): View {
  return {
    scale: view.scale,
    x: view.x + before.left - after.left + (after.windowWidth - before.windowWidth) / 2,
    y: view.y + before.top - after.top + (after.windowHeight - before.windowHeight) / 2,
  };
}

/** Whether two views show the same, to a hundredth of a pixel. */
export function isSameView(a: View, b: View): boolean {
  return Math.abs(a.x - b.x) < 0.01 && Math.abs(a.y - b.y) < 0.01 && Math.abs(a.scale / b.scale - 1) < 1e-6;
}

/** A map of the screen as the same map of the bed. */
export function screenMapToBed(view: View, map: Matrix): Matrix {
  const { scale, x, y } = view;
  return multiply([1 / scale, 0, 0, 1 / scale, -x / scale, -y / scale], multiply(map, [scale, 0, 0, scale, x, y]));
}
