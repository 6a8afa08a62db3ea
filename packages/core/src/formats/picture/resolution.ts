import exifr from 'exifr';
import type { PictureKind } from './describe.ts';
import { pngChunks } from './png-chunks.ts';

/** Pixels to the inch along x and y. */
export interface Resolution {
  readonly x: number;
  readonly y: number;
}

/** The physical resolution a picture's file gives; null where it gives none. */
export async function resolutionOf(bytes: Uint8Array, kind: PictureKind): Promise<Resolution | null> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (kind === 'png') return pngResolution(bytes, view);
  if (kind === 'bmp' && bytes.length >= 46) return perMetre(view.getInt32(38, true), view.getInt32(42, true));
  if (kind !== 'jpg') return null;
  try {
    // What a camera or editor wrote comes before the bare JFIF header.
    const read = await exifr.parse(bytes, {
      ifd0: { pick: ['XResolution', 'YResolution', 'ResolutionUnit'] },
      jfif: true,
      translateValues: false,
      mergeOutput: false,
    });
    return toInch(read?.ifd0) ?? toInch(read?.jfif);
  } catch {
    return null;
  }
}

interface Tags {
  XResolution?: number;
  YResolution?: number;
  ResolutionUnit?: number | string;
}

function toInch(tags: Tags | undefined): Resolution | null {
  const x = Number(tags?.XResolution);
  const y = Number(tags?.YResolution ?? x);
  const unit = tags?.ResolutionUnit;
  const factor =
    unit === 3 || unit === 'cm' ? 2.54 : unit === 2 || unit === 'inches' || unit === 1 || unit === 'inch' ? 1 : 0;
  // 1 to the inch is what programs write that know no better.
  return factor > 0 && x * factor > 1 && y * factor > 1 ? { x: x * factor, y: y * factor } : null;
}

function perMetre(x: number, y: number): Resolution | null {
  return x > 40 && y > 40 ? { x: x * 0.0254, y: y * 0.0254 } : null;
}

/** PNG's `pHYs` chunk, pixels to the metre (PNG 1.2, 4.2.4.2). */
function pngResolution(bytes: Uint8Array, view: DataView): Resolution | null {
  for (const { name, start, length } of pngChunks(bytes)) {
    if (name !== 'pHYs' || length !== 9 || start + 9 > bytes.length) continue;
    return view.getUint8(start + 8) === 1 ? perMetre(view.getUint32(start), view.getUint32(start + 4)) : null;
  }
  return null;
}
