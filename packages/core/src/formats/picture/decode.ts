import type { Pixels } from '../../document/pixels.ts';
import type { Assets } from '../assets.ts';
import { FileRefused } from '../refusal.ts';
import { decodeBmp } from './bmp.ts';
import { decodeJpeg, decodePng, decodeWebp } from './codecs.ts';
import { describePicture, mostPixels, type PictureKind } from './describe.ts';
import { encodePixels } from './encode.ts';
import { isCutShort } from './jpeg-segments.ts';
import { hasPngChunk } from './png-chunks.ts';
import { firstFrame } from './webp.ts';

/** What decoders give: one byte a channel, or two; see-through pixels are laid over white. */
interface Raster {
  readonly width: number;
  readonly height: number;
  readonly channels: number;
  readonly depth: number;
  readonly data: ArrayLike<number>;
}

/** Red, green, blue and opacity, a byte each. */
const fourBytes = { channels: 4, depth: 8 } as const;

/**
 * Unpacks a picture: turned as it says, over white, eight bits a channel.
 * @param assets gives what unpacks JPEG and WebP, and some PNG
 * @throws FileRefused when it is damaged
 */
export async function decodePicture(bytes: Uint8Array, assets: Assets): Promise<Pixels> {
  const { kind } = describePicture(bytes);
  let raster: Raster;
  try {
    raster = await unpack(bytes, kind, assets);
  } catch (error) {
    if (error instanceof FileRefused) throw error;
    throw new FileRefused('The picture is damaged and cannot be unpacked. Save or send it again.');
  }
  const pixels = overWhite(raster);
  return kind === 'jpg' ? turn(pixels, await orientationOf(bytes)) : pixels;
}

/**
 * A picture as every reader takes it: the very bytes of an upright JPEG in plain colours, or of a PNG of eight bits a
 * channel that is not interlaced; of others their pixels as PNG.
 * @throws FileRefused when it is damaged
 */
export async function plainPicture(bytes: Uint8Array, assets: Assets): Promise<Uint8Array> {
  const { kind } = describePicture(bytes);
  const isPlainJpeg = kind === 'jpg' && jpegChannels(bytes) !== 4 && !isCutShort(bytes);
  if (isPlainJpeg && (await orientationOf(bytes)) === 1) return bytes;
  const pixels = await decodePicture(bytes, assets);
  return kind === 'png' && isPlainPng(bytes) ? bytes : encodePixels(pixels);
}

/** Each kind's package is loaded when a picture of it comes. */
async function unpack(bytes: Uint8Array, kind: PictureKind, assets: Assets): Promise<Raster> {
  switch (kind) {
    case 'png': {
      if (isUnusualPng(bytes)) return { ...(await decodePng(bytes, assets)), ...fourBytes };
      const { convertIndexedToRgb, decode } = await import('fast-png');
      const png = decode(bytes);
      if (!png.palette) return png;
      const channels = png.palette[0].length;
      return { width: png.width, height: png.height, depth: 8, channels, data: convertIndexedToRgb(png) };
    }
    case 'jpg': {
      const whole = isCutShort(bytes) ? withEnd(bytes) : bytes;
      if (jpegChannels(bytes) < 4) return { ...(await decodeJpeg(whole, assets)), ...fourBytes };
      const { default: jpeg } = await import('jpeg-js');
      const { width, height, data } = jpeg.decode(whole, {
        useTArray: true,
        maxResolutionInMP: mostPixels / 1e6,
        maxMemoryUsageInMB: 2048,
      });
      return { width, height, data, ...fourBytes };
    }
    case 'gif': {
      const { GifReader } = await import('omggif');
      const gif = new GifReader(bytes as unknown as Buffer);
      const data = new Uint8Array(gif.width * gif.height * 4);
      gif.decodeAndBlitFrameRGBA(0, data as unknown as Buffer);
      return { width: gif.width, height: gif.height, data, ...fourBytes };
    }
    case 'webp': {
      const frame = await decodeWebp(firstFrame(bytes), assets);
      return onCanvas({ ...frame, ...fourBytes }, describePicture(bytes));
    }
    case 'bmp':
      return decodeBmp(bytes);
  }
}

