import type { followBuilt, giveBack, settleParts } from '@lambent/core/builders';
import type { JobDocument } from '@lambent/core/document';
import { thicknessBy } from '@lambent/core/fit';
import type { Material } from '@lambent/core/recipes';
import { newId } from '../new-id.ts';

/** What makes parts from numbers is large: it comes with the first job that has some, or when some are asked for. */
interface Builders {
  readonly followBuilt: typeof followBuilt;
  readonly settleParts: typeof settleParts;
  readonly giveBack: typeof giveBack;
}
let builders: Builders | null = null;

/** Brings what parts follow their numbers by. */
export async function loadBuilders(): Promise<Builders> {
  builders ??= await import('@lambent/core/builders');
  return builders;
}

/** A job after an edit, with the parts of what was built as its numbers and the stock now have it. */
export function followBuiltThings(
  before: JobDocument,
  after: JobDocument,
  materials: readonly Material[],
): JobDocument {
  if (after.built.length === 0) return after;
  if (!builders) {
    // An older version that had some was taken back, say: they follow from the next edit on.
    void loadBuilders();
    return after;
  }
  return builders.followBuilt(before, after, thicknessBy(materials), newId);
}
