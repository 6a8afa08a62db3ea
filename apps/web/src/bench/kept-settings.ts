import { useCallback, useMemo } from 'react';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';

type Kept = Readonly<Record<string, unknown>>;

/** What the parts of drawers were set to last, in this browser, by their names. */
const useStore = create<{ readonly parts: Readonly<Record<string, Kept>> }>()(
  persist(() => ({ parts: {} }), { name: 'part-settings', version: 1 }),
);

/** A part's settings as they were kept, as far as they are of the kind that they usually are. */
function over<T extends object>(usual: T, kept: Kept | undefined): T {
  const same = Object.entries(usual).map(([name, value]) => {
    const was = kept?.[name];
    // Where nothing is usual, nothing is known of its kind.
    if (value === null) return [name, was ?? null];
    const isSame = typeof was === typeof value && was !== null && Array.isArray(was) === Array.isArray(value);
    if (!isSame) return [name, value];
    return [name, isPlain(value) ? over(value, was as Kept) : was];
  });
  return Object.fromEntries(same) as T;
}

function isPlain(value: unknown): value is object {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** What a part was set to last. @param usual what it is set to at first */
export function keptSettings<T extends object>(part: string, usual: T): T {
  return over(usual, useStore.getState().parts[part]);
}

/** Keeps what a part is set to, for the next time and other jobs. */
export function keepSettings(part: string, settings: object): void {
  useStore.setState(({ parts }) => ({ parts: { ...parts, [part]: { ...parts[part], ...settings } } }));
}

/**
 * What a part is set to, beginning with what it was set to last, and a change of it.
 * @param usual what it is set to at first; the same object each time
 */
export function useKeptSettings<T extends object>(part: string, usual: T): [T, (change: Partial<T>) => void] {
  const kept = useStore(({ parts }) => parts[part]);
  const settings = useMemo(() => over(usual, kept), [usual, kept]);
  return [settings, useCallback((change) => keepSettings(part, change), [part])];
}
