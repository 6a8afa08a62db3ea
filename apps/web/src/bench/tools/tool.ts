import type { DimensionMark } from '@lambent/core/document';
import type { Path, Point } from '@lambent/core/geometry';
import type { Snap } from '@lambent/core/picking';

export const toolNames = [
  'pick',
  'points',
  'rectangle',
  'ellipse',
  'slot',
  'polygon',
  'line',
  'arc',
  'freehand',
  'text',
  'stretch',
  'corner',
  'dimension',
] as const;
export type DrawingToolName = (typeof toolNames)[number];

/** Tools that are taken to hand elsewhere than in the dock: they ask, number, or choose on the bed. */
export const askingToolNames = ['why', 'number', 'start', 'tabs'] as const;
export type AskingToolName = (typeof askingToolNames)[number];

export type ToolName = DrawingToolName | AskingToolName;

/** Where the pointer is, and what is held with it. */
export interface ToolPoint {
  /** Pixels of the view. */
  readonly screen: Point;
  /** On the bed in mm: where the pointer is caught, else rounded to what the view can show. */
  readonly bed: Point;
  /** On the bed, where it truly is. */
  readonly free: Point;
  readonly snap: Snap | null;
  readonly button: number;
  readonly shift: boolean;
  readonly ctrl: boolean;
  readonly alt: boolean;
  /** How many presses in quick succession this is. */
  readonly clicks: number;
}

/** A number of what is being drawn, that can be typed. */
export interface DraftField {
  readonly name: string;
  readonly label: string;
  readonly kind: 'length' | 'angle';
  readonly value: number;
  readonly typed: boolean;
}

/** What a tool shows while it is at work. */
export interface Draft {
  /** The outline that would be drawn, in bed mm. */
  readonly outline: Path | null;
  /** What of it would be scored. */
  readonly dashed: Path | null;
  /** What of it is pointed out. */
  readonly lit: Path | null;
  /** Lines that are pointed out. */
  readonly marked: Path | null;
  /** What would go. */
  readonly gone: Path | null;
  /** A dimension mark that would be put down. */
  readonly dimension: Omit<DimensionMark, 'id'> | null;
  /** Points to show. */
  readonly dots: readonly Point[];
  readonly fields: readonly DraftField[];
  /** Where on the bed the fields are shown. */
  readonly at: Point;
  readonly trouble: string | null;
}

/** What follows the pointer that pulls at an outline on the bed; points in bed mm. */
export interface Grip {
  /** Whether it is had at a point, within so many mm; on the outline that is shown where nothing is said. */
  readonly reaches?: (point: Point, mm: number) => boolean;
  readonly grab: (point: Point) => void;
  readonly pull: (point: Point) => void;
}

/** A small state machine that turns pointer and typing into edits. */
export interface Tool {
  readonly name: ToolName | 'place';
  /** Whether its points are caught by what is near. */
  readonly snaps: boolean;
  /** Where the line that is being drawn begins, for tangents and perpendiculars; null for none. */
  readonly from: Point | null;
  /** What clicks are to say, where it asks something. */
  readonly words?: string;
  down(point: ToolPoint): void;
  move(point: ToolPoint): void;
  up(point: ToolPoint): void;
  /** Gives up what is under way. @returns whether there was anything */
  cancel(): boolean;
  /** Takes a number that was typed. @returns why not, in a sentence */
  type?(field: string, value: number): string | undefined;
  /** Ends what is under way, as Enter does. */
  finish?(): void;
  /** A key of the tool's own. @returns whether it took it */
  key?(key: string, shift: boolean): boolean;
}

export const emptyDraft: Draft = {
  outline: null,
  dashed: null,
  lit: null,
  marked: null,
  gone: null,
  dimension: null,
  dots: [],
  fields: [],
  at: { x: 0, y: 0 },
  trouble: null,
};
