import type { Item } from '../../document/item.ts';
import { outlineOf } from '../../document/shapes.ts';
import { joinLines } from '../../geometry/paths/join.ts';
import { scaling } from '../../geometry/paths/matrix.ts';
import { type Path, transformPath, Verb } from '../../geometry/paths/path.ts';
import { gather } from '../../lists/gather.ts';
import type { Notes } from '../reading.ts';

/** Ends of loose lines that are this near, in mm, meet. */
const meeting = 0.01;

/** Joins loose lines of one layer and colour, whose ends meet, to outlines. @param notes told how many were joined */
export function joinLooseLines(items: readonly Item[], notes: Notes): Item[] {
  const loose = new Map<string, number[]>();
  items.forEach((item, i) => {
    if (item.paint.stroke === null || item.shape.kind !== 'path') return;
    const { verbs } = item.shape.path;
    if (verbs.includes(Verb.close)) return;
    const key = `${item.groupId} ${item.paint.stroke} ${item.hidden}`;
    gather(loose, key, i);
  });
  const out: (Item | null)[] = [...items];
  const into: string[] = [];
  let count = 0;
  for (const places of loose.values()) {
    const paths = places.map((i) => placedOutline(items[i]));
    for (const { members, path } of joinLines(paths, meeting)) {
      const all = members.map((member) => places[member]);
      const first = Math.min(...all);
      for (const i of all) out[i] = null;
      out[first] = { ...items[first], shape: { kind: 'path', path }, matrix: scaling(1, 1) };
      into.push(items[first].id);
      count += all.length;
    }
  }
  if (count > 0) {
    notes.add(
      'taken',
      'lines-joined',
      `${count} loose lines whose ends meet are joined to ${into.length} ${into.length === 1 ? 'outline' : 'outlines'}`,
      into,
    );
  }
  return out.filter((item) => item !== null);
}

/** An item's outline on the bed, not kept: these items only pass. */
export function placedOutline({ shape, matrix }: Item): Path {
  return transformPath(outlineOf(shape), matrix);
}
