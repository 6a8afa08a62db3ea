import { boundsOf, type Item } from '@lambent/core/document';
import { boxHeight, boxWidth } from '@lambent/core/geometry';
import { drawBurnt, type ShownPicture } from '../burnt/burnt-picture.ts';

const around = 1.5;
const pixelsAcross = 320;

/** A cell of a card as it came out, on the stock's own tone, as a PNG; null where the browser makes none. */
export async function cellPicture(shown: ShownPicture, item: Item, tone: string): Promise<Uint8Array | null> {
  const box = boundsOf(item);
  const [width, height] = [boxWidth(box) + 2 * around, boxHeight(box) + 2 * around];
  const scale = pixelsAcross / width;
  const canvas = document.createElement('canvas');
  canvas.width = pixelsAcross;
  canvas.height = Math.round(height * scale);
  const context = canvas.getContext('2d');
  if (!context) return null;
  context.fillStyle = tone;
  context.fillRect(0, 0, canvas.width, canvas.height);
  context.translate(-(box.minX - around) * scale, -(box.minY - around) * scale);
  drawBurnt(context, shown, scale);
  context.resetTransform();
  if (shown.simulated) {
    context.fillStyle = '#1E2A2E';
    context.font = `16px ${getComputedStyle(document.body).fontFamily}`;
    context.fillText('simulated', 8, canvas.height - 8);
  }
  const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
  return blob && new Uint8Array(await blob.arrayBuffer());
}
