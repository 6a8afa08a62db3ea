import { join } from 'node:path';
import type { MailAnswer, MailState, MailsAnswer } from '@lambent/contracts';
import { Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { filter, type Subscription } from 'rxjs';
import { IsNull, LessThanOrEqual, Not, Repository } from 'typeorm';
import { config } from '../config.ts';
import { WriteQueue } from '../data/write-queue.ts';
import { EventHub } from '../events/event-hub.ts';
import { SettingsService } from '../settings/settings.service.ts';
import { MailEntity } from './mail.entity.ts';
import { mailServer, type OutgoingMail, outbox, type Post } from './post.ts';

/** So often it is looked for what is to be tried again. */
const everyMs = 60_000;
/** A mail is given up after so many tries: about two days. */
const mostTries = 14;
const longestWaitMs = 6 * 3_600_000;
const told = 50;

/** Sends the mails that were written, one after the other, as soon as there is one. */
@Injectable()
export class MailsService implements OnApplicationBootstrap, OnApplicationShutdown {
  private readonly log = new Logger('Mails');
  /** Where mails are kept as files; null where a mail server takes them. */
  private readonly folder: string | null;
  private readonly post: Post;
  private timer: NodeJS.Timeout | null = null;
  private heard: Subscription | null = null;
  private sending: Promise<void> | null = null;
  /** Whether something was written while others were sent. */
  private isMore = false;

  constructor(
    @InjectRepository(MailEntity) private readonly mails: Repository<MailEntity>,
    private readonly settings: SettingsService,
    private readonly writes: WriteQueue,
    private readonly hub: EventHub,
  ) {
    const { smtp, dataFolder } = config;
    const folder = join(dataFolder, 'outbox');
    this.folder = smtp === null ? folder : null;
    this.post = smtp === null ? outbox(folder) : mailServer(smtp);
  }

  onApplicationBootstrap(): void {
    // What is written tells of jobs and runs.
    const changes = this.hub.heard().pipe(filter(({ type }) => type === 'desk' || type === 'run'));
    this.heard = changes.subscribe(() => this.wake());
    this.timer = setInterval(() => this.wake(), everyMs);
    this.timer.unref();
    this.wake();
  }

  async onApplicationShutdown(): Promise<void> {
    this.heard?.unsubscribe();
    if (this.timer) clearInterval(this.timer);
    await this.sending;
  }

  /** What was written lately, and how it stands. */
  async told(): Promise<MailsAnswer> {
    const [mails, waiting, givenUp] = await Promise.all([
      this.mails.find({ order: { id: 'DESC' }, take: told }),
      this.mails.countBy({ nextTryAt: Not(IsNull()) }),
      this.mails.countBy({ nextTryAt: IsNull(), sentAt: IsNull() }),
    ]);
    return { folder: this.folder, waiting, givenUp, mails: mails.map(answerOf) };
  }

  /** Tries again what was not sent. */
  async tryAgain(): Promise<MailsAnswer> {
    await this.writes.do('tryMailsAgain', new Date());
    await this.wake();
    return this.told();
  }

  /** Sends what is due. @returns once that was tried */
  private wake(): Promise<void> {
    this.isMore = true;
    this.sending ??= this.sendDue();
    return this.sending;
  }

  private async sendDue(): Promise<void> {
    try {
      while (this.isMore) {
        this.isMore = false;
        const due = await this.mails.find({
          where: { nextTryAt: LessThanOrEqual(new Date()) },
          order: { id: 'ASC' },
          take: 100,
        });
        const { shopName: name, mailAddress: address } = await this.settings.get();
        for (const mail of due) this.isMore = (await this.send(mail, { name, address })) || this.isMore;
      }
    } catch (error) {
      this.log.error(error);
    } finally {
      // At once with the last look for more: what is written from now on wakes it again.
      this.sending = null;
    }
  }

  /** @returns whether it was sent */
  private async send(mail: MailEntity, from: OutgoingMail['from']): Promise<boolean> {
    const { id, thread, to, subject, text, at, tries } = mail;
    try {
      if (from.address === '') throw new Error('The shop has no mail address to send it from.');
      await this.post({ id, thread, to, subject, text, at, from });
    } catch (error) {
      const { message, responseCode = 0 } = error as Error & { responseCode?: number };
      const isOver = responseCode >= 500 || tries + 1 >= mostTries;
      const wait = Math.min(2 ** tries * 60_000, longestWaitMs);
      await this.writes.do('noteMailTrouble', id, message, isOver ? null : new Date(Date.now() + wait));
      this.log.warn(`A mail could not be sent: ${message}`);
      return false;
    }
    await this.writes.do('noteMailSent', id, new Date());
    return true;
  }
}

function answerOf({ id, to, subject, at, sentAt, nextTryAt, trouble }: MailEntity): MailAnswer {
  const state: MailState = sentAt ? 'sent' : nextTryAt ? 'waiting' : 'given up';
  return { id, to, subject, at: at.toISOString(), sentAt: sentAt?.toISOString() ?? null, state, trouble };
}
