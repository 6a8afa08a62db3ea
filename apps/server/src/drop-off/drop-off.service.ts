import { randomUUID } from 'node:crypto';
import {
  type BegunSending,
  type JobSendingAnswer,
  type MessageAnswer,
  type NewFileAnswer,
  type OwnSending,
  openStates,
  type QuoteAnswer,
  type SendInDto,
  type SendingAnswer,
  type SendingWishDto,
} from '@lambent/contracts';
import { atWork } from '@lambent/core/machine';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { IsNull, Not, Repository } from 'typeorm';
import { notFound, PlainError } from '../common/plain-error.ts';
import { config } from '../config.ts';
import { WriteQueue } from '../data/write-queue.ts';
import { DayService } from '../day/day.service.ts';
import { EventHub } from '../events/event-hub.ts';
import { OriginalEntity } from '../jobs/job.entities.ts';
import { longestName, originalFile } from '../jobs/jobs.service.ts';
import { MessagesService } from '../messages/messages.service.ts';
import { hashOfToken, newToken } from '../people/tokens.ts';
import { QuotesService } from '../quotes/quotes.service.ts';
import { SettingsService } from '../settings/settings.service.ts';
import { ShopService } from '../shop/shop.service.ts';
import { WorkService } from '../work/work.service.ts';
import type { Looked } from './drop-off.writes.ts';
import type { LookedAt } from './look.ts';
import { noMachine, OfferService } from './offer.service.ts';
import { SendingEntity } from './sending.entity.ts';

/** A file that was left, and how it is to be made. */
type LeftFile = Pick<SendingEntity, 'file' | 'wish'> & { readonly bytes: Buffer };

/** How a sending is made until its sender says otherwise. */
const usualWish: SendingWishDto = { materialId: '', ownStock: '', copies: 1, widthMm: 0, page: 1, answers: [] };

/** The drop-off: where anybody leaves a drawing, sees what the shop sees in it, and sends it in. */
@Injectable()
export class DropOffService {
  constructor(
    @InjectRepository(SendingEntity) private readonly sendings: Repository<SendingEntity>,
    @InjectRepository(OriginalEntity) private readonly originals: Repository<OriginalEntity>,
    private readonly offer: OfferService,
    private readonly shop: ShopService,
    private readonly settings: SettingsService,
    private readonly day: DayService,
    private readonly quoting: QuotesService,
    private readonly writing: MessagesService,
    private readonly work: WorkService,
    private readonly writes: WriteQueue,
    private readonly hub: EventHub,
  ) {}

  /**
   * Begins a sending with a file.
   * @param personId who is signed in; null for a stranger
   *
   * @throws PlainError 409 where the shop has no machine. 413 where it is too large. 415 or 422 where the file cannot be read
   */
  async begin(name: string, bytes: Buffer, personId: string | null): Promise<BegunSending> {
    const file = await this.readableFile(name, bytes);
    const [material] = (await this.offer.about()).materials;
    const wish = { ...usualWish, materialId: material?.id ?? '' };
    return this.keepDraft({ file, bytes, wish, personId });
  }

  /** @throws PlainError 404 where no sending has this link */
  async get(token: string): Promise<SendingAnswer> {
    const sending = await this.find(token);
    return answerOf(sending, await this.readyAt(sending), await this.newFileFor(sending));
  }

  /** What is drawn, as it would burn, as SVG. @throws PlainError 404 where no sending has this link */
  async picture(token: string): Promise<string> {
    return (await this.find(token)).picture;
  }

  /** Makes a sending otherwise. @throws PlainError 404 where no sending has this link, 409 where it was sent in, 422 where it cannot be */
  async wish(token: string, wish: SendingWishDto): Promise<SendingAnswer> {
    const { id, file, bytes, replacesId } = await this.findDraft(token);
    const replaced = replacesId === null ? null : await this.sendings.findOneByOrFail({ id: replacesId });
    await this.writes.do('wishSending', id, await this.looked({ file, bytes, wish }, replaced));
    return this.get(token);
  }

  /** Sends a sending in: it is a job of the shop from then on. @throws PlainError 404 where no sending has this link, 409 where it was sent in */
  async send(token: string, { name, title, notes = '', wantedBy, mail = '' }: SendInDto): Promise<SendingAnswer> {
    const { id, file, bytes, wish, replacesId } = await this.findDraft(token);
    if (replacesId !== null)
      throw new PlainError(409, 'new-file', 'This is a new file for what was sent in. Send it as that.');
    const { version, pictures } = await this.lookAt({ file, bytes, wish }, name);
    for (const picture of pictures) await this.writes.do('keepPicture', picture);
    const jobId = randomUUID();
    const words = { name, title, notes, wantedBy: wantedBy || null, mail };
    const link = `${config.address}/drop-off/${token}`;
    const original = originalFile(file, bytes);
    await this.writes.do('sendIn', id, { jobId, version, original, words, link }, new Date());
    this.hub.say({ type: 'desk', jobId });
    return this.get(token);
  }

