import { type Item, itemsAmong, polylinesOf } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import type { FollowingShape } from '../document/shape.ts';
import type { TraceSettings } from '../document/traced.ts';
import { pinItems } from '../edits/items.ts';
import type { BorderSettings } from '../geometry/offsets/border.ts';
import type { OffsetSettings } from '../geometry/offsets/offset.ts';
import { polylineContains } from '../geometry/paths/flatten.ts';
import { identity, type Point } from '../geometry/paths/matrix.ts';
import type { Path } from '../geometry/paths/path.ts';
import { distanceToLines } from '../geometry/questions/distance.ts';
import { gather } from '../lists/gather.ts';
import { plainOffsetOf } from './plain-offset.ts';

/** What offsets to make of items. */
export interface OffsetWish {
  readonly settings: Omit<OffsetSettings, 'by'>;
  readonly way: 'out' | 'in' | 'both';
  /** The distance of the first, in mm, more than 0. */
  readonly distance: number;
  /** How many each way, and how much further out or in each is than the one before, in mm. */
  readonly count: number;
  readonly step: number;
  /** Whether each item gets its own, instead of one around all of them together. */
  readonly apart: boolean;
}

/** One offset that is wished for: of which items, how far, and what it comes to; empty where nothing is left. */
export interface MadeOffset {
  readonly kind: 'offset';
  readonly sources: readonly Item[];
  readonly settings: OffsetSettings;
  readonly path: Path;
}

/** A border that is wished for, and what it comes to. */
export interface MadeBorder {
  readonly kind: 'border';
  readonly sources: readonly Item[];
  readonly settings: BorderSettings;
  readonly path: Path;
}

/** Outlines found in a picture: its only source. */
export interface MadeTraced {
  readonly kind: 'traced';
  readonly sources: readonly [Item];
  readonly settings: TraceSettings;
  readonly path: Path;
  /** Of middle lines, how wide the stroke of each is, in the picture's pixels. */
  readonly widthsPx?: readonly number[] | undefined;
}

/** What was made of items, and can follow them. */
export type MadeFollowing = MadeOffset | MadeBorder | MadeTraced;

/** The distances of a wish, inward ones below 0. */
export function distancesOf({ way, distance, count, step }: OffsetWish): number[] {
  const all = Array.from({ length: count }, (_, i) => distance + i * step);
  if (way === 'out') return all;
  const inward = all.map((delta) => -delta);
  return way === 'in' ? inward : [...all, ...inward];
}

/**
 * How far a point is from items, more than 0 outside them and less inside, in mm; open lines have no inside. What
 * pulling at an offset goes by.
 */
export function distanceFrom(items: readonly Item[], { x, y }: Point): number {
  const lines = items.flatMap(polylinesOf);
  const inside = items.some((item) => {
    const around = polylinesOf(item).filter((line) => line.closed && polylineContains(line, x, y)).length;
    return item.fillRule === 'evenodd' ? around % 2 === 1 : around > 0;
  });
  return distanceToLines(lines, x, y) * (inside ? -1 : 1);
}

/** Items that an offset can be of: pictures have no outline but their frame, and what is hidden is not meant. */
export function offsetSources(job: JobDocument, ids: ReadonlySet<string>): Item[] {
  return itemsAmong(job.drawing, ids).filter(({ hidden, shape }) => !hidden && shape.kind !== 'picture');
}

/** What a wish asks to be worked out (`offsetOf`), from the farthest out to the farthest in. */
export function wishedOffsets(sources: readonly Item[], wish: OffsetWish): Omit<MadeOffset, 'path'>[] {
  const sets = wish.apart ? sources.map((item) => [item]) : sources.length > 0 ? [sources] : [];
  return distancesOf(wish)
    .sort((a, b) => b - a)
    .flatMap((distance) =>
      sets.map((set) => ({ kind: 'offset', sources: set, settings: { ...wish.settings, by: distance } })),
    );
}

/** What becomes of the items that an offset is of. */
export type SourceFate = 'stays' | 'guide' | 'goes';

export interface FollowingPlace {
  /** The layer they are put on; null gives them the paint of their source, and leaves the rest to the key. */
  readonly layerId: string | null;
  readonly fate: SourceFate;
  /** The layer of guides, which sources may be put on. */
  readonly guideId: string | null;
  /** Whether they follow their source from now on; not where that goes. */
  readonly follows: boolean;
  /** Gives ids to the new items. */
  readonly newId: () => string;
}

/** Puts what was made of items into a job, right behind the hindmost of their sources. What came to nothing is left out. */
export function addFollowing(
  job: JobDocument,
  made: readonly MadeFollowing[],
  { layerId, fate, guideId, follows, newId }: FollowingPlace,
): { job: JobDocument; ids: string[] } {
  const behind = new Map<string, Item[]>();
  const ids: string[] = [];
  for (const entry of made) {
    const { sources, path } = entry;
    if (path.verbs.length === 0) continue;
    const [first] = sources;
    const { link: _, locked: __, ...plain } = first;
    const id = newId();
    const live = follows && fate !== 'goes';
    const exact = live || entry.kind !== 'offset' ? null : plainOffsetOf(sources, entry.settings);
    ids.push(id);
    const item: Item = {
      ...plain,
      id,
      name: null,
      shape: live ? followingShape(entry) : (exact?.shape ?? { kind: 'path', path }),
      matrix: exact?.matrix ?? identity,
      fillRule: 'nonzero',
      ...paintOfMade(entry, layerId),
      groupId: sources.every(({ groupId }) => groupId === first.groupId) ? first.groupId : null,
    };
    gather(behind, first.id, item);
  }
  if (ids.length === 0) return { job, ids };
  const used = new Set(made.flatMap(({ sources, path }) => (path.verbs.length > 0 ? sources.map(({ id }) => id) : [])));
  // Pictures keep what was found to show of them.
  const seen = new Map(
    made.flatMap(({ sources }) =>
      sources.flatMap((item) =>
        item.shape.kind === 'picture' && item.shape.visible ? [[item.id, item] as const] : [],
      ),
    ),
  );
  const items = job.drawing.items.flatMap((item) => {
    const news = behind.get(item.id) ?? [];
    return fate === 'goes' && used.has(item.id) ? news : [...news, seen.get(item.id) ?? item];
  });
  const added = { ...job, drawing: { ...job.drawing, items } };
  return { job: fate === 'guide' && guideId !== null ? pinItems(added, used, guideId) : added, ids };
}

/** What is made is painted as its source, but for areas by colour, which are left to what the key makes of theirs. */
function paintOfMade(made: MadeFollowing, layerId: string | null): Pick<Item, 'paint' | 'pinned'> {
  const [{ paint, pinned }] = made.sources;
  const own = made.kind === 'traced' ? made.settings.byColour?.own : undefined;
  if (own === undefined) return { paint, pinned: layerId ?? pinned };
  return { paint: { stroke: null, strokeWidthMm: 0, fill: own }, pinned: layerId };
}

/** What was made as a shape that follows its sources. */
function followingShape(made: MadeFollowing): FollowingShape {
  const sources = made.sources.map(({ id }) => id);
  switch (made.kind) {
    case 'offset':
      return { kind: 'offset', sources, settings: made.settings, path: made.path };
    case 'border':
      return { kind: 'border', sources, settings: made.settings, path: made.path };
    case 'traced':
      return {
        ...{ kind: 'traced', sources, settings: made.settings, frame: made.sources[0].matrix, path: made.path },
        ...(made.widthsPx ? { widthsPx: made.widthsPx } : {}),
      };
  }
}
