import type { Item } from './item.ts';
import type { JobDocument } from './job.ts';
import type { Run } from './run.ts';
import { type Sheet, sheetUnder } from './sheet.ts';

type Laid = Pick<JobDocument, 'sheets' | 'runs'>;

/** The sheet that is laid for a run alone, where it is drawn; null where the run burns what lies on the bed anyway. */
export function ownSheet({ sheets }: Pick<Laid, 'sheets'>, { landing }: Run): Sheet | null {
  return landing.kind === 'sheet' ? (sheets.find(({ id }) => id === landing.sheetId) ?? null) : null;
}

/** The sheets that lie on the bed in a run, where they lie then: its own one, or all that are laid for no run alone. */
export function sheetsInRun(job: Laid, run: Run): Sheet[] {
  const { landing } = run;
  const own = ownSheet(job, run);
  return own && landing.kind === 'sheet' ? [{ ...own, x: landing.x, y: landing.y }] : sheetsOnBed(job);
}

/** The sheets that lie on the bed as they are drawn: all that are laid for no run alone. */
export function sheetsOnBed(job: Laid): Sheet[] {
  const laidAlone = sheetsLaidAlone(job);
  return laidAlone.size === 0 ? [...job.sheets] : job.sheets.filter(({ id }) => !laidAlone.has(id));
}

/** Whether an item burns in a run, by the sheet that it lies on; null where every item may. */
export function isOnSheetOf(job: Laid, run: Run): ((item: Item) => boolean) | null {
  const own = ownSheet(job, run);
  return own ? (item) => sheetUnder(job.sheets, item) === own : isLaidOnBed(job);
}

/** Whether an item burns where it is drawn, on a sheet that lies on the bed or on none; null where every item does. */
export function isLaidOnBed(job: Laid): ((item: Item) => boolean) | null {
  const laidAlone = sheetsLaidAlone(job);
  if (laidAlone.size === 0) return null;
  return (item) => {
    const sheet = sheetUnder(job.sheets, item);
    return sheet === null || !laidAlone.has(sheet.id);
  };
}

/** The ids of the sheets of the job that are laid for one run or another alone. */
function sheetsLaidAlone({ sheets, runs }: Laid): ReadonlySet<string> {
  return new Set(runs.flatMap((run) => ownSheet({ sheets }, run)?.id ?? []));
}
