import { createContext, useContext } from 'react';
import type { UseBoundStore } from 'zustand';
import type { BenchActions, BenchState, BenchStore } from './state/bench-state.ts';

export interface Bench {
  /** To be read; what changes it is an action. */
  readonly store: UseBoundStore<Omit<BenchStore, 'setState'>>;
  readonly actions: BenchActions;
}

export const BenchContext = createContext<Bench | null>(null);

function useBenchContext(): Bench {
  const bench = useContext(BenchContext);
  if (!bench) throw new Error('This part belongs on the Bench');
  return bench;
}

/** A piece of the Bench's state, kept up to date. */
export function useBench<T>(select: (state: BenchState) => T): T {
  return useBenchContext().store(select);
}

/** Calls a listener whenever the Bench's state has changed. @returns the end of it */
export function useBenchSubscribe(): (listener: () => void) => () => void {
  return useBenchContext().store.subscribe;
}

export function useBenchActions(): BenchActions {
  return useBenchContext().actions;
}
