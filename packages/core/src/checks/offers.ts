import { boundsOfAll, type Item } from '../document/item.ts';
import type { Layer } from '../document/layer.ts';
import { type Box, shiftInto } from '../geometry/paths/box.ts';
import { withCompany } from '../mends/company.ts';
import type { Mend } from '../mends/mend.ts';
import { labelOperation, separates } from '../operations/operations.ts';
import type { PreparedJob } from '../plan/prepare.ts';
import { idsOf } from './finding.ts';

/*
 * Mends that more than one check offers.
 */

/** Has overlaps on a layer unite. */
export function uniteOverlaps({ id, name }: Layer): Mend {
  return {
    words: 'Unite overlaps',
    name: `unite overlaps on ${name}`,
    isSafe: false,
    step: { kind: 'unite overlaps', layerId: id },
  };
}

/** Puts items on the layer that is scored; null where the key has none. */
export function scored({ meaning }: PreparedJob, items: readonly Item[]): Mend | null {
  const layer = meaning.layers.find(({ operation }) => operation === labelOperation);
  if (!layer || items.length === 0) return null;
  return {
    words: items.length === 1 ? 'Score it' : 'Score them',
    name: `put on ${layer.name}`,
    isSafe: false,
    step: { kind: 'put on layer', itemIds: items.map(({ id }) => id), layerId: layer.id },
  };
}

/** Joins the ends of items that lie within a gap, in mm. */
export function joinedWithin(items: readonly Item[], gapMm: number, isSafe: boolean): Mend {
  const words = `Join ends within ${gapInWords(gapMm)}`;
  return {
    words,
    name: words[0].toLowerCase() + words.slice(1),
    isSafe,
    // What rounding adds does not keep them apart.
    step: { kind: 'join', itemIds: items.map(({ id }) => id), withinMm: gapMm + 1e-6 },
  };
}

/** A gap in whole hundredths, and rather more than less. */
export function gapInWords(mm: number): string {
  return `${Math.max(0.01, Math.ceil(mm * 100 - 1e-6) / 100).toFixed(2)} mm`;
}

/**
 * Makes the edges that items share burn once. Null where no layer that cuts holds two of the items.
 * @param onLine whether along the lines, so that cuts which the kerf keeps apart lie on each other.
 */
export function cutOnce(prepared: PreparedJob, items: readonly Item[], onLine: boolean): Mend | null {
  const among = new Set(items);
  const layerIds = prepared.layers.flatMap(({ layer, placed }) =>
    separates(layer.operation) && placed.filter(({ item }) => among.has(item)).length > 1 ? [layer.id] : [],
  );
  if (layerIds.length === 0) return null;
  return {
    words: onLine ? 'Cut along the lines, once' : 'Cut shared edges once',
    name: 'cut shared edges once',
    isSafe: false,
    step: { kind: 'cut once', layerIds: [...new Set(layerIds)], onLine },
  };
}

/**
 * Moves items, with what lies with them, by the least that brings them within a box; null where there is no room.
 * @param wordsFor what stands on the button, from how far they go along the axis that they go furthest on, in mm.
 */
export function movedInto(
  { job, run }: PreparedJob,
  items: readonly Item[],
  room: Box,
  wordsFor: (mm: number) => string,
): Mend | null {
  // What lands elsewhere, or is mirrored, does not go where its drawing is moved to.
  if (items.length === 0 || run.landing.kind !== 'as-drawn' || run.mirrored) return null;
  const all = withCompany(job.drawing, items);
  const shift = shiftInto(boundsOfAll(all), room);
  if (!shift) return null;
  // In whole hundredths, and rather a little further than not far enough.
  const step = (mm: number) => (Math.sign(mm) * Math.ceil(Math.abs(mm) * 100 - 1e-6)) / 100 || 0;
  const [dx, dy] = [step(shift.dx), step(shift.dy)];
  const words = wordsFor(Math.max(Math.abs(dx), Math.abs(dy)));
  return {
    words,
    name: words[0].toLowerCase() + words.slice(1),
    isSafe: true,
    step: { kind: 'move', itemIds: idsOf(all), dx, dy },
  };
}
