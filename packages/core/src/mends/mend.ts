import type { Mark } from '../colours/key.ts';
import type { JobDocument } from '../document/job.ts';
import type { LineOrder } from '../document/layer.ts';
import { type Bridged, bridgeHoles } from '../edits/bridge.ts';
import {
  assignPaint,
  changeSetting,
  hideItems,
  moveItems,
  parkItems,
  pinItems,
  removeItems,
  setSheet,
} from '../edits/items.ts';
import { joinEnds } from '../edits/join-ends.ts';
import { knockOut } from '../edits/knock-out.ts';
import { changeRun, orderSteps, placeTabs, setBurning, switchLayer } from '../edits/layers.ts';
import { removeLeftOver } from '../edits/left-over.ts';
import { enlargeItems, thickenItems } from '../edits/thicken.ts';
import { usualTabs } from '../fit/tabs.ts';
import type { LayerSettings } from '../settings/settings.ts';
import { combined, trimmed } from './combine.ts';

/** A setting of a prepared layer, and what it becomes. */
type SetStep = {
  [K in keyof LayerSettings]: {
    readonly kind: 'set';
    readonly preparedId: string;
    readonly setting: K;
    readonly value: LayerSettings[K];
  };
}[keyof LayerSettings];

/** What a mend does to a job, in plain data: it is found beside the page, and done in it. */
export type MendStep =
  | { readonly kind: 'move'; readonly itemIds: readonly string[]; readonly dx: number; readonly dy: number }
  | { readonly kind: 'remove'; readonly itemIds: readonly string[] }
  | { readonly kind: 'join'; readonly itemIds: readonly string[]; readonly withinMm: number }
  | { readonly kind: 'put on layer'; readonly itemIds: readonly string[]; readonly layerId: string }
  | SetStep
  /** A paint of this job means a layer. */
  | { readonly kind: 'treat as'; readonly mark: Mark; readonly layerId: string }
  /** Parts too small to be a shape go; items that have others stay. */
  | { readonly kind: 'remove left over'; readonly itemIds: readonly string[] }
  /** Outlines put together; taking away takes the others from the first. */
  | { readonly kind: 'combine'; readonly itemIds: readonly string[]; readonly how: 'unite' | 'subtract' }
  /** A closed outline becomes what of its line lies within another. */
  | { readonly kind: 'trim'; readonly itemId: string; readonly withinId: string }
  /** A sheet alone: what lies on it stays where it is. */
  | { readonly kind: 'move sheet'; readonly sheetId: string; readonly dx: number; readonly dy: number }
  /** Tabs that hold outlines, each by so many. */
  | {
      readonly kind: 'hold';
      readonly outlines: readonly { readonly itemId: string; readonly subpath: number }[];
      readonly count: number;
    }
  /** Items larger, each about its own middle. */
  | { readonly kind: 'enlarge'; readonly items: readonly { readonly itemId: string; readonly factor: number }[] }
  /** Filled outlines thicker by so much on every side. */
  | { readonly kind: 'thicken'; readonly itemIds: readonly string[]; readonly byMm: number }
  | { readonly kind: 'not mirrored'; readonly runId: string }
  /** Items taken out of others under them, and left on a layer that does not burn. */
  | {
      readonly kind: 'knock out';
      readonly itemIds: readonly string[];
      readonly underIds: readonly string[];
      readonly layerId: string;
    }
  /** Bars of stock left across holes. */
  | { readonly kind: 'bridge'; readonly bridged: readonly Bridged[] }
  | { readonly kind: 'park'; readonly itemIds: readonly string[] }
  | { readonly kind: 'bring in'; readonly itemIds: readonly string[] }
  /** Steps in the usual order, and the layers' lines from inside out. */
  | { readonly kind: 'usual order'; readonly layerIds: readonly string[] }
  | { readonly kind: 'order'; readonly layerId: string; readonly order: LineOrder }
  | { readonly kind: 'unite overlaps'; readonly layerId: string }
  /** A scan line of its own through each part that lies between two. */
  | { readonly kind: 'line through thin parts'; readonly layerId: string }
  | { readonly kind: 'turn lines by piece'; readonly layerId: string }
  /** One cut for edges that parts share; `onLine` burns along the lines, so that their cuts lie on each other. */
  | { readonly kind: 'cut once'; readonly layerIds: readonly string[]; readonly onLine: boolean }
  | { readonly kind: 'switch on'; readonly layerId: string; readonly runId: string };

