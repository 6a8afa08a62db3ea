import { IsNull, Not } from 'typeorm';
import type { Writing } from '../data/writing.ts';
import { SendingEntity } from './sending.entity.ts';

/** The sending of a job whose sender still has its link; null where there is none. */
export function sendingOf(writing: Writing, jobId: string): Promise<SendingEntity | null> {
  return writing.findOne(SendingEntity, {
    select: { id: true, words: true },
    where: { jobId, sentAt: Not(IsNull()), tokenHash: Not(IsNull()) },
  });
}
