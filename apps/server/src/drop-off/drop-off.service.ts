import { randomUUID } from 'node:crypto';
import {
  type BegunSending,
  type DropOffAnswer,
  type JobSendingAnswer,
  type MessageAnswer,
  type OfferedMaterial,
  type OwnSending,
  openStates,
  type QuoteAnswer,
  type SendInDto,
  type SendingAnswer,
  type SendingWishDto,
} from '@lambent/contracts';
import { drawingRules } from '@lambent/core/formats';
import { atWork } from '@lambent/core/machine';
import { type Material, sheetMarginMm } from '@lambent/core/recipes';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { IsNull, Not, Repository } from 'typeorm';
import { notFound, PlainError } from '../common/plain-error.ts';
import { config } from '../config.ts';
import { WriteQueue } from '../data/write-queue.ts';
import { DayService } from '../day/day.service.ts';
import { EventHub } from '../events/event-hub.ts';
import { longestName, originalFile } from '../jobs/jobs.service.ts';
import { MessagesService } from '../messages/messages.service.ts';
import { hashOfToken, newToken } from '../people/tokens.ts';
import { QuotesService } from '../quotes/quotes.service.ts';
import { SettingsService } from '../settings/settings.service.ts';
import { ShopService } from '../shop/shop.service.ts';
import { WorkService } from '../work/work.service.ts';
import type { LookedAt } from './look.ts';
import { SendingEntity } from './sending.entity.ts';

/** How a sending is made until its sender says otherwise. */
const usualWish: SendingWishDto = { materialId: '', ownStock: '', copies: 1, widthMm: 0, page: 1, answers: [] };

/** The drop-off: where anybody leaves a drawing, sees what the shop sees in it, and sends it in. */
@Injectable()
export class DropOffService {
  constructor(
    @InjectRepository(SendingEntity) private readonly sendings: Repository<SendingEntity>,
    private readonly shop: ShopService,
    private readonly settings: SettingsService,
    private readonly day: DayService,
    private readonly quoting: QuotesService,
    private readonly writing: MessagesService,
    private readonly work: WorkService,
    private readonly writes: WriteQueue,
    private readonly hub: EventHub,
  ) {}

  /** What anybody may know of the shop. */
  async about(): Promise<DropOffAnswer> {
    const [{ machines, keys, materials }, { shopName, pricing, mailAddress }] = await Promise.all([
      this.shop.everything(),
      this.settings.get(),
    ]);
    const working = keys.length > 0 ? atWork(machines) : [];
    return {
      shopName,
      currency: pricing.currency,
      materials: materials.filter(({ forbidden, archived }) => !forbidden && !archived).map(offeredMaterial),
      rules: working.length > 0 ? drawingRules(keys[0]) : [],
      hairlineMm: keys[0]?.hairlineMm ?? null,
      marginMm: sheetMarginMm,
      writesMails: mailAddress !== '',
      bed:
        working.length === 0
          ? null
          : {
              width: Math.max(...working.map(({ bedWidth }) => bedWidth)),
              height: Math.max(...working.map(({ bedHeight }) => bedHeight)),
            },
    };
  }

  /** A page as large as the largest bed, to draw on. @throws PlainError 409 where the shop has no machine */
  async template(format: 'svg' | 'pdf'): Promise<Uint8Array> {
    const [{ bed, shopName }, { keys }] = await Promise.all([this.about(), this.shop.everything()]);
    if (!bed) throw noMachine();
    return this.work.drawingTemplate({ bed, key: keys[0], title: shopName, format });
  }

  /**
   * Begins a sending with a file.
   * @param personId who is signed in; null for a stranger
   * @throws PlainError 409 where the shop has no machine, 415 or 422 where the file cannot be read
   */
  async begin(name: string, bytes: Buffer, personId: string | null): Promise<BegunSending> {
    const file = (name || 'drawing').slice(0, longestName);
    originalFile(file, bytes);
    const [material] = (await this.about()).materials;
    const wish = { ...usualWish, materialId: material?.id ?? '' };
    const { look, picture } = await this.lookAt(file, bytes, wish, '');
    const token = newToken();
    const begun = {
      id: randomUUID(),
      tokenHash: hashOfToken(token),
      file,
      bytes,
      wish,
      look,
      picture,
      personId,
      startedAt: new Date(),
    };
    await this.writes.do('beginSending', begun);
    return { token, ...(await this.get(token)) };
  }

