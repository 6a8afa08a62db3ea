import {
  type Anchor,
  boundsAmong,
  type CardMark,
  type GuideLine,
  type Item,
  itemsAmong,
  type JobDocument,
  type TextSetting,
} from '@lambent/core/document';
import { amend, type History, record, redo, startHistory, undo, weightOfEdit } from '@lambent/core/edits';
import { followSources, followThickness, type TieChange, thicknessBy, tieChanges } from '@lambent/core/fit';
import type { Box, Matrix, Point } from '@lambent/core/geometry';
import type { Machine } from '@lambent/core/machine';
import { type EvenSpacing, type Snap, type SnapKind, snapKinds } from '@lambent/core/picking';
import { type PreparedJob, prepareJob, type WhyFilled } from '@lambent/core/plan';
import { freeOfCharge, type Material, type Pricing } from '@lambent/core/recipes';
import type { SetText } from '@lambent/core/text';
import type { LengthUnit } from '@lambent/core/units';
import { create } from 'zustand';
import type { Planned, ShopLists } from '../workers/bench.worker.ts';
import type { OpenedJob } from '../workers/opened-job.ts';
import { type Incoming, nothingIncoming } from './arriving/incoming.ts';
import type { Look } from './bed/look.ts';
import type { View } from './bed/view.ts';
import type { Draft, Grip, Tool } from './tools/tool.ts';
import { type ToolOptions, usualOptions } from './tools/tool-options.ts';

/** What catches points, and the grid among it. */
export interface Snapping {
  readonly on: boolean;
  readonly kinds: ReadonlySet<SnapKind>;
  readonly gridMm: number | null;
}

/** A text that is being written: new, or in place of an item's. */
export interface TextEdit {
  readonly itemId: string | null;
  /** Where a new one stands, in bed mm. */
  readonly at: Point;
  readonly setting: TextSetting;
  /** As it was last set, and of which setting that was; null until it was. */
  readonly set: SetText | null;
  readonly setFor: TextSetting | null;
}

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

export interface BenchState {
  jobId: string;
  title: string;
  project: string;
  shop: ShopLists;
  pricing: Pricing;
  history: History<JobDocument>;
  prepared: PreparedJob;
  /** The run that is looked at: prepared, planned, sent. The first one where the job has no such run. */
  runId: string;
  /** The version on the server, and the document that it holds. */
  version: number;
  savedDocument: JobDocument;
  save: SaveState;
  /** What was done last, as a version is called: an edit, or one that was undone or redone. */
  lastEdit: string;
  /** By which what is not saved is kept in the browser. */
  session: string;
  selection: ReadonlySet<string>;
  /** Items to point out, without selecting them. */
  pointedOut: ReadonlySet<string>;
  /** Items under the pointer, so that their rows in lists show which they are. */
  under: ReadonlySet<string>;
  /** A change of the selection that is under way, in bed mm; not yet an edit. */
  live: Matrix | null;
  view: View;
  viewSize: { width: number; height: number };
  /** Where on the bed the pointer is, in mm; null while it is elsewhere. */
  pointer: Point | null;
  look: Look;
  /** The tool at hand; null before the bed is shown. */
  tool: Tool | null;
  toolOptions: ToolOptions;
  /** What the tool is drawing. */
  draft: Draft | null;
  /** Takes the pull at the outline that is shown, where that can be pulled. */
  grip: Grip | null;
  /** What the pointer, or what it moves, is caught by. */
  snap: Snap | null;
  snapping: Snapping;
  /** Gaps that come out alike where what is dragged now is. */
  evenGaps: readonly EvenSpacing[];
  /** A guide line on its way: pulled from a ruler, or moved. */
  guideDraft: GuideLine | null;
  /** A frame that selects what lies in it, in bed mm. */
  frame: Box | null;
  /** What the readout measures from, in bed mm. */
  lastPoint: Point | null;
  /** How far things were last moved; *Duplicate* does it again. */
  lastMove: { dx: number; dy: number } | null;
  textEdit: TextEdit | null;
  /** The point of the selection's frame that places are of; null for that nearest the machine's zero. */
  anchor: Anchor | null;
  /** The piece that stays put while others are aligned to it. */
  stays: string | null;
  /** The plan of `plannedFor`; of the document before while a new one is worked out. */
  planned: Planned | null;
  plannedFor: JobDocument | null;
  plannedRun: string | null;
  /** Where the head stood when it was planned, for a run that lands there. */
  plannedHead: Point | null;
  planTrouble: string | null;
  /** Files on their way in. */
  incoming: Incoming;
  /** A point that was asked about, and why it is filled or not. */
  asked: { readonly x: number; readonly y: number; readonly answers: readonly WhyFilled[] } | null;
  /** What went by another thickness of the stock last. */
  tieNews: readonly TieChange[];
  /** Seconds into the plan at which the preview stands; null while there is none. */
  previewS: number | null;
  /** The test card that is being read; null while none is. */
  reading: string | null;
  /** Of which burn, by the run's id; null for the last one. */
  readRun: string | null;
  /** What a click makes of a cell. */
  cardBrush: CardMark | 'best';
  /** The run whose picture lies on the bed; null while none does. */
  pictured: string | null;
}

export type BenchStore = ReturnType<typeof createBenchStore>;

