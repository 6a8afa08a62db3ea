import type { Item } from '../drawing/item.ts';
import type { BurnPlan } from '../plan/plan.ts';
import type { PreparedJob } from '../plan/prepare.ts';

/** A finding that blocks must be mended before the job is sent. */
export type FindingLevel = 'blocks' | 'warns' | 'notes';

export type FindingCode =
  | 'nothing-to-burn'
  | 'off-bed'
  | 'off-sheet'
  | 'into-margin'
  | 'colour-without-meaning'
  | 'open-cut'
  | 'open-engrave'
  | 'line-drawn-twice'
  | 'no-sheet'
  | 'no-recipe'
  | 'beyond-machine'
  | 'forbidden-stock'
  | 'run-up-short'
  | 'layer-off'
  | 'hidden-parts'
  | 'picture-not-burnt';

/** One result of the checks: what, where and why, in a plain sentence. */
export interface Finding {
  readonly code: FindingCode;
  readonly level: FindingLevel;
  readonly message: string;
  readonly itemIds: readonly string[];
  /** The layer concerned, where it is one. */
  readonly layerId: string | null;
}

export type Check = (prepared: PreparedJob, plan: BurnPlan) => Finding[];

export function finding(
  code: FindingCode,
  level: FindingLevel,
  message: string,
  items: readonly Item[] = [],
  layerId: string | null = null,
): Finding {
  return { code, level, message, itemIds: items.map((item) => item.id), layerId };
}

/** One finding on items, where there are any. */
export function ifAny(items: readonly Item[], make: () => Finding): Finding[] {
  return items.length === 0 ? [] : [make()];
}

/** `1 item is`, `3 items are`. */
export function countOf(count: number, one: string, many: string): string {
  return `${count} ${count === 1 ? one : many}`;
}

/** Every item that a layer which burns holds, each once, layers that are off left out. */
export function burntItems({ meaning, layers }: PreparedJob): Item[] {
  const items = new Set<Item>();
  for (const { layer, on } of layers) {
    if (!on || layer.operation === 'guide' || layer.operation === 'note') continue;
    for (const { item } of meaning.placed.get(layer.id) ?? []) items.add(item);
  }
  return [...items];
}
