import type { Drawing } from '../../document/item.ts';
import type { Pixels } from '../../document/pixels.ts';
import { reduced } from '../../pictures/reduced.ts';
import type { Assets } from '../assets.ts';
import type { PictureFile } from '../reading.ts';
import { encodeJpeg, encodePixels } from './encode.ts';

/** How many pixels a thumbnail has across or down, at least where its picture has as many, and less than twice as many. */
const thumbnailSize = 300;
/** A picture of more pixels takes too long to unpack for the sake of a thumbnail. */
const mostPixels = 40_000_000;
/** Of 100: finer than that is not to be seen on a card. */
const jpegQuality = 75;

/**
 * The pictures that a drawing shows, made small for cards, by the ids of the large ones. Those that are not to be had, or too
 * large to be unpacked for it, are left out.
 *
 * @param unpacked gives the pixels of a picture by its id
 */
export async function thumbnailsOf(
  { items }: Drawing,
  unpacked: (pictureId: string) => Promise<Pixels>,
  assets: Assets,
): Promise<Map<string, PictureFile>> {
  const shown = items.flatMap(({ hidden, shape }) => (shape.kind === 'picture' && !hidden ? [shape] : []));
  const thumbnails = new Map<string, PictureFile>();
  for (const { pictureId: id, width, height } of shown) {
    if (thumbnails.has(id) || width * height > mostPixels) continue;
    const pixels = await unpacked(id).catch(() => null);
    if (pixels) thumbnails.set(id, { id, bytes: await thumbnailOf(pixels, assets) });
  }
  return thumbnails;
}

async function thumbnailOf(pixels: Pixels, assets: Assets): Promise<Uint8Array> {
  const small = reduced(pixels, Math.max(1, Math.floor(Math.max(pixels.width, pixels.height) / thumbnailSize)));
  return small.alpha ? encodePixels(small) : encodeJpeg(small, jpegQuality, assets);
}