export function createBenchStore(opened: OpenedJob, shop: ShopLists, pricing: Pricing = freeOfCharge) {
  const { document } = opened;
  return create<BenchState>(() => ({
    jobId: opened.id,
    title: opened.title,
    project: opened.project,
    shop,
    pricing,
    history: startHistory(document),
    prepared: prepareJob(document, shop),
    runId: document.runs[0].id,
    version: opened.version,
    savedDocument: document,
    save: { kind: 'saved' },
    lastEdit: 'open',
    session: `${opened.id} ${Date.now().toString(36)}${Math.random().toString(36).slice(2)}`,
    selection: new Set(),
    pointedOut: new Set(),
    under: new Set(),
    live: null,
    view: { scale: 1, x: 0, y: 0 },
    viewSize: { width: 0, height: 0 },
    pointer: null,
    look: 'operations',
    tool: null,
    toolOptions: usualOptions,
    draft: null,
    grip: null,
    snap: null,
    snapping: { on: true, kinds: new Set(snapKinds), gridMm: null },
    evenGaps: [],
    guideDraft: null,
    frame: null,
    lastPoint: null,
    lastMove: null,
    textEdit: null,
    anchor: null,
    stays: null,
    planned: null,
    plannedFor: null,
    plannedRun: null,
    plannedHead: null,
    planTrouble: null,
    incoming: nothingIncoming,
    asked: null,
    tieNews: [],
    previewS: null,
    reading: null,
    readRun: null,
    cardBrush: 'good',
    pictured: null,
  }));
}

/** What follows items of more nodes than this is made anew by the worker, not while the page waits. */
const mostFollowed = 1500;

/** A job after an edit, with everything made anew that goes by the stock's thickness or by other items. */
function followAll(before: JobDocument, after: JobDocument, materials: readonly Material[]): JobDocument {
  const still = after.sheets === before.sheets && after.drawing.items === before.drawing.items;
  return still ? after : followSources(before, followThickness(after, thicknessBy(materials)), mostFollowed);
}

/** Everything that can be done to the Bench; a thin layer over core's pure functions. */
export function benchActions(store: BenchStore) {
  const { getState: get, setState: set } = store;

  const goTo = (history: History<JobDocument>, lastEdit = get().lastEdit) => {
    const document = history.present;
    const before = get();
    if (document === before.history.present) {
      set({ history });
      return;
    }
    const stays = itemsAmong(document.drawing, before.selection);
    set({
      history,
      lastEdit,
      prepared: prepareJob(document, before.shop, { runId: before.runId }),
      selection: stays.length === before.selection.size ? before.selection : new Set(stays.map(({ id }) => id)),
      pointedOut: new Set(),
      live: null,
      asked: null,
      previewS: null,
      save:
        before.save.kind === 'conflict' || before.save.kind === 'deleted'
          ? before.save
          : { kind: document === before.savedDocument ? 'saved' : 'changed' },
    });
  };

  return {
    /** Makes one edit, under the name that undo will show. */
    edit(name: string, change: (job: JobDocument) => JobDocument): void {
      const { history } = get();
      const before = history.present;
      const after = followAll(before, change(before), get().shop.materials);
      goTo(record(history, name, after, weightOfEdit(before.drawing, after.drawing)), name);
      // What the operator did not touch, but the thickness of the stock did.
      if (after.sheets !== before.sheets) {
        const tieNews = tieChanges(before, after);
        if (tieNews.length > 0) set({ tieNews });
      }
    },
    /** Puts the job right, with no step of its own to undo. */
    amend(change: (job: JobDocument) => JobDocument): void {
      const { history, shop } = get();
      goTo(amend(history, followAll(history.present, change(history.present), shop.materials)));
    },
    /** Looks at another run of the job. */
    chooseRun(runId: string): void {
      const { history, shop } = get();
      set({ runId, prepared: prepareJob(history.present, shop, { runId }), previewS: null });
    },
    /** Takes the shop as it is now: a key was changed, or made. */
    takeShop(shop: ShopLists): void {
      const { history, runId } = get();
      set({ shop, prepared: prepareJob(history.present, shop, { runId }), plannedFor: null });
    },
    undo: () => goTo(undo(get().history), `undo: ${get().history.past.at(-1)?.name}`),
    redo: () => goTo(redo(get().history), `redo: ${get().history.future[0]?.name}`),
    select: (ids: Iterable<string>) => set({ selection: new Set(ids) }),
    /** Says what the pointer is over; the same again changes nothing. */
    hover(ids: readonly string[]): void {
      const { under } = get();
      if (under.size !== ids.length || ids.some((id) => !under.has(id))) set({ under: new Set(ids) });
    },
    pointOut: (ids: Iterable<string>) => set({ pointedOut: new Set(ids) }),
    set,
    get,
  };
}

export type BenchActions = ReturnType<typeof benchActions>;

/** Whether there is anything in the drawing. */
export function isDrawn(state: BenchState): boolean {
  return jobOf(state).drawing.items.length > 0;
}

export function jobOf(state: BenchState): JobDocument {
  return state.history.present;
}

export function machineOf(state: BenchState): Machine {
  return state.prepared.machine;
}

/** The point of the selection's frame that X and Y are of, and that stays put. */
export function anchorOf(state: BenchState): Anchor {
  const { origin } = machineOf(state);
  if (state.anchor) return state.anchor;
  return origin === 'centre' ? { u: 0.5, v: 0.5 } : { u: 0, v: origin === 'top-left' ? 0 : 1 };
}

export function selectedItems(state: BenchState): readonly Item[] {
  return itemsAmong(jobOf(state).drawing, state.selection);
}

export function selectionBox(state: BenchState): Box {
  return boundsAmong(jobOf(state).drawing, state.selection);
}

/** Whether the plan at hand is that of the job and the run on screen. */
export function isPlanned(state: BenchState): boolean {
  return state.plannedFor === jobOf(state) && state.plannedRun === state.prepared.run.id;
}

export function unitOf(state: BenchState): LengthUnit {
  return state.history.present.unit;
}