/** A way to put a finding right. */
export interface Mend {
  /** What stands on its button, such as `Move in by 0.10 mm`. */
  readonly words: string;
  /** What undo calls it, such as `move in by 0.10 mm`. */
  readonly name: string;
  /** Whether it leaves what is meant as it is, so that it may be done without a look. */
  readonly isSafe: boolean;
  readonly step: MendStep;
}

/** Does a mend. @returns the same job where there is nothing left to mend */
export function mended(job: JobDocument, { step }: Mend): JobDocument {
  switch (step.kind) {
    case 'move':
      return moveItems(job, new Set(step.itemIds), step.dx, step.dy);
    case 'remove':
      return removeItems(job, new Set(step.itemIds));
    case 'join':
      return joinEnds(job, new Set(step.itemIds), step.withinMm).job;
    case 'put on layer':
      return pinItems(job, new Set(step.itemIds), step.layerId);
    case 'treat as':
      return assignPaint(job, step.mark, step.layerId);
    case 'remove left over':
      return removeLeftOver(job, new Set(step.itemIds));
    case 'set':
      return changeSetting(job, step.preparedId, step.setting, step.value);
    case 'combine':
      return combined(job, step.itemIds, step.how);
    case 'trim':
      return trimmed(job, step.itemId, step.withinId);
    case 'move sheet': {
      const sheet = job.sheets.find(({ id }) => id === step.sheetId);
      return sheet ? setSheet(job, { ...sheet, x: sheet.x + step.dx, y: sheet.y + step.dy }) : job;
    }
    case 'hold': {
      const items = new Map(job.drawing.items.map((item) => [item.id, item]));
      const placed = step.outlines.flatMap(({ itemId, subpath }) => {
        const item = items.get(itemId);
        return item ? [{ itemId, subpath, at: usualTabs(item, subpath, step.count) }] : [];
      });
      return placeTabs(job, placed);
    }
    case 'enlarge':
      return enlargeItems(job, new Map(step.items.map(({ itemId, factor }) => [itemId, factor])));
    case 'thicken':
      return thickenItems(job, new Set(step.itemIds), step.byMm);
    case 'not mirrored':
      return changeRun(job, step.runId, { mirrored: false });
    case 'knock out':
      return knockOut(job, new Set(step.itemIds), new Set(step.underIds), step.layerId);
    case 'bridge':
      return bridgeHoles(job, step.bridged);
    case 'park':
      return parkItems(job, new Set(step.itemIds), true);
    case 'bring in':
      return hideItems(job, new Set(step.itemIds), false);
    case 'usual order':
      return step.layerIds.reduce(
        (now, layerId) => setBurning(now, layerId, { order: 'inside-first' }),
        orderSteps(job, []),
      );
    case 'unite overlaps':
      return setBurning(job, step.layerId, { overlaps: 'unite' });
    case 'line through thin parts':
      return setBurning(job, step.layerId, { thinParts: 'line' });
    case 'turn lines by piece':
      return setBurning(job, step.layerId, { scanTurns: 'sooner' });
    case 'cut once':
      return step.layerIds.reduce(
        (now, layerId) => setBurning(now, layerId, { sharedEdges: 'once', ...(step.onLine ? { keep: 'line' } : {}) }),
        job,
      );
    case 'order':
      return setBurning(job, step.layerId, { order: step.order });
    case 'switch on':
      return switchLayer(job, step.layerId, true, step.runId);
  }
}

/** The items that a mend changes; none where it changes a setting. */
export function mendedItems({ step }: Mend): readonly string[] {
  if (step.kind === 'trim') return [step.itemId];
  if (step.kind === 'knock out') return [...step.itemIds, ...step.underIds];
  if (step.kind === 'bridge') return step.bridged.flatMap(({ holeId, middleIds }) => [holeId, ...middleIds]);
  if (step.kind === 'enlarge') return step.items.map(({ itemId }) => itemId);
  if (step.kind === 'hold') return step.outlines.map(({ itemId }) => itemId);
  return 'itemIds' in step ? step.itemIds : [];
}

/** What several mends together come to. */
export interface MendedAll {
  readonly job: JobDocument;
  /** Those that were done. One that would change what another has changed waits for the next check. */
  readonly done: readonly Mend[];
}

/** Does mends one after the other. */
export function mendedAll(job: JobDocument, mends: readonly Mend[]): MendedAll {
  const touched = new Set<string>();
  const done: Mend[] = [];
  let now = job;
  for (const mend of mends) {
    const ids = mendedItems(mend);
    if (ids.some((id) => touched.has(id))) continue;
    for (const id of ids) touched.add(id);
    now = mended(now, mend);
    done.push(mend);
  }
  return { job: now, done };
}
