import type { DimensionAxis, TextSetting } from '@lambent/core/document';
import type { Operation } from '@lambent/core/operations';
import { usualText } from '@lambent/core/text';

/** What stays set from one use of a tool to the next; lengths in mm. */
export interface ToolOptions {
  /** What is drawn is to be. */
  readonly operation: Operation;
  /** Whether shapes are drawn from their centre. */
  readonly centred: boolean;
  /** What angles snap to while Shift is held, in degrees. */
  readonly angleStep: number;
  readonly radius: number;
  readonly slotWidth: number;
  readonly sides: number;
  readonly star: boolean;
  /** How far a star's inner corners lie inside, in per cent of its radius. */
  readonly starDepth: number;
  /** What the stretch tool does to the line it is on. */
  readonly stretch: 'trim' | 'extend' | 'split';
  readonly corner: 'round' | 'cut';
  readonly cornerSize: number;
  /** What dimension marks measure. */
  readonly dimension: DimensionAxis;
  /** How far a freehand line may be smoothed off the pen's way. */
  readonly smoothing: number;
  readonly text: TextSetting;
  /** What arrow keys move by. */
  readonly nudge: number;
  /** What things are aligned to, and whether each by itself where all of them could be as one. */
  readonly alignTo: 'selection' | `sheet:${string}` | 'bed';
  readonly alignsEach: boolean;
}

export const usualOptions: ToolOptions = {
  operation: 'cut',
  centred: false,
  angleStep: 45,
  radius: 0,
  slotWidth: 5,
  sides: 6,
  star: false,
  starDepth: 50,
  stretch: 'trim',
  corner: 'round',
  cornerSize: 3,
  dimension: 'straight',
  smoothing: 0.4,
  text: usualText,
  nudge: 1,
  alignTo: 'selection',
  alignsEach: false,
};
