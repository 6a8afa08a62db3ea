import { setSheet, sheetAsStocked } from '@lambent/core';
import type { BenchActions } from './store.ts';
import { machineOf } from './store.ts';

/** Makes the first sheet one of another material, where and as large as it lies; lays one when there is none. */
export function chooseMaterial(actions: BenchActions, materialId: string): void {
  const state = actions.get();
  const material = state.shop.materials.find(({ id }) => id === materialId);
  if (!material) return;
  actions.edit(`sheet of ${material.name.toLowerCase()}`, (job) => {
    const [first] = job.sheets;
    return setSheet(job, first ? { ...first, materialId } : sheetAsStocked('sheet-1', material, machineOf(state)));
  });
}
