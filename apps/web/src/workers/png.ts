import { type Item, pathOf } from '@lambent/core/document';
import type { Outgoing } from '@lambent/core/formats';
import { boxHeight, boxWidth, pathData } from '@lambent/core/geometry';
import { drawFade, seeThrough } from '../bench/bed/draw-fade.ts';

/** Larger pictures than this along a side are not drawn by browsers. */
const longestSide = 16_384;

/**
 * Draws what goes out as PNG, over white.
 * @throws RangeError when it would be larger than a browser can draw
 */
export async function drawPng({ page, layers, pictures }: Outgoing, pixelsPerInch: number): Promise<Blob> {
  const scale = pixelsPerInch / 25.4;
  const [width, height] = [Math.round(boxWidth(page) * scale), Math.round(boxHeight(page) * scale)];
  if (width > longestSide || height > longestSide) {
    throw new RangeError(
      `At ${pixelsPerInch} pixels to the inch the picture would be ${width} × ${height} pixels; up to ${longestSide} a side can be drawn. Choose fewer.`,
    );
  }
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d');
  if (!context) throw new RangeError('This browser cannot draw pictures.');
  context.fillStyle = '#FFFFFF';
  context.fillRect(0, 0, width, height);
  context.setTransform(scale, 0, 0, scale, -page.minX * scale, -page.minY * scale);
  for (const { items } of layers) {
    for (const item of items) {
      if (item.shape.kind === 'picture') {
        const file = pictures.get(item.shape.pictureId);
        if (file) await drawPicture(context, item, file.bytes);
      } else drawOutline(context, item, 1 / scale);
    }
  }
  return canvas.convertToBlob({ type: 'image/png' });
}

async function drawPicture(context: OffscreenCanvasRenderingContext2D, item: Item, bytes: Uint8Array): Promise<void> {
  const bitmap = await createImageBitmap(new Blob([bytes.slice()]));
  context.save();
  context.transform(...item.matrix);
  if (item.shape.kind === 'picture' && item.shape.crop) context.clip(new Path2D(pathData(item.shape.crop)));
  context.drawImage(bitmap, 0, 0);
  context.restore();
}

function drawOutline(context: OffscreenCanvasRenderingContext2D, item: Item, pixel: number): void {
  const outline = new Path2D(pathData(pathOf(item)));
  const { stroke, strokeWidthMm, fill, cap, join } = item.paint;
  if (fill !== null && !drawFade(context, item, outline, seeThrough)) {
    context.fillStyle = fill;
    context.fill(outline, item.fillRule);
  }
  if (stroke !== null) {
    context.lineCap = cap ?? 'butt';
    context.lineJoin = join ?? 'miter';
    context.lineWidth = Math.max(pixel, strokeWidthMm);
    context.strokeStyle = stroke;
    context.stroke(outline);
  }
}
