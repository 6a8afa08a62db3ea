import type { JobDocument } from '../document/job.ts';
import type { Tone } from '../document/tone.ts';
import { changeItems } from './items.ts';

/** Changes what was decided of the greys of pictures; what is undefined is as if it had never been decided. */
export function setTone(job: JobDocument, ids: ReadonlySet<string>, change: Partial<Tone>): JobDocument {
  return changeItems(job, ids, (item) => {
    const { shape } = item;
    if (shape.kind !== 'picture') return item;
    const { tone: before, ...picture } = shape;
    const said = Object.entries({ ...before, ...change }).filter(([, value]) => value !== undefined);
    return { ...item, shape: said.length === 0 ? picture : { ...picture, tone: Object.fromEntries(said) as Tone } };
  });
}
