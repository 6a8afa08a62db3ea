import type { Operation } from '../operations/operation.ts';
import type { LayerSettings } from '../settings/settings.ts';
import type { Keep } from './item.ts';

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
