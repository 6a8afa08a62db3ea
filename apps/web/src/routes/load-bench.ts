import type { ComponentType } from 'react';

/** Loads the Bench, which is large: when it is opened, or before, for whoever is about to open a job. */
export async function loadBench(): Promise<ComponentType> {
  // Fetched together, and begun one after the other: the page answers in between.
  const parts = [import('konva/lib/Core.js'), import('../bench/bed/konva.ts'), import('../bench/bed/bed-view.tsx')];
  const bench = import('./bench.tsx');
  await Promise.all(parts);
  return (await bench).BenchRoute;
}
