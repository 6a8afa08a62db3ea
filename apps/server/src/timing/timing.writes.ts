import type { Unowned } from '../data/owned.ts';
import type { Writing } from '../data/writing.ts';
import { TimingCardEntity } from './timing-card.entity.ts';

/** Keeps a timing card in place of the one before it. */
export async function keepTimingCard(writing: Writing, card: Unowned<TimingCardEntity>): Promise<void> {
  await writing.delete(TimingCardEntity, { machineId: card.machineId });
  await writing.insert(TimingCardEntity, card);
}
