import { type Built, inRows, joinOutlines, putDown, type Sources } from '@lambent/core/builders';
import { drawnPaint } from '@lambent/core/colours';
import type { BuiltThing } from '@lambent/core/document';
import { boxHeight, boxWidth } from '@lambent/core/geometry';
import { useMemo } from 'react';
import { toast } from 'sonner';
import { lowered, t } from '../../../../words/words.ts';
import { showItems } from '../../../bed/showing.ts';
import { useBench } from '../../../context.ts';
import { freeOnSheet, roomOn } from '../../../lay-on-sheet.ts';
import { newId } from '../../../new-id.ts';
import type { BenchActions } from '../../../state/bench-state.ts';
import { jobOf, machineOf } from '../../../state/document.ts';

/** So far apart parts lie, in mm. */
export const gapMm = 4;
/** What rows are as wide as where there is no sheet, in mm. */
const usualRow = 400;

/** Where parts go: free on the sheet where they have room in rows as wide as it is, else from its corner. */
export interface PartsPlace {
  readonly x: number;
  readonly y: number;
  readonly rowMm: number;
  readonly isFree: boolean;
}

/** Where the parts of something new would go. */
export function usePlace(built: Built | null): PartsPlace {
  const job = useBench(jobOf);
  const machine = useBench(machineOf);
  return useMemo(() => {
    const [sheet] = job.sheets;
    if (!built || !sheet) return { x: machine.margin, y: machine.margin, rowMm: usualRow, isFree: true };
    const room = roomOn(sheet, machine);
    const rowMm = boxWidth(room);
    const { bounds } = inRows(built.parts, rowMm, gapMm);
    const free = freeOnSheet(job, machine, boxWidth(bounds), boxHeight(bounds));
    return { x: free?.x ?? room.minX, y: free?.y ?? room.minY, rowMm, isFree: free !== null };
  }, [built, job, machine]);
}

/** Puts the parts of something new down, and selects them. */
export function putParts(
  actions: BenchActions,
  thing: BuiltThing,
  name: string,
  built: Built,
  { isFree, ...place }: PartsPlace,
): void {
  const { key } = actions.get().prepared;
  const looks = { cut: drawnPaint(key, 'cut'), score: drawnPaint(key, 'score') };
  let ids: string[] = [];
  actions.edit(t('build a {{name}}', { name: lowered(name) }), (job) => {
    const added = putDown(job, thing, name, built, { ...place, looks, gapMm }, newId);
    ids = added.ids;
    return added.job;
  });
  if (!isFree)
    toast.message(t('The sheet has no room for all parts: they begin in its corner. Move them, or lay another sheet.'));
  showItems(actions, ids);
}

/** Makes outlines that are there the parts of something new, and selects them. */
export function joinParts(
  actions: BenchActions,
  thing: BuiltThing,
  name: string,
  built: Built,
  sources: Sources,
): void {
  actions.edit(t('make a {{name}}', { name: lowered(name) }), (job) => joinOutlines(job, thing, name, built, sources));
  actions.select(sources.itemIds);
}

/** Gives what was built other numbers; its parts follow. */
export function changeNumbers(actions: BenchActions, thing: BuiltThing, name: string): void {
  actions.edit(t('change a {{name}}', { name: lowered(name) }), (job) => ({
    ...job,
    built: job.built.map((known) => (known.id === thing.id ? thing : known)),
  }));
}
