import { settle } from '../settings/settings.writes.ts';
import type { Writing } from './writing.ts';

/** Writes as much as it takes to know that writing is possible. */
export async function probe(writing: Writing, now: Date): Promise<void> {
  await settle(writing, [{ name: 'last probe of the disk', value: now.toISOString() }]);
}
