import { addEllipticArc } from '../geometry/paths/arc.ts';
import { type Path, PathBuilder } from '../geometry/paths/path.ts';

/** An outline or an opening about (0, 0): a rectangle by half its sides, with round corners, or a circle. In mm. */
export type Form =
  | { readonly kind: 'rectangle'; readonly halfX: number; readonly halfY: number; readonly corner: number }
  | { readonly kind: 'round'; readonly radius: number };

/** How far inside of a form's edge a place is, in mm; below 0 outside. */
export function depthIn(form: Form, x: number, y: number): number {
  if (form.kind === 'round') return form.radius - Math.hypot(x, y);
  const { halfX, halfY, corner } = form;
  const [qx, qy] = [Math.abs(x) - halfX + corner, Math.abs(y) - halfY + corner];
  return corner - Math.hypot(Math.max(qx, 0), Math.max(qy, 0)) - Math.min(Math.max(qx, qy), 0);
}

/** How far a form reaches to a side. */
export const reachOf = (form: Form, axis: 'x' | 'y') =>
  form.kind === 'round' ? form.radius : axis === 'x' ? form.halfX : form.halfY;

/** A form turned by a quarter. */
export const turnedForm = (form: Form): Form =>
  form.kind === 'round' ? form : { ...form, halfX: form.halfY, halfY: form.halfX };

/** A channel leaves a form towards +y, so wide to both sides of the middle. At which y it does. */
const mouthOf = (form: Form, half: number) =>
  form.kind === 'round' ? Math.sqrt(form.radius ** 2 - half ** 2) : form.halfY;

/**
 * Goes round a form from one side of its mouth to the other, the long way: from (-half, y) by -x where `side` is 1,
 * from (half, y) by +x where it is -1. Circles are cut where they cross the x axis, so that they are exact there.
 */
function addRest(builder: PathBuilder, form: Form, half: number, side: 1 | -1): void {
  if (form.kind === 'round') {
    const angle = Math.atan2(mouthOf(form, half), half);
    let from = side === 1 ? Math.PI - angle : angle;
    for (const sweep of [angle, Math.PI, angle]) {
      addEllipticArc(builder, 0, 0, form.radius, form.radius, 0, from, side * sweep);
      from += side * sweep;
    }
    return;
  }
  const { halfX, halfY, corner } = form;
  const lineTo = (x: number, y: number) => {
    if (Math.hypot(x - builder.x, y - builder.y) > 1e-9) builder.lineTo(x, y);
  };
  const [x, y] = [halfX - corner, halfY - corner];
  const corners = [
    { cx: -side * x, cy: y, from: Math.PI / 2 },
    { cx: -side * x, cy: -y, from: side === 1 ? Math.PI : 0 },
    { cx: side * x, cy: -y, from: -Math.PI / 2 },
    { cx: side * x, cy: y, from: side === 1 ? 0 : Math.PI },
  ];
  for (const { cx, cy, from } of corners) {
    lineTo(cx + corner * Math.cos(from), cy + corner * Math.sin(from));
    if (corner > 0) addEllipticArc(builder, cx, cy, corner, corner, 0, from, (side * Math.PI) / 2);
  }
  lineTo(side * half, halfY);
}

/** Goes across a form's mouth along its edge: from (side · half, y) to (-side · half, y). */
function addMouth(builder: PathBuilder, form: Form, half: number, side: 1 | -1): void {
  if (form.kind === 'rectangle') {
    builder.lineTo(-side * half, form.halfY);
    return;
  }
  const angle = Math.atan2(mouthOf(form, half), half);
  const from = side === 1 ? angle : Math.PI - angle;
  addEllipticArc(builder, 0, 0, form.radius, form.radius, 0, from, side * (Math.PI - 2 * angle));
}

/** A whole form. @param half of the channel that leaves it in other layers, so that it has the same points; 0 for none. */
export function formPath(form: Form, half: number): Path {
  const builder = new PathBuilder();
  const from = form.kind === 'round' ? half : form.halfX - form.corner;
  builder.moveTo(-from, mouthOf(form, from));
  addRest(builder, form, from, 1);
  if (form.kind === 'round' && half > 0) addMouth(builder, form, half, 1);
  return builder.close().build();
}

/** An outline whose opening runs out over its edge: one line around both. Without an opening the channel ends in the middle. */
export function notchedPath(outline: Form, opening: Form | null, half: number): Path {
  const builder = new PathBuilder().moveTo(-half, mouthOf(outline, half));
  addRest(builder, outline, half, 1);
  builder.lineTo(half, opening ? mouthOf(opening, half) : 0);
  if (opening) addRest(builder, opening, half, -1);
  else builder.lineTo(-half, 0);
  return builder.close().build();
}

/** A channel alone: from the opening, or from the middle, to the edge. */
export function channelPath(outline: Form, opening: Form | null, half: number): Path {
  const builder = new PathBuilder()
    .moveTo(half, mouthOf(outline, half))
    .lineTo(half, opening ? mouthOf(opening, half) : 0);
  if (opening) addMouth(builder, opening, half, 1);
  else builder.lineTo(-half, 0);
  builder.lineTo(-half, mouthOf(outline, half));
  addMouth(builder, outline, half, -1);
  return builder.close().build();
}
