import { type BegunSending, isBeforeBurning } from '@lambent/contracts';
import { Injectable } from '@nestjs/common';
import { notFound, PlainError } from '../common/plain-error.ts';
import { WriteQueue } from '../data/write-queue.ts';
import { EventHub } from '../events/event-hub.ts';
import { JobsService, originalFile } from '../jobs/jobs.service.ts';
import { DropOffService } from './drop-off.service.ts';
import type { SendingEntity } from './sending.entity.ts';

/** New files for what was sent in: a draft under a link of its own, until it is sent; then the workshop takes it, or leaves it out. */
@Injectable()
export class NewFilesService {
  constructor(
    private readonly dropOff: DropOffService,
    private readonly jobs: JobsService,
    private readonly writes: WriteQueue,
    private readonly hub: EventHub,
  ) {}

  /**
   * Begins a new file for what was sent in, made as that is.
   * @param token of what was sent in
   * @throws PlainError 404 where no sending has this link, 409 where it is burnt, or burns; 415 or 422 where the file cannot be read
   */
  async begin(token: string, name: string, bytes: Buffer): Promise<BegunSending> {
    const sending = await this.dropOff.find(token);
    if (!sending.job || sending.job.deletedAt || !isBeforeBurning(sending.job.state))
      throw new PlainError(409, 'no-new-file', 'There is nothing any more that a new file could be made instead of.');
    const file = await this.dropOff.readableFile(name, bytes);
    return this.dropOff.keepDraft({ file, bytes, wish: { ...sending.wish, page: 1 }, personId: null }, sending);
  }

  /** What a draft changes, as SVG. @throws PlainError 404 where no draft of a new file has this link */
  async differencePicture(token: string): Promise<string> {
    return pictureOf(await this.dropOff.find(token));
  }

  /** Sends a new file to the workshop. @param token of its draft @throws as the write `sendNewFile` does */
  async send(token: string): Promise<void> {
    const { id, replacesId, wish } = await this.dropOff.find(token);
    if (replacesId === null) throw notFound('draft of a new file under this link');
    // What it is to replace may have been replaced meanwhile: what it changes is looked at again.
    await this.dropOff.wish(token, wish);
    this.hub.say({ type: 'desk', jobId: await this.writes.do('sendNewFile', id, new Date()) });
  }

  /** What the new file that waits for a job changes, as SVG. @throws PlainError 404 where none waits */
  async differenceForJob(jobId: string): Promise<string> {
    return pictureOf(await this.waiting(jobId));
  }

  /**
   * Takes the new file of a job: it is its next version.
   * @param id of the file that was looked at
   * @throws PlainError 404 where none waits, and as the write `takeNewFile` does
   */
  async take(jobId: string, id: string, taker: string | null): Promise<void> {
    const next = await this.waiting(jobId);
    const { bytes, file, wish } = next;
    if (!bytes) throw notFound('new file of this job');
    const { version: base } = await this.jobs.headOf(jobId);
    const [{ name }] = await this.dropOff.ofJob(jobId);
    const { version, pictures, look, picture } = await this.dropOff.lookAt({ file, bytes, wish }, name);
    for (const kept of pictures) await this.writes.do('keepPicture', kept);
    const looked = { wish, look, picture, difference: null, differencePicture: null };
    const original = originalFile(file, bytes);
    const taken = { jobId, id, base, version, original, looked, by: taker };
    const saved = await this.writes.do('takeNewFile', taken, new Date());
    this.hub.say({ type: 'job', jobId, version: saved.number });
    this.hub.say({ type: 'desk', jobId });
  }

  /** Leaves the new file of a job out. @throws as the write `leaveNewFileOut` does */
  async leaveOut(jobId: string, id: string, author: string | null): Promise<void> {
    await this.writes.do('leaveNewFileOut', jobId, id, author, new Date());
    this.hub.say({ type: 'desk', jobId });
  }

  private async waiting(jobId: string): Promise<SendingEntity> {
    const next = await this.dropOff.newFileOfJob(jobId);
    if (!next) throw notFound('new file of this job that waits');
    return next;
  }
}

function pictureOf({ differencePicture }: SendingEntity): string {
  if (differencePicture === null) throw notFound('new file under this link');
  return differencePicture;
}