  /** @throws PlainError 404 where no sending has this link */
  async get(token: string): Promise<SendingAnswer> {
    const sending = await this.find(token);
    return answerOf(sending, await this.readyAt(sending));
  }

  /** What is drawn, as it would burn, as SVG. @throws PlainError 404 where no sending has this link */
  async picture(token: string): Promise<string> {
    return (await this.find(token)).picture;
  }

  /** Makes a sending otherwise. @throws PlainError 404 where no sending has this link, 409 where it was sent in, 422 where it cannot be */
  async wish(token: string, wish: SendingWishDto): Promise<SendingAnswer> {
    const { id, file, bytes } = await this.findDraft(token);
    const { look, picture } = await this.lookAt(file, bytes, wish, '');
    await this.writes.do('wishSending', id, { wish: plain(wish), look, picture });
    return this.get(token);
  }

  /** Sends a sending in: it is a job of the shop from then on. @throws PlainError 404 where no sending has this link, 409 where it was sent in */
  async send(token: string, { name, title, notes = '', wantedBy, mail = '' }: SendInDto): Promise<SendingAnswer> {
    const { id, file, bytes, wish } = await this.findDraft(token);
    const { version, pictures } = await this.lookAt(file, bytes, wish, name);
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
    const { file, wish, words, sentAt, tokenHash } = sending;
    const { name, notes, mail = '' } = words;
    const { copies, ownStock } = wish;
    const said = { at: sentAt.toISOString(), name, notes, mail, copies, ownStock, file };
    return [{ ...said, isOpen: tokenHash !== null }];
  }

  /** What somebody has sent in while they were signed in, the last first. */
  async ownOf(personId: string): Promise<OwnSending[]> {
    const sent = await this.sendings.find({
      select: { id: true, sentAt: true, words: true, job: { id: true, state: true } },
      where: { personId, sentAt: Not(IsNull()) },
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

  private async lookAt(file: string, bytes: Buffer, wish: SendingWishDto, name: string): Promise<LookedAt> {
    const [shop, { pricing }] = await Promise.all([this.shop.everything(), this.settings.get()]);
    if (shop.keys.length === 0 || atWork(shop.machines).length === 0) {
      throw noMachine();
    }
    return this.work.lookAtSending({ bytes, file, wish: plain(wish), shop, pricing, name });
  }

  private async find(token: string): Promise<SendingEntity> {
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

function noMachine(): PlainError {
  return new PlainError(409, 'no-machine', 'This workshop takes no drawings yet: it has no machine.');
}

function offeredMaterial({
  id,
  name,
  thicknessMm,
  tone,
  sheetWidth,
  sheetHeight,
  leastSizes,
}: Material): OfferedMaterial {
  const leastWallMm = leastSizes?.cut?.detailMm ?? 0;
  const leastLetterMm = leastSizes?.engrave?.letterMm ?? 0;
  return { id, name, thicknessMm, tone, sheetWidth, sheetHeight, leastWallMm, leastLetterMm };
}

/** What a sender sees of the quotes of a job. */
function offered(quotes: readonly QuoteAnswer[]): QuoteAnswer[] {
  return quotes.filter(({ state }) => state !== 'withdrawn');
}

/** A wish without its class, as it goes to other threads. */
function plain(wish: SendingWishDto): SendingWishDto {
  return { ...wish, answers: wish.answers.map((answer) => ({ ...answer })) };
}

function answerOf({ file, wish, look, looks, words, sentAt, job }: SendingEntity, readyAt: Date | null): SendingAnswer {
  return {
    file,
    wish,
    look,
    looks,
    sent: words && sentAt && { at: sentAt.toISOString(), mail: '', ...words },
    readyAt: readyAt?.toISOString() ?? null,
    job: job && !job.deletedAt ? { state: job.state, since: job.stateSince.toISOString() } : null,
  };
}
