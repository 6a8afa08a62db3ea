import { type Item, reshaped } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import type { Shape } from '../document/shape.ts';
import { outlineOf } from '../document/shapes.ts';
import type { Combining } from '../geometry/areas/combine.ts';
import { multiply } from '../geometry/paths/matrix.ts';

/**
 * Puts items together into one lasting combination, painted as the hindmost of them; taking away takes the
 * others from that one. Its parts stay as they are, to be changed later.
 */
export function combineItems(job: JobDocument, ids: ReadonlySet<string>, how: Combining, id: string): JobDocument {
  const { items } = job.drawing;
  const parts = items.filter((item) => ids.has(item.id) && item.shape.kind !== 'picture' && !item.hidden);
  if (parts.length < 2) return job;
  const [base] = parts;
  const { link: _, ...plain } = base;
  const shape: Shape = {
    kind: 'combined',
    how,
    parts: parts.map(({ name, shape, matrix, fillRule }) => ({ name, shape, matrix, rule: fillRule })),
  };
  const combined: Item = { ...reshaped(plain, shape), id, name: null, fillRule: 'nonzero' };
  const removed = new Set(parts);
  return {
    ...job,
    drawing: {
      ...job.drawing,
      items: items.flatMap((item) => (item === base ? [combined] : removed.has(item) ? [] : [item])),
    },
  };
}

/** Takes combinations apart: their parts are items again, painted as the combination was. */
export function releaseCombinations(job: JobDocument, ids: ReadonlySet<string>, newId: () => string): JobDocument {
  const { items } = job.drawing;
  if (!items.some((item) => ids.has(item.id) && item.shape.kind === 'combined')) return job;
  return {
    ...job,
    drawing: {
      ...job.drawing,
      items: items.flatMap((item): Item[] => {
        if (!ids.has(item.id) || item.shape.kind !== 'combined') return [item];
        const { link: _, ...plain } = item;
        return item.shape.parts.map(({ name, shape, matrix, rule }) => ({
          ...reshaped(plain, shape, multiply(item.matrix, matrix)),
          id: newId(),
          name,
          fillRule: rule,
        }));
      }),
    },
  };
}

/** Whether a combination has nothing left to show, as one of apart things' common part has not. */
export function isVoid(item: Item): boolean {
  return item.shape.kind === 'combined' && outlineOf(item.shape).verbs.length === 0;
}
