import type { ComponentType } from 'react';

/** Loads the Bench, which is large: when it is opened, or before, for whoever is about to open a job. */
export async function loadBench(): Promise<ComponentType> {
  return (await import('./bench.tsx')).BenchRoute;
}
