import type { MessageAnswer } from '@lambent/contracts';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { WriteQueue } from '../data/write-queue.ts';
import { EventHub } from '../events/event-hub.ts';
import { MessageEntity } from './message.entity.ts';

/** So many messages of a job are told. */
const mostTold = 500;

/** What the workshop and the senders of jobs write to each other. */
@Injectable()
export class MessagesService {
  constructor(
    @InjectRepository(MessageEntity) private readonly messages: Repository<MessageEntity>,
    private readonly writes: WriteQueue,
    private readonly hub: EventHub,
  ) {}

  /** What was written about a job, the first first. */
  async ofJob(jobId: string): Promise<MessageAnswer[]> {
    const rows = await this.messages.find({ where: { jobId }, order: { id: 'DESC' }, take: mostTold });
    return rows
      .reverse()
      .map(({ id, at, from, by, kind, text }) => ({ id, at: at.toISOString(), from, by, kind, text }));
  }

  /** The workshop writes to a job's sender. @throws as the write `writeToSender` does */
  async toSender(jobId: string, text: string, author: string | null): Promise<MessageAnswer[]> {
    await this.writes.do('writeToSender', { jobId, kind: 'text', text, by: author, at: new Date() });
    return this.said(jobId);
  }

  /** A job's sender writes to the workshop. @throws as the write `writeToWorkshop` does */
  async toWorkshop(jobId: string, text: string, author: string | null): Promise<MessageAnswer[]> {
    await this.writes.do('writeToWorkshop', { jobId, kind: 'text', text, by: author, at: new Date() });
    return this.said(jobId);
  }

  /** A job waits for nobody's answer any more. @throws PlainError 404 where there is no such job */
  async endAwaiting(jobId: string): Promise<void> {
    await this.writes.do('endAwaiting', jobId);
    this.hub.say({ type: 'desk', jobId });
  }

  private said(jobId: string): Promise<MessageAnswer[]> {
    this.hub.say({ type: 'desk', jobId });
    return this.ofJob(jobId);
  }
}
