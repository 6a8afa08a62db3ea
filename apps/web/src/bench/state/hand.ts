import {
  type Anchor,
  boundsAmong,
  type GuideLine,
  type Item,
  itemsAmong,
  type JobDocument,
  type TextSetting,
} from '@lambent/core/document';
import type { Box, Matrix, Point } from '@lambent/core/geometry';
import type { Machine } from '@lambent/core/machine';
import { type EvenSpacing, type Snap, type SnapKind, snapKinds } from '@lambent/core/picking';
import type { WhyFilled } from '@lambent/core/plan';
import type { SetText } from '@lambent/core/text';
import { type Draft, emptyDraft, type Grip, type Tool } from '../tools/tool.ts';
import { type ToolOptions, usualOptions } from '../tools/tool-options.ts';
import { type DocumentState, jobOf, machineOf } from './document.ts';
import type { Change, Read } from './slice.ts';
import type { ViewState } from './view.ts';

/** Whether points are caught: by all kinds that are chosen, by the grid alone, or by nothing. */
export type SnapMode = 'all' | 'grid' | 'none';

/** What catches points, and the grid among it. */
export interface Snapping {
  readonly mode: SnapMode;
  readonly kinds: ReadonlySet<SnapKind>;
  readonly gridMm: number | null;
}

/** A text that is being written: new, or in place of an item's. */
export interface TextEdit {
  readonly itemId: string | null;
  /** Where a new one stands, in bed mm. */
  readonly at: Point;
  readonly setting: TextSetting;
  /** The outlines it came to last, and of which setting; null until there are any. */
  readonly outlined: { readonly text: SetText; readonly setting: TextSetting } | null;
}

/** What the pointer, or what it moves, is caught by: a point, or gaps that come out alike. */
export interface Caught {
  readonly snap: Snap | null;
  readonly gaps: readonly EvenSpacing[];
}

/** A point that was asked about, and why it is filled or not. */
export interface AskedPoint {
  readonly x: number;
  readonly y: number;
  readonly answers: readonly WhyFilled[];
}

/** What is under the hand: the selection, the tool, and what it is at. Nothing of this is in the job yet. */
export interface HandState {
  selection: ReadonlySet<string>;
  /** Whether a finger is on the bed, or was last: it is less exact than a pen or a mouse. */
  isFinger: boolean;
  /** The group that is open: what is in it is selected piece by piece; null for none. */
  openGroup: string | null;
  /** Whether a drag would move what is selected, though a drawing tool is at hand. */
  takesHold: boolean;
  /** Items to point out, without selecting them. */
  pointedOut: ReadonlySet<string>;
  /** Items under the pointer, so that their rows in lists show which they are. */
  under: ReadonlySet<string>;
  /** A change of the selection that is under way, in bed mm; not yet an edit. */
  live: Matrix | null;
  /** The tool at hand; null before the bed is shown. */
  tool: Tool | null;
  toolOptions: ToolOptions;
  /** What the tool is drawing. */
  draft: Draft | null;
  /** Takes the pull at the outline that is shown, where that can be pulled. */
  grip: Grip | null;
  caught: Caught;
  snapping: Snapping;
  /** A guide line on its way: pulled from a ruler, or moved. */
  guideDraft: GuideLine | null;
  /** A frame that selects what lies in it, in bed mm. */
  frame: Box | null;
  /** What the readout measures from, in bed mm. */
  lastPoint: Point | null;
  /** How far things were last moved, and which; *Duplicate* does it again with those. */
  lastMove: { readonly dx: number; readonly dy: number; readonly ids: ReadonlySet<string> } | null;
  textEdit: TextEdit | null;
  /** The point of the selection's frame that places are of; null for that nearest the machine's zero. */
  anchor: Anchor | null;
  /** The piece that stays put while others are aligned to it. */
  stays: string | null;
  asked: AskedPoint | null;
}

const nothingCaught: Caught = { snap: null, gaps: [] };

export const emptyHand: HandState = {
  selection: new Set(),
  isFinger: false,
  openGroup: null,
  takesHold: false,
  pointedOut: new Set(),
  under: new Set(),
  live: null,
  tool: null,
  toolOptions: usualOptions,
  draft: null,
  grip: null,
  caught: nothingCaught,
  snapping: { mode: 'all', kinds: new Set(snapKinds), gridMm: null },
  guideDraft: null,
  frame: null,
  lastPoint: null,
  lastMove: null,
  textEdit: null,
  anchor: null,
  stays: null,
  asked: null,
};

