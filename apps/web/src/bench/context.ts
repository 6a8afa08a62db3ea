import { createContext, useContext } from 'react';
import type { BenchActions, BenchState, BenchStore } from './store.ts';

export interface Bench {
  readonly store: BenchStore;
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

export function useBenchActions(): BenchActions {
  return useBenchContext().actions;
}
