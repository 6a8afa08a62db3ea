import {
  boundsAmong,
  isOnCard,
  itemsAmong,
  type JobDocument,
  knowOutline,
  type Shape,
  sheetBox,
  tooMuchWithCopies,
  verbsIn,
} from '@lambent/core/document';
import {
  type Alignment,
  alignAsOne,
  alignItems,
  type CopyLinks,
  combineItems,
  copyItems,
  groupItems,
  isVoid,
  lockItems,
  mirrorItems,
  type Ordering,
  orderItems,
  releaseCombinations,
  releaseLinks,
  removeItems,
  type Spreading,
  setMark,
  spreadItems,
  thingsAmong,
  turnToPoints,
  ungroupItems,
} from '@lambent/core/edits';
import {
  type Box,
  boxCentre,
  boxOf,
  type Combining,
  type Matrix,
  type Path,
  type Point,
  translation,
} from '@lambent/core/geometry';
import { toast } from 'sonner';
import { sentenceOf } from '../api.ts';
import { counted } from '../ui/counted.ts';
import { t } from '../words/words.ts';
import { work } from '../workers/work.ts';
import { newId } from './new-id.ts';
import type { BenchActions, BenchState } from './state/bench-state.ts';
import { jobOf, machineOf } from './state/document.ts';
import { selectedItems, selectionBox } from './state/hand.ts';
import { sayTooMuch } from './state/say-refused.ts';

/*
 * What can be done with the selection, by a key or a button: core's edits, with names for undo.
 */

/** Where a duplicate goes when nothing was moved before it, in mm. */
const usualStep = 10;

function edit(
  actions: BenchActions,
  name: string,
  change: (job: JobDocument, ids: ReadonlySet<string>) => JobDocument,
) {
  const { selection } = actions.get();
  actions.edit(name, (job) => change(job, selection));
}

/** Copies the selection by its last move, and selects the copy; the next one goes on from there. */
export function duplicate(actions: BenchActions): void {
  const { selection, lastMove } = actions.get();
  if (selection.size === 0) return;
  // What something else was moved by says nothing of this.
  const isOfThis = lastMove?.ids.size === selection.size && [...selection].every((id) => lastMove.ids.has(id));
  const { dx, dy } = lastMove && isOfThis ? lastMove : { dx: usualStep, dy: usualStep };
  addCopies(actions, 'duplicate', [translation(dx, dy)]);
  actions.rememberMove(dx, dy);
}

/** Adds a copy of the selection for each map, and selects the last of them, or all with what they are copies of. */
export function addCopies(
  actions: BenchActions,
  name: string,
  maps: readonly Matrix[],
  links: CopyLinks = 'as they are',
  all = false,
): void {
  const { selection } = actions.get();
  const { items } = jobOf(actions.get()).drawing;
  const tooMuch = tooMuchWithCopies(items, selectedItems(actions.get()), maps.length);
  if (tooMuch) {
    sayTooMuch(tooMuch);
    return;
  }
  const { job, copies } = copyItems(jobOf(actions.get()), selection, maps, newId, links);
  if (!actions.edit(name, () => job)) return;
  if (copies.length > 0) actions.select(all ? [...selection, ...copies.flat()] : copies[copies.length - 1]);
}

/** Selects everything that is shown, is not locked and is no part of a test card; a card alone, where there is nothing else. */
export function selectAll(actions: BenchActions): void {
  const { items } = jobOf(actions.get()).drawing;
  const free = items.filter(({ hidden, locked }) => !hidden && !locked);
  const own = free.filter((item) => !isOnCard(item));
  actions.select((own.length > 0 ? own : free).map(({ id }) => id));
}

/** Marks a point of the bed, and measures from there. */
export function markAt(actions: BenchActions, { x, y }: Point): void {
  actions.edit(t('mark a point'), (job) => setMark(job, { x, y }));
  actions.measureFrom({ x, y });
}

/** Deletes what is selected. */
export function deleteSelection(actions: BenchActions): void {
  const { selection } = actions.get();
  const name = t('delete {{items}}', { items: counted(selection.size, 'item') });
  actions.edit(name, (job) => removeItems(job, selection));
}

/** Makes a group of what is selected, where that is more than one. */
export function group(actions: BenchActions): void {
  if (actions.get().selection.size > 1) edit(actions, 'group', (job, ids) => groupItems(job, ids, newId(), null));
}

/** Takes the groups of what is selected apart. */
export function ungroup(actions: BenchActions): void {
  edit(actions, t('take a group apart'), ungroupItems);
}

/** Locks what is selected, and lets go of it. */
export function lock(actions: BenchActions): void {
  edit(actions, 'lock', (job, ids) => lockItems(job, ids, true));
  actions.select([]);
}

/** Mirrors the selection over a line through a point, its middle where none is given. */
export function mirror(actions: BenchActions, degrees: number, through?: Point): void {
  const place = through ?? boxCentre(selectionBox(actions.get()));
  const name =
    degrees === 90
      ? t('mirror across')
      : degrees === 0
        ? t('mirror up and down')
        : t('mirror over {{degrees}}°', { degrees });
  edit(actions, name, (job, ids) => mirrorItems(job, ids, place, degrees));
}

