import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import type { Matrix } from '../../geometry/paths/matrix.ts';
import type { PictureFile } from '../reading.ts';
import type { PictureFacts } from './describe.ts';

/** A picture's bytes under the name that items know it by. */
export function pictureFile(bytes: Uint8Array): PictureFile {
  return { id: bytesToHex(sha256(bytes)), bytes };
}

/**
 * Where a picture comes to lie in a frame: from its pixels to the frame's units.
 * A side that is not given follows from the picture; null when there is no extent.
 */
export function fitPicture(
  { width, height }: Pick<PictureFacts, 'width' | 'height'>,
  frameWidth: number | null,
  frameHeight: number | null,
  fit: (from: { x: number; y: number; width: number; height: number }, toWidth: number, toHeight: number) => Matrix,
): Matrix | null {
  const wide = frameWidth ?? (frameHeight === null ? width : (frameHeight * width) / height);
  const high = frameHeight ?? (frameWidth === null ? height : (frameWidth * height) / width);
  return wide > 0 && high > 0 ? fit({ x: 0, y: 0, width, height }, wide, high) : null;
}
