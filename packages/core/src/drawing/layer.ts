import type { Keep } from './item.ts';

/** What the machine does with a layer. Guide and Note are shown, never burnt. */
export type Operation = 'cut' | 'score' | 'engrave' | 'guide' | 'note';

/** What is burnt with one setting. */
export interface Layer {
  readonly id: string;
  readonly name: string;
  readonly operation: Operation;
  /** Its place among layers of its operation in the burn order: lower ones first, those without one as they stand. */
  readonly rank?: number;
  /** What it burns with whatever the recipe says. */
  readonly settings?: Partial<LayerSettings>;
  /** The share of the recipe's power it burns with, 0 to 1: how shades of one operation differ. */
  readonly powerShare?: number;
  /** How it is filled and in which order its lines burn, where that is not as usual. */
  readonly burning?: Partial<LayerBurning>;
}

/** What blows at the beam: nothing, a little or all of what the machine has, or a pressure in bar. */
export type Air = 'off' | 'low' | 'high' | number;

/** What can be set on a layer; lengths in mm, speed in mm/s, power in per cent of the machine's, times in seconds. */
export interface LayerSettings {
  readonly powerPercent: number;
  readonly speedMmPerS: number;
  readonly passes: number;
  /** Distance between scan lines; only engraving uses it. */
  readonly lineSpacingMm: number;
  /** The width that the beam takes away; only cutting uses it. 0 burns along the line as it is drawn. */
  readonly kerfMm: number;
  /** The least power the beam keeps to where the head slows down; 0 lets it fall with the speed. */
  readonly cornerPowerPercent: number;
  /** How far above the surface of the stock the focus is; below 0 it is in the stock. */
  readonly focusMm: number;
  /** How much deeper the focus goes with each pass after the first. */
  readonly focusStepMm: number;
  /** Which way scan lines run, in degrees clockwise on the screen from left to right. */
  readonly scanAngle: number;
  /** Whether scan lines burn there and back. */
  readonly bothWays: boolean;
  /** How far the head runs unlit before and after a scan line; null for what it takes to come to speed. */
  readonly runUpMm: number | null;
  readonly air: Air;
  /** How long the beam stands where a line starts, to go through the stock, and at each sharp corner. */
  readonly pierceS: number;
  readonly cornerWaitS: number;
}

/** What goes without saying. */
export const usualSettings: Omit<LayerSettings, 'powerPercent' | 'speedMmPerS'> = {
  passes: 1,
  lineSpacingMm: 0.1,
  kerfMm: 0,
  cornerPowerPercent: 0,
  focusMm: 0,
  focusStepMm: 0,
  scanAngle: 0,
  bothWays: true,
  runUpMm: null,
  air: 'off',
  pierceS: 0,
  cornerWaitS: 0,
};

/** Every setting there is. */
export const settingNames = ['powerPercent', 'speedMmPerS', ...Object.keys(usualSettings)] as (keyof LayerSettings)[];

const always = ['powerPercent', 'speedMmPerS', 'passes', 'focusMm', 'focusStepMm', 'air'] as const;
const alongLines = [...always, 'cornerPowerPercent', 'pierceS', 'cornerWaitS'] as const;

/** Which settings an operation burns with. */
export const settingsOf: Readonly<Record<Operation, readonly (keyof LayerSettings)[]>> = {
  cut: [...alongLines, 'kerfMm'],
  score: alongLines,
  engrave: [...always, 'lineSpacingMm', 'scanAngle', 'bothWays', 'runUpMm'],
  guide: [],
  note: [],
};

/**
 * In which order a layer's lines burn. `inside-first`: what lies in others first, the nearest next; `nearest`: the
 * nearest whose contents are done; `parts`: each outline's contents, then its edge, part by part; `rows`: parts in
 * rows, there and back; `as-drawn` and `by-hand`: as told, whatever lies in what.
 */
export type LineOrder = 'inside-first' | 'nearest' | 'parts' | 'rows' | 'as-drawn' | 'by-hand';

/** How a layer is filled, and in which order and direction its lines burn. */
export interface LayerBurning {
  readonly order: LineOrder;
  /** Which way round closed outlines burn, as seen on the screen. */
  readonly direction: 'either' | 'clockwise' | 'anticlockwise';
  /** Where closed outlines start, unless an item has a start of its own. */
  readonly start: 'nearest' | 'corner';
  /** What is inside an outline of an item: every other one from outside in, or as its file says. */
  readonly fillRule: 'even-odd' | 'as-drawn';
  /** What becomes of items that overlap: neither burns there, or both as one. */
  readonly overlaps: 'cancel' | 'unite';
  /** Which side of its cuts is kept; by nesting, the inside of pieces and the outside of their holes. */
  readonly keep: 'nesting' | Keep;
  /** Power by how dark an item's fill is: by steps, or without (`steps` null); `lightest` is the share of power at white. */
  readonly depth: { readonly steps: number | null; readonly lightest: number } | null;
}

export const usualBurning: LayerBurning = {
  order: 'inside-first',
  direction: 'either',
  start: 'nearest',
  fillRule: 'even-odd',
  overlaps: 'cancel',
  keep: 'nesting',
  depth: null,
};
