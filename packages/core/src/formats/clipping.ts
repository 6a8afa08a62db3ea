import type { ReadingChoices } from '../document/arrival.ts';
import { boundsOf, type Item, type Paint, pathOf, reshaped } from '../document/item.ts';
import { withCrop } from '../edits/crop.ts';
import { type Area, fillWithin, type Left, lineWithin } from '../geometry/areas/area.ts';
import type { Notes } from './reading.ts';

/** What a clip leaves of items, and, hidden, the whole of each that it cuts or takes away. */
export function clipItems(items: readonly Item[], area: Area, notes: Notes, choices: ReadingChoices): Item[] {
  return items.flatMap((item) => clipItem(item, area, notes, choices));
}

function clipItem(item: Item, area: Area, notes: Notes, choices: ReadingChoices): Item[] {
  if (item.hidden) return [item];
  const bounds = boundsOf(item);
  const path = pathOf(item);
  if (item.shape.kind === 'picture') {
    return clipPicture(item, fillWithin(path, bounds, 'nonzero', area), notes, choices);
  }
  const { stroke, fill } = item.paint;
  const filled = fill === null ? null : fillWithin(path, bounds, item.fillRule, area);
  const lined = stroke === null ? null : lineWithin(path, bounds, area);
  const both = [filled, lined].filter((left) => left !== null);
  if (both.every(({ left }) => left === 'all')) return [item];
  if (choices.clips === 'whole') {
    notes.add('changed', 'clip-not-applied', 'a clipped part is taken whole', [item.id]);
    return [item];
  }
  if (both.every(({ left }) => left === 'nothing')) return [clippedAway(item, notes)];
  const whole: Item = { ...item, id: `${item.id}.whole`, name: `${item.name ?? 'Part'}, whole`, hidden: true };
  notes.add('changed', 'clipped', 'a part is cut to its clip; the whole is kept hidden', [whole.id]);
  const out: Item[] = [whole];
  const add = (left: Left | null, suffix: string, paint: Paint) => {
    if (!left || left.left === 'nothing') return;
    const put =
      left.left === 'part' ? reshaped({ ...item, paint }, { kind: 'path', path: left.path }) : { ...item, paint };
    out.push({ ...put, id: `${item.id}${suffix}` });
  };
  add(filled, '', { ...item.paint, stroke: null, strokeWidthMm: 0 });
  add(lined, filled ? '.line' : '', { ...item.paint, fill: null });
  return out;
}

function clipPicture(item: Item, left: Left, notes: Notes, choices: ReadingChoices): Item[] {
  if (left.left === 'all') return [item];
  if (choices.clips === 'whole') {
    notes.add('changed', 'clip-not-applied', 'a clipped part is taken whole', [item.id]);
    return [item];
  }
  if (left.left !== 'part') return [clippedAway(item, notes)];
  notes.add('taken', 'cropped-picture', 'a clipped picture is cropped; all of it can be brought back', [item.id]);
  return [withCrop(item, left.path)];
}

function clippedAway(item: Item, notes: Notes): Item {
  notes.add('left-out', 'clipped-away', 'a part that its clip hides is kept hidden', [item.id]);
  return { ...item, hidden: true };
}
