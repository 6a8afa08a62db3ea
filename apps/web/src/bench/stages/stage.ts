import type { LucideIcon } from 'lucide-react';
import type { ComponentType } from 'react';
import type { BenchState } from '../state/bench-state.ts';

/** The stages of the work, in its order. */
export const stageNames = ['bed', 'art', 'colours', 'fit', 'recipe', 'check', 'burn'] as const;
export type Stage = (typeof stageNames)[number];

/** How a stage stands: settled, untouched, or so many things that want attention. */
export type Standing = { kind: 'settled' } | { kind: 'untouched' } | { kind: 'wants'; count: number; grave: boolean };

/** A stage of the work: a folder beside this one, and a line in `stages.ts`. */
export interface StageDefinition {
  readonly text: string;
  readonly icon: LucideIcon;
  /** What stands beside the bed while it is open. */
  readonly Drawer: ComponentType;
  readonly standing: (state: BenchState) => Standing;
}

export const settled: Standing = { kind: 'settled' };
export const untouched: Standing = { kind: 'untouched' };

/** So many things want attention; where none does, it stands as said. */
export function wants(count: number, grave: boolean, otherwise: Standing): Standing {
  return count > 0 ? { kind: 'wants', count, grave } : otherwise;
}
