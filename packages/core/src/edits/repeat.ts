import type { Group, Item } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { type Box, boxHeight, boxWidth } from '../geometry/paths/box.ts';
import { type Matrix, multiply, type Point, rotation, translation } from '../geometry/paths/matrix.ts';

/** Rows and columns of a thing, itself the first; gaps in mm between one and the next. */
export interface Grid {
  readonly columns: number;
  readonly rows: number;
  readonly gapX: number;
  readonly gapY: number;
  /** Every other row stands half a step further, as bricks do. */
  readonly brick: boolean;
}

/** Copies around a point, itself the first. */
export interface Ring {
  readonly count: number;
  readonly centre: Point;
  /** From the first to the last, in degrees; a whole turn is shared by all evenly. */
  readonly sweep: number;
  /** Whether each is turned with its place, or only moved. */
  readonly turned: boolean;
}

/** More copies than this are a mistake. */
const mostCopies = 10_000;

/** Where the copies go that make a grid of a thing with these bounds, the thing itself left out. */
export function gridMaps(bounds: Box, { columns, rows, gapX, gapY, brick }: Grid): Matrix[] {
  const [stepX, stepY] = [boxWidth(bounds) + gapX, boxHeight(bounds) + gapY];
  const maps: Matrix[] = [];
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      if (row === 0 && column === 0) continue;
      maps.push(translation(column * stepX + (brick && row % 2 === 1 ? stepX / 2 : 0), row * stepY));
    }
  }
  return maps;
}

/** As many columns and rows as fit from where a thing stands to the right and lower edges of a box. */
export function gridThatFits(bounds: Box, within: Box, gapX: number, gapY: number, brick: boolean): Grid {
  const fit = (room: number, size: number, gap: number) =>
    size + gap > 0 ? Math.max(1, Math.min(mostCopies, Math.floor((room - size) / (size + gap) + 1 + 1e-9))) : 1;
  const rows = fit(within.maxY - bounds.minY, boxHeight(bounds), gapY);
  const shift = brick && rows > 1 ? (boxWidth(bounds) + gapX) / 2 : 0;
  const columns = fit(within.maxX - bounds.minX - shift, boxWidth(bounds), gapX);
  return { columns, rows, gapX, gapY, brick };
}

/** How copies come to stand around a centre: a matrix for each of them, the first one included. */
export function ringMaps(bounds: Box, { count, centre, sweep, turned }: Ring): Matrix[] {
  const whole = Math.abs(Math.abs(sweep) - 360) < 1e-9;
  const step = count < 2 ? 0 : sweep / (whole ? count : count - 1);
  const middle = { x: (bounds.minX + bounds.maxX) / 2, y: (bounds.minY + bounds.maxY) / 2 };
  return Array.from({ length: Math.max(0, count - 1) }, (_, i) => {
    const turn = rotation(step * (i + 1), centre);
    if (turned) return turn;
    const [a, b, c, d, e, f] = turn;
    return translation(a * middle.x + c * middle.y + e - middle.x, b * middle.x + d * middle.y + f - middle.y);
  });
}

/** Which copies are linked with what they are copies of: a change of one's shape changes all. */
export type CopyLinks = 'as they are' | 'all' | 'none';

/**
 * Adds a copy of the items for each map, in front of everything. Copies of groups are groups of their own.
 *
 * @param newId gives ids that are new to the job
 * @param links whether a change of one copy's shape changes all: of all of them, of none, or of copies of linked ones
 * @returns the job and the ids of the copies, map by map
 */
export function copyItems(
  job: JobDocument,
  ids: ReadonlySet<string>,
  maps: readonly Matrix[],
  newId: () => string,
  links: CopyLinks = 'as they are',
): { job: JobDocument; copies: string[][] } {
  const { drawing } = job;
  const sources = drawing.items.filter((item) => ids.has(item.id));
  if (sources.length === 0 || maps.length === 0) return { job, copies: [] };
  const linkOf = new Map(sources.map((item) => [item.id, item.link ?? newId()]));
  const byId = new Map(drawing.groups.map((group) => [group.id, group]));
  const groups: Group[] = [];
  const added: Item[] = [];
  const copies = maps.map((map) => {
    const newGroups = new Map<string, string>();
    const groupFor = (id: string | null): string | null => {
      const known = id === null ? null : byId.get(id);
      if (!known) return null;
      let copy = newGroups.get(known.id);
      if (!copy) {
        copy = newId();
        newGroups.set(known.id, copy);
        groups.push({ id: copy, name: known.name, parentId: groupFor(known.parentId) });
      }
      return copy;
    };
    return sources.map((item) => {
      const id = newId();
      const { link: _, locked: __, ...plain } = item;
      const isLinked = links === 'all' || (links === 'as they are' && item.link !== undefined);
      const link = isLinked ? { link: linkOf.get(item.id) as string } : {};
      added.push({ ...plain, ...link, id, groupId: groupFor(item.groupId), matrix: multiply(map, item.matrix) });
      return id;
    });
  });
  const items =
    links === 'all'
      ? drawing.items.map((item) => (linkOf.has(item.id) ? { ...item, link: linkOf.get(item.id) as string } : item))
      : drawing.items;
  return {
    job: { ...job, drawing: { items: [...items, ...added], groups: [...drawing.groups, ...groups] } },
    copies,
  };
}

/** Lets linked copies go their own ways. */
export function releaseLinks(job: JobDocument, ids: ReadonlySet<string>): JobDocument {
  const { items } = job.drawing;
  if (!items.some((item) => ids.has(item.id) && item.link)) return job;
  return {
    ...job,
    drawing: {
      ...job.drawing,
      items: items.map((item) => {
        if (!ids.has(item.id) || !item.link) return item;
        const { link: _, ...free } = item;
        return free;
      }),
    },
  };
}
