import { pictureKind } from './describe.ts';
import { jpegSegments } from './jpeg-segments.ts';
import { pngChunks } from './png-chunks.ts';
import { profileOfWebp } from './webp.ts';

/**
 * The name of the colour profile that a picture brings along, where it is another than sRGB, which is taken of every
 * picture; `gamma` where it only gives a gamma of its own. Null where there is none.
 */
export function colourProfileOf(bytes: Uint8Array): string | null {
  const kind = pictureKind(bytes);
  if (kind === 'png') return profileOfPng(bytes);
  const profile = kind === 'jpg' ? profileOfJpeg(bytes) : kind === 'webp' ? profileOfWebp(bytes) : null;
  return profile && unlessUsual(descriptionOf(profile));
}

function unlessUsual(name: string): string | null {
  return /srgb/i.test(name) ? null : name;
}

/** PNG's `iCCP` names its profile ahead of it; `gAMA` counts where neither that nor `sRGB` is there (PNG 1.2, 4.2.2). */
function profileOfPng(bytes: Uint8Array): string | null {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let gamma: string | null = null;
  for (const { name, start, length } of pngChunks(bytes)) {
    if (start + length > bytes.length) break;
    if (name === 'sRGB') return null;
    if (name === 'iCCP') return unlessUsual(lettersOf(bytes.subarray(start, start + Math.min(length, 80))));
    // sRGB's is 1/2.2, in 100,000ths.
    if (name === 'gAMA' && length === 4 && Math.abs(view.getUint32(start) - 45_455) > 500)
      gamma = `gamma ${(100_000 / view.getUint32(start)).toFixed(1)}`;
  }
  return gamma;
}

const profileName = 'ICC_PROFILE\0';

/** The first part of a profile among the segments ahead of a JPEG's pixels (ICC.1, B.4). */
function profileOfJpeg(bytes: Uint8Array): Uint8Array | null {
  for (const { mark, start, end } of jpegSegments(bytes)) {
    const body = bytes.subarray(start, end);
    if (mark === 0xe2 && String.fromCharCode(...body.subarray(0, profileName.length)) === profileName)
      return body.subarray(profileName.length + 2);
  }
  return null;
}

/** What a profile calls itself, by its `desc` tag: as `desc` or, since version 4, as `mluc` (ICC.1, 9.2.41 and 10.15). */
function descriptionOf(profile: Uint8Array): string {
  const view = new DataView(profile.buffer, profile.byteOffset, profile.byteLength);
  const word = (offset: number) => String.fromCharCode(...profile.subarray(offset, offset + 4));
  const unnamed = 'unnamed';
  if (profile.length < 132) return unnamed;
  for (let i = 0; i < view.getUint32(128); i++) {
    const entry = 132 + 12 * i;
    if (entry + 12 > profile.length) break;
    if (word(entry) !== 'desc') continue;
    const start = view.getUint32(entry + 4);
    if (start + 28 > profile.length) break;
    if (word(start) === 'desc') return lettersOf(profile.subarray(start + 12)) || unnamed;
    if (word(start) !== 'mluc') break;
    const [length, from] = [view.getUint32(start + 20), start + view.getUint32(start + 24)];
    const letters = profile.subarray(from, from + Math.min(length, 200));
    return new TextDecoder('utf-16be').decode(letters) || unnamed;
  }
  return unnamed;
}

/** The letters up to the first zero. */
function lettersOf(bytes: Uint8Array): string {
  const end = bytes.indexOf(0);
  return new TextDecoder('latin1').decode(bytes.subarray(0, end < 0 ? Math.min(bytes.length, 200) : end));
}
