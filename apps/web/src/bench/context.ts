import type { Drawing } from '@lambent/core/document';
import { createContext, useContext, useDeferredValue } from 'react';
import { useStore } from 'zustand';
import { useShallow } from 'zustand/react/shallow';
import { t } from '../words/words.ts';
import type { BenchActions, BenchState, BenchStore } from './state/bench-state.ts';
import { jobOf } from './state/document.ts';

/** Figures of more selected items than these take long to gather. */
const manyItems = 500;

export interface Bench {
  /** To be read; what changes it is an action. */
  readonly store: Omit<BenchStore, 'setState'>;
  readonly actions: BenchActions;
}

export const BenchContext = createContext<Bench | null>(null);

function useBenchContext(): Bench {
  const bench = useContext(BenchContext);
  if (!bench) throw new Error(t('This part belongs on the Bench'));
  return bench;
}

/** A piece of the Bench's state, kept up to date. */
export function useBench<T>(select: (state: BenchState) => T): T {
  return useStore(useBenchContext().store, select);
}

/** The same, a moment after what changed is on the screen: for figures that take long to gather. */
export function useBenchLater<T>(select: (state: BenchState) => T): T {
  return useDeferredValue(useBench(select));
}

export interface Selected {
  readonly drawing: Drawing;
  readonly selection: ReadonlySet<string>;
}

/**
 * The drawing and what is selected of it, for fields and figures of the selection. Of very many items they come a moment
 * after what changed is on the screen. So what acts on the selection takes that of the moment, from the actions.
 */
export function useSelected(): Selected {
  const now = useBench(useShallow((state) => ({ drawing: jobOf(state).drawing, selection: state.selection })));
  const before = useDeferredValue(now);
  return now.selection.size > manyItems ? before : now;
}

/** Calls a listener whenever the Bench's state has changed. @returns the end of it */
export function useBenchSubscribe(): (listener: () => void) => () => void {
  return useBenchContext().store.subscribe;
}

/** What changes the Bench's state. @throws Error outside of a Bench */
export function useBenchActions(): BenchActions {
  return useBenchContext().actions;
}
