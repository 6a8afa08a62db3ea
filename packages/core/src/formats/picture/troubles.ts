import { colourProfileOf } from './colour-profile.ts';
import { pictureKind } from './describe.ts';
import { hasPngChunk } from './png-chunks.ts';
import { isAnimatedWebp } from './webp.ts';

/** What of a picture's file is not taken, or not there: a code and a sentence without its capital and full stop. */
export function pictureTroubles(bytes: Uint8Array): { code: string; message: string }[] {
  const kind = pictureKind(bytes);
  const troubles: { code: string; message: string }[] = [];
  const isAnimation =
    (kind === 'webp' && isAnimatedWebp(bytes)) ||
    (kind === 'gif' && framesOfGif(bytes) > 1) ||
    // PNG 3, 11.3.6.1.
    (kind === 'png' && hasPngChunk(bytes, 'acTL'));
  if (isAnimation)
    troubles.push({ code: 'first-of-animation', message: 'the file is an animation; its first picture is taken' });
  const profile = colourProfileOf(bytes);
  if (profile !== null) {
    const message = `the picture’s colours are meant by another scale than usual (${profile}), which is not applied: its greys may burn lighter or darker than they look elsewhere. Save it as sRGB for the same`;
    troubles.push({ code: 'colour-profile', message });
  }
  return troubles;
}

/** How many pictures a GIF holds (GIF89a, 17 to 27). */
function framesOfGif(bytes: Uint8Array): number {
  const table = (flags: number) => (flags & 0x80 ? 3 * 2 ** ((flags & 7) + 1) : 0);
  let offset = 13 + table(bytes[10]);
  const skipBlocks = () => {
    while (offset < bytes.length && bytes[offset] !== 0) offset += 1 + bytes[offset];
    offset++;
  };
  let frames = 0;
  while (offset < bytes.length && bytes[offset] !== 0x3b) {
    if (bytes[offset] === 0x21) offset += 2;
    else if (bytes[offset] === 0x2c) {
      frames++;
      offset += 11 + table(bytes[offset + 9]);
    } else break;
    skipBlocks();
  }
  return frames;
}
