import type { Pixels } from '../../document/pixels.ts';
import { outlineOfMask } from '../../geometry/areas/mask.ts';
import { scaling } from '../../geometry/paths/matrix.ts';
import { type Path, transformPath } from '../../geometry/paths/path.ts';

/** A part of a picture is bare where all its colours are at least as light as this, of 255. */
const bare = 245;
/** Pictures with more cells than this on a side are looked at in blocks. */
const mostCells = 1200;

/** The outline of what shows of a picture: what is neither transparent nor white; in pixels, from its top left. */
export function visiblePart({ width, height, rgb }: Pixels): Path {
  const block = Math.ceil(Math.max(width, height) / mostCells);
  const [across, down] = [Math.ceil(width / block), Math.ceil(height / block)];
  const mask = new Uint8Array(across * down);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const k = 3 * (y * width + x);
      if (rgb[k] < bare || rgb[k + 1] < bare || rgb[k + 2] < bare) {
        mask[Math.floor(y / block) * across + Math.floor(x / block)] = 1;
      }
    }
  }
  return transformPath(outlineOfMask(mask, across, down), scaling(block, block));
}
