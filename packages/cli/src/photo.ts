import type { JobDocument } from '@lambent/core/document';
import { changeSetting, pinItems } from '@lambent/core/edits';
import { burnsPictures } from '@lambent/core/operations';
import { prepareJob } from '@lambent/core/plan';
import type { Shop } from '@lambent/core/recipes';
import { type Grain, grains } from '@lambent/core/settings';
import { lengthWord } from './length-word.ts';
import type { Opened } from './opening.ts';
import { Unusable } from './unusable.ts';

const usualLength = 'a length such as 120mm';

/** What a picture is planned with as a photo. */
export interface PhotoOptions {
  photoWidth?: string;
  grain?: string;
  spacing?: string;
}

/** How wide a picture is to be, for what reads it. @throws Unusable where a width was said twice, or is none. */
export function widthOfPhoto({ photoWidth, width }: PhotoOptions & { width?: string }): { width?: string } {
  if (photoWidth === undefined) return {};
  if (width !== undefined) throw new Unusable('Give --photo-width or --width: each of them sets the size by itself.');
  lengthWord('--photo-width', photoWidth, usualLength);
  return { width: photoWidth };
}

/**
 * A picture on the layer that burns its greys, where a width, a grain or a spacing asks for that; anything else as it is.
 * @param shop whose first key is that of the job.
 * @throws Unusable where it is no picture, or the words cannot be used.
 */
export function asPhoto({ job, source }: Opened, options: PhotoOptions, shop: Shop): JobDocument {
  if (options.photoWidth === undefined && options.grain === undefined && options.spacing === undefined) return job;
  if (source.format !== 'picture') {
    throw new Unusable(`--photo-width, --grain and --spacing are for a picture; ${source.file} is none.`);
  }
  const grain = options.grain === undefined ? undefined : grainNamed(options.grain);
  const spacing = options.spacing === undefined ? undefined : lengthWord('--spacing', options.spacing, usualLength);
  const photo = prepareJob(job, shop).meaning.layers.find(({ operation }) => burnsPictures(operation));
  if (!photo) throw new Unusable('The colour key has no layer that burns pictures.');
  const pinned = pinItems(job, new Set(job.drawing.items.map(({ id }) => id)), photo.id);
  const grained = grain === undefined ? pinned : changeSetting(pinned, photo.id, 'grain', grain);
  return spacing === undefined ? grained : changeSetting(grained, photo.id, 'lineSpacingMm', spacing);
}

function grainNamed(word: string): Grain {
  const found = grains.find((grain) => grain === word);
  if (!found) throw new Unusable(`--grain may be ${grains.join(', ')}, and not “${word}”.`);
  return found;
}
