import { type Material, type Sheet, setSheet, sheetAsStocked } from '@lambent/core';
import type { BenchActions } from './store.ts';
import { jobOf, machineOf } from './store.ts';
import { newId } from './tools/draw.ts';

/** Makes a sheet one of another material, where and as large as it lies; lays one when there is none. */
export function chooseMaterial(actions: BenchActions, materialId: string, sheetId?: string): void {
  const state = actions.get();
  const material = state.shop.materials.find(({ id }) => id === materialId);
  if (!material) return;
  actions.edit(`sheet of ${material.name.toLowerCase()}`, (job) => {
    const known = job.sheets.find(({ id }) => id === sheetId) ?? (sheetId === undefined ? job.sheets[0] : undefined);
    if (!known) return setSheet(job, sheetAsStocked('sheet-1', material, machineOf(state)));
    // What was measured was another sheet.
    const { thicknessMm: _, ...plain } = known;
    return setSheet(job, known.materialId === materialId ? known : { ...plain, materialId });
  });
}

/** Lays another sheet of a material beside those there are, as far as the bed has room. */
export function addSheet(actions: BenchActions, materialId: string): void {
  const state = actions.get();
  const machine = machineOf(state);
  const material = state.shop.materials.find(({ id }) => id === materialId);
  if (!material) return;
  const { sheets } = jobOf(state);
  const fresh = sheetAsStocked(newId(), material, machine);
  const right = Math.max(0, ...sheets.map(({ x, width }) => x + width + 5));
  const x = sheets.length === 0 ? fresh.x : Math.min(right, machine.bedWidth - 40);
  const sheet: Sheet = { ...fresh, x, width: Math.min(fresh.width, machine.bedWidth - x) };
  actions.edit(`lay a sheet of ${material.name.toLowerCase()}`, (job) => setSheet(job, sheet));
}

/** What a sheet is called: its material, and which of several of it. */
export function sheetName(sheets: readonly Sheet[], sheet: Sheet, materials: readonly Material[]): string {
  const name = materials.find(({ id }) => id === sheet.materialId)?.name ?? 'Sheet';
  const alike = sheets.filter(({ materialId }) => materialId === sheet.materialId);
  return alike.length > 1 ? `${name} ${alike.indexOf(sheet) + 1}` : name;
}
