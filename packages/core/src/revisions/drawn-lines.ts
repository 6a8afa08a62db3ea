import { polylinesOf } from '../document/item.ts';
import type { PreparedJob } from '../plan/prepare.ts';
import type { DrawnLine } from './compare.ts';

/** What a job draws, line by line, with what is done with each; of a picture its frame, with which picture it is. */
export function drawnLines({ job, meaning }: PreparedJob): DrawnLine[] {
  const done = new Map<string, string[]>();
  for (const { id, operation } of meaning.layers) {
    for (const { item } of meaning.placed.get(id) ?? []) {
      const known = done.get(item.id);
      if (known) known.push(operation);
      else done.set(item.id, [operation]);
    }
  }
  return job.drawing.items
    .filter(({ hidden }) => !hidden)
    .flatMap((item) => {
      const picture = item.shape.kind === 'picture' ? [item.shape.pictureId] : [];
      const does = [...(done.get(item.id) ?? []).toSorted(), ...picture].join(' ');
      return polylinesOf(item).map((line) => ({ line, does }));
    });
}
