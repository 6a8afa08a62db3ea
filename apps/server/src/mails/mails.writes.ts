import { IsNull, LessThan, Not } from 'typeorm';
import type { Writing } from '../data/writing.ts';
import { MailEntity } from './mail.entity.ts';

/*
 * What becomes of mails.
 */

/** A mail was sent: what it said is not kept. */
export async function noteMailSent(writing: Writing, id: number, now: Date): Promise<void> {
  await writing.update(MailEntity, { id }, { sentAt: now, nextTryAt: null, trouble: null, text: '' });
}

/** A mail could not be sent. @param nextTryAt when it is tried again; null where it is given up */
export async function noteMailTrouble(
  writing: Writing,
  id: number,
  trouble: string,
  nextTryAt: Date | null,
): Promise<void> {
  const mail = await writing.findOneBy(MailEntity, { id });
  await writing.update(MailEntity, { id }, { trouble, nextTryAt, tries: (mail?.tries ?? 0) + 1 });
}

/** Has all mails that were not sent tried again. */
export async function tryMailsAgain(writing: Writing, now: Date): Promise<void> {
  await writing.update(MailEntity, { sentAt: IsNull() }, { nextTryAt: now, tries: 0 });
}

/** So long it is told which mails were sent. */
const sentMs = 90 * 86_400_000;

/** Drops what is told of mails that were sent long ago. */
export async function dropMails(writing: Writing, now: Date): Promise<void> {
  const before = new Date(now.getTime() - sentMs);
  await writing.delete(MailEntity, { sentAt: Not(IsNull()), at: LessThan(before) });
}
