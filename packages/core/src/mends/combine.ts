import { boundsOf, pathOf, reshaped } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { combineItems } from '../edits/combination.ts';
import { areaOf, lineWithin } from '../geometry/areas/area.ts';
import { joinLines } from '../geometry/paths/join.ts';
import { appendPath, type Path, PathBuilder } from '../geometry/paths/path.ts';
import { pathOfSubpaths, subpathsOf } from '../geometry/paths/segments.ts';

/** Items as one combination; with `subtract` the others are taken from the first. */
export function combined(job: JobDocument, itemIds: readonly string[], how: 'unite' | 'subtract'): JobDocument {
  const [baseId, ...otherIds] = itemIds;
  const others = new Set(otherIds);
  const { items } = job.drawing;
  if (!itemIds.every((id) => items.some((item) => item.id === id))) return job;
  // A combination is made of the hindmost and what lies over it.
  const over = items.filter(({ id }) => others.has(id));
  const inOrder = items.flatMap((item) => (item.id === baseId ? [item, ...over] : others.has(item.id) ? [] : [item]));
  const taken = new Set(items.map(({ id }) => id));
  let id = `${baseId}.joined`;
  for (let i = 2; taken.has(id); i++) id = `${baseId}.joined-${i}`;
  const sorted = { ...job, drawing: { ...job.drawing, items: inOrder } };
  return combineItems(sorted, new Set(itemIds), how, id);
}

/** How near ends are that meet, in mm. */
const meeting = 1e-4;

/** A path whose lines are joined where two of their ends meet, as they do where a closed outline began. */
function joined(path: Path): Path {
  const lines = [...subpathsOf(path)].map((line) => pathOfSubpaths([line]));
  const chains = joinLines(lines, meeting);
  const members = new Set(chains.flatMap((chain) => chain.members));
  const builder = new PathBuilder();
  for (const { path: chain } of chains) appendPath(builder, chain, true);
  lines.forEach((line, i) => {
    if (!members.has(i)) appendPath(builder, line, true);
  });
  return builder.build();
}

/** An item as what of its line lies within another; the same job where either is gone, or nothing would be left. */
export function trimmed(job: JobDocument, itemId: string, withinId: string): JobDocument {
  const { items } = job.drawing;
  const [item, within] = [itemId, withinId].map((id) => items.find((known) => known.id === id));
  if (!item || !within) return job;
  const left = lineWithin(pathOf(item), boundsOf(item), areaOf(pathOf(within), 'evenodd'));
  if (left.left !== 'part') return job;
  const trimmedItem = reshaped(item, { kind: 'path', path: joined(left.path) });
  return {
    ...job,
    drawing: { ...job.drawing, items: items.map((known) => (known === item ? trimmedItem : known)) },
  };
}
