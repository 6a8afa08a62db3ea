import type { BurntPictureAnswer } from '@lambent/contracts';
import type { BurntPicture } from '@lambent/core/recipes';
import { burntColours } from '../bench/burnt/burnt-colours.ts';

/** How a run came out, ready to be drawn. */
export interface ShownPicture {
  readonly picture: BurntPicture;
  readonly simulated: boolean;
  /** From the full size down to coarser ones, each half as fine; a point of a coarser one is the strongest of four. */
  readonly levels: readonly ImageBitmap[];
}

/** Unpacks a picture and paints it, in a worker: a large bed has many points. */
export async function burntLevels({ codes, simulated, ...place }: BurntPictureAnswer): Promise<ShownPicture> {
  const packed = Uint8Array.from(atob(codes), (letter) => letter.charCodeAt(0));
  const plain = new Blob([packed]).stream().pipeThrough(new DecompressionStream('gzip'));
  const picture = { ...place, codes: new Uint8Array(await new Response(plain).arrayBuffer()) };
  return { picture, simulated, levels: levelsOf(picture) };
}

const coarsest = 5;

function levelsOf({ width, height, codes }: BurntPicture): ImageBitmap[] {
  const levels = [painted({ codes, width, height })];
  let finer: Points = { codes, width, height };
  while (levels.length < coarsest && Math.max(finer.width, finer.height) > 64) {
    finer = halved(finer);
    levels.push(painted(finer));
  }
  return levels;
}

interface Points {
  readonly codes: Uint8Array;
  readonly width: number;
  readonly height: number;
}

function halved({ codes, width, height }: Points): Points {
  const [wide, high] = [Math.ceil(width / 2), Math.ceil(height / 2)];
  const out = new Uint8Array(wide * high);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const index = (y >> 1) * wide + (x >> 1);
      const code = codes[y * width + x];
      if (code > out[index]) out[index] = code;
    }
  }
  return { codes: out, width: wide, height: high };
}

function painted({ codes, width, height }: Points): ImageBitmap {
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d');
  if (!context) throw new Error('The browser draws no pictures.');
  const image = context.createImageData(width, height);
  const pixels = new Uint32Array(image.data.buffer);
  for (let i = 0; i < codes.length; i++) pixels[i] = burntColours[codes[i]];
  context.putImageData(image, 0, 0);
  return canvas.transferToImageBitmap();
}
