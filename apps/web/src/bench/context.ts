import { createContext, useContext, useDeferredValue } from 'react';
import { useStore } from 'zustand';
import type { BenchActions, BenchState, BenchStore } from './state/bench-state.ts';

export interface Bench {
  /** To be read; what changes it is an action. */
  readonly store: Omit<BenchStore, 'setState'>;
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
  return useStore(useBenchContext().store, select);
}

/**
 * The same, a moment after what changed is on the screen: for figures that take long to gather of many items. What acts on
 * the selection takes that of the moment, from the actions.
 */
export function useBenchLater<T>(select: (state: BenchState) => T): T {
  return useDeferredValue(useBench(select));
}

/** Calls a listener whenever the Bench's state has changed. @returns the end of it */
export function useBenchSubscribe(): (listener: () => void) => () => void {
  return useBenchContext().store.subscribe;
}

/** What changes the Bench's state. @throws Error outside of a Bench */
export function useBenchActions(): BenchActions {
  return useBenchContext().actions;
}