  /** What the workshop offers to make what was sent for, the last first; what it withdrew is left out. @throws PlainError 404 where no sending has this link */
  async quotes(token: string): Promise<QuoteAnswer[]> {
    const { jobId } = await this.find(token);
    return jobId === null ? [] : offered(await this.quoting.ofJob(jobId));
  }

  /** A quote on paper. @throws PlainError 404 where no sending has this link, or it was not offered */
  async quotePdf(token: string, number: number): Promise<Uint8Array> {
    const { jobId } = await this.find(token);
    const isOffered = jobId !== null && (await this.quotes(token)).some((quote) => quote.number === number);
    if (!isOffered) throw notFound('quote of this sending');
    return this.quoting.pdf(jobId, number);
  }

  /** Says yes to a quote. @throws PlainError 404 where no sending has this link, or no such quote; 409 where it cannot be accepted any more */
  async accept(token: string, number: number): Promise<QuoteAnswer[]> {
    const { jobId, words } = await this.find(token);
    if (jobId === null) throw notFound('quote of this sending');
    return offered(await this.quoting.accept(jobId, number, words?.name ?? null));
  }

  /** What the workshop and the sender wrote to each other, the first first. @throws PlainError 404 where no sending has this link */
  async messages(token: string): Promise<MessageAnswer[]> {
    const { jobId } = await this.find(token);
    return jobId === null ? [] : this.writing.ofJob(jobId);
  }

  /** Writes to the workshop. @throws PlainError 404 where no sending has this link, or it was not sent in; 409 where many messages wait for an answer */
  async write(token: string, text: string): Promise<MessageAnswer[]> {
    const { jobId, words } = await this.find(token);
    if (jobId === null) throw notFound('sending under this link that was sent in');
    return this.writing.toWorkshop(jobId, text, words?.name ?? null);
  }

  /** Withdraws a sending: its link leads nowhere any more. @throws PlainError 404 where no sending has this link */
  async withdraw(token: string): Promise<void> {
    const { id } = await this.find(token);
    const jobId = await this.writes.do('withdrawSending', id, new Date());
    if (jobId !== null) this.hub.say({ type: 'desk', jobId });
  }

  /** What a job's sender asked for; empty where it was not sent in here. */
  async ofJob(jobId: string): Promise<JobSendingAnswer[]> {
    const sending = await this.sendings.findOneBy({ jobId, sentAt: Not(IsNull()) });
    if (!sending?.words || !sending.sentAt) return [];
    const { file, wish, words, sentAt, tokenHash, look } = sending;
    const { name, notes, mail = '' } = words;
    const { copies, ownStock } = wish;
    const said = { at: sentAt.toISOString(), name, notes, mail, copies, ownStock, file, look, wish };
    const next = await this.newFileFor(sending);
    return [{ ...said, isOpen: tokenHash !== null, newFile: next && newFileAnswer(next) }];
  }

  /** What somebody has sent in while they were signed in, the last first. */
  async ownOf(personId: string): Promise<OwnSending[]> {
    const sent = await this.sendings.find({
      select: { id: true, sentAt: true, words: true, job: { id: true, state: true } },
      where: { personId, sentAt: Not(IsNull()), replacesId: IsNull() },
      relations: { job: true },
      order: { sentAt: 'DESC' },
      take: 200,
    });
    return sent.map(({ id, words, sentAt, job }) => ({
      id,
      title: words?.title ?? '',
      at: sentAt?.toISOString() ?? '',
      state: job?.state ?? null,
    }));
  }

  /** When what was sent could be burnt: as it stands on the day of its machine, else where it fits in there first. */
  private async readyAt({ look, job }: SendingEntity): Promise<Date | null> {
    if (job && (job.deletedAt || !openStates.includes(job.state))) return null;
    const given = job && (await this.day.ends()).get(job.id);
    if (given) return given;
    return look.seconds === null ? null : this.day.earliestEnd(look.machineId, look.seconds);
  }

