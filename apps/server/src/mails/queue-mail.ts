import type { Writing } from '../data/writing.ts';
import { sendingOf } from '../drop-off/sending-of.ts';
import { SettingEntity } from '../settings/setting.entity.ts';
import { MailEntity } from './mail.entity.ts';
import type { MailWords } from './mail-words.ts';

/*
 * Mails are kept in the transaction of what they tell of: they are sent where it holds, and only there.
 */

/** Writes to the sender of a job, where they left an address and still have their link. */
export async function mailSender(writing: Writing, jobId: string, words: MailWords, now: Date): Promise<void> {
  const sending = await sendingOf(writing, jobId);
  const to = sending?.words?.mail;
  if (sending && to && (await addressOfShop(writing))) await queue(writing, sending.id, to, words, now);
}

/** Writes to the workshop about a job that was sent in. */
export async function mailWorkshop(writing: Writing, jobId: string, words: MailWords, now: Date): Promise<void> {
  const [sending, to] = [await sendingOf(writing, jobId), await addressOfShop(writing)];
  if (sending && to) await queue(writing, sending.id, to, words, now);
}

async function addressOfShop(writing: Writing): Promise<string> {
  return (await writing.findOneBy(SettingEntity, { name: 'mailAddress' }))?.value ?? '';
}

async function queue(writing: Writing, thread: string, to: string, { subject, text }: MailWords, now: Date) {
  // A line of its own in a title would begin another header.
  const line = subject.replace(/\s+/g, ' ');
  const fresh = { sentAt: null, tries: 0, nextTryAt: now, trouble: null };
  await writing.insert(MailEntity, { to, subject: line, text, thread, at: now, ...fresh });
}
