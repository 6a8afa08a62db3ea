import type { Item } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { tabPoints, tabsOn } from '../fit/tabs.ts';
import { polylineLength } from '../geometry/paths/flatten.ts';
import type { Point } from '../geometry/paths/matrix.ts';
import { separates } from '../operations/operations.ts';
import type { LayerSettings } from '../settings/settings.ts';
import type { BurnLine } from './order.ts';
import type { PreparedJob } from './prepare.ts';
import { linesOf } from './step-draft.ts';

/** A closed outline that is cut, and the tabs that hold it. */
export interface HeldOutline {
  readonly item: Item;
  /** Which of its item's outlines it is. */
  readonly subpath: number;
  /** Where the tabs are, in segments along it. */
  readonly at: readonly number[];
  /** The same on the bed, in mm. */
  readonly points: readonly Point[];
}

/** Where tabs hold a line: as they were placed, or as many as its layer asks for, as long as half of it is left to cut. */
export function tabsOnLine(
  { tabs: placed }: JobDocument,
  { tabs, tabWidthMm, kerfMm }: Pick<LayerSettings, 'tabs' | 'tabWidthMm' | 'kerfMm'>,
  burnt: Pick<BurnLine, 'item' | 'nth' | 'line'>,
): readonly number[] {
  // Of thousands of lines none is looked at where no tab could be.
  if (tabs === 0 && placed.length === 0) return [];
  const { item, nth, line } = burnt;
  if (!line.closed) return [];
  const count = tabs === 0 ? 0 : Math.min(tabs, Math.floor(polylineLength(line) / (2 * (tabWidthMm + kerfMm))));
  return tabsOn(placed, item, nth, count);
}

/** Every closed outline that the run cuts, with its tabs, those without as well. */
export function heldOutlines(prepared: PreparedJob): HeldOutline[] {
  return prepared.layers.flatMap((layer) => {
    const { settings } = layer.applied;
    if (!layer.burns || !settings || !separates(layer.layer.operation)) return [];
    return linesOf(prepared, layer).flatMap((line) => {
      if (!line.line.closed) return [];
      const places = tabsOnLine(prepared.job, settings, line);
      const points = tabPoints(line.item, line.nth, places);
      return [{ item: line.item, subpath: line.nth, at: places, points }];
    });
  });
}
