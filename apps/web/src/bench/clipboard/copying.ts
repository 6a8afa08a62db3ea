import { boundsOf, boundsOfAll, type Item } from '@lambent/core/document';
import {
  type Copied,
  copiedAsSvg,
  copiedFrom,
  copiedFromText,
  copiedToText,
  pasteInto,
} from '@lambent/core/formats/clipboard';
import { type Box, boxCentre, boxesMeet, boxOf, type Point } from '@lambent/core/geometry';
import { toast } from 'sonner';
import { sentenceOf } from '../../api.ts';
import { counted } from '../../ui/counted.ts';
import { t } from '../../words/words.ts';
import { newId } from '../new-id.ts';
import type { BenchActions, BenchState } from '../state/bench-state.ts';
import { jobOf, machineOf } from '../state/document.ts';
import { type HeldCopy, holdCopy } from './held.ts';

/** Where what is pasted goes: where it was, beside what lies there already, or with its middle at a point of the bed. */
export type PastePlace = 'in place' | 'aside' | Point;

/** How far pasted things are moved aside, in mm, until they lie on nothing that is the same. */
const asideMm = 10;

/** Copies the selection, and holds it. @returns null where nothing is selected */
export function copySelection(actions: BenchActions): HeldCopy | null {
  const state = actions.get();
  const { drawing } = jobOf(state);
  const copied = copiedFrom(drawing, state.prepared.meaning, state.selection);
  if (copied.drawing.items.length === 0) return null;
  const copy = { text: copiedToText(copied), svg: copiedAsSvg(copied) };
  holdCopy(copy);
  return copy;
}

/** Adds what was copied to the job, selects it, and says which of its layers the job does not have. */
export function pasteCopied(actions: BenchActions, text: string, place: PastePlace): void {
  let copied: Copied;
  try {
    copied = copiedFromText(text);
  } catch (error) {
    toast.error(t('It could not be pasted: {{error}}. Copy it again.', { error: sentenceOf(error) }));
    return;
  }
  const { items } = copied.drawing;
  if (items.length === 0) return;
  const state = actions.get();
  const { prepared } = state;
  const { ids, job, unmatched } = pasteInto(jobOf(state), prepared.key, copied, shiftFor(state, copied, place), newId);
  const count = counted(items.length, 'item');
  if (!actions.edit(t('paste {{counted}}', { counted: count }), () => job)) return;
  actions.select(ids);
  const notes = unmatched.map(({ from, to, count }) => {
    const were = t(
      count === 1
        ? '1 item was on “{{name}}”, which this job does not have'
        : '{{count}} items were on “{{name}}”, which this job does not have',
      { count, name: from.name },
    );
    return to ? t('{{were}}: now on “{{name}}”.', { were, name: to.name }) : t('{{were}}: now on no layer.', { were });
  });
  if (notes.length > 0)
    toast.message(t('Pasted {{counted}}', { counted: count }), { description: notes.join(' '), duration: 12_000 });
}

function shiftFor(state: BenchState, { drawing }: Copied, place: PastePlace): { dx: number; dy: number } {
  const bounds = boundsOfAll(drawing.items);
  if (typeof place === 'object') return between(bounds, place);
  const { bedWidth, bedHeight } = machineOf(state);
  const bed = boxOf(0, 0, bedWidth, bedHeight);
  // From a larger bed it may lie beside this one, where nobody would find it.
  if (!boxesMeet(bounds, bed)) return between(bounds, boxCentre(bed));
  let shift = 0;
  while (place === 'aside' && isThere(state, drawing.items[0], shift)) shift += asideMm;
  return { dx: shift, dy: shift };
}

function between(bounds: Box, to: Point): { dx: number; dy: number } {
  const from = boxCentre(bounds);
  const round = (mm: number) => Math.round(mm * 100) / 100;
  return { dx: round(to.x - from.x), dy: round(to.y - from.y) };
}

/** Whether an item as large lies where one that was copied would come to lie. */
function isThere(state: BenchState, copied: Item, shift: number): boolean {
  const { minX, minY, maxX, maxY } = boundsOf(copied);
  const near = (a: number, b: number) => Math.abs(a - b) < 0.005;
  return jobOf(state).drawing.items.some((item) => {
    const own = boundsOf(item);
    return (
      near(own.minX, minX + shift) &&
      near(own.minY, minY + shift) &&
      near(own.maxX, maxX + shift) &&
      near(own.maxY, maxY + shift)
    );
  });
}
