import { type Item, type JobDocument, tooMuchOf } from '@lambent/core/document';
import {
  amend,
  type History,
  lockedAgainst,
  record,
  redo,
  startHistory,
  undo,
  weightOfEdit,
} from '@lambent/core/edits';
import { followSources, followThickness, type TieChange, thicknessBy, tieChanges } from '@lambent/core/fit';
import type { Machine } from '@lambent/core/machine';
import { type PreparedJob, prepareJob } from '@lambent/core/plan';
import type { Material, Pricing } from '@lambent/core/recipes';
import type { LengthUnit } from '@lambent/core/units';
import { t } from '../../words/words.ts';
import type { ShopLists } from '../../workers/bench.worker.ts';
import type { OpenedJob } from '../../workers/opened-job.ts';
import { followBuiltThings } from './built-following.ts';
import type { Read } from './slice.ts';

/** Whether what is on screen is also on the server. */
export type SaveState =
  | { kind: 'saved' }
  | { kind: 'changed' }
  | { kind: 'saving' }
  | { kind: 'conflict'; latest: number }
  /** The job was deleted elsewhere. */
  | { kind: 'deleted' }
  /** It could not be saved for now, and is tried again. */
  | { kind: 'failed'; message: string }
  /** What there is now will never be taken, and is not sent again before it is changed. */
  | { kind: 'refused'; message: string };

/** Why a save did not come to its end. */
export type SaveTrouble = Extract<SaveState, { kind: 'conflict' | 'deleted' | 'failed' | 'refused' }>;

/** A version that the server has: its number, when it was saved (ISO 8601), and its document. */
export interface StoredVersion {
  readonly version: number;
  readonly savedAt: string;
  readonly document: JobDocument;
}

/** The job: its document with all that can be undone, the shop that it is made with, and what of it is saved. */
export interface DocumentState {
  jobId: string;
  title: string;
  project: string;
  shop: ShopLists;
  pricing: Pricing;
  history: History<JobDocument>;
  prepared: PreparedJob;
  /** The run that is looked at: prepared, planned, sent. The first one where the job has no such run. */
  runId: string;
  stored: StoredVersion;
  save: SaveState;
  /** What was done last, as a version is called: an edit, or one that was undone or redone. */
  lastEdit: string;
  /** By which what is not saved is kept in the browser. */
  session: string;
  /** What went by another thickness of the stock last. */
  tieNews: readonly TieChange[];
}

/**
 * The slice of the document as it begins.
 * @param history what can be undone in the job, where that is known: its present is what was opened.
 */
export function openedDocument(
  opened: OpenedJob,
  shop: ShopLists,
  pricing: Pricing,
  history = startHistory(opened.document),
): DocumentState {
  const document = history.present;
  return {
    jobId: opened.id,
    title: opened.title,
    project: opened.project,
    shop,
    pricing,
    history,
    prepared: prepareJob(document, shop),
    runId: document.runs[0].id,
    stored: { version: opened.version, savedAt: opened.updatedAt, document },
    save: { kind: 'saved' },
    lastEdit: 'open',
    session: `${opened.id} ${Date.now().toString(36)}${Math.random().toString(36).slice(2)}`,
    tieNews: [],
  };
}

/** What follows items of more nodes than this is made anew by the worker, not while the page waits. */
const mostFollowed = 1500;

/** A job after an edit, with everything made anew that goes by the stock's thickness or by other items. */
function followAll(before: JobDocument, after: JobDocument, materials: readonly Material[]): JobDocument {
  const still = after.sheets === before.sheets && after.drawing.items === before.drawing.items;
  if (still && after.built === before.built) return after;
  const built = followBuiltThings(before, followThickness(after, thicknessBy(materials)), materials);
  return followSources(before, built, mostFollowed);
}

/** What became of the job, for the slices that hang on it. */
export type DocumentNews =
  | { kind: 'edited'; document: JobDocument }
  | { kind: 'other-run' }
  /** The shop is another one: the plan at hand is of the old one. */
  | { kind: 'other-shop' };

/**
 * @param change changes the job's own fields; news makes the other slices follow in the same step.
 * @param refuse told why an edit is not made: an item is locked, and would have been changed; or the drawing would be too large.
 */
