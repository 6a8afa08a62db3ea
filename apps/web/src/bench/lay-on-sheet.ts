import { boundsOf, type Item, type JobDocument, type Paint, type Sheet, sheetSafeBox } from '@lambent/core/document';
import { labelHeight } from '@lambent/core/fit';
import { type Box, growBox, type Point, translation } from '@lambent/core/geometry';
import { bedBox, type Machine } from '@lambent/core/machine';
import { freePlace } from '@lambent/core/picking';
import { textShape, usualText } from '@lambent/core/text';
import { t } from '../words/words.ts';
import { work } from '../workers/work.ts';
import { newId } from './new-id.ts';

/*
 * What is made from numbers, test pieces and test cards, is laid where the sheet is free, with words that are scored.
 */

/** Where on a sheet something may lie: inside its margin, and the bed's. */
export function roomOn(sheet: Sheet, machine: Machine): Box {
  const [a, b] = [sheetSafeBox(sheet), growBox(bedBox(machine), -machine.margin)];
  return {
    minX: Math.max(a.minX, b.minX),
    minY: Math.max(a.minY, b.minY),
    maxX: Math.min(a.maxX, b.maxX),
    maxY: Math.min(a.maxY, b.maxY),
  };
}

/** Where something of a size has room on the first sheet, clear of what lies there; null where nowhere is. */
export function freeOnSheet(
  { sheets, drawing }: Pick<JobDocument, 'sheets' | 'drawing'>,
  machine: Machine,
  width: number,
  height: number,
): Point | null {
  if (!sheets[0]) return null;
  const taken = drawing.items.filter(({ hidden }) => !hidden).map(boundsOf);
  return freePlace(roomOn(sheets[0], machine), width, height, taken, 3);
}

interface Label {
  readonly words: string;
  /** The middle of its baseline, or its right end, from the place that it is laid at. */
  readonly x: number;
  readonly y: number;
  readonly align?: 'middle' | 'right';
}

/** Words as items of single lines, laid from a place on. */
export async function wordItems(
  labels: readonly Label[],
  place: Point,
  look: { readonly paint: Paint; readonly pinned: string | null; readonly groupId: string },
): Promise<Item[]> {
  const settings = labels.map(({ words, align }) => ({
    ...usualText,
    family: t('Single line'),
    height: labelHeight,
    words,
    align: align === 'right' ? ('right' as const) : ('centre' as const),
  }));
  const set = await Promise.all(settings.map((setting) => work('setText', [setting])));
  return labels.map(
    ({ x, y }, i): Item => ({
      id: newId(),
      name: null,
      hidden: false,
      fillRule: 'nonzero',
      shape: textShape(settings[i], set[i]),
      matrix: translation(place.x + x, place.y + y),
      ...look,
    }),
  );
}
