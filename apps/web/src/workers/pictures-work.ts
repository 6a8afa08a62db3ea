import type { TraceSettings } from '@lambent/core/document';
import { encodePixels, pictureFile, visiblePart } from '@lambent/core/formats';
import type { Path, Point, Progress } from '@lambent/core/geometry';
import { histogramOf, straighten } from '@lambent/core/pictures';
import type { TracedPath } from '@lambent/core/pictures/trace';
import { type BurntLook, burntLook, type GrainSamples, grainSamples, type PlacedPicture } from '@lambent/core/plan';
import type { LayerSettings } from '@lambent/core/settings';
import { moved } from './worker-answer.ts';
import { unpacked } from './worker-files.ts';

/** What the worker knows to do with pictures. */
export const picturesWork = {
  /** What shows of a picture, in its pixels. */
  async visiblePart(_: Progress, pictureId: string): Promise<Path> {
    return visiblePart(await unpacked(pictureId));
  },

  /** How many pixels of a picture are how bright, in so many bins. */
  async histogram(_: Progress, pictureId: string, bins: number): Promise<Uint32Array> {
    return histogramOf(await unpacked(pictureId), bins);
  },

  /**
   * The outlines that a picture shows, in its pixels: one path, one for each middle line, or one for each colour.
   * @param mm how large a pixel is on the bed
   * @param mostPixels a picture of more is reduced first: a quick look; null for the true outlines
   */
  async outlines(
    _: Progress,
    pictureId: string,
    settings: TraceSettings,
    mm: number,
    mostPixels: number | null,
  ): Promise<TracedPath[]> {
    const { tracePicture } = await import('@lambent/core/pictures/trace');
    return tracePicture(await unpacked(pictureId), settings, mm, mostPixels ?? Number.POSITIVE_INFINITY);
  },

  /** A picture without its perspective, as PNG, with how large its pixels are, and where it lies from what was marked. */
  async straightened(
    _: Progress,
    pictureId: string,
    corners: readonly Point[],
    size: { readonly widthMm: number; readonly heightMm: number },
    isAround: boolean,
  ) {
    const { pixels, ...place } = straighten(await unpacked(pictureId), corners, size, isAround);
    const { id, bytes } = pictureFile(await encodePixels(pixels));
    return { ...place, id, bytes, width: pixels.width, height: pixels.height };
  },

  /** The part of a picture around a place of the bed as each grain burns it; null where it has no area. */
  async grainSamples(
    _: Progress,
    pictureId: string,
    picture: Omit<PlacedPicture, 'pixels'>,
    settings: LayerSettings,
    around: Point,
    most: { readonly columns: number; readonly rows: number },
  ): Promise<GrainSamples | null> {
    return grainSamples({ ...picture, pixels: await unpacked(pictureId) }, settings, around, most);
  },

  /** How a picture burns, to be looked at; null where it has no area. */
  async burntLook(
    _: Progress,
    pictureId: string,
    picture: Omit<PlacedPicture, 'pixels'>,
    settings: LayerSettings,
    mostCells: number,
  ): Promise<BurntLook | null> {
    const look = burntLook({ ...picture, pixels: await unpacked(pictureId) }, settings, mostCells);
    return look && moved(look, [look.burnt.buffer as ArrayBuffer]);
  },
};
