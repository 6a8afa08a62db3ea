import type { Sheet } from '@lambent/core/document';
import { forgetSettings, setSheet } from '@lambent/core/edits';
import { type Material, sheetAsStocked } from '@lambent/core/recipes';
import { lowered, t } from '../words/words.ts';
import { newId } from './new-id.ts';
import { saySettingsGone } from './settings-gone.ts';
import type { BenchActions } from './state/bench-state.ts';
import { jobOf, machineOf } from './state/document.ts';

/**
 * Makes a sheet one of another material, where and as large as it lies; lays one when there is none. What was changed
 * by hand was for the other material: it goes, unless the operator keeps it.
 */
export function chooseMaterial(actions: BenchActions, materialId: string, sheetId?: string): void {
  const state = actions.get();
  const material = state.shop.materials.find(({ id }) => id === materialId);
  if (!material) return;
  const { sheets, settings: byHand } = jobOf(state);
  const known = sheets.find(({ id }) => id === sheetId) ?? (sheetId === undefined ? sheets[0] : undefined);
  const name = t('sheet of {{name}}', { name: lowered(material.name) });
  actions.edit(name, (job) => {
    if (!known) return setSheet(job, sheetAsStocked('sheet-1', material, machineOf(state)));
    if (known.materialId === materialId) return job;
    const isLast = sheets.every((sheet) => sheet === known || sheet.materialId !== known.materialId);
    // What was measured, and taken from stock, was another sheet.
    const { thicknessMm: _, stockId, outline, ...plain } = known;
    const drawn = stockId === undefined && outline ? { outline } : {};
    return setSheet(isLast ? forgetSettings(job, known.materialId) : job, { ...plain, ...drawn, materialId });
  });
  saySettingsGone(actions, byHand, t('the other material'));
}

/** The materials to choose from: those that were put away only where they are chosen already. */
export function offeredMaterials(materials: readonly Material[], chosen: string | null | undefined): Material[] {
  return materials.filter(({ id, archived }) => !archived || id === chosen);
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
  actions.edit(t('lay a sheet of {{name}}', { name: lowered(material.name) }), (job) => setSheet(job, sheet));
}

/** What a sheet is called: its material, and which of several of it. */
export function sheetName(sheets: readonly Sheet[], sheet: Sheet, materials: readonly Material[]): string {
  const name = materials.find(({ id }) => id === sheet.materialId)?.name ?? t('Sheet');
  const alike = sheets.filter(({ materialId }) => materialId === sheet.materialId);
  return alike.length > 1 ? `${name} ${alike.indexOf(sheet) + 1}` : name;
}
