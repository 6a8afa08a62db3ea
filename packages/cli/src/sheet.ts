import { checkJob, jobSheetOf } from '@lambent/core/checks';
import { decodePicture, prepareWithPictures, writePaper } from '@lambent/core/formats';
import { planJob, priceOf } from '@lambent/core/plan';
import { freeOfCharge } from '@lambent/core/recipes';
import { shippedAssets, shippedTools } from '@lambent/fonts';
import { nameOf, sayTo, spoken, standard, write } from './files.ts';
import { chooseKey, demoShop, type OpeningOptions, openFile, readShop, runNamed } from './opening.ts';
import { Unusable } from './unusable.ts';

export interface SheetOptions extends OpeningOptions {
  shop?: string;
  run?: string;
  title?: string;
}

/**
 * Writes the job sheet of a run as PDF: also of a job that does not pass the checks, for it says so.
 * @returns the exit status
 * @throws Unusable when the file or the words cannot be used
 */
export async function sheet(file: string, to: string, options: SheetOptions): Promise<number> {
  const shop = await readShop(options.shop ?? demoShop);
  const { job, pictures } = await openFile(file, options, shop);
  const key = await chooseKey(shop, options.key ?? job.keyId);
  const run = runNamed(job.runs, options.run);
  const lists = { ...shop, keys: [key, ...shop.keys] };
  const prepared = await prepareWithPictures({ ...job, keyId: key.id }, lists, { runId: run.id }, async (id) => {
    const picture = pictures.get(id);
    if (!picture) throw new Unusable(`${nameOf(file)} burns a picture that is not in it: make its sheet on the Bench.`);
    return decodePicture(picture.bytes, shippedAssets);
  });
  const plan = planJob(prepared);
  const pricing = shop.pricing ?? freeOfCharge;
  const wish = {
    title: options.title ?? nameOf(file).replace(/\.[^.]+$/, ''),
    madeOn: new Date().toISOString().slice(0, 10),
    address: null,
    price: priceOf(plan, prepared, lists, pricing),
    pricing,
  };
  const made = jobSheetOf(wish, prepared, plan, checkJob(prepared, plan), shop);
  await write(to, await writePaper(made, shippedTools().fonts));
  sayTo(to === standard)(`${nameOf(file)}: job sheet of ${run.name} written to ${spoken(to, 'standard output')}`);
  return 0;
}
