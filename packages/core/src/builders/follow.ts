import type { BuiltThing } from '../document/built.ts';
import type { Item } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { type ThicknessOf, thicknessUnder } from '../fit/ties.ts';
import { build } from './build.ts';
import type { BuildAnswer } from './builder.ts';
import { builders } from './list.ts';
import { applyBuilt, partsIn, settleParts } from './put-down.ts';

/** What a thing's numbers come to. @returns null where no builder of this version makes it. */
export function answerOf({ builder: id, numbers, thicknessMm, plays, outlines }: BuiltThing): BuildAnswer | null {
  const builder = builders.find((known) => known.id === id);
  return builder ? build(builder, numbers, { thicknessMm, plays }, outlines) : null;
}

/**
 * A job after an edit, with what was built made anew where its numbers changed, or the thickness of the stock that it lies
 * on. A part whose shape was changed by hand is a part no more. What cannot be made of other stock stays as it was last.
 *
 * @param before the job before the edit.
 */
export function followBuilt(
  before: JobDocument,
  after: JobDocument,
  thicknessOf: ThicknessOf,
  newId: () => string,
): JobDocument {
  if (after.built.length === 0) return after;
  const was = new Map(before.built.map((thing) => [thing.id, thing]));
  const settled = settleParts(after, changedByHand(before, after));
  return settled.built.reduce((job, thing) => {
    const [first] = partsIn(job, thing.id);
    const thicknessMm = thicknessUnder(job, first, thicknessOf) ?? thing.thicknessMm;
    const isSame = Math.abs(thicknessMm - thing.thicknessMm) < 1e-9 && (was.get(thing.id) ?? thing) === thing;
    if (isSame) return job;
    const now = { ...thing, thicknessMm };
    const answer = answerOf(now);
    return answer?.ok ? applyBuilt(job, now, answer.built, newId) : job;
  }, settled);
}

/** The parts that an edit drew otherwise, or stretched: their builder must not draw over that. */
function changedByHand(before: JobDocument, after: JobDocument): Set<string> {
  const known = new Map(before.drawing.items.map((item) => [item.id, item]));
  const isChanged = (item: Item) => {
    if (!item.part) return false;
    const was = known.get(item.id);
    return (was?.part !== undefined && was.shape !== item.shape) || !isRigid(item);
  };
  return new Set(after.drawing.items.filter(isChanged).map(({ id }) => id));
}

/** Whether a matrix moves, turns and mirrors only. */
function isRigid({ matrix: [a, b, c, d] }: Item): boolean {
  return (
    Math.abs(Math.hypot(a, b) - 1) < 1e-9 && Math.abs(Math.hypot(c, d) - 1) < 1e-9 && Math.abs(a * c + b * d) < 1e-9
  );
}