export function documentActions(
  get: Read<DocumentState>,
  change: (fields: Partial<DocumentState>, news?: DocumentNews) => void,
  refuse: { readonly locked: (item: Item) => void; readonly tooMuch: (much: string) => void },
) {
  const goTo = (history: History<JobDocument>, lastEdit = get().lastEdit) => {
    const document = history.present;
    const before = get();
    if (document === before.history.present) {
      change({ history });
      return;
    }
    const { kind } = before.save;
    change(
      {
        history,
        lastEdit,
        prepared: prepareJob(document, before.shop, { runId: before.runId }),
        save:
          kind === 'conflict' || kind === 'deleted'
            ? before.save
            : { kind: document === before.stored.document ? 'saved' : 'changed' },
      },
      { kind: 'edited', document },
    );
  };

  return {
    /**
     * Makes one edit, under the name that undo will show.
     * @returns whether it was made: what is locked is not edited, and no drawing becomes larger than can be kept
     */
    edit(name: string, make: (job: JobDocument) => JobDocument): boolean {
      const { history } = get();
      const before = history.present;
      const made = make(before);
      const locked = lockedAgainst(before.drawing, made.drawing);
      if (locked) {
        refuse.locked(locked);
        return false;
      }
      const tooMuch = made.drawing === before.drawing ? null : tooMuchOf(made.drawing.items);
      if (tooMuch) {
        refuse.tooMuch(tooMuch);
        return false;
      }
      const after = followAll(before, made, get().shop.materials);
      goTo(record(history, name, after, weightOfEdit(before.drawing, after.drawing)), name);
      // What the operator did not touch, but the thickness of the stock did.
      if (after.sheets !== before.sheets) {
        const tieNews = tieChanges(before, after);
        if (tieNews.length > 0) change({ tieNews });
      }
      return true;
    },
    /** Puts the job right, with no step of its own to undo. */
    amend(make: (job: JobDocument) => JobDocument): void {
      const { history, shop } = get();
      goTo(amend(history, followAll(history.present, make(history.present), shop.materials)));
    },
    undo: () => goTo(undo(get().history), t('undo: {{name}}', { name: get().history.past.at(-1)?.name })),
    redo: () => goTo(redo(get().history), t('redo: {{name}}', { name: get().history.future[0]?.name })),
    /** Looks at another run of the job. */
    chooseRun(runId: string): void {
      const { history, shop } = get();
      change({ runId, prepared: prepareJob(history.present, shop, { runId }) }, { kind: 'other-run' });
    },
    /** Takes the shop as it is now: a key was changed, or made. */
    takeShop(shop: ShopLists): void {
      const { history, runId } = get();
      change({ shop, prepared: prepareJob(history.present, shop, { runId }) }, { kind: 'other-shop' });
    },
    rename: (title: string) => change({ title }),
    startSave: () => change({ save: { kind: 'saving' } }),
    /** The server has a document as a version; what was edited meanwhile is still to be saved. */
    endSave(stored: StoredVersion): void {
      const unchanged = jobOf(get()) === stored.document;
      change({ stored, save: { kind: unchanged ? 'saved' : 'changed' } });
    },
    /** Shows a version that was saved elsewhere, in place of what was saved here; undo goes back to that. */
    takeStored({ version, updatedAt: savedAt, document }: OpenedJob): void {
      const { history } = get();
      const before = history.present;
      const weight = weightOfEdit(before.drawing, document.drawing);
      change({ stored: { version, savedAt, document } });
      goTo(record(history, t('a change in another window'), document, weight));
    },
    failSave: (trouble: SaveTrouble) => change({ save: trouble }),
    /** Gives up what is on screen and not saved: it is kept elsewhere, or not wanted. */
    dropUnsavedWork: () => change({ save: { kind: 'saved' } }),
  };
}

/** The job as it is now. */
export function jobOf(state: DocumentState): JobDocument {
  return state.history.present;
}

/** Whether there is anything in the drawing. */
export function isDrawn(state: DocumentState): boolean {
  return jobOf(state).drawing.items.length > 0;
}

/** The machine that the job is for. */
export function machineOf(state: DocumentState): Machine {
  return state.prepared.machine;
}

/** The unit that the job's lengths are shown and typed in. */
export function unitOf(state: DocumentState): LengthUnit {
  return state.history.present.unit;
}
