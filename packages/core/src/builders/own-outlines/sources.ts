import type { BuiltThing } from '../../document/built.ts';
import { type Item, pathOf } from '../../document/item.ts';
import type { JobDocument } from '../../document/job.ts';
import { groupItems } from '../../edits/arrange.ts';
import { boxCentre } from '../../geometry/paths/box.ts';
import { flatten, signedArea } from '../../geometry/paths/flatten.ts';
import { type Matrix, translation } from '../../geometry/paths/matrix.ts';
import { pathBounds, transformPath } from '../../geometry/paths/path.ts';
import type { Builder, Built, SourceOutline } from '../builder.ts';
import { partIds } from './part-ids.ts';

/** Outlines of the operator's own that a builder is to work on, and where they lie. */
export interface Sources {
  readonly itemIds: readonly string[];
  readonly outlines: readonly SourceOutline[];
  /** From an outline's frame to the bed; null where its part was deleted. */
  readonly places: readonly (Matrix | null)[];
}

/** The outlines among items that a builder can work on, or why it cannot. */
export function sourcesFrom(
  items: readonly Item[],
  { takes = [] }: Builder,
): { readonly ok: true; readonly sources: Sources } | { readonly ok: false; readonly message: string } {
  if (items.length !== takes.length) {
    const message = `It takes ${takes.length} closed outlines, each a part. Now there ${items.length === 1 ? 'is 1' : `are ${items.length}`}.`;
    return { ok: false, message };
  }
  for (const [i, item] of items.entries()) {
    const message = whyNot(item, item.name ?? takes[i]);
    if (message) return { ok: false, message };
  }
  const middles = items.map((item) => boxCentre(pathBounds(pathOf(item))));
  return {
    ok: true,
    sources: {
      itemIds: items.map(({ id }) => id),
      outlines: items.map((item, i) => ({
        name: item.name ?? takes[i],
        path: transformPath(pathOf(item), translation(-middles[i].x, -middles[i].y)),
      })),
      places: middles.map(({ x, y }) => translation(x, y)),
    },
  };
}

function whyNot(item: Item, name: string): string | null {
  if (item.part)
    return `“${name}” is made from numbers already. Settle it first: then it is an outline like any other.`;
  if (item.shape.kind === 'picture') return `“${name}” is a picture. Find its outline first, or draw one.`;
  if (item.shape.kind === 'text') return `“${name}” is text, and no part.`;
  const isClosed = flatten(pathOf(item)).some((line) => line.closed && Math.abs(signedArea(line)) > 1);
  return isClosed ? null : `“${name}” is not closed: a part has an outline all around. Close it under Mend.`;
}

/** Makes outlines parts of a thing: they stay the items that they are, where they are. */
export function joinOutlines(
  job: JobDocument,
  thing: BuiltThing,
  name: string,
  { parts }: Built,
  { itemIds, places }: Sources,
): JobDocument {
  const grouped = groupItems(job, new Set(itemIds), thing.id, name);
  const items = grouped.drawing.items.map((item): Item => {
    const i = itemIds.indexOf(item.id);
    if (i < 0) return item;
    const { link: _, ...own } = item;
    const { id: partId, name: partName, cut } = parts[i];
    return {
      ...own,
      name: partName,
      shape: { kind: 'path', path: cut },
      matrix: places[i] ?? item.matrix,
      fillRule: 'evenodd',
      part: { thingId: thing.id, partId, what: 'cut' },
    };
  });
  return { ...grouped, drawing: { ...grouped.drawing, items }, built: [...grouped.built, thing] };
}

/** The outlines of something that is there, where its parts lie by now. */
export function sourcesOf({ drawing }: JobDocument, { id, outlines = [] }: BuiltThing): Sources {
  const parts = partIds.map((partId) =>
    drawing.items.find(({ part }) => part?.thingId === id && part.partId === partId),
  );
  return {
    itemIds: parts.flatMap((item) => (item ? [item.id] : [])),
    outlines,
    places: parts.map((item) => item?.matrix ?? null),
  };
}

/** Gives outlines back as they were before they became parts of a thing, where their parts lie now. */
export function giveBack(job: JobDocument, thingId: string): JobDocument {
  const thing = job.built.find(({ id }) => id === thingId);
  const sources = thing?.outlines;
  if (!sources) return job;
  const items = job.drawing.items.map((item): Item => {
    if (item.part?.thingId !== thingId) return item;
    const { part, ...own } = item;
    const source = sources[partIds.indexOf(part.partId)];
    return source ? { ...own, shape: { kind: 'path', path: source.path } } : own;
  });
  return {
    ...job,
    drawing: { ...job.drawing, items },
    built: job.built.filter(({ id }) => id !== thingId),
  };
}
