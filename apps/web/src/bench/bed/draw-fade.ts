import type { Item } from '@lambent/core/document';
import { invert, multiply } from '@lambent/core/geometry';
import type { Context2D } from './context-2d.ts';

/**
 * Fills an outline as its item fades.
 * @param outline in the units of the context
 * @param inkOf what is drawn in a colour that is so solid, 0 to 1
 * @returns whether it did: not where the item does not fade
 */
export function drawFade(
  context: Context2D,
  { paint: { fill, fade }, matrix, fillRule }: Item,
  outline: Path2D,
  inkOf: (colour: string, opacity: number) => string,
): boolean {
  if (!fade || fill === null) return false;
  if (fade.kind === 'even') {
    context.fillStyle = inkOf(fill, fade.opacity);
    context.fill(outline, fillRule);
    return true;
  }
  const toOutline = multiply(matrix, fade.matrix);
  const back = invert(toOutline);
  if (!back) return false;
  const { from, to } = fade;
  const ink =
    fade.kind === 'linear'
      ? context.createLinearGradient(from.x, from.y, to.x, to.y)
      : context.createRadialGradient(from.x, from.y, fade.from.radius, to.x, to.y, fade.to.radius);
  for (const { at, colour, opacity } of fade.stops) ink.addColorStop(at, inkOf(colour, opacity));
  const inside = new Path2D();
  inside.addPath(outline, new DOMMatrix([...back]));
  context.save();
  context.transform(...toOutline);
  context.fillStyle = ink;
  context.fill(inside, fillRule);
  context.restore();
  return true;
}

/** A colour that is so solid, as the canvas takes it. */
export function seeThrough(colour: string, opacity: number): string {
  const byte = Math.round(255 * opacity);
  return `${colour}${byte.toString(16).padStart(2, '0')}`;
}
