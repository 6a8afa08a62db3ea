import type { StoreApi } from 'zustand/vanilla';

/**
 * A store whose listeners are told of a change in a task of their own, where `isLarge` says that they have much to do: what
 * made the change, and what follows from it on the screen, are two shorter waits instead of a long one. The state itself
 * is the new one at once.
 */
export function spacedStore<T>(store: StoreApi<T>, isLarge: (state: T) => boolean): StoreApi<T> {
  const waiting = new Map<(state: T, before: T) => void, T>();
  const tellAll = () => {
    for (const [listener, before] of waiting) {
      waiting.delete(listener);
      listener(store.getState(), before);
    }
  };
  return {
    ...store,
    subscribe(listener) {
      const unsubscribe = store.subscribe((state, before) => {
        if (!isLarge(state)) return listener(state, before);
        if (waiting.size === 0) setTimeout(tellAll);
        if (!waiting.has(listener)) waiting.set(listener, before);
      });
      return () => {
        unsubscribe();
        waiting.delete(listener);
      };
    },
  };
}
