import type { JobDocument } from '../../document/job.ts';
import type { Pixels } from '../../document/pixels.ts';
import { type PreparedJob, picturesToBurn, prepareJob, type RunChoice } from '../../plan/prepare.ts';
import type { Shop } from '../../recipes/book/shop.ts';

/**
 * Prepares a job to be planned, with the pixels of the pictures that burn in the run at hand: the same in the page, on
 * the server and on the command line.
 *
 * @param unpacked gives the pixels of a picture by its id; it is asked for what burns alone, once a picture
 * @throws RangeError as `prepareJob` does; and whatever `unpacked` throws
 */
export async function prepareWithPictures(
  job: JobDocument,
  shop: Pick<Shop, 'machines' | 'keys' | 'materials'>,
  choice: RunChoice,
  unpacked: (pictureId: string) => Promise<Pixels>,
): Promise<PreparedJob> {
  const prepared = prepareJob(job, shop, choice);
  const pixels = new Map<string, Pixels>();
  for (const id of picturesToBurn(prepared)) pixels.set(id, await unpacked(id));
  if (pixels.size === 0) return prepared;
  return prepareJob(job, shop, choice, { pixelsOf: (id) => pixels.get(id) ?? null });
}