/** @returns what changes in the hand when the job becomes another document: what is gone is not selected any more */
export function handAfterEdit({ selection, openGroup }: HandState, document: JobDocument): Partial<HandState> {
  // What is hidden is not at hand either.
  const stay = itemsAmong(document.drawing, selection).filter(({ hidden }) => !hidden);
  return {
    selection: stay.length === selection.size ? selection : new Set(stay.map(({ id }) => id)),
    openGroup: document.drawing.groups.some(({ id }) => id === openGroup) ? openGroup : null,
    pointedOut: new Set(),
    live: null,
    asked: null,
  };
}

/** What changes the slice of selection, tool and pointer. */
export function handActions(get: Read<HandState>, change: Change<HandState>) {
  return {
    select: (ids: Iterable<string>) => change({ selection: new Set(ids) }),
    /** Says what the pointer is over; the same again changes nothing. */
    hover(ids: readonly string[]): void {
      const { under } = get();
      if (under.size !== ids.length || ids.some((id) => !under.has(id))) change({ under: new Set(ids) });
    },
    pointWith(kind: 'finger' | 'pen or mouse'): void {
      const isFinger = kind === 'finger';
      if (get().isFinger !== isFinger) change({ isFinger });
    },
    openGroup: (openGroup: string | null) => change({ openGroup }),
    takeHold(takesHold: boolean): void {
      if (get().takesHold !== takesHold) change({ takesHold });
    },
    pointOut: (ids: Iterable<string>) => change({ pointedOut: new Set(ids) }),
    /** Takes a tool to hand, which is caught by nothing yet. A draft stays: a drawer may be showing it. */
    takeTool: (tool: Tool) => change({ tool, caught: nothingCaught, takesHold: false }),
    setToolOptions: (part: Partial<ToolOptions>) => change({ toolOptions: { ...get().toolOptions, ...part } }),
    setSnapping: (part: Partial<Snapping>) => change({ snapping: { ...get().snapping, ...part } }),
    showDraft: (draft: Partial<Draft> | null) => change({ draft: draft && { ...emptyDraft, ...draft } }),
    offerGrip: (grip: Grip | null) => change({ grip }),
    showCaught: (snap: Snap | null, gaps: readonly EvenSpacing[] = []) => change({ caught: { snap, gaps } }),
    /** Shows the selection as a change would make it. */
    showLive: (live: Matrix | null) => change({ live }),
    showFrame: (frame: Box | null) => change({ frame }),
    showGuide: (guideDraft: GuideLine | null) => change({ guideDraft }),
    /** What a drag showed is shown no longer: it was let go, or given up. */
    endDrag: () => change({ live: null, frame: null, guideDraft: null, caught: nothingCaught }),
    measureFrom: (lastPoint: Point | null) => change({ lastPoint }),
    /** What is selected was moved so far. */
    rememberMove: (dx: number, dy: number) => change({ lastMove: { dx, dy, ids: get().selection } }),
    forgetMove: () => change({ lastMove: null }),
    writeText: (textEdit: TextEdit | null) => change({ textEdit }),
    chooseAnchor: (anchor: Anchor) => change({ anchor }),
    /** The piece that stays put while others are aligned; null for none. */
    holdStill: (stays: string | null) => change({ stays }),
    showAsked: (asked: AskedPoint | null) => change({ asked }),
  };
}

/** How far so many pixels reach around the pointer, in bed mm; a finger reaches further. */
export function reachOnBed({ view, isFinger }: ViewState & HandState, px: number): number {
  return ((isFinger ? 2.5 : 1) * px) / view.scale;
}

/** The point of the selection's frame that X and Y are of, and that stays put. */
export function anchorOf(state: DocumentState & HandState): Anchor {
  return state.anchor ?? zeroAnchor(machineOf(state));
}

/** The point of a frame that is nearest to a machine's zero. */
export function zeroAnchor({ origin }: Machine): Anchor {
  return origin === 'centre' ? { u: 0.5, v: 0.5 } : { u: 0, v: origin === 'top-left' ? 0 : 1 };
}

/** The selected items, in drawing order. */
export function selectedItems(state: DocumentState & HandState): readonly Item[] {
  return itemsAmong(jobOf(state).drawing, state.selection);
}

/** The box around what is selected, in bed mm. */
export function selectionBox(state: DocumentState & HandState): Box {
  return boundsAmong(jobOf(state).drawing, state.selection);
}