/** Sends what is selected before or behind the rest. */
export function order(actions: BenchActions, to: Ordering): void {
  edit(actions, t('send {{to}}', { to }), (job, ids) => orderItems(job, ids, to));
}

/** What things are aligned to. */
export type AlignTo = 'stays' | 'selection' | `sheet:${string}` | 'bed';

/** The box that things are aligned to, and what of the selection stays where it is. */
export function alignTarget(state: BenchState, to: AlignTo): { box: Box; staying: ReadonlySet<string> } {
  const nothing: ReadonlySet<string> = new Set();
  const { bedWidth, bedHeight } = machineOf(state);
  const { drawing, sheets } = jobOf(state);
  if (to === 'stays' && state.stays !== null) {
    const thing = thingsAmong(drawing, state.selection).find(({ ids }) => ids.includes(state.stays ?? ''));
    if (thing) return { box: thing.bounds, staying: new Set(thing.ids) };
  }
  const locked = thingsAmong(drawing, state.selection).filter(({ ids }) =>
    itemsAmong(drawing, new Set(ids)).some((item) => item.locked),
  );
  // What is locked cannot be aligned, and is what the rest is aligned to.
  if (to === 'selection' && locked.length > 0) {
    const ids = new Set(locked.flatMap((thing) => thing.ids));
    return { box: boundsAmong(drawing, ids), staying: ids };
  }
  const sheet = sheets.find(({ id }) => to === `sheet:${id}`);
  if (sheet) return { box: sheetBox(sheet), staying: nothing };
  if (to === 'bed') return { box: boxOf(0, 0, bedWidth, bedHeight), staying: nothing };
  return { box: selectionBox(state), staying: nothing };
}

/** Aligns what is selected to each other; to a sheet or the bed as one, unless it is to be done piece by piece. */
export function align(actions: BenchActions, alignment: Alignment, to: AlignTo, pieceByPiece = false): void {
  const { box, staying } = alignTarget(actions.get(), to);
  const asOne = !pieceByPiece && isAroundAll(to);
  edit(actions, t('align {{alignment}}', { alignment }), (job, ids) =>
    asOne ? alignAsOne(job, ids, alignment, box) : alignItems(job, ids, alignment, box, staying),
  );
}

/** Whether what is aligned to may hold all of the selection. */
export function isAroundAll(to: AlignTo): boolean {
  return to === 'bed' || to.startsWith('sheet:');
}

/** Spreads what is selected evenly. @param distance in mm; null leaves the outermost where they are */
export function spread(actions: BenchActions, axis: 'x' | 'y', spacing: Spreading, distance: number | null): void {
  edit(actions, t('spread evenly'), (job, ids) => spreadItems(job, ids, axis, spacing, distance));
}

/** Outlines of more points than this are put together in a worker. */
const manyPoints = 2000;

/** Puts the selection together, in a worker where that takes long: Escape or the notice's button gives it up. */
export async function combine(actions: BenchActions, how: Combining): Promise<void> {
  const id = newId();
  const before = jobOf(actions.get());
  const { selection } = actions.get();
  const after = combineItems(before, selection, how, id);
  const made = after.drawing.items.find((item) => item.id === id);
  if (made?.shape.kind !== 'combined') {
    toast.message(t('Select two or more outlines to put together.'));
    return;
  }
  if (verbsIn(made.shape) > manyPoints) {
    const outline = await combinedInWorker(made.shape, how);
    if (!outline) return;
    if (jobOf(actions.get()) !== before) {
      toast.message(t('The drawing was changed meanwhile; nothing was put together.'));
      return;
    }
    knowOutline(made.shape, outline);
  }
  actions.edit(how, () => after);
  actions.select([id]);
  if (isVoid(made)) {
    toast.message(t('Nothing is left: the outlines have no area in common that way. Undo brings them back.'));
  }
}

/** Works a combination's outline out off the page's thread; null when it was given up or could not be. */
async function combinedInWorker(shape: Shape, how: Combining): Promise<Path | null> {
  const given = new AbortController();
  const notice = toast.loading(t('Working out what to {{how}}…', { how }), {
    cancel: { label: t('Stop'), onClick: () => given.abort() },
  });
  try {
    return await work('outline', [shape], { signal: given.signal });
  } catch (error) {
    if (!given.signal.aborted) toast.error(sentenceOf(error));
    return null;
  } finally {
    toast.dismiss(notice);
  }
}

/** Takes combinations among what is selected apart again. */
export function takeApart(actions: BenchActions): void {
  edit(actions, t('take a combination apart'), (job, ids) => releaseCombinations(job, ids, newId));
}

/** Turns what is selected to outlines with points. */
export function toPoints(actions: BenchActions): void {
  edit(actions, t('turn to points'), turnToPoints);
}

/** Makes copies that follow another item items of their own. */
export function unlink(actions: BenchActions): void {
  edit(actions, t('release copies'), releaseLinks);
}
