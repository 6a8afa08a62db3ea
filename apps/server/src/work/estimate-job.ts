import type { JobEstimate } from '@lambent/contracts';
import { checkJob } from '@lambent/core/checks';
import type { JobDocument } from '@lambent/core/document';
import { prepareWithPictures } from '@lambent/core/formats';
import { type PricePart, planJob, priceOf } from '@lambent/core/plan';
import type { Pricing, Shop } from '@lambent/core/recipes';
import { type ReadPicture, unpacking } from './packed-job.ts';

/** What a job takes and costs, with the parts of its price. */
export type Estimate = JobEstimate & { readonly seconds: number; readonly parts: PricePart[] };

/** What all runs of a job take and cost together, and how many findings they have. @param picture gives what burns of pictures */
export async function estimateJob(
  job: JobDocument,
  shop: Pick<Shop, 'machines' | 'keys' | 'materials'>,
  pricing: Pricing,
  picture: ReadPicture,
): Promise<Estimate> {
  const estimate = { seconds: 0, price: 0, blocks: 0, warns: 0 };
  const parts: PricePart[] = [];
  for (const { id: runId } of job.runs) {
    const prepared = await prepareWithPictures(job, shop, { runId }, unpacking(picture));
    const plan = planJob(prepared);
    estimate.seconds += plan.timeS;
    const price = priceOf(plan, prepared, shop, pricing);
    estimate.price += price.total;
    parts.push(...price.parts);
    for (const { level, accepted } of checkJob(prepared, plan)) {
      if (level === 'blocks') estimate.blocks++;
      else if (level === 'warns' && !accepted) estimate.warns++;
    }
  }
  return { ...estimate, parts, price: pricing.currency === '' ? null : estimate.price };
}