/** A JPEG with the mark at its end, which some lack that are whole otherwise. */
function withEnd(bytes: Uint8Array): Uint8Array {
  const whole = new Uint8Array(bytes.length + 2);
  whole.set(bytes);
  whole.set([0xff, 0xd9], bytes.length);
  return whole;
}

/**
 * Whether a PNG has what the usual package does not read: several pixels to a byte without a palette, or interlaced,
 * or a colour that is see-through.
 */
function isUnusualPng(bytes: Uint8Array): boolean {
  const [depth, colourType, interlaced] = [bytes[24], bytes[25], bytes[28] === 1];
  const plain = colourType === 0 || colourType === 2;
  return (depth < 8 && (plain || interlaced)) || (plain && hasPngChunk(bytes, 'tRNS'));
}

/** Whether a PNG has eight bits a channel, and is neither interlaced nor see-through by a colour. */
function isPlainPng(bytes: Uint8Array): boolean {
  return bytes[24] === 8 && bytes[28] === 0 && !isUnusualPng(bytes);
}

/** A picture in the top left of a canvas that may be larger. */
function onCanvas(raster: Raster, { width, height }: { readonly width: number; readonly height: number }): Raster {
  if (raster.width === width && raster.height === height) return raster;
  const data = new Uint8Array(width * height * 4);
  for (let y = 0; y < Math.min(height, raster.height); y++) {
    for (let k = 0; k < 4 * Math.min(width, raster.width); k++) {
      data[4 * width * y + k] = raster.data[4 * raster.width * y + k];
    }
  }
  return { width, height, data, ...fourBytes };
}

function overWhite({ width, height, channels, depth, data }: Raster): Pixels {
  const rgb = new Uint8Array(width * height * 3);
  const most = 2 ** depth - 1;
  const grey = channels < 3;
  const alpha = channels % 2 === 0 ? new Uint8Array(width * height) : null;
  let isSolid = true;
  for (let i = 0, k = 0; i < width * height; i++, k += channels) {
    const opacity = alpha ? data[k + channels - 1] / most : 1;
    if (alpha) alpha[i] = Math.round(255 * opacity);
    if (opacity < 1) isSolid = false;
    for (let c = 0; c < 3; c++) {
      const value = data[grey ? k : k + c] / most;
      rgb[3 * i + c] = Math.round(255 * (value * opacity + 1 - opacity));
    }
  }
  return isSolid ? { width, height, rgb } : { width, height, rgb, alpha };
}

async function orientationOf(bytes: Uint8Array): Promise<number> {
  const { default: exifr } = await import('exifr');
  try {
    return (await exifr.orientation(bytes)) ?? 1;
  } catch {
    return 1;
  }
}

/** Turns and mirrors by EXIF's orientation, 1 to 8. */
function turn(pixels: Pixels, orientation: number): Pixels {
  if (orientation < 2 || orientation > 8) return pixels;
  const { width, height, rgb } = pixels;
  const sideways = orientation >= 5;
  const [wide, high] = sideways ? [height, width] : [width, height];
  const out = new Uint8Array(rgb.length);
  for (let y = 0; y < high; y++) {
    for (let x = 0; x < wide; x++) {
      const [u, v] = [
        [x, y],
        [wide - 1 - x, y],
        [wide - 1 - x, high - 1 - y],
        [x, high - 1 - y],
        [y, x],
        [y, wide - 1 - x],
        [high - 1 - y, wide - 1 - x],
        [high - 1 - y, x],
      ][orientation - 1];
      const from = 3 * (v * width + u);
      out.set(rgb.subarray(from, from + 3), 3 * (y * wide + x));
    }
  }
  return { width: wide, height: high, rgb: out };
}

/** How many colour channels a JPEG has, by its frame header; 4 is CMYK. */
function jpegChannels(bytes: Uint8Array): number {
  for (let offset = 2; offset + 9 < bytes.length && bytes[offset] === 0xff; ) {
    const marker = bytes[offset + 1];
    if (marker >= 0xc0 && marker <= 0xcf && marker !== 0xc4 && marker !== 0xc8 && marker !== 0xcc)
      return bytes[offset + 9];
    offset += 2 + bytes[offset + 2] * 256 + bytes[offset + 3];
  }
  return 3;
}
