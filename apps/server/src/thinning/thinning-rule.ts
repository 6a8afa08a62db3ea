/** So long a deleted job can be taken back, in days. */
export const deletedDays = 30;

/** What the rule looks at of a version. */
export interface Dated {
  readonly number: number;
  readonly savedAt: Date;
}

const hourMs = 3_600_000;
const dayMs = 24 * hourMs;

/**
 * Which versions of a job go: of those saved within the last day none; of those of the week before that all but the last
 * of each hour; of older ones all but the last of each day. The last version of all stays, and so does what seems to be
 * saved later than now, by a clock that was set back. Hours and days are those of UTC.
 */
export function versionsToThin<V extends Dated>(versions: readonly V[], now: Date): V[] {
  const kept = new Set<string>();
  const inOrder = versions.toSorted((a, b) => b.number - a.number);
  return inOrder.filter(({ savedAt }, place) => {
    const age = now.getTime() - savedAt.getTime();
    const length = age > 8 * dayMs ? dayMs : hourMs;
    const span = `${length} ${Math.floor(savedAt.getTime() / length)}`;
    const first = !kept.has(span);
    kept.add(span);
    return place > 0 && age > dayMs && !first;
  });
}
