import type { JobDocument } from '../document/job.ts';

/** The longest name of an item or a group. */
export const longestName = 120;

/**
 * Names a group, or an item where no group has the id.
 * @param name cut to `longestName`; where it is empty, the thing is called after its kind again
 */
export function renameThing(job: JobDocument, id: string, name: string): JobDocument {
  const { items, groups } = job.drawing;
  const next = name.trim().slice(0, longestName) || null;
  const named = <Thing extends { readonly id: string; readonly name: string | null }>(things: readonly Thing[]) => {
    const thing = things.find((known) => known.id === id);
    if (!thing || thing.name === next) return things;
    return things.map((known) => (known === thing ? { ...known, name: next } : known));
  };
  const isGroup = groups.some((group) => group.id === id);
  const drawing = isGroup ? { items, groups: named(groups) } : { items: named(items), groups };
  return drawing.items === items && drawing.groups === groups ? job : { ...job, drawing };
}
