/** How a mail stands. One that is given up is not tried again by itself. */
export type MailState = 'waiting' | 'sent' | 'given up';

/** A mail that Lambent wrote, without what it says. */
export interface MailAnswer {
  id: number;
  to: string;
  subject: string;
  /** When it was written, and sent, as ISO 8601 in UTC; null where it was not sent. */
  at: string;
  sentAt: string | null;
  state: MailState;
  /** Why it could not be sent the last time; null where nothing was wrong. */
  trouble: string | null;
}

/** The mails of the shop. */
export interface MailsAnswer {
  /** Where mails are kept as files; null where a mail server takes them. */
  folder: string | null;
  waiting: number;
  givenUp: number;
  /** The last 50, the last first. */
  mails: MailAnswer[];
}