  /**
   * Begins a sending with a file.
   * @param replaces what it is to replace, sent in; left out where that is nothing.
   */
  async keepDraft(
    { personId, ...left }: LeftFile & Pick<SendingEntity, 'personId'>,
    replaces: SendingEntity | null = null,
  ): Promise<BegunSending> {
    const token = newToken();
    const looked = await this.looked(left, replaces);
    const { file, bytes } = left;
    const kept = { id: randomUUID(), tokenHash: hashOfToken(token), file, bytes, personId, startedAt: new Date() };
    await this.writes.do('beginSending', { ...kept, ...looked, replacesId: replaces?.id ?? null });
    return { token, ...(await this.get(token)) };
  }

  /** What a file is called, once it can be looked at. @throws PlainError 413 where it is too large, 415 where no drawing can be in it */
  async readableFile(name: string, bytes: Buffer): Promise<string> {
    await this.offer.expectSmall(bytes);
    const file = (name || 'drawing').slice(0, longestName);
    originalFile(file, bytes);
    return file;
  }

  /** The new file that waits for the workshop in the place of what was sent in; null where there is none. */
  newFileFor({ id }: SendingEntity): Promise<SendingEntity | null> {
    return this.sendings.findOneBy({ replacesId: id, sentAt: Not(IsNull()) });
  }

  /** The new file that waits for a job; null where there is none. */
  newFileOfJob(jobId: string): Promise<SendingEntity | null> {
    return this.sendings.findOneBy({ replaces: { jobId, tokenHash: Not(IsNull()) }, sentAt: Not(IsNull()) });
  }

  /** What a file comes to, as it is kept. */
  private async looked(left: LeftFile, replaced: SendingEntity | null): Promise<Looked> {
    const before = replaced && { file: replaced.file, wish: replaced.wish, bytes: await this.originalOf(replaced) };
    const { look, picture, difference, differencePicture } = await this.lookAt(left, '', before ?? undefined);
    return { wish: plain(left.wish), look, picture, difference, differencePicture };
  }

  /** The file of what was sent in, byte for byte. */
  private async originalOf({ jobId, originalId }: SendingEntity): Promise<Buffer> {
    const original =
      jobId !== null &&
      (await this.originals.findOne({
        where: { jobId, ...(originalId === null ? {} : { id: originalId }) },
        order: { id: 'ASC' },
      }));
    if (!original) throw notFound('file of this sending any more');
    return original.bytes;
  }

  /** What a file comes to, as a job of who sends it. @throws PlainError 409 where the shop has no machine or no key */
  async lookAt({ file, bytes, wish }: LeftFile, name: string, before?: LeftFile): Promise<LookedAt> {
    const [shop, { pricing }] = await Promise.all([this.shop.everything(), this.settings.get()]);
    if (shop.keys.length === 0 || atWork(shop.machines).length === 0) throw noMachine();
    return this.work.lookAtSending({ bytes, file, wish: plain(wish), shop, pricing, name, before });
  }

  /** What has a link. @throws PlainError 404 where nothing has */
  async find(token: string): Promise<SendingEntity> {
    const sending = await this.sendings.findOne({
      where: { tokenHash: hashOfToken(token) },
      relations: { job: true },
    });
    if (!sending)
      throw notFound('sending under this link; it may have been withdrawn, or was not sent in within a day');
    return sending;
  }

  private async findDraft(token: string): Promise<SendingEntity & { bytes: Buffer }> {
    const { bytes, ...sending } = await this.find(token);
    if (bytes) return { ...sending, bytes };
    throw new PlainError(409, 'sent-in', 'This was sent in already. What else there is, tell the workshop.');
  }
}

/** What a sender sees of the quotes of a job. */
function offered(quotes: readonly QuoteAnswer[]): QuoteAnswer[] {
  return quotes.filter(({ state }) => state !== 'withdrawn');
}

/** A wish without its class, as it goes to other threads. */
function plain(wish: SendingWishDto): SendingWishDto {
  return { ...wish, answers: wish.answers.map((answer) => ({ ...answer })) };
}

function newFileAnswer({ id, file, sentAt, difference, look, wish }: SendingEntity): NewFileAnswer {
  const none = { same: 0, otherwise: 0, gone: 0, added: 0 };
  return { id, file, at: sentAt?.toISOString() ?? '', difference: difference ?? none, look, wish };
}

function answerOf(sending: SendingEntity, readyAt: Date | null, next: SendingEntity | null): SendingAnswer {
  const { file, wish, look, looks, words, sentAt, job, difference } = sending;
  return {
    difference,
    newFile: next?.sentAt ? { file: next.file, at: next.sentAt.toISOString() } : null,
    file,
    wish,
    look,
    looks,
    sent: words && sentAt && { at: sentAt.toISOString(), mail: '', ...words },
    readyAt: readyAt?.toISOString() ?? null,
    job: job && !job.deletedAt ? { state: job.state, since: job.stateSince.toISOString() } : null,
  };
}
