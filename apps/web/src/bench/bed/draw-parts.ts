import type { Item } from '@lambent/core/document';
import type { Context2D } from './context-2d.ts';
import { drawPaint } from './draw-artwork.ts';

/** Items in their own paints; hidden ones only while they are pointed out. */
export function drawParts(
  context: Context2D,
  parts: readonly { readonly item: Item; readonly outline: Path2D }[],
  pointedOut: ReadonlySet<string>,
  px: number,
  ink: string,
  measured: string | null,
): void {
  for (const { item, outline } of parts) {
    const out = pointedOut.has(item.id) || measured === item.id;
    if (item.hidden && !out) continue;
    if (out) {
      context.setLineDash([]);
      context.lineWidth = 7 * px;
      context.strokeStyle = 'rgb(240 169 59 / 0.75)';
      context.stroke(outline);
    }
    if (item.hidden) {
      context.setLineDash([2 * px, 3 * px]);
      context.lineWidth = 1.4 * px;
      context.strokeStyle = ink;
      context.stroke(outline);
    } else drawPaint(context, item, outline, px);
  }
}
