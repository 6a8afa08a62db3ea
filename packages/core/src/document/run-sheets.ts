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
  if (own && landing.kind === 'sheet') return [{ ...own, x: landing.x, y: landing.y }];
  const laidAlone = sheetsLaidAlone(job);
  return laidAlone.size === 0 ? [...job.sheets] : job.sheets.filter(({ id }) => !laidAlone.has(id));
}

/** Whether an item burns in a run, by the sheet that it lies on; null where every item may. */
export function isOnSheetOf(job: Laid, run: Run): ((item: Item) => boolean) | null {
  const laidAlone = sheetsLaidAlone(job);
  if (laidAlone.size === 0) return null;
  const own = ownSheet(job, run);
  return (item) => {
    const sheet = sheetUnder(job.sheets, item);
    return own ? sheet === own : sheet === null || !laidAlone.has(sheet.id);
  };
}

/** The ids of the sheets of the job that are laid for one run or another alone. */
function sheetsLaidAlone({ sheets, runs }: Laid): ReadonlySet<string> {
  return new Set(runs.flatMap((run) => ownSheet({ sheets }, run)?.id ?? []));
}
