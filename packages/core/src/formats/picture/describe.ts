import { imageSize } from 'image-size';
import { FileRefused } from '../refusal.ts';

export type PictureKind = 'png' | 'jpg' | 'webp' | 'gif' | 'bmp';

/** What a picture's header says. */
export interface PictureFacts {
  readonly kind: PictureKind;
  /** In pixels, turned as the picture says it is to be shown. */
  readonly width: number;
  readonly height: number;
}

/** Pictures of more pixels than this are refused: they would not fit into memory once unpacked. */
export const mostPixels = 120e6;

/**
 * Reads a picture's kind and size from its header, without unpacking it.
 * @throws FileRefused when it is none, or too large
 */
export function describePicture(bytes: Uint8Array): PictureFacts {
  const kind = pictureKind(bytes);
  if (!kind) {
    throw new FileRefused('The file is not a picture that is read here. Save it as PNG, JPEG, WebP, GIF or BMP.');
  }
  let size: ReturnType<typeof imageSize>;
  try {
    size = imageSize(bytes);
  } catch {
    throw new FileRefused('The picture is damaged: its header makes no sense. Save or send it again.');
  }
  const sideways = (size.orientation ?? 1) >= 5;
  const [width, height] = sideways ? [size.height, size.width] : [size.width, size.height];
  if (!(width > 0 && height > 0)) throw new FileRefused('The picture has no pixels. Save or send it again.');
  if (width * height > mostPixels) {
    throw new FileRefused(
      `The picture has ${width} × ${height} pixels; up to ${mostPixels / 1e6} million are taken. Make it smaller in the program it comes from.`,
    );
  }
  return { kind, width, height };
}

/** What kind of picture bytes are, by how they start; null for anything else. */
export function pictureKind(bytes: Uint8Array): PictureKind | null {
  const starts = (text: string, offset = 0) =>
    [...text].every((letter, i) => bytes[offset + i] === letter.charCodeAt(0));
  if (starts('\x89PNG\r\n\x1a\n')) return 'png';
  if (bytes[0] === 0xff && bytes[1] === 0xd8 && bytes[2] === 0xff) return 'jpg';
  if (starts('GIF8')) return 'gif';
  if (starts('RIFF') && starts('WEBP', 8)) return 'webp';
  if (starts('BM') && bytes.length > 26) return 'bmp';
  return null;
}

/** The bytes in a `data:` address; null when it is another kind of address or holds none. */
export function bytesOfDataUrl(address: string): Uint8Array | null {
  const match = /^data:([^,]*),/i.exec(address.slice(0, 200));
  if (!match) return null;
  const body = address.slice(match[0].length);
  try {
    const binary = /;base64\s*$/i.test(match[1]) ? atob(body.replace(/\s+/g, '')) : decodeURIComponent(body);
    return binary === '' ? null : Uint8Array.from(binary, (character) => character.charCodeAt(0));
  } catch {
    return null;
  }
}
