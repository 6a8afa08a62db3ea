import type { BurntPictureAnswer } from '@lambent/contracts';
import { BurntCode, type BurntPicture } from '@lambent/core';
import { useQuery } from '@tanstack/react-query';
import { api } from '../../api.ts';

/** How a run came out, with what its points look like. */
export interface ShownPicture {
  readonly picture: BurntPicture;
  readonly simulated: boolean;
  /** From the full size down to coarser ones, each half as fine; a point of a coarser one is the strongest of four. */
  readonly levels: readonly HTMLCanvasElement[];
}

/** The picture of a run; undefined while it is on its way, or where none is asked for. */
export function useBurntPicture(runId: string | null): ShownPicture | undefined {
  return useQuery({
    queryKey: ['burnt picture', runId],
    queryFn: async () => shown(await api.burntPicture(runId ?? '')),
    enabled: runId !== null,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
  }).data;
}

async function shown({ codes, simulated, ...place }: BurntPictureAnswer): Promise<ShownPicture> {
  const packed = Uint8Array.from(atob(codes), (letter) => letter.charCodeAt(0));
  const plain = new Blob([packed]).stream().pipeThrough(new DecompressionStream('gzip'));
  const picture = { ...place, codes: new Uint8Array(await new Response(plain).arrayBuffer()) };
  return { picture, simulated, levels: levelsOf(picture) };
}

const coarsest = 5;

function levelsOf({ width, height, codes }: BurntPicture): HTMLCanvasElement[] {
  const levels = [painted(codes, width, height)];
  let finer = { codes, width, height };
  while (levels.length < coarsest && Math.max(finer.width, finer.height) > 64) {
    finer = halved(finer);
    levels.push(painted(finer.codes, finer.width, finer.height));
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
      const at = (y >> 1) * wide + (x >> 1);
      const code = codes[y * width + x];
      if (code > out[at]) out[at] = code;
    }
  }
  return { codes: out, width: wide, height: high };
}

/** Burnt stuff is brown and ever darker, what is cut through black, what is scorched red. */
function colourOf(code: number): [number, number, number, number] {
  if (code === BurntCode.bare) return [0, 0, 0, 0];
  if (code === BurntCode.scorched) return [150, 24, 12, 255];
  if (code === BurntCode.through) return [14, 12, 10, 255];
  const dark = Math.min(1, code / BurntCode.darkest);
  return [74 - 24 * dark, 44 - 18 * dark, 22 - 8 * dark, 30 + 195 * dark];
}

const colours = Uint8ClampedArray.from(Array.from({ length: 256 }, (_, code) => colourOf(code)).flat());

function painted(codes: Uint8Array, width: number, height: number): HTMLCanvasElement {
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = height;
  const context = canvas.getContext('2d');
  if (!context) return canvas;
  const image = context.createImageData(width, height);
  codes.forEach((code, i) => {
    if (code !== BurntCode.bare) image.data.set(colours.subarray(4 * code, 4 * code + 4), 4 * i);
  });
  context.putImageData(image, 0, 0);
  return canvas;
}

/** Draws a picture where it lies, at `scale` pixels for each mm, with bed mm (0, 0) at the context's origin. */
export function drawBurnt(context: CanvasRenderingContext2D, { picture, levels }: ShownPicture, scale: number): void {
  const pixels = scale * picture.pitchMm;
  const level = Math.min(levels.length - 1, Math.max(0, Math.floor(Math.log2(1 / pixels))));
  const canvas = levels[level];
  const size = picture.pitchMm * 2 ** level * scale;
  context.imageSmoothingEnabled = pixels * 2 ** level < 2;
  context.drawImage(canvas, picture.x * scale, picture.y * scale, canvas.width * size, canvas.height * size);
}
