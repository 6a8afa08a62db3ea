import type { PreparedJob } from '@lambent/core/plan';
import { otherFillings } from '@lambent/core/rows';

const known = new WeakMap<PreparedJob, ReadonlySet<string>>();

/**
 * Where places are filled run by run: the items that lie over those that the run at hand burns, by id. They are shown faintly,
 * and no pointer takes hold of them.
 */
export function otherFillingsIn(prepared: PreparedJob): ReadonlySet<string> {
  let found = known.get(prepared);
  if (!found) {
    found = otherFillings(prepared.job, prepared.run);
    known.set(prepared, found);
  }
  return found;
}
